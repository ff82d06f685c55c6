import type { Route } from 'next';
import Link from 'next/link';
import { shortDate } from '@/core/dates/date-text';
import { dateInZone } from '@/core/dates/zone';
import { jsonMinor, money } from '@/core/money/money';
import { moneyText } from '@/core/money/money-text';
import { partLines, spanText } from '@/core/payout/paper';
import { returnWords } from '@/core/payout/return-reasons';
import type { PayoutSheet, Stub } from '@/flows/payout/payout-sheet';
import { Amount, Figure } from '@/ui/kit/amount';
import { Leader } from '@/ui/kit/leader';
import { ReturnedActions } from '@/ui/payout/returned-actions';
import { Rosette } from '@/ui/rosette';
import { PAYOUT_ROSETTES, PAYOUT_WORDS } from '../json-payout';
import { Lines, paymentsHref, Worked } from './worked';

/** What has become of it, in a sentence. */
function Became({ sheet: { payout, business, onStatement } }: { sheet: PayoutSheet }) {
  const { deskLocale: locale, zone } = business;
  const day = (date: Parameters<typeof shortDate>[0]) => shortDate(date, locale, { weekday: true });
  const sent = payout.sentAt
    ? `Sent ${day(dateInZone(payout.sentAt, zone))}`
    : 'The bank has not taken it yet; it is asked again by itself';
  const then =
    payout.state === 'arrived' && payout.settledOn
      ? `, in the account since ${day(payout.settledOn)}`
      : payout.state === 'returned' && payout.settledOn
        ? `, came back ${day(payout.settledOn)}: ${returnWords(payout.reason)}`
        : payout.state === 'given-up'
          ? ', came back, and was paid by hand'
          : payout.sentAt
            ? ', the bank books it on its next day'
            : '';
  return (
    <p>
      {sent}
      {then}
      {onStatement ? (
        <>
          ; the{' '}
          <Link
            className="link"
            href={`/money/bank?account=${onStatement.account}&currency=${onStatement.currency}` as Route}
          >
            statement of {day(onStatement.day)}
          </Link>{' '}
          agrees
        </>
      ) : null}
      .
    </p>
  );
}

/** What is done about one that came back. */
function CameBack({ sheet: { payout, hasAccount, business }, mayPay }: { sheet: PayoutSheet; mayPay: boolean }) {
  if (payout.state !== 'returned') return null;
  const sum = moneyText(money(payout.amountMinor, payout.currency), business.deskLocale);
  return (
    <section className="mt-4 border border-brick px-4 py-3" aria-label="Came back">
      <p className="document">
        <b className="font-semibold">The bank says: {returnWords(payout.reason)}.</b> The {sum} lie with the processor.{' '}
        {hasAccount
          ? 'There is another confirmed account: it can go there now.'
          : payout.partner
            ? 'With a new account that is confirmed it goes out again by itself.'
            : 'Give another account and confirm it: then it goes out again by itself.'}
      </p>
      {mayPay ? (
        <ReturnedActions
          payoutId={payout.id}
          partnerId={payout.partnerId}
          partner={payout.partner}
          sum={sum}
          hasAccount={hasAccount}
        />
      ) : null}
    </section>
  );
}

/** A partner's part of the same day, torn off at the side. */
function TornOff({ stub: { payout, movements, more }, locale }: { stub: Stub; locale: string }) {
  return (
    <section aria-label={`Payout ${payout.number} to ${payout.partner}`} className="px-[26px] py-5">
      <div className="flex items-center gap-2.5">
        <Rosette state={PAYOUT_ROSETTES[payout.state]} share={payout.state === 'arrived' ? 1 : 0} size={32} />
        <div className="min-w-0">
          <h2 className="truncate font-serif text-[19px]/6 font-medium">
            <Link className="private hover:underline" href={`/money/payouts/${payout.id}`}>
              {payout.partner}
            </Link>
          </h2>
          <p className="small text-soft">
            Payout {payout.number},{' '}
            <span className={payout.state === 'returned' ? 'font-semibold text-brick' : ''}>
              {PAYOUT_WORDS[payout.state].toLowerCase()}
            </span>{' '}
            {payout.settledOn ? shortDate(payout.settledOn, locale, { weekday: true }) : ''}
          </p>
        </div>
      </div>
      <div className="mt-2">
        <Lines lines={partLines(movements, locale)} currency={payout.currency} locale={locale} narrow />
        {more > 0 ? <p className="small text-soft">and {more} more</p> : null}
      </div>
      <Leader label="Theirs" className="document rule-total mt-1 py-0.5 text-[17px]/7 font-semibold">
        <Figure minor={jsonMinor(payout.amountMinor)} currency={payout.currency} locale={locale} />
      </Leader>
    </section>
  );
}

/** A payout: what became of it, how it is worked out, and what was torn off for partners. */
export function PayoutView({ sheet, mayPay }: { sheet: PayoutSheet; mayPay: boolean }) {
  const { payout, business, days, stubs, reference } = sheet;
  const { deskLocale: locale } = business;
  const sum = <Amount minor={jsonMinor(payout.amountMinor)} currency={payout.currency} locale={locale} />;
  return (
    <article
      className={`sheet pb-6 ${stubs.length > 0 ? 'xl:grid xl:max-w-[860px] xl:grid-cols-[minmax(0,1fr)_290px]' : 'max-w-[600px]'}`}
      aria-label={`Payout ${payout.number}`}
    >
      <div className="px-[26px] sm:pr-[28px]">
        <div className="grid grid-cols-[60px_minmax(0,1fr)] items-center pb-2 pt-4">
          <Rosette state={PAYOUT_ROSETTES[payout.state]} share={payout.state === 'arrived' ? 1 : 0} size={48} />
          <div>
            <h1 className="font-serif text-[30px]/[34px] font-medium">
              {sum} <span className="text-[19px] text-soft">{PAYOUT_WORDS[payout.state].toLowerCase()}</span>
            </h1>
            <Became sheet={sheet} />
          </div>
        </div>
        <div className="flex flex-wrap items-baseline justify-between gap-x-4 border-b border-ink pb-1">
          <h2 className="title-section">
            Payout {payout.number}
            {payout.partner ? (
              <>
                {' '}
                to <span className="private">{payout.partner}</span>
              </>
            ) : null}
          </h2>
          <p className="small text-soft">
            {spanText(days, locale)}, to <span className="private">{payout.accountHolder}</span> ·
            {payout.accountNumber.slice(-4)}
          </p>
        </div>
        <CameBack sheet={sheet} mayPay={mayPay} />
        <div className="pt-2">
          <Worked sheet={sheet} />
        </div>
        <Leader
          label={payout.state === 'returned' ? 'Still to pay' : 'Paid out'}
          className="document rule-total mt-2 py-0.5 text-[18px]/[29px] font-semibold"
        >
          {sum}
        </Leader>
        {payout.carriedMinor !== 0n ? (
          <p className="small mt-1.5 text-soft">
            Of it <Figure minor={jsonMinor(payout.carriedMinor)} currency={payout.currency} locale={locale} /> stood
            over from an earlier date, on which that was too little to pay out.
          </p>
        ) : null}
        <p className="small mt-1.5 text-soft">On the account’s statement it says {reference}.</p>
        <div className="mt-4 flex flex-wrap gap-x-5 gap-y-1.5 border-t border-rule pt-2.5">
          <a className="link" href={`/files/payouts/${payout.id}?form=pdf`}>
            As PDF
          </a>
          <a className="link" href={`/files/payouts/${payout.id}?form=csv`}>
            As CSV
          </a>
          {payout.partner ? null : (
            <Link className="link" href={paymentsHref(sheet)}>
              See the payments
            </Link>
          )}
        </div>
      </div>
      {stubs.length > 0 ? (
        <div className="divide-y divide-dashed divide-edge border-edge border-t border-dashed max-xl:mt-5 xl:border-l xl:border-t-0">
          {stubs.map((stub) => (
            <TornOff key={stub.payout.id} stub={stub} locale={locale} />
          ))}
        </div>
      ) : null}
    </article>
  );
}
