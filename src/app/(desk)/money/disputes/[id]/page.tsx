import type { Metadata, Route } from 'next';
import Link from 'next/link';
import { orNotFound } from '@/app/found';
import { pageActor } from '@/app/session';
import { daysBetween } from '@/core/dates/calendar-date';
import { clockTime, shortDate } from '@/core/dates/date-text';
import { dateInZone } from '@/core/dates/zone';
import { DISPUTE_ADVICE, DISPUTE_STATE_WORDS, DISPUTE_WORDS, LOST_BY_WORDS } from '@/core/dispute/dispute-words';
import { jsonMinor, money } from '@/core/money/money';
import { moneyText } from '@/core/money/money-text';
import { mayDo } from '@/core/person/rights';
import { type DisputeSheet, disputeSheet } from '@/flows/dispute/dispute-sheet';
import { AnswerForm } from '@/ui/dispute/answer-form';
import { KnownParts } from '@/ui/dispute/known-parts';
import { Amount, Figure } from '@/ui/kit/amount';
import { Leader } from '@/ui/kit/leader';
import { Rosette } from '@/ui/rosette';
import { DISPUTE_ROSETTES } from '../json-dispute';

export const metadata: Metadata = { title: 'Dispute' };

/** How it stands, in a sentence. */
function Stands({ sheet: { dispute, business, now } }: { sheet: DisputeSheet }) {
  const { deskLocale: locale, zone } = business;
  const day = (at: Date) => shortDate(dateInZone(at, zone), locale, { weekday: true });
  if (dispute.state === 'open') {
    const left = daysBetween(dateInZone(now, zone), dateInZone(dispute.answerBy, zone));
    if (now >= dispute.answerBy)
      return <p>The last day was {day(dispute.answerBy)}: the bank’s decision comes next.</p>;
    return (
      <p>
        <b className="font-semibold text-brick">
          Answer by {day(dispute.answerBy)}, {clockTime(dispute.answerBy, zone)}
        </b>
        : {left === 0 ? 'that is today' : left === 1 ? 'one day left' : `${left} days left`}. Without an answer it is
        lost.
      </p>
    );
  }
  if (dispute.state === 'sending') return <p>The answer is on its way; the processor is asked again by itself.</p>;
  if (dispute.state === 'sent')
    return (
      <p>
        Answered by {dispute.answeredBy}
        {dispute.sentAt ? `, ${day(dispute.sentAt)}` : ''}. The bank decides within some weeks.
      </p>
    );
  const on = dispute.settledAt ? day(dispute.settledAt) : '';
  return dispute.state === 'won' ? (
    <p>Won {on}: the sum comes back with the next payout.</p>
  ) : (
    <p>
      Lost {on}: {dispute.lostBy ? LOST_BY_WORDS[dispute.lostBy] : ''}.
    </p>
  );
}

/** What it took, what came back, and what it costs the business. */
function Sums({ sheet: { dispute, business } }: { sheet: DisputeSheet }) {
  const { state } = dispute;
  const figure = (minor: bigint) => (
    <Figure minor={jsonMinor(minor)} currency={dispute.currency} locale={business.deskLocale} />
  );
  const partners = dispute.partners.reduce((sum, { minor }) => sum + BigInt(minor), 0n);
  const isWon = state === 'won';
  const costs = isWon ? dispute.feeMinor - dispute.feeBackMinor : dispute.amountMinor + dispute.feeMinor - partners;
  return (
    <div className="document max-w-[460px] leading-7">
      <Leader label="Taken by the holder’s bank">{figure(-dispute.amountMinor)}</Leader>
      {isWon ? <Leader label="Given back to you">{figure(dispute.amountMinor)}</Leader> : null}
      <Leader label="Fee for the dispute">{figure(-dispute.feeMinor)}</Leader>
      {dispute.feeBackMinor > 0n ? <Leader label="Fee given back">{figure(dispute.feeBackMinor)}</Leader> : null}
      {partners > 0n && !isWon ? <Leader label="Borne by partners">{figure(partners)}</Leader> : null}
      <Leader
        label={state === 'lost' || isWon ? 'It cost you' : 'It costs you, if it is lost'}
        className="rule-total mt-1 py-0.5 text-[17px]/7 font-semibold"
      >
        {figure(costs)}
      </Leader>
    </div>
  );
}

export default async function DisputePage({ params }: { params: Promise<{ id: string }> }) {
  const actor = await pageActor();
  const { id } = await params;
  const sheet = await orNotFound(id, disputeSheet(actor, id));
  const { dispute, business, parts, plan } = sheet;
  const { deskLocale: locale, zone } = business;
  const sum = moneyText(money(dispute.amountMinor, dispute.currency), locale);
  const mayAnswer = sheet.mayAnswer && mayDo(actor, 'ask');
  const shown = parts.map(({ key, rows, texts, papers }) => ({ key, rows, texts, papers }));
  return (
    <article className="sheet max-w-[680px] pb-7" aria-label={`Dispute by ${dispute.customer}`}>
      <Link href="/money/disputes" className="link link-small mx-[26px] mt-3 inline-block md:hidden">
        All disputes
      </Link>
      <div className="grid grid-cols-[66px_minmax(0,1fr)] items-center px-[26px] pb-2 pt-4">
        <Rosette state={DISPUTE_ROSETTES[dispute.state]} share={dispute.state === 'won' ? 1 : 0} size={48} />
        <div>
          <h1 className="font-serif text-[30px]/[34px] font-medium">
            <Amount minor={jsonMinor(dispute.amountMinor)} currency={dispute.currency} locale={locale} />{' '}
            <span className="private text-[17px] text-soft">disputed, {dispute.customer}</span>
          </h1>
          <Stands sheet={sheet} />
        </div>
      </div>
      <div className="px-[26px] sm:pl-[92px] sm:pr-[30px]">
        <p className="pb-1">
          {DISPUTE_WORDS[dispute.reason]}, {shortDate(dateInZone(dispute.openedAt, zone), locale, { weekday: true })}.
          It is about{' '}
          <Link className="link" href={`/money/payments/${dispute.paymentId}` as Route}>
            {dispute.invoiceId ? `the payment of invoice ${dispute.subject}` : dispute.subject || 'this payment'}
          </Link>
          {dispute.cardLast4 ? `, ${dispute.cardScheme} ·${dispute.cardLast4}` : ''}.
          {plan ? (
            <>
              {' '}
              It was charged by{' '}
              <Link className="link" href={`/ask/plans/${plan.id}` as Route}>
                {plan.name}
              </Link>
              , which goes on: think about pausing it.
            </>
          ) : null}
        </p>
        <Sums sheet={sheet} />
        {sheet.mayAnswer ? (
          <p className="document mt-4 border-l border-ink pl-4">{DISPUTE_ADVICE[dispute.reason]}</p>
        ) : null}
        {mayAnswer ? (
          <AnswerForm
            disputeId={dispute.id}
            paymentId={dispute.paymentId}
            sum={sum}
            mayAccept={mayDo(actor, 'give-back')}
            prepared={{ words: dispute.words, files: dispute.files, leftOut: dispute.leftOut }}
            parts={shown}
          />
        ) : (
          <>
            {dispute.words ? (
              <section className="mt-5" aria-label="What was said">
                <h2 className="title-section border-b border-ink pb-1">What was said</h2>
                <p className="document whitespace-pre-line pt-2">{dispute.words}</p>
              </section>
            ) : null}
            <KnownParts parts={shown} leftOut={dispute.leftOut} />
            <div className="mt-4 flex flex-wrap gap-x-5 gap-y-2">
              {dispute.sentAt && !dispute.accepted ? (
                <a className="link" href={`/files/disputes/${dispute.id}?form=sent`} target="_blank" rel="noreferrer">
                  The answer as it was sent
                </a>
              ) : null}
              <a className="link" href={`/files/payment-file/${dispute.paymentId}`}>
                All papers as a zip
              </a>
            </div>
          </>
        )}
        <p className="small mt-5 text-soft">
          {DISPUTE_STATE_WORDS[dispute.state]}. The processor calls it {dispute.key}.
        </p>
      </div>
    </article>
  );
}
