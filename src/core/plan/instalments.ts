import { RuleError } from '../rule-error';

/** Where the units go that do not divide: one each to the first payments, or all on the last. */
export type Leftover = 'even' | 'last';

/**
 * A total less a deposit, over `count` payments that sum to exactly the rest (`calculation.md` 7). Minor units.
 *
 * @throws RuleError `bad_input` where there are fewer units than payments: a payment of 0 is none
 */
export function instalments(total: bigint, count: number, deposit: bigint, leftover: Leftover): bigint[] {
  if (!Number.isInteger(count) || count < 1) throw new RuleError('bad_input', 'count: at least one payment');
  const rest = total - deposit;
  if (rest < BigInt(count)) throw new RuleError('bad_input', 'count: fewer units than payments');
  const each = rest / BigInt(count);
  const left = Number(rest % BigInt(count));
  return Array.from({ length: count }, (_, at) => {
    if (leftover === 'last') return at === count - 1 ? each + BigInt(left) : each;
    return at < left ? each + 1n : each;
  });
}
