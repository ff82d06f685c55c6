import type { Metadata } from 'next';
import { pageActor } from '@/app/session';
import { clockTime, shortDate } from '@/core/dates/date-text';
import { dateInZone } from '@/core/dates/zone';
import { jsonMinor, money } from '@/core/money/money';
import { moneyText } from '@/core/money/money-text';
import { REFUSAL_BRIEF } from '@/core/payment/outcome';
import { mayDo } from '@/core/person/rights';
import { paymentOverview } from '@/flows/payment/payment-overview';
import { transfersWaiting } from '@/flows/payment/transfer-file';
import { Amount } from '@/ui/kit/amount';
import { Overview, OverviewPart, OverviewRow } from '@/ui/kit/overview';
import { TransfersWaiting } from '@/ui/payment/transfers-waiting';
import { ReceivedPart, WaysPart } from './takings-parts';

export const metadata: Metadata = { title: 'Payments' };

/** Sums by currency in words: `30.00 + 12.00 €`. */
function sumsText(
  refunds: readonly { readonly currency: string; readonly amountMinor: bigint }[],
  locale: string,
): string {
  const sums = new Map<string, bigint>();
  for (const { currency, amountMinor } of refunds) sums.set(currency, (sums.get(currency) ?? 0n) + amountMinor);
  return [...sums].map(([currency, minor]) => moneyText(money(minor, currency), locale)).join(' + ');
}

/** While no payment is chosen: what came in, by which ways, and what is open. */
export default async function NoPaymentOpen() {
  const actor = await pageActor();
  const { business, today, spans, ways, open } = await paymentOverview(actor);
  const { waiting, files } = await transfersWaiting(actor);
  const { deskLocale: locale, zone } = business;
  const sum = (minor: bigint, currency: string) => (
    <Amount minor={jsonMinor(minor)} currency={currency} locale={locale} />
  );
  const when = (at: Date) => {
    const on = dateInZone(at, zone);
    return on === today ? clockTime(at, zone) : shortDate(on, locale, { weekday: true });
  };
  return (
    <Overview label="Payments at a glance">
      <ReceivedPart spans={spans} locale={locale} />
      {waiting.length + files.length > 0 ? (
        <OverviewPart name="Refunds by transfer">
          <TransfersWaiting
            waiting={
              waiting.length === 0
                ? ''
                : `${waiting.length === 1 ? '1 waits' : `${waiting.length} wait`} for the bank: ${sumsText(waiting, locale)}`
            }
            files={files.map(({ id, madeAt }) => ({ id, words: `File of ${when(madeAt)}` }))}
            mayMake={mayDo(actor, 'give-back')}
          />
        </OverviewPart>
      ) : null}
      <WaysPart ways={ways} locale={locale} />
      {open.length > 0 ? (
        <OverviewPart name="Open or refused lately">
          <ul>
            {open.map((payment) => (
              <OverviewRow
                key={payment.id}
                href={`/money/payments/${payment.id}`}
                name={payment.customer}
                about={`${when(payment.startedAt)}, ${payment.state === 'pending' ? 'no answer yet' : payment.reason ? REFUSAL_BRIEF[payment.reason] : 'refused'}`}
                figure={<span className="private">{sum(payment.amountMinor, payment.currency)}</span>}
              />
            ))}
          </ul>
        </OverviewPart>
      ) : null}
    </Overview>
  );
}
