import type { Route } from 'next';
import Link from 'next/link';
import { orGone } from '@/app/found';
import { pageActor } from '@/app/session';
import { clockTime, shortDate } from '@/core/dates/date-text';
import { dateInZone } from '@/core/dates/zone';
import { jsonMinor, money } from '@/core/money/money';
import { moneyText } from '@/core/money/money-text';
import { linkPicture } from '@/core/offer/link-look';
import type { Placement } from '@/core/offer/offer';
import { mayDo } from '@/core/person/rights';
import { buttonPlacing } from '@/flows/offer/button';
import { offerLink, offerSheet } from '@/flows/offer/offers';
import { offerRequests } from '@/flows/offer/requests';
import { businessToday } from '@/flows/payment/payment-list';
import { Amount } from '@/ui/kit/amount';
import { ButtonPlacing } from '@/ui/offer/button-placing';
import { OfferActions } from '@/ui/offer/offer-actions';
import { OfferOrders } from '@/ui/offer/offer-orders';
import { OfferRequests } from '@/ui/offer/offer-requests';
import { OfferSharing } from '@/ui/offer/offer-sharing';
import { PLACEMENT_WORDS } from '@/ui/offer/placement-words';
import { RegisterLink } from '@/ui/register/register-link';
import { Rosette } from '@/ui/rosette';
import { offerAsks, offerState } from './json-offer';

/** An offer's sheet: how it stands, its address, what it brought in, its requests and its orders. */
export async function OfferSheetPage({ id, placement }: { id: string; placement: Placement }) {
  const actor = await pageActor();
  const words = PLACEMENT_WORDS[placement];
  const { placed, orders } = await orGone(id, offerSheet(actor, id), words.path);
  const requests = await offerRequests(actor, id);
  const { business, today } = await businessToday(actor);
  const { deskLocale: locale, zone } = business;
  const state = offerState(placed);
  const mayAsk = mayDo(actor, 'ask');
  const when = (at: Date) => {
    const on = dateInZone(at, zone);
    return on === today ? clockTime(at, zone) : shortDate(on, locale, { weekday: true });
  };
  const link = offerLink(placed);
  const placing = placement === 'button' && placed.placedAt ? await buttonPlacing(actor, placed) : null;
  const sums =
    placed.sums.length > 0 ? placed.sums : [{ currency: business.currency, orders: 0, paidMinor: 0, refundedMinor: 0 }];
  const count = placed.sums.reduce((sum, one) => sum + one.orders, 0);
  return (
    <article className="sheet max-w-[760px] pb-6" aria-label={placed.name}>
      <div className="grid grid-cols-[66px_minmax(0,1fr)] items-center px-[26px] pb-3 pt-4">
        <Rosette state={state} size={48} />
        <div className="min-w-0">
          <h1 className="title-screen break-words">{placed.name}</h1>
          <p>
            <b className="font-semibold">{state}</b>, {offerAsks(placed, locale)}
            {placement === 'page' && placed.visits > 0
              ? `, seen ${placed.visits === 1 ? 'once' : `${placed.visits} times`}, ${count} paid`
              : ''}
          </p>
        </div>
      </div>
      <div className="px-[26px] sm:pl-[92px] sm:pr-[30px]">
        {placed.placedAt ? null : (
          <p className="mb-3 bg-wash px-3.5 py-2.5">
            This is a draft: nobody can pay it yet.{' '}
            {mayAsk ? (
              <Link className="link" href={`/ask/offer/${id}` as Route}>
                Go on with it
              </Link>
            ) : null}
          </p>
        )}
        <div className="flex flex-wrap items-baseline gap-x-7 gap-y-1">
          {sums.map((sum) => (
            <span key={sum.currency} className="font-serif text-[26px]/8 font-medium">
              <Amount minor={sum.paidMinor - sum.refundedMinor} currency={sum.currency} locale={locale} />
              <span className="ml-2 font-sans text-[13.5px] text-soft">
                {sum.orders === 0
                  ? 'received so far'
                  : `from ${sum.orders} payment${sum.orders === 1 ? '' : 's'}${sum.refundedMinor > 0 ? `, ${moneyText(money(BigInt(sum.refundedMinor), sum.currency), locale)} refunded` : ''}`}
              </span>
            </span>
          ))}
          {count > 0 ? <RegisterLink of="offerId" id={id} called={placed.name} /> : null}
        </div>
        <OfferActions
          id={id}
          placement={placement}
          name={placed.name}
          link={link}
          address={placed.address}
          state={placed.state}
          placed={placed.placedAt !== null}
          used={orders.length > 0 || requests.length > 0}
          mayAsk={mayAsk}
          house={business.name}
        />
        {placing ? <ButtonPlacing {...placing} picture={`/b/${placed.publicId}`} /> : null}
        {placed.placedAt && placement !== 'button' ? (
          <OfferSharing
            house={business.name}
            title={placed.offer.title || placed.name}
            link={link}
            picture={placement === 'link' && linkPicture(placed.look) ? `${link}/picture` : null}
          />
        ) : null}
        <OfferRequests
          offerId={id}
          open={placed.placedAt !== null && placed.state === 'open' && placement !== 'button'}
          currency={placed.offer.currency}
          takesAmount={placed.offer.kind === 'open' || placed.offer.kind === 'donation'}
          fields={placed.offer.fields
            .filter(({ kind }) => kind !== 'file')
            .map(({ id: field, label }) => ({ id: field, label }))}
          mayAsk={mayAsk}
          rows={requests.map((one) => ({
            id: one.id,
            toName: one.toName || one.toAddress || 'Nobody named',
            state: one.state,
            failed: one.failed && one.state === 'sent',
            when: when(one.endedAt ?? one.seenAt ?? one.sentAt),
            amount: one.filled.amount ?? '',
            link: `${link}?for=${one.sign}`,
          }))}
        />
        <OfferOrders
          rows={orders.map((order) => ({
            id: order.id,
            paymentId: order.paymentId,
            payer: order.payer,
            reference: order.reference,
            state:
              order.state === 'pending'
                ? 'Pending'
                : order.state === 'refused'
                  ? 'Refused'
                  : order.refundedMinor === 0n
                    ? 'Paid'
                    : order.refundedMinor < order.totalMinor
                      ? 'Part-refunded'
                      : 'Refunded',
            minor: jsonMinor(order.totalMinor),
            currency: order.currency,
            when: when(order.at),
          }))}
          locale={locale}
          answers={
            placed.offer.fields.length > 0 || orders.some(({ answered }) => answered) ? `/ask/answers/${id}` : null
          }
        />
      </div>
    </article>
  );
}
