import type { ProfileFields } from '@/core/business/business';

/** The profile while it is written: the days of reminders as one line. */
export type ProfileTyped = Omit<ProfileFields, 'reminders'> & { readonly reminders: string };

export const typedProfile = ({ reminders, ...rest }: ProfileFields): ProfileTyped => ({
  ...rest,
  reminders: reminders.join(', '),
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

export const profileTyped = ({ reminders, ...rest }: ProfileTyped): ProfileFields => ({
  ...rest,
  reminders: daysOf(reminders),
});
