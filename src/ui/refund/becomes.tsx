import { type ReactNode, useState } from 'react';
import { isAtProcessor } from '@/core/payment/methods';
import {
  isSameFigure,
  type PaymentFigure,
  type PaymentTallyLine,
  paymentTally,
  type TalliedPayment,
} from '@/core/payment/payment-tally';
import { ownLossMinor, type RefundParts, taxOf } from '@/core/refund/refund';
import { partsOfPayment } from '@/core/share/split';
import { Leader } from '../kit/leader';
import type { JsonPayment } from './json-payment';

/** The payment as its tally wants it. */
const tallied = (payment: JsonPayment): TalliedPayment => ({
  called:
    payment.printed.total === payment.amount
      ? payment.isInvoice
        ? `Invoice ${payment.invoiceNumber}`
        : 'The order'
      : `Part of invoice ${payment.invoiceNumber}`,
  amountMinor: BigInt(payment.amount),
  tipMinor: BigInt(payment.tip),
  feeMinor: BigInt(payment.fee),
  refundedMinor: BigInt(payment.refunded),
  taxes: payment.printed.taxes.map(({ name, rate, amount }) => ({ name, rate, minor: BigInt(amount) })),
  shares: payment.shares.map(({ name, share, fee, reversed }) => ({
    name,
    shareMinor: BigInt(share),
    feeMinor: BigInt(fee),
    reversedMinor: BigInt(reversed),
  })),
  returned: payment.returned && {
    takenMinor: BigInt(payment.returned.taken),
    feeMinor: BigInt(payment.returned.fee),
  },
  dispute: payment.dispute && {
    takenMinor: BigInt(payment.dispute.taken),
    feeMinor: BigInt(payment.dispute.fee),
  },
  agreed: payment.agreedLine && {
    percent: payment.agreedLine.percent,
    fixedMinor: BigInt(payment.agreedLine.fixed),
  },
});

/** What a figure is made of, below it. */
const Worked = ({ lines, figure }: { lines: readonly PaymentTallyLine[]; figure: (minor: bigint) => ReactNode }) => (
  <ul className="mb-1.5 ml-4 border-l border-rule pl-3 text-[13.5px]/[22px] text-soft">
    {lines.map(({ label, minor }, at) => (
      <li key={`${at} ${label}`}>
        <Leader label={label}>{figure(minor)}</Leader>
      </li>
    ))}
  </ul>
);

/** What becomes of the money: now, and after what is being chosen; each figure with its tally. */
export function Becomes({
  payment,
  parts,
  figure,
}: {
  payment: JsonPayment;
  parts: RefundParts | null;
  figure: (minor: bigint | number) => ReactNode;
}) {
  const [asked, setAsked] = useState<PaymentFigure | null>(null);
  if (payment.state !== 'paid' && payment.state !== 'voided') return null;
  const fee = payment.state === 'voided' ? 0 : payment.fee;
  const refunded = payment.refunded - (payment.returned?.taken ?? 0);
  const isGone = payment.state === 'voided';
  const { partners, ownMinor } = partsOfPayment(
    {
      amountMinor: BigInt(payment.amount),
      tipMinor: BigInt(payment.tip),
      feeMinor: BigInt(fee),
      refundedMinor: BigInt(payment.refunded),
    },
    payment.shares.map(({ share, fee: own, reversed }) => ({
      shareMinor: BigInt(isGone ? reversed : share),
      feeMinor: BigInt(isGone ? 0 : own),
      reversedMinor: BigInt(reversed),
    })),
  );
  const isVoid = parts !== null && parts.feeBackMinor > 0n;
  const after = (now: bigint, less: bigint) => (parts ? <span className="text-dusk">{figure(now - less)}</span> : null);
  const tax = payment.printed.taxTotal;
  const isWhole = payment.printed.total === payment.amount;
  const differs = payment.agreed !== null && payment.agreed !== payment.fee && payment.state === 'paid';
  // While something is being given back the two columns are the tally.
  const may = payment.state === 'paid' && !parts;
  const row = (label: ReactNode, now: bigint, less: bigint, look = '', of: PaymentFigure | null = null, name = '') => (
    <>
      <Leader label={label} className={look}>
        <span className="inline-block min-w-[84px] text-right">
          {of && may ? (
            <button
              type="button"
              className="tally-link"
              aria-label={`Tally of ${name}`}
              aria-expanded={isSameFigure(asked, of)}
              onClick={() => setAsked(isSameFigure(asked, of) ? null : of)}
            >
              {figure(now)}
            </button>
          ) : (
            figure(now)
          )}
        </span>
        {parts ? <span className="inline-block min-w-[84px] text-right">{after(now, less)}</span> : null}
      </Leader>
      {of && may && isSameFigure(asked, of) ? (
        <Worked lines={paymentTally(tallied(payment), of)} figure={figure} />
      ) : null}
    </>
  );
  return (
    <div className="document leading-7">
      {parts ? (
        <p className="flex justify-end border-b border-ink font-sans text-[12.5px]/[18px] text-soft">
          <span className="min-w-[84px] text-right">Now</span>
          <span className="min-w-[84px] text-right text-dusk">After</span>
        </p>
      ) : null}
      {row('Paid', BigInt(payment.amount + payment.tip), 0n, '', { of: 'paid' }, 'what was paid')}
      {isWhole && tax > 0 && payment.printed.pricesIncludeTax
        ? row(
            <span className="text-soft">of it tax</span>,
            BigInt(tax),
            taxOf(parts?.credited ?? null),
            '',
            { of: 'tax' },
            'the tax',
          )
        : null}
      {refunded > 0 || parts ? row('Refunded', BigInt(-refunded), parts?.totalMinor ?? 0n) : null}
      {payment.returned ? row('Came back', BigInt(-payment.returned.taken), 0n) : null}
      {payment.returned ? row('The bank’s fee for that', BigInt(-payment.returned.fee), 0n) : null}
      {payment.dispute && payment.dispute.taken > 0 ? row('Disputed', BigInt(-payment.dispute.taken), 0n) : null}
      {payment.dispute && payment.dispute.fee > 0 ? row('Fee for the dispute', BigInt(-payment.dispute.fee), 0n) : null}
      {isAtProcessor(payment.method)
        ? row(
            <>
              {payment.method === 'debit' ? 'Debit fee' : 'Card fee'}
              {differs && payment.agreed !== null ? (
                <span className="small ml-1.5 font-sans text-ochre">
                  agreed {payment.agreedLine?.text} = {figure(payment.agreed)}; this is{' '}
                  {figure(Math.abs(payment.fee - payment.agreed))} {payment.fee > payment.agreed ? 'more' : 'less'}
                </span>
              ) : null}
            </>,
            BigInt(-fee),
            -(parts?.feeBackMinor ?? 0n),
            '',
            { of: 'fee' },
            'the card fee',
          )
        : null}
      {payment.shares.map(({ name }, at) => (
        <div key={at}>
          {row(
            <span className="private">{name}’s part</span>,
            -(partners[at] ?? 0n),
            isVoid ? -(partners[at] ?? 0n) : -(parts?.partners[at] ?? 0n),
            '',
            { of: 'part', at },
            `the part of ${name}`,
          )}
        </div>
      ))}
      {row(
        'Left for you',
        ownMinor - BigInt((payment.dispute?.taken ?? 0) + (payment.dispute?.fee ?? 0) + (payment.returned?.fee ?? 0)),
        parts ? -ownLossMinor(parts) : 0n,
        'rule-total mt-1 py-0.5 text-[17px]/7 font-semibold',
        { of: 'left' },
        'what is left for you',
      )}
    </div>
  );
}
