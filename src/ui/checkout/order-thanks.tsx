import type { PrintedOrder } from '@/core/offer/order';
import { laterText } from '@/core/words/plan-wording';
import { wordsOf } from '@/core/words/words';
import { OrderSums } from './order-sums';

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
  /** What was given back, in words. */
  givenBack?: string;
}) {
  const words = wordsOf(order.locale);
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
        {givenBack ? <p className="mt-2 border border-ochre px-3 py-2 text-[15px]">{givenBack}</p> : null}
        <p className="mt-4 text-[15px]/[22px] text-soft">
          {[reference ? words.offer.orderOf(reference) : '', mailed ? words.offer.receiptComes(order.payer.email) : '']
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
