import type { Metadata, Route } from 'next';
import Link from 'next/link';
import { orNotFound } from '@/app/found';
import { pageActor } from '@/app/session';
import { clockTime, shortDate } from '@/core/dates/date-text';
import { dateInZone } from '@/core/dates/zone';
import { DISPUTE_STATE_WORDS } from '@/core/dispute/dispute-words';
import { jsonMinor, money } from '@/core/money/money';
import { moneyText } from '@/core/money/money-text';
import { METHOD_WORDS } from '@/core/payment/methods';
import { REFUSAL_BRIEF } from '@/core/payment/outcome';
import { mayDo } from '@/flows/door/rights';
import { type PaymentSheet, paymentSheet } from '@/flows/payment/payment-sheet';
import { Amount } from '@/ui/kit/amount';
import { ReceiptAgain } from '@/ui/payment/receipt-again';
import { type WayStep, WayToBank } from '@/ui/payment/way-to-bank';
import { PaymentBody } from '@/ui/refund/payment-body';
import { Rosette } from '@/ui/rosette';
import { Timeline } from '@/ui/timeline';
import { CHANNEL_WORDS, paymentState, subjectPath } from '../json-payment';
import { jsonSheet } from '../json-sheet';
import { OrderDetails } from '../order-details';

export const metadata: Metadata = { title: 'Payment' };

/** Paid out with its day, and there. */
function payoutSteps(payout: NonNullable<PaymentSheet['payout']>, locale: string): WayStep[] {
  const { id, number, madeOn, state, settledOn, accountNumber } = payout;
  const href = `/money/payouts/${id}`;
  const date = (on: typeof madeOn) => shortDate(on, locale, { weekday: true });
  const out = { key: 'payout', when: date(madeOn), what: `In payout ${number}`, href };
  if (state === 'arrived' && settledOn)
    return [out, { key: 'arrived', when: date(settledOn), what: `In the account ·${accountNumber.slice(-4)}` }];
  if (state === 'returned' && settledOn)
    return [out, { key: 'returned', when: date(settledOn), what: 'Came back', out: true, href }];
  return [out, { key: 'arrives', when: 'next banking day', what: 'In the account', open: true }];
}

/** Asked back by the holder's bank, and how that ended. */
function disputeSteps(
  dispute: NonNullable<PaymentSheet['dispute']>,
  text: (minor: bigint) => string,
  on: (at: Date) => string,
): WayStep[] {
  const href = `/money/disputes/${dispute.id}`;
  const taken = {
    key: 'disputed',
    when: on(dispute.bookedAt),
    what: `Disputed, ${text(dispute.amountMinor)} taken`,
    more: `fee ${text(dispute.feeMinor)}`,
    href,
    out: true,
  };
  if (dispute.settledAt)
    return [
      taken,
      {
        key: 'dispute-decided',
        when: on(dispute.settledAt),
        what: dispute.state === 'won' ? 'Dispute won, given back' : 'Dispute lost',
        href,
        out: dispute.state === 'lost',
      },
    ];
  return [
    taken,
    { key: 'dispute-open', when: DISPUTE_STATE_WORDS[dispute.state], what: 'The bank decides', href, open: true },
  ];
}

/** The steps of the money, first to last. */
function stepsOf({
  row,
  subject,
  business,
  day,
  isDayClosed,
  payout,
  onStatement,
  creditNumbers,
  dispute,
}: PaymentSheet): WayStep[] {
  const { locale, zone } = business;
  const text = (minor: bigint) => moneyText(money(minor, row.currency), locale);
  const on = (at: Date) => `${shortDate(dateInZone(at, zone), locale, { weekday: true })}, ${clockTime(at, zone)}`;
  const at = row.settledAt ?? row.startedAt;
  const how = row.cardScheme
    ? `${row.cardScheme} ·${row.cardLast4}`
    : [METHOD_WORDS[row.method], row.reference].filter(Boolean).join(' ');
  if (row.state === 'pending' || row.state === 'refused')
    return [
      { key: 'asked', when: on(at), what: row.state === 'pending' ? 'Asked for' : 'Refused', more: how, open: true },
    ];
  const isCard = row.saleId !== null;
  return [
    { key: 'paid', when: on(at), what: `Paid ${text(row.amountMinor + row.tipMinor)}`, more: how },
    ...(day && isCard
      ? [
          {
            key: 'day',
            when: shortDate(day, locale, { weekday: true }),
            what: 'In the day’s closing',
            more: [isDayClosed ? 'closed' : 'still open', row.feeMinor > 0n ? `fee ${text(row.feeMinor)} off` : '']
              .filter(Boolean)
              .join(', '),
            href: `/money/batches/${day}`,
            open: !isDayClosed,
          },
        ]
      : []),
    ...(payout ? payoutSteps(payout, locale) : []),
    ...(isCard && isDayClosed && !payout
      ? [
          {
            key: 'next',
            when: 'with the next payout',
            what: 'In your account',
            open: true,
            href: `/money/payouts/next.${row.currency}`,
          },
        ]
      : []),
    ...(onStatement
      ? [
          {
            key: 'statement',
            when: shortDate(onStatement.day, locale, { weekday: true }),
            what: 'On the bank’s statement',
            href: `/money/bank?account=${onStatement.account}&currency=${onStatement.currency}`,
          },
        ]
      : []),
    ...(dispute ? disputeSteps(dispute, text, on) : []),
    ...subject.refunds
      .filter(({ state }) => state !== 'refused')
      .map((refund): WayStep => {
        const credit = refund.creditId ? creditNumbers[refund.creditId] : undefined;
        return {
          key: refund.id,
          when: on(refund.settledAt ?? refund.startedAt),
          what: `${refund.kind === 'void' ? 'Voided' : 'Refunded'} ${text(refund.amountMinor)}`,
          more: [
            refund.state === 'pending' ? 'being asked for' : '',
            refund.method === row.method ? '' : METHOD_WORDS[refund.method],
            credit ? `credit note ${credit}` : '',
            refund.reason,
          ]
            .filter(Boolean)
            .join(', '),
          open: refund.state === 'pending',
          out: true,
        };
      }),
  ];
}

export default async function PaymentPage({ params }: { params: Promise<{ id: string }> }) {
  const actor = await pageActor();
  const { id } = await params;
  const sheet = await orNotFound(id, paymentSheet(actor, id));
  const { row, subject, business, today, timeline, ownReference } = sheet;
  const { locale, zone } = business;
  const at = row.settledAt ?? row.startedAt;
  const state = paymentState(row);
  const why = row.reason ? `: ${REFUSAL_BRIEF[row.reason]}` : '';
  const how = row.cardScheme
    ? ` by card, ${row.cardScheme} ·${row.cardLast4}`
    : row.method === 'card'
      ? ''
      : ` ${[METHOD_WORDS[row.method], row.reference].filter(Boolean).join(', ')}`;
  const mayAsk = mayDo(actor.role, 'ask');
  const receipt = row.receiptNumber
    ? row.invoiceId
      ? `/files/receipts/${row.invoiceId}/${row.receiptNumber}`
      : `/files/order-receipts/${row.id}`
    : null;
  return (
    <div className="grid items-start gap-6 xl:grid-cols-[minmax(0,600px)_208px]">
      <article className="sheet relative max-w-[600px] pb-6" aria-label={`Payment by ${row.customer}`}>
        <Link href="/money/payments" className="link link-small mx-[26px] mt-3 inline-block md:hidden">
          All payments
        </Link>
        <div className="grid grid-cols-[66px_minmax(0,1fr)] items-center px-[26px] pb-3 pt-4">
          <Rosette state={state} share={row.state === 'paid' ? 1 : 0} size={48} />
          <div>
            <h1 className="font-serif text-[30px]/[34px] font-medium">
              <Amount minor={jsonMinor(row.amountMinor + row.tipMinor)} currency={row.currency} locale={locale} />{' '}
              <span className="private text-[17px] text-soft">from {row.customer}</span>
            </h1>
            <p>
              <b
                className={`font-semibold ${row.state === 'refused' || row.dispute === 'open' || row.dispute === 'lost' ? 'text-brick' : ''}`}
              >
                {state}
              </b>
              {why}, {shortDate(dateInZone(at, zone), locale, { weekday: true, year: true })} at {clockTime(at, zone)}
              {how}, for{' '}
              <Link className="link" href={subjectPath(row) as Route}>
                {CHANNEL_WORDS[row.invoiceId ? 'invoice' : row.channel]} {row.subject}
              </Link>
              {row.channel === 'plan' && sheet.plan ? (
                <>
                  , charged by{' '}
                  <Link className="link" href={`/ask/plans/${sheet.plan.id}` as Route}>
                    {sheet.plan.name}
                  </Link>
                </>
              ) : null}
              .
            </p>
          </div>
        </div>
        <div className="px-[26px] pt-2">
          <PaymentBody key={`${row.refundedMinor} ${row.state}`} payment={jsonSheet(sheet, actor.role)}>
            {receipt ? (
              <a className="link" href={receipt} target="_blank" rel="noreferrer">
                Receipt {row.receiptNumber}
              </a>
            ) : null}
            {row.state === 'paid' ? (
              <a className="link" href={`/files/payment-file/${row.id}`}>
                All its papers
              </a>
            ) : null}
            {mayAsk && row.receiptNumber ? (
              <ReceiptAgain
                paymentId={row.id}
                email={subject.invoice?.printed?.payer.email ?? subject.order?.printed.payer.email ?? ''}
                mailed={!subject.order || subject.order.offer.receipt === 'auto'}
                ownReference={ownReference}
              />
            ) : null}
          </PaymentBody>
          {subject.order ? <OrderDetails reference={row.orderReference ?? ''} order={subject.order.printed} /> : null}
        </div>
      </article>
      <div>
        <WayToBank steps={stepsOf(sheet)} />
        <Timeline lines={timeline} currency={row.currency} locale={locale} zone={zone} today={today} />
      </div>
    </div>
  );
}
