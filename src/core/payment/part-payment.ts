import { inRange } from '../money/money';
import { RuleError } from '../rule-error';
import { percentOf } from '../tally/tally';

/** What has happened to a total so far, and the rule for paying part of it; amounts in minor units of one currency. */
export type PaymentTerms = {
  readonly total: bigint;
  readonly paid?: bigint;
  readonly refunded?: bigint;
  readonly credited?: bigint;
  /** Whether part of the amount due may be paid. */
  readonly parts: boolean;
  readonly firstPayment?: { readonly percent: string } | { readonly amount: bigint };
  /** The currency's smallest payment. */
  readonly smallest: bigint;
};

/** What may be paid now: between `least` and `greatest`, which is the amount due; `credit` is what was paid too much. */
export type Payable = {
  readonly due: bigint;
  readonly credit: bigint;
  readonly least: bigint;
  readonly greatest: bigint;
  /** The smallest payment in force, at least 1. */
  readonly smallest: bigint;
};

function firstPaymentOf(terms: PaymentTerms): bigint {
  const first = terms.firstPayment;
  if (!first) return 0n;
  if ('percent' in first) return percentOf(terms.total, first.percent, 'firstPayment.percent');
  if (first.amount > terms.total) throw new RuleError('bad_input', 'firstPayment.amount: at most the total');
  return first.amount;
}

/**
 * What an invoice still owes and what may be paid of it (`calculation.md` 6).
 *
 * @throws RuleError `bad_input` where refunded exceeds paid, credited the total, or a first payment the total; `bad_rate`
 */
export function payable(terms: PaymentTerms): Payable {
  const { total, paid = 0n, refunded = 0n, credited = 0n, parts } = terms;
  if (refunded > paid) throw new RuleError('bad_input', 'refunded: at most what was paid');
  if (credited > total) throw new RuleError('bad_input', 'credited: at most the total');
  const first = firstPaymentOf(terms);
  const balance = inRange(total - credited - paid + refunded);
  const due = balance > 0n ? balance : 0n;
  const smallest = terms.smallest > 1n ? terms.smallest : 1n;
  const missing = first - (paid - refunded);
  const wanted = parts ? (missing > smallest ? missing : smallest) : due;
  // Paying the least must leave nothing or enough for another payment.
  const least = wanted >= due || due - wanted < smallest ? due : wanted;
  return { due, credit: balance < 0n ? -balance : 0n, least, greatest: due, smallest };
}

/**
 * An invoice's sums as `payable` takes them, minor units. Where a bank took a debit back of which some had gone back another way before,
 * more went out than ever came in: that is owed like more of the invoice.
 */
export function evened({ total, paid, refunded }: { total: bigint; paid: bigint; refunded: bigint }) {
  const beyond = refunded > paid ? refunded - paid : 0n;
  return { total: total + beyond, paid, refunded: refunded - beyond };
}

/**
 * What a plan asks for now of an invoice that it pays in parts, in minor units: what stands asked for and is not covered by what
 * was paid beyond the parts counted so far. Null where that is nothing, the whole, or no payment that may be made.
 *
 * @param asked parts asked for or refused @param counted parts that count as paid @param paid what was paid, less refunds
 */
export function askedNow(
  { asked, counted, paid }: { readonly asked: bigint; readonly counted: bigint; readonly paid: bigint },
  may: Payable,
): bigint | null {
  const over = paid > counted ? paid - counted : 0n;
  const now = asked - over;
  return now < may.due && isAllowed(now, may) ? now : null;
}

/** Whether this payment (minor units) may be taken: above 0, between least and due, leaving 0 or enough. */
export function isAllowed(payment: bigint, { least, greatest, smallest }: Payable): boolean {
  const left = greatest - payment;
  return payment > 0n && payment >= least && left >= 0n && (left === 0n || left >= smallest);
}

/** The most that a part may be which is not the whole, in minor units: what it leaves is enough for another payment. */
export const mostPart = ({ greatest, smallest }: Payable): bigint => greatest - smallest;

/** Whether a payment (minor units) is refused for what it would leave alone, and not for being too small or too large. */
export const isInGap = (payment: bigint, may: Payable): boolean =>
  payment > mostPart(may) && payment >= may.least && payment < may.greatest;
