import type { ProfileFields } from '@/core/business/business';
import { typedMinor } from '@/core/invoice/read-paper';
import { isCurrency, minorDigits } from '@/core/money/currency';
import { plainSum } from '@/core/money/money-text';

/** The profile while it is written: the days of reminders as one line, sums as they are typed. */
export type ProfileTyped = Omit<ProfileFields, 'reminders' | 'smallestPayments'> & {
  readonly reminders: string;
  readonly smallestPayments: Readonly<Record<string, string>>;
};

export const typedProfile = ({ reminders, smallestPayments, ...rest }: ProfileFields): ProfileTyped => ({
  ...rest,
  reminders: reminders.join(', '),
  smallestPayments: Object.fromEntries(
    Object.entries(smallestPayments).map(([code, minor]) => [code, plainSum(BigInt(minor), code)]),
  ),
});

/** The days of a line, each once, in their order; what is no number of days is left out. */
export const daysOf = (line: string): number[] =>
  [
    ...new Set(
      line
        .split(/[\s,;]+/)
        .filter((part) => /^-?\d{1,3}$/.test(part))
        .map(Number),
    ),
  ].sort((a, b) => a - b);

export const profileTyped = ({ reminders, smallestPayments, ...rest }: ProfileTyped): ProfileFields => ({
  ...rest,
  reminders: daysOf(reminders),
  smallestPayments: Object.fromEntries(
    Object.entries(smallestPayments)
      .filter(([code, typed]) => isCurrency(code) && typed.trim())
      // What is no sum is sent as none, and refused in words.
      .map(([code, typed]) => [code, Number(typedMinor(typed, minorDigits(code)) ?? -1n)]),
  ),
});
