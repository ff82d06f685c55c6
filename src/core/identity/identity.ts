/** Who stands behind a business: what is told of them, what is shown, and how a check of it goes on. */
import type { CalendarDate } from '../dates/calendar-date';

/** What is photographed: a document's front, its back where it has one, and a face that looks at the camera now. */
export const SIDES = ['front', 'back', 'live'] as const;
export type Side = (typeof SIDES)[number];

export const SIDE_WORDS: Readonly<Record<Side, string>> = {
  front: 'Document, front',
  back: 'Document, back',
  live: 'Your face, now',
};

/** Somebody who acts for the business, or holds more than a quarter of it. */
export type Member = {
  readonly id: string;
  readonly name: string;
  /** A day; empty while it is not told. */
  readonly born: string;
  /** Where they live, ISO 3166-1 alpha-2. */
  readonly country: string;
  /** What they are in the business; of who acts for it. */
  readonly position: string;
  /** Percent of the business that is theirs, whole. */
  readonly share: number;
  /** Whether they act for the business and show their face: one of them does. */
  readonly acts: boolean;
};

/** Whoever holds more percent than this is told of (Directive (EU) 2015/849, article 3 (6)). */
export const TOLD_ABOVE = 25;
export const MOST_MEMBERS = 5;
const LEAST_AGE_YEARS = 18;

const yearsBefore = (day: CalendarDate, years: number): string => `${Number(day.slice(0, 4)) - years}${day.slice(4)}`;

export type IdentityProblem = { readonly field: string; readonly words: string };

/** What is wrong with what is told, by its place (`members.0.name`). @param today of the business */
export function memberProblems(members: readonly Member[], today: CalendarDate): IdentityProblem[] {
  const problems: IdentityProblem[] = [];
  const at = (index: number, field: keyof Member, words: string) =>
    problems.push({ field: `members.${index}.${field}`, words });
  for (const [index, { name, born, country, position, share, acts }] of members.entries()) {
    if (!/\p{L}.*\s.*\p{L}/u.test(name.trim()))
      at(index, 'name', 'Write the whole name, as it stands in the document.');
    if (!born) at(index, 'born', 'Say the day of birth.');
    else if (born > yearsBefore(today, LEAST_AGE_YEARS)) at(index, 'born', 'They have to be eighteen or older.');
    else if (born < yearsBefore(today, 120)) at(index, 'born', 'Look at the year again.');
    if (!country) at(index, 'country', 'Say where they live.');
    if (acts && !position.trim()) at(index, 'position', 'Say what you are in the business: owner, director, partner.');
    if (!acts && share <= TOLD_ABOVE)
      at(index, 'share', `Only who holds more than ${TOLD_ABOVE} percent is told of. Leave them out, or correct it.`);
  }
  const all = members.reduce((sum, { share }) => sum + share, 0);
  if (all > 100)
    problems.push({ field: 'members', words: `Together these are ${all} percent. Look at the shares again.` });
  const acting = members.filter(({ acts }) => acts).length;
  if (acting !== 1) problems.push({ field: 'members', words: 'One person acts for the business: you.' });
  return problems;
}

/** Which pictures of somebody have to be there. The back is not asked for: a passport has none. */
export const neededSides = ({ acts }: Pick<Member, 'acts'>): readonly Side[] => (acts ? ['front', 'live'] : ['front']);

/** What is still to be photographed, in words; none where the check can begin. */
export const missingPictures = (
  members: readonly Member[],
  has: (memberId: string, side: Side) => boolean,
): { readonly memberId: string; readonly side: Side; readonly words: string }[] =>
  members.flatMap((member) =>
    neededSides(member)
      .filter((side) => !has(member.id, side))
      .map((side) => ({ memberId: member.id, side, words: `${SIDE_WORDS[side]}: ${member.name || 'nobody yet'}` })),
  );

/** How a check stands. `asked`: something has to be shown anew. */
export type CheckState = 'checking' | 'asked' | 'accepted' | 'refused';

/** Why something is asked anew, or refused. */
export const CHECK_REASONS = {
  'picture-unclear':
    'A picture is not clear enough. Take it again by daylight, with all four corners of the document in it.',
  'document-over': 'The document is no longer valid. Show one that is.',
  'names-differ':
    'The name in the document is another than the one that was written. Correct it, or show another document.',
  'not-the-same': 'The face is not that of the document. Take both again.',
  'not-known': 'They could not find this person. Look at name and day of birth again.',
  'on-a-list': 'They may not say why. Write to them; nothing can be paid out.',
  other: 'They did not say why. Look at everything again.',
} as const;
export type CheckReason = keyof typeof CHECK_REASONS;

export const isCheckReason = (given: string): given is CheckReason => Object.hasOwn(CHECK_REASONS, given);

/** Whether what is told can be changed: while somebody looks at it, and once it is accepted, it stays. */
export const isOpen = (state: CheckState | null): boolean => state === null || state === 'asked' || state === 'refused';

/** How long pictures are kept once it is decided. */
export const KEPT_DAYS = 30;

/** From when on pictures are gone. */
export const goneFrom = (decidedAt: Date): Date => new Date(decidedAt.getTime() + KEPT_DAYS * 86_400_000);
