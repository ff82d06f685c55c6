import { leastOf } from '../money/money';
import { RuleError } from '../rule-error';
import { reversals } from '../share/split';
import type { Credited, Crediting, CreditStep } from '../tally/credit-steps';

/** What a person wants given back of a payment: lines and charges of what it paid for, a sum, all that is left, or the whole undone. */
export type RefundWish =
  | ({ readonly by: 'lines'; readonly tip: boolean } & Extract<CreditStep, { lines: unknown }>)
  | { readonly by: 'sum'; readonly amountMinor: bigint }
  | { readonly by: 'all' }
  | { readonly by: 'void' };

/** A payment as far as giving back needs it; minor units. What is refunded has its tips in it. */
export type Refundable = {
  readonly amountMinor: bigint;
  readonly tipMinor: bigint;
  readonly feeMinor: bigint;
  readonly refundedMinor: bigint;
  readonly tipRefundedMinor: bigint;
  readonly shares: readonly { readonly shareMinor: bigint; readonly feeMinor: bigint }[];
};

/** What the payment paid for: the document as far as it is credited, and the customer's credit on it, minor units. */
export type RefundedDocument = {
  readonly crediting: Crediting;
  /** Paid more than is owed by now: giving that back credits nothing more. */
  readonly creditMinor: bigint;
  /** The customer shall pay it again: nothing is credited. */
  readonly owedAgain: boolean;
};

/** What a refund takes of the partners and gives back of the fee, in minor units. */
export type RefundTakes = {
  /** What is taken back of each partner's share, in their order; a step may be below 0 by a few units. */
  readonly partners: readonly bigint[];
  /** What of the processor's fee comes back: all of it for a void, else nothing. */
  readonly feeBackMinor: bigint;
  /** What of that the partners had borne. */
  readonly partnersFeeMinor: bigint;
};

/** What a refund takes, in minor units. */
export type RefundParts = RefundTakes & {
  /** Of the document, without the tip. */
  readonly amountMinor: bigint;
  readonly tipMinor: bigint;
  readonly totalMinor: bigint;
  /** How the document is credited; null where it is not. */
  readonly step: CreditStep | null;
  readonly credited: Credited | null;
};

/** What can still be given back of a payment: of its amount, and of its tip; minor units. */
export const refundableLeft = ({ amountMinor, tipMinor, refundedMinor, tipRefundedMinor }: Refundable) => ({
  amountMinor: amountMinor - (refundedMinor - tipRefundedMinor),
  tipMinor: tipMinor - tipRefundedMinor,
});

const sum = (amounts: readonly bigint[]): bigint => amounts.reduce((a, b) => a + b, 0n);
const tooLarge = () => new RuleError('refund_too_large', 'amount: more than is left of this payment');

/** How much of the amount and of the tip is wanted back; by lines, what these come to. */
function wanted(wish: RefundWish, paid: Refundable, lines: Credited | null): { amountMinor: bigint; tipMinor: bigint } {
  const left = refundableLeft(paid);
  switch (wish.by) {
    case 'void':
      if (paid.refundedMinor > 0n) throw tooLarge();
      return left;
    case 'all':
      return left;
    case 'sum': {
      const amountMinor = leastOf(wish.amountMinor, left.amountMinor);
      return { amountMinor, tipMinor: wish.amountMinor - amountMinor };
    }
    case 'lines':
      return { amountMinor: lines?.total ?? 0n, tipMinor: wish.tip ? left.tipMinor : 0n };
  }
}

/**
 * What giving back takes of everybody (`calculation.md` 10 and 15): of the document, its taxes, the tip, each partner, the fee. A sum
 * is taken of the amount first, then of the tip.
 *
 * @throws RuleError `refund_too_large`, `bad_input`, `bad_quantity`
 */
export function refundParts(paid: Refundable, document: RefundedDocument, wish: RefundWish): RefundParts {
  const { crediting, creditMinor, owedAgain } = document;
  const isTipOnly = wish.by === 'lines' && wish.lines.length + (wish.fees ?? []).length === 0 && !wish.delivery;
  const byLines =
    wish.by === 'lines' && !(isTipOnly && wish.tip && !wish.flatTaxes)
      ? crediting.credit(stepOfLines(wish)).credited
      : null;
  const { amountMinor, tipMinor } = wanted(wish, paid, byLines);
  const left = refundableLeft(paid);
  if (amountMinor > left.amountMinor || tipMinor > left.tipMinor) throw tooLarge();
  if (amountMinor < 0n || amountMinor + tipMinor < 1n)
    throw new RuleError('bad_input', 'amount: nothing is given back');

  const step =
    wish.by === 'lines'
      ? byLines
        ? stepOfLines(wish)
        : null
      : owedAgain
        ? null
        : stepOf(crediting, amountMinor, creditMinor);
  const credited = byLines ?? (step ? crediting.credit(step).credited : null);
  const totalMinor = amountMinor + tipMinor;
  return { amountMinor, tipMinor, totalMinor, step, credited, ...refundTakes(paid, amountMinor, wish.by === 'void') };
}

/** What giving back so much of a payment's amount takes of its partners and brings back of its fee (`calculation.md` 10). */
export function refundTakes(paid: Refundable, amountMinor: bigint, isVoid: boolean): RefundTakes {
  const steps = reversals(
    paid.amountMinor,
    paid.shares.map(({ shareMinor }) => shareMinor),
    [paid.refundedMinor - paid.tipRefundedMinor, amountMinor],
  );
  return {
    partners: steps[1]?.partners ?? [],
    feeBackMinor: isVoid ? paid.feeMinor : 0n,
    partnersFeeMinor: isVoid ? sum(paid.shares.map(({ feeMinor }) => feeMinor)) : 0n,
  };
}

/** All taxes and flat taxes in what is credited, minor units. */
export const taxOf = (credited: Credited | null): bigint =>
  credited ? sum([...credited.taxes.map(({ amount }) => amount), ...credited.flatTaxes]) : 0n;

const stepOfLines = ({ lines, delivery, fees, flatTaxes }: Extract<RefundWish, { by: 'lines' }>): CreditStep => ({
  lines,
  ...(delivery ? { delivery } : {}),
  ...(fees && fees.length > 0 ? { fees } : {}),
  ...(flatTaxes ? { flatTaxes } : {}),
});

/** How a sum is credited: what the customer has to their credit already is not credited again. */
function stepOf(crediting: Crediting, amountMinor: bigint, creditMinor: bigint): CreditStep | null {
  const amount = amountMinor - leastOf(creditMinor, amountMinor);
  if (amount === 0n) return null;
  return amount === crediting.left ? { all: true } : { amount };
}

/** What is left to the business by a refund, below 0 what it loses: all that is given back less what partners bear and the fee that comes back. */
export const ownLossMinor = ({ totalMinor, partners, feeBackMinor, partnersFeeMinor }: RefundParts): bigint =>
  sum(partners) - partnersFeeMinor + feeBackMinor - totalMinor;
