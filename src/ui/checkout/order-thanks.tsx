import type { ReactNode } from 'react';
import { isCalendarDate } from '@/core/dates/calendar-date';
import { longDate } from '@/core/dates/date-text';
import type { PrintedOrder } from '@/core/offer/order';
import { laterText } from '@/core/words/plan-wording';
import { wordsOf } from '@/core/words/words';
import { OrderSums } from './order-sums';

/** To whom the vouchers go, and when. */
function soldText({ gift, locale }: PrintedOrder): string {
  const { voucher } = wordsOf(locale);
  if (!gift?.toEmail) return voucher.soldToYou;
  const on = isCalendarDate(gift.on) ? longDate(gift.on, locale) : voucher.atOnce;
  return voucher.soldTo(gift.toName || gift.toEmail, on);
}

/** Thanks, what was ordered, the receipt, and where the business leads on to. */
export function OrderThanks({
  order,
  thanks,
  card,
  reference,
  mailed,
  receipt,
  onTo,
  givenBack,
  framed = false,
  sells = false,
  statement = '',
  parcels = null,
}: {
  order: PrintedOrder;
  thanks: string;
  card: string;
  reference: string;
  /** Whether the receipt went out by mail. */
  mailed: boolean;
  /** The address of the receipt's PDF. */
  receipt: string | null;
  onTo: string | null;
  /** In a frame: what leads on leaves it. */
  framed?: boolean;
  /** Whether gift vouchers were bought. */
  sells?: boolean;
  /** What the card’s statement will say; empty where no card paid. */
  statement?: string;
  /** What was given back, in words. */
  givenBack?: string;
  /** Where what was ordered is; null where nothing of it is sent. */
  parcels?: ReactNode;
}) {
  const words = wordsOf(order.locale);
  const soldVoucher = sells ? soldText(order) : '';
  return (
    <div className="grid gap-6 px-5 pb-9 sm:px-11 md:grid-cols-[minmax(0,1fr)_minmax(0,1fr)]">
      <div>
        <p className="font-serif text-[18px]/7 font-semibold text-leaf">
          {order.kind === 'donation' ? words.offer.given(order.seller.name) : words.offer.ordered(order.seller.name)}
        </p>
        {thanks ? <p className="mt-2 whitespace-pre-line font-serif text-[17px]/[25px]">{thanks}</p> : null}
        {order.later ? (
          <p className="mt-3 bg-wash px-3.5 py-2.5 text-[15px]/[22px]">{laterText(order.later, order)}</p>
        ) : null}
        {soldVoucher ? <p className="mt-3 bg-wash px-3.5 py-2.5 text-[15px]/[22px]">{soldVoucher}</p> : null}
        {parcels}
        {givenBack ? <p className="mt-2 border border-ochre px-3 py-2 text-[15px]">{givenBack}</p> : null}
        <p className="mt-4 text-[15px]/[22px] text-soft">
          {[
            reference ? words.offer.orderOf(reference) : '',
            mailed ? words.offer.receiptComes(order.payer.email) : '',
            statement ? words.onStatement(statement) : '',
          ]
            .filter(Boolean)
            .join(' · ')}
        </p>
        <p className="mt-4 flex flex-wrap items-center gap-x-6 gap-y-3">
          {onTo ? (
            <a className="btn btn-go btn-tall !w-auto" href={onTo} target={framed ? '_top' : undefined}>
              {words.offer.goOn(new URL(onTo).hostname)}
            </a>
          ) : null}
          {receipt ? (
            <a className="link text-[15px]/[22px]" href={receipt}>
              {words.offer.downloadReceipt}
            </a>
          ) : null}
        </p>
      </div>
      <OrderSums order={order} card={card} />
    </div>
  );
}
