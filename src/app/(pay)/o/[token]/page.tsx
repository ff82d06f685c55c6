import type { Metadata } from 'next';
import { notFound, redirect } from 'next/navigation';
import { cache } from 'react';
import { money } from '@/core/money/money';
import { moneyText } from '@/core/money/money-text';
import { wordsOf } from '@/core/words/words';
import { orderPage } from '@/flows/checkout/order-page';
import { thingsByOrder } from '@/flows/digital/grants';
import { parcelsByOrder } from '@/flows/parcel/parcel-page';
import { returnsByOrder } from '@/flows/returning/returns';
import { CheckoutFrame } from '@/ui/checkout/checkout-frame';
import { LeadOn } from '@/ui/checkout/lead-on';
import { OrderThanks } from '@/ui/checkout/order-thanks';
import { TellAbove } from '@/ui/checkout/tell-above';
import { GivenPart } from '@/ui/payer/given-part';
import { ParcelsPart } from '@/ui/payer/parcels-part';
import { ReturnPart } from '@/ui/payer/return-part';

type Props = { params: Promise<{ token: string }>; searchParams: Promise<{ framed?: string | string[] }> };

const view = cache(orderPage);

export async function generateMetadata({ params }: Props): Promise<Metadata> {
  const found = await view((await params).token);
  if (!found) return { title: 'Not found' };
  const words = wordsOf(found.printed.locale).offer;
  const title = `${words.orderOf(found.reference)} · ${found.printed.seller.name}`;
  return { title: { absolute: title }, referrer: 'same-origin' };
}

/** The payer's own page of what they ordered. */
export default async function OrderPage({ params, searchParams }: Props) {
  const { token } = await params;
  const framed = (await searchParams).framed === 'yes';
  const order = await view(token);
  if (!order) notFound();
  // Refused: another card can be tried where it was ordered.
  if (order.state === 'refused' && !framed) redirect(order.checkout);
  const { printed } = order;
  const all = wordsOf(printed.locale);
  const words = all.offer;
  if (order.state === 'pending')
    return (
      <CheckoutFrame
        kept={token}
        logo={printed.logoId ? `/o/${token}/logo` : null}
        languages={false}
        view={{ ...printed, description: '', request: null }}
      >
        {/* Asked about again by itself, also without a script. */}
        <meta httpEquiv="refresh" content={`3;url=/o/${token}/back${framed ? '?framed=yes' : ''}`} />
        <p className="px-5 pb-9 text-[16px]/6 sm:px-11" role="status">
          <b className="font-semibold text-ochre">{all.checking}</b> {all.checkingMore}
        </p>
      </CheckoutFrame>
    );
  if (order.state === 'refused')
    return (
      <CheckoutFrame
        kept={token}
        logo={printed.logoId ? `/o/${token}/logo` : null}
        languages={false}
        view={{ ...printed, description: '', request: null }}
      >
        <p className="px-5 pb-4 text-[16px]/6 sm:px-11" role="status">
          {order.refused ? all.refusals[order.refused] : ''}
        </p>
        <p className="px-5 pb-9 font-semibold text-[16px]/6 sm:px-11">{words.closeWindow}</p>
      </CheckoutFrame>
    );
  return (
    <CheckoutFrame
      kept={token}
      logo={printed.logoId ? `/o/${token}/logo` : null}
      languages={false}
      view={{ ...printed, title: words.thankYou, description: '', request: null }}
    >
      {framed ? <TellAbove label={words.close} alone={words.closeWindow} /> : null}
      {order.onTo && !framed ? <LeadOn order={token} to={order.onTo} /> : null}
      <OrderThanks
        order={printed}
        sells={order.sells}
        thanks={order.thanks}
        card={order.card}
        reference={order.reference}
        mailed={order.receipt?.mailed ?? false}
        receipt={order.receipt ? `/o/${token}/receipt` : null}
        onTo={order.onTo}
        statement={order.statement}
        framed={framed}
        parcels={
          <>
            <GivenPart
              things={await thingsByOrder(token, printed.locale)}
              path={`/o/${token}`}
              locale={printed.locale}
            />
            <ParcelsPart {...(await parcelsByOrder(token))} locale={printed.locale} />
            <ReturnPart
              page={await returnsByOrder(token)}
              path={`/o/${token}`}
              locale={printed.locale}
              troubles={all.troubles}
            />
          </>
        }
        {...(order.refundedMinor > 0n
          ? { givenBack: words.givenBack(moneyText(money(order.refundedMinor, printed.currency), printed.locale)) }
          : {})}
      />
    </CheckoutFrame>
  );
}
