import { roundedQuotient } from '../money/decimal';
import { allocate } from '../money/money';
import { RuleError } from '../rule-error';
import { scaledRate } from '../tally/tally';

const WHOLE = 1_000_000n; // 100 percent, scaled by 10^4

/** Who gets what of a payment; minor units. `keep` is the flat amount that the business keeps, in force when given, also 0. */
export type SplitTerms = {
  readonly amount: bigint;
  readonly fee: bigint;
  readonly partners: readonly { readonly percent: string }[];
  readonly keep?: bigint;
  readonly feeFrom: 'business' | 'all';
};

/** A part: its share, what it bears of the fee, and what is left; the last may be below 0 by the fee. */
export type Part = { readonly share: bigint; readonly fee: bigint; readonly net: bigint };

const sum = (amounts: readonly bigint[]): bigint => amounts.reduce((a, b) => a + b, 0n);

/** Each wish in order, cut where all together would exceed `most`: the later one gets less. */
function capped(wishes: readonly bigint[], most: bigint): bigint[] {
  let left = most;
  return wishes.map((wish) => {
    const over = wish - left;
    const given = over > 0n ? left : wish;
    left -= given;
    return given;
  });
}

function partnerShares({ amount, partners, keep }: SplitTerms): bigint[] {
  const rates = partners.map(({ percent }, at) => scaledRate(percent, `partners[${at}].percent`));
  if (sum(rates) > WHOLE) throw new RuleError('bad_share', 'partners: at most 100 percent together');
  if (keep === undefined)
    return capped(
      rates.map((rate) => roundedQuotient(amount * rate, WHOLE)),
      amount,
    );
  return allocate(keep < amount ? amount - keep : 0n, rates);
}

/**
 * Shares a payment between the business and its partners, and the fee between the parts (`calculation.md` 10).
 *
 * @throws RuleError `bad_rate`, `bad_share`
 */
export function split(terms: SplitTerms): { business: Part; partners: Part[] } {
  const shares = partnerShares(terms);
  const own = terms.amount - sum(shares);
  const parts = [own, ...shares];
  const fees =
    terms.feeFrom === 'all' && terms.amount > 0n ? allocate(terms.fee, parts) : [terms.fee, ...shares.map(() => 0n)];
  const [business, ...partners] = parts.map((share, at): Part => {
    const fee = fees[at] ?? 0n;
    return { share, fee, net: share - fee };
  });
  return { business: business as Part, partners };
}

/**
 * What each refund takes back from each share. Every step books the difference to what was reversed before, so that a full
 * refund in any steps reverses each share exactly; a step's part may be below 0 by a few units.
 *
 * @throws RuleError `refund_too_large`
 */
export function reversals(
  amount: bigint,
  shares: readonly bigint[],
  refunds: readonly bigint[],
): { business: bigint; partners: bigint[] }[] {
  let refunded = 0n;
  let before = shares.map(() => 0n);
  return refunds.map((refund, at) => {
    refunded += refund;
    if (refunded > amount) throw new RuleError('refund_too_large', `refunds[${at}]: more than was paid`);
    const now = capped(
      shares.map((share) => (amount === 0n ? 0n : roundedQuotient(share * refunded, amount))),
      refunded,
    );
    const partners = now.map((total, index) => total - (before[index] ?? 0n));
    before = now;
    return { business: refund - sum(partners), partners };
  });
}

/** What partners get of a payment less their part of the fee and what giving back took from them, and what is left to the business; minor units. */
export function partsOfPayment(
  payment: {
    readonly amountMinor: bigint;
    readonly tipMinor: bigint;
    readonly feeMinor: bigint;
    readonly refundedMinor: bigint;
  },
  shares: readonly { readonly shareMinor: bigint; readonly feeMinor: bigint; readonly reversedMinor: bigint }[],
): { readonly partners: readonly bigint[]; readonly ownMinor: bigint } {
  const partners = shares.map(({ shareMinor, feeMinor, reversedMinor }) => shareMinor - feeMinor - reversedMinor);
  const left = payment.amountMinor + payment.tipMinor - payment.feeMinor - payment.refundedMinor;
  return { partners, ownMinor: left - partners.reduce((all, one) => all + one, 0n) };
}
