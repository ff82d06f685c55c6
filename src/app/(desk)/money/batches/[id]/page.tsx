import type { Metadata, Route } from 'next';
import Link from 'next/link';
import { orNotFound } from '@/app/found';
import { pageActor } from '@/app/session';
import { feesBeyond } from '@/core/business/tariff';
import { isCalendarDate } from '@/core/dates/calendar-date';
import { clockTime, shortDate } from '@/core/dates/date-text';
import { dateInZone } from '@/core/dates/zone';
import { jsonMinor, money } from '@/core/money/money';
import { moneyText } from '@/core/money/money-text';
import type { BatchSum, DayTotal } from '@/core/payment/day-batch';
import { mayDo } from '@/core/person/rights';
import { type BatchLine, type BatchSheet, batchSheet } from '@/flows/day/day-batches';
import { BatchActions } from '@/ui/day-batch/batch-actions';
import { Amount, Figure } from '@/ui/kit/amount';
import { Leader } from '@/ui/kit/leader';
import { Rosette } from '@/ui/rosette';
import { CHANNEL_WORDS } from '../../payments/json-payment';
import { batchRosette, batchState, DIFFERENCE_WORDS } from '../json-batch';

export const metadata: Metadata = { title: 'Daily closing' };

/** What a day comes to in one currency, worked from the sales down to what arrives. */
function Sum({
  sum,
  total,
  locale,
  several,
}: {
  sum: BatchSum;
  total: DayTotal | undefined;
  locale: string;
  several: boolean;
}) {
  const partnersMinor = total?.partnersMinor ?? 0n;
  const ownMinor = total?.ownMinor ?? sum.netMinor;
  const figure = (minor: bigint) => <Figure minor={jsonMinor(minor)} currency={sum.currency} locale={locale} />;
  return (
    <div className="mt-3">
      {several ? <h3 className="text-[12.5px]/5 font-semibold">{sum.currency}</h3> : null}
      {sum.channels.map(({ channel, sales, salesMinor }) => (
        <Leader key={channel} label={`${CHANNEL_WORDS[channel as keyof typeof CHANNEL_WORDS] ?? channel}, ${sales}`}>
          {figure(salesMinor)}
        </Leader>
      ))}
      {sum.channels.length > 1 ? (
        <Leader label={`Payments, ${sum.sales}`} className="border-t border-ink">
          {figure(sum.salesMinor)}
        </Leader>
      ) : null}
      {sum.backs > 0 ? <Leader label={`Refunded, ${sum.backs}`}>{figure(-sum.backMinor)}</Leader> : null}
      {sum.sales + sum.backs > 0 ? <Leader label="Processing fees">{figure(-sum.feesMinor)}</Leader> : null}
      {sum.disputes > 0 ? <Leader label={`Disputed, ${sum.disputes}`}>{figure(-sum.disputedMinor)}</Leader> : null}
      {sum.disputeFeesMinor === 0n ? null : <Leader label="Dispute fees">{figure(-sum.disputeFeesMinor)}</Leader>}
      {partnersMinor === 0n ? null : <Leader label="Partners’ parts">{figure(-partnersMinor)}</Leader>}
      <Leader
        label={ownMinor < 0n ? 'Comes off your next payout' : 'On its way to you'}
        className="rule-total mt-1 py-0.5 text-[17px]/7 font-semibold"
      >
        {figure(ownMinor)}
      </Leader>
    </div>
  );
}

const BACK_WORDS = {
  refund: 'refunded',
  void: 'voided',
  return: 'came back',
  disputed: 'disputed',
  'dispute-won': 'dispute won',
} as const;

function Line({ line, zone, locale }: { line: BatchLine; zone: string; locale: string }) {
  const { payment, back } = line;
  const about = [
    payment.cardScheme ? `${payment.cardScheme} ·${payment.cardLast4}` : '',
    back ? BACK_WORDS[back] : `${CHANNEL_WORDS[payment.channel]} ${payment.subject ?? ''}`,
  ];
  const figure = (minor: bigint) => <Figure minor={jsonMinor(minor)} currency={payment.currency} locale={locale} />;
  return (
    <li>
      <Link
        href={`/money/payments/${payment.id}` as Route}
        className="grid min-h-[34.5px] grid-cols-[40px_minmax(0,1fr)_64px_46px] sm:grid-cols-[46px_minmax(0,1fr)_76px_60px] items-center gap-2 border-b border-rule py-1 hover:bg-[color-mix(in_srgb,var(--rule)_45%,transparent)]"
      >
        <span className="text-soft">{clockTime(line.at, zone)}</span>
        <span className="min-w-0">
          <span className="private block truncate font-serif text-[15.5px] font-medium">{payment.customer}</span>
          <span className="small block truncate text-soft">{about.filter(Boolean).join(' · ')}</span>
        </span>
        <span className="text-right font-serif text-[15.5px] font-medium">{figure(line.amountMinor)}</span>
        <span className="text-right font-serif text-[14px] text-soft">{figure(-line.feeMinor)}</span>
      </Link>
    </li>
  );
}

/** Where fees of the day are not what was agreed, how much that is, and the way to the payments. */
function FeesBeyond({ sheet }: { sheet: BatchSheet }) {
  const { business, batch, lines } = sheet;
  const sales = lines.flatMap(({ back, feeMinor, payment }) => (back ? [] : [{ ...payment, feeMinor }]));
  return feesBeyond(sales).map(({ currency, moreMinor, count }) => (
    <p key={currency} className="mt-3 text-ochre">
      {count === 1 ? 'One card fee is' : `${count} card fees are`} not as agreed:{' '}
      {moneyText(money(moreMinor < 0n ? -moreMinor : moreMinor, currency), business.deskLocale)}{' '}
      {moreMinor < 0n ? 'less' : 'more'}.{' '}
      <Link
        className="link"
        href={`/money/payments?fee=differs&currency=${currency}&from=${batch.day}&to=${batch.day}` as Route}
      >
        See the payments
      </Link>
    </p>
  ));
}

/** What moved, in order of time. */
function Lines({ lines, zone, locale }: { lines: readonly BatchLine[]; zone: string; locale: string }) {
  return (
    <section aria-label="Card payments of the day" className="mt-5">
      <div className="grid grid-cols-[40px_minmax(0,1fr)_64px_46px] sm:grid-cols-[46px_minmax(0,1fr)_76px_60px] gap-2 border-b border-ink pb-1 text-[12.5px]/5 font-semibold">
        <span>At</span>
        <span>Card payments</span>
        <span className="text-right">Amount</span>
        <span className="text-right">Fee</span>
      </div>
      <ul>
        {lines.map((line) => (
          <Line key={`${line.back} ${line.payment.id} ${line.at}`} line={line} zone={zone} locale={locale} />
        ))}
      </ul>
    </section>
  );
}

const BY_HAND_WORDS: Readonly<Record<string, string>> = {
  cash: 'Cash',
  cheque: 'Cheques',
  transfer: 'Bank transfers',
  other: 'Another way',
};

/** What came another way than by card: what to count in the till, the cheques, the transfers; each with its reference. */
function ByHand({ sheet }: { sheet: BatchSheet }) {
  const { business, batch, hand } = sheet;
  const { deskLocale: locale } = business;
  const ways = batch.byHand;
  if (ways.length === 0) return null;
  const several = new Set(ways.map(({ currency }) => currency)).size > 1;
  return (
    <section aria-label="Cash, cheques and transfers" className="mt-5">
      <h2 className="border-b border-ink pb-1 text-[12.5px]/5 font-semibold">Cash, cheques and transfers</h2>
      {ways.map(({ method, currency, count, minor }) => (
        <div key={`${method} ${currency}`} className="pt-1.5">
          <Leader label={`${BY_HAND_WORDS[method] ?? method}, ${count}`} className="document">
            {several ? (
              <Amount minor={jsonMinor(minor)} currency={currency} locale={locale} />
            ) : (
              <Figure minor={jsonMinor(minor)} currency={currency} locale={locale} />
            )}
          </Leader>
          <ul>
            {hand
              .filter((one) => one.method === method && one.payment.currency === currency)
              .map(({ payment, amountMinor }, at) => (
                <li key={at}>
                  <Link
                    href={`/money/payments/${payment.id}` as Route}
                    className="grid grid-cols-[minmax(0,1fr)_auto] gap-3 border-b border-rule py-1 hover:bg-[color-mix(in_srgb,var(--rule)_45%,transparent)]"
                  >
                    <span className="min-w-0 truncate">
                      <span className="private font-serif text-[15px]">{payment.customer}</span>{' '}
                      <span className="small text-soft">
                        {[amountMinor < 0n ? 'refund' : '', `invoice ${payment.subject}`, payment.reference]
                          .filter(Boolean)
                          .join(' · ')}
                      </span>
                    </span>
                    <span className="font-serif text-[15px]">
                      <Figure minor={jsonMinor(amountMinor)} currency={currency} locale={locale} />
                    </span>
                  </Link>
                </li>
              ))}
          </ul>
        </div>
      ))}
    </section>
  );
}

/** Where the two books differ, what that means, and what to do. */
function Differences({ sheet }: { sheet: BatchSheet }) {
  const { batch, about, business } = sheet;
  const figure = (minor: bigint, currency: string) => (
    <Figure minor={jsonMinor(minor)} currency={currency} locale={business.deskLocale} />
  );
  return (
    <section aria-label="Differences" className="mt-5">
      <h2 className="title-section">Where the books differ</h2>
      <ul>
        {batch.differences.map(({ kind, paymentId, currency, words, oursMinor, theirsMinor }) => {
          const payment = about.get(paymentId);
          const { what, todo } = DIFFERENCE_WORDS[kind];
          return (
            <li key={`${kind} ${paymentId}`} className="border-b border-rule py-2">
              <p>
                <b className="font-semibold text-brick">{what}</b>:{' '}
                {payment ? (
                  <Link className="link" href={`/money/payments/${paymentId}` as Route}>
                    <span className="private">{payment.customer}</span>
                  </Link>
                ) : (
                  words || 'a payment'
                )}
                , here {figure(oursMinor, currency)}, there {figure(theirsMinor, currency)} {currency}
              </p>
              <p className="small text-soft">{todo}</p>
              {payment ? null : <p className="small break-all text-soft">The processor’s key: {paymentId}</p>}
            </li>
          );
        })}
      </ul>
      {batch.settledBy ? (
        <p className="mt-2">
          Looked into by {batch.settledBy}
          {batch.settledWords ? `: ${batch.settledWords}` : ''}.
        </p>
      ) : null}
    </section>
  );
}

export default async function BatchPage({ params }: { params: Promise<{ id: string }> }) {
  const actor = await pageActor();
  const { id } = await params;
  const sheet = await orNotFound(id, batchSheet(actor, id), isCalendarDate);
  const { business, batch, lines, totals } = sheet;
  const { deskLocale: locale, zone } = business;
  const state = batchState(batch);
  const own = totals.find(({ currency }) => currency === business.currency) ?? totals[0];
  const differs = batch.differences.length > 0 && !batch.settledBy;
  return (
    <article className="sheet max-w-[600px] pb-6" aria-label={`Closing of ${batch.day}`}>
      <div className="grid grid-cols-[66px_minmax(0,1fr)] items-center px-[26px] pb-3 pt-4">
        <Rosette state={batchRosette(batch)} share={batchRosette(batch) === 'Paid' ? 1 : 0} size={48} />
        <div>
          <h1 className="font-serif text-[30px]/[34px] font-medium">
            {own ? <Amount minor={jsonMinor(own.allMinor)} currency={own.currency} locale={locale} /> : 'Nothing moved'}{' '}
            <span className="text-[17px] text-soft">
              {shortDate(batch.day, locale, { weekday: true, year: true })}
              {own && own.partnersMinor !== 0n ? (
                <>
                  , partners’ <Figure minor={jsonMinor(own.partnersMinor)} currency={own.currency} locale={locale} /> in
                  it
                </>
              ) : null}
            </span>
          </h1>
          <p>
            <b className={`font-semibold ${differs ? 'text-brick' : ''}`}>{state}</b>
            {batch.checkedAt
              ? `: compared with the processor’s book ${shortDate(dateInZone(batch.checkedAt, zone), locale)} at ${clockTime(batch.checkedAt, zone)}`
              : batch.sums.length > 0
                ? ': its cards are closed at midnight, and compared with the processor’s book'
                : ''}
          </p>
        </div>
      </div>
      <div className="px-[26px] sm:pl-[92px] sm:pr-[30px]">
        <div className="document leading-7">
          {batch.sums.map((sum) => (
            <Sum
              key={sum.currency}
              sum={sum}
              total={totals.find(({ currency }) => currency === sum.currency)}
              locale={locale}
              several={batch.sums.length > 1}
            />
          ))}
        </div>
        <ByHand sheet={sheet} />
        {batch.sums.length > 0 && batch.byHand.length > 0 ? (
          <div className="document mt-3">
            {totals.map(({ currency, allMinor, partnersMinor }) => (
              <Leader
                key={currency}
                label={`The whole day${partnersMinor === 0n ? '' : ', partners’ parts in it'}${totals.length > 1 ? `, ${currency}` : ''}`}
                className="rule-total py-0.5 text-[17px]/7 font-semibold"
              >
                <Figure minor={jsonMinor(allMinor)} currency={currency} locale={locale} />
              </Leader>
            ))}
          </div>
        ) : null}
        {batch.differences.length > 0 ? <Differences sheet={sheet} /> : null}
        <div className="mt-4 flex flex-wrap gap-5">
          <a className="link" href={`/files/day-batches/${batch.day}`}>
            The day as CSV
          </a>
          {batch.checkedAt && mayDo(actor, 'ask') ? <BatchActions day={batch.day} differs={differs} /> : null}
        </div>
        <FeesBeyond sheet={sheet} />
        {lines.length === 0 ? null : <Lines lines={lines} zone={zone} locale={locale} />}
      </div>
    </article>
  );
}
