import type { ReactNode } from 'react';
import { ownLossMinor, type RefundParts, taxOf } from '@/core/refund/refund';
import { partsOfPayment } from '@/core/share/split';
import { Leader } from '../kit/leader';
import type { JsonPayment } from './json-payment';

/** What becomes of the money: now, and after what is being chosen. */
export function Becomes({
  payment,
  parts,
  figure,
}: {
  payment: JsonPayment;
  parts: RefundParts | null;
  figure: (minor: bigint | number) => ReactNode;
}) {
  if (payment.state !== 'paid' && payment.state !== 'voided') return null;
  const fee = payment.state === 'voided' ? 0 : payment.fee;
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
  const row = (label: ReactNode, now: bigint, less: bigint, look = '') => (
    <Leader label={label} className={look}>
      <span className="inline-block min-w-[84px] text-right">{figure(now)}</span>
      {parts ? <span className="inline-block min-w-[84px] text-right">{after(now, less)}</span> : null}
    </Leader>
  );
  return (
    <div className="document leading-7">
      {parts ? (
        <p className="flex justify-end border-b border-ink font-sans text-[12.5px]/[18px] text-soft">
          <span className="min-w-[84px] text-right">Now</span>
          <span className="min-w-[84px] text-right text-dusk">After</span>
        </p>
      ) : null}
      {row('Paid', BigInt(payment.amount + payment.tip), 0n)}
      {isWhole && tax > 0 && payment.printed.pricesIncludeTax
        ? row(<span className="text-soft">of it tax</span>, BigInt(tax), taxOf(parts?.credited ?? null))
        : null}
      {payment.refunded > 0 || parts ? row('Refunded', BigInt(-payment.refunded), parts?.totalMinor ?? 0n) : null}
      {payment.dispute && payment.dispute.taken > 0 ? row('Disputed', BigInt(-payment.dispute.taken), 0n) : null}
      {payment.dispute && payment.dispute.fee > 0 ? row('Fee for the dispute', BigInt(-payment.dispute.fee), 0n) : null}
      {payment.method === 'card'
        ? row(
            <>
              Card fee
              {differs && payment.agreed !== null ? (
                <span className="small ml-1.5 font-sans text-ochre">
                  agreed {payment.agreedText} = {figure(payment.agreed)}; this is{' '}
                  {figure(Math.abs(payment.fee - payment.agreed))} {payment.fee > payment.agreed ? 'more' : 'less'}
                </span>
              ) : null}
            </>,
            BigInt(-fee),
            -(parts?.feeBackMinor ?? 0n),
          )
        : null}
      {payment.shares.map(({ name }, at) => (
        <div key={at}>
          {row(
            <span className="private">{name}’s part</span>,
            -(partners[at] ?? 0n),
            isVoid ? -(partners[at] ?? 0n) : -(parts?.partners[at] ?? 0n),
          )}
        </div>
      ))}
      {row(
        'Left for you',
        ownMinor - BigInt((payment.dispute?.taken ?? 0) + (payment.dispute?.fee ?? 0)),
        parts ? -ownLossMinor(parts) : 0n,
        'rule-total mt-1 py-0.5 text-[17px]/7 font-semibold',
      )}
    </div>
  );
}
