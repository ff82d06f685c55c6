import type { Business } from '@/core/business/business';
import { clockTime, shortDate } from '@/core/dates/date-text';
import { dateInZone } from '@/core/dates/zone';
import { DISPUTE_STATE_WORDS } from '@/core/dispute/dispute-words';
import { money } from '@/core/money/money';
import { moneyText } from '@/core/money/money-text';
import { METHOD_WORDS } from '@/core/payment/methods';
import type { PaymentWay } from '@/flows/way/payment-way';
import type { WayStep } from '@/ui/payment/way-to-bank';

/** Paid out with its day, and there. */
function payoutSteps(payout: NonNullable<PaymentWay['payout']>, locale: string): WayStep[] {
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
  dispute: NonNullable<PaymentWay['dispute']>,
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

const BACK_WORDS = { refund: 'Refunded', void: 'Voided', return: 'Came back:' } as const;

/** The steps of the money, first to last. */
export function stepsOf(
  { row, refunds, day, isDayClosed, payout, onStatement, creditNumbers, dispute }: PaymentWay,
  { deskLocale: locale, zone }: Pick<Business, 'deskLocale' | 'zone'>,
): WayStep[] {
  const text = (minor: bigint) => moneyText(money(minor, row.currency), locale);
  const on = (at: Date) => `${shortDate(dateInZone(at, zone), locale, { weekday: true })}, ${clockTime(at, zone)}`;
  const at = row.settledAt ?? row.startedAt;
  const how = row.cardScheme
    ? `${row.cardScheme} ·${row.cardLast4}`
    : [METHOD_WORDS[row.method], row.reference].filter(Boolean).join(' ');
  if (row.state === 'pending' || row.state === 'refused')
    return [
      { key: 'asked', when: on(at), what: row.state === 'pending' ? 'Asked for' : 'Refused', more: how, open: true },
      ...(row.state === 'pending' && row.expectedAt
        ? [
            {
              key: 'expected',
              when: shortDate(dateInZone(row.expectedAt, zone), locale, { weekday: true }),
              what: 'Known whether it is paid',
              more: 'the bank collects it by then',
              open: true,
            },
          ]
        : []),
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
    ...refunds
      .filter(({ state }) => state !== 'refused')
      .map((refund): WayStep => {
        const credit = refund.creditId ? creditNumbers[refund.creditId] : undefined;
        return {
          key: refund.id,
          when: on(refund.settledAt ?? refund.startedAt),
          what: `${BACK_WORDS[refund.kind]} ${text(refund.amountMinor)}`,
          more: [
            refund.state === 'pending' ? 'being asked for' : '',
            refund.method === row.method ? '' : METHOD_WORDS[refund.method],
            credit ? `credit note ${credit}` : '',
            refund.reason,
            refund.feeMinor > 0n ? `the bank’s fee ${text(refund.feeMinor)}` : '',
          ]
            .filter(Boolean)
            .join(', '),
          open: refund.state === 'pending',
          out: true,
        };
      }),
  ];
}
