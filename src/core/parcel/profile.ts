import { scaledDecimal } from '../money/decimal';
import { MOST_GRAMS, MOST_MM, type Size, sidesOf } from './measure';

/** On what labels are printed: one to a sheet of A6 (105 × 148 mm), two or four to one of A4, or on a roll of the business's own size. */
export const LABEL_SHEETS = ['a6', 'a4-2', 'a4-4', 'own'] as const;
export type LabelSheet = (typeof LABEL_SHEETS)[number];

/** Whether what is in a parcel is insured: never, always, or from a worth on (minor units of the business's currency). */
export type Insuring =
  | { readonly kind: 'never' }
  | { readonly kind: 'always' }
  | { readonly kind: 'from'; readonly minor: number };

/** A parcel as it is packed again and again: its box, what that weighs and costs, and with which service it goes. */
export type ParcelProfile = Size & {
  readonly id: string;
  readonly name: string;
  /** What the packing itself weighs, in grams. */
  readonly ownGrams: number;
  /** What may be in it at most, with the packing, in grams; 0 for what the service takes. */
  readonly mostGrams: number;
  /** What the packing costs, in minor units of the business's currency. */
  readonly packagingMinor: number;
  /** The service by its code; empty for the cheapest that takes it. */
  readonly service: string;
  readonly insuring: Insuring;
  readonly signature: boolean;
};

export const MOST_PROFILES = 60;

/** What is wrong with a profile, by field. */
export function profileProblems(profile: ParcelProfile): { field: string; words: string }[] {
  const problems: { field: string; words: string }[] = [];
  if (!profile.name.trim()) problems.push({ field: 'name', words: 'Name this profile.' });
  for (const field of ['lengthMm', 'widthMm', 'heightMm'] as const)
    if (profile[field] < 1 || profile[field] > MOST_MM)
      problems.push({ field, words: 'Write the outer side as a length above 0, up to 3 m.' });
  if (profile.ownGrams < 0 || profile.ownGrams > MOST_GRAMS)
    problems.push({ field: 'ownGrams', words: 'Write what the packing weighs.' });
  if (profile.mostGrams !== 0 && profile.mostGrams <= profile.ownGrams)
    problems.push({ field: 'mostGrams', words: 'It may weigh more than its packing alone, or leave this empty.' });
  return problems;
}

/** What is known of one of something that is packed: weight and sides where its item says them; 0 for what nobody measured. */
export type Measured = Size & { readonly grams: number };

/** Something in a parcel: how many, and what one weighs and measures. */
export type Packed = { readonly quantity: string; readonly one: Measured };

/** What is in it weighs, in whole grams, rounded up; without the packing. Things that nobody weighed weigh nothing. */
export function contentGrams(packed: readonly Packed[]): number {
  const tenThousandths = packed.reduce(
    (sum, { quantity, one }) => sum + scaledDecimal(quantity, 4, 'bad_quantity', 'quantity') * BigInt(one.grams),
    0n,
  );
  return Number((tenThousandths + 9_999n) / 10_000n);
}

/** Whether somebody weighed all that is in it. */
export const isWeighed = (packed: readonly Packed[]): boolean => packed.every(({ one }) => one.grams > 0);

/** Whether the longest things go into the box: each side of each thing beside the box's own, longest to longest. */
export function goesInto(packed: readonly Packed[], box: Size): boolean {
  const inner = sidesOf(box);
  return packed.every(({ one }) => sidesOf(one).every((side, at) => side <= (inner[at] ?? 0)));
}

/** What a rule looks at; what it does not name it takes as it is. Weights in grams, worths in minor units of the business's currency. */
export type ParcelRule = {
  readonly id: string;
  readonly profileId: string;
  /** ISO 3166-1; none for everywhere. */
  readonly countries: readonly string[];
  /** Leaves out the business's own country. */
  readonly abroad: boolean;
  readonly fromGrams: number;
  /** Up to and with; 0 for any. */
  readonly toGrams: number;
  readonly fromMinor: number;
  readonly toMinor: number;
  /** One of these is in it; none for whatever is. */
  readonly itemIds: readonly string[];
  /** A word in what the customer wrote, chose or answered; empty for whatever they said. */
  readonly wish: string;
};

export const MOST_RULES = 80;

/** A rule that takes everything. */
export const openRule = (id: string, profileId: string): ParcelRule => ({
  id,
  profileId,
  countries: [],
  abroad: false,
  fromGrams: 0,
  toGrams: 0,
  fromMinor: 0,
  toMinor: 0,
  itemIds: [],
  wish: '',
});

/** A parcel as rules look at it. */
export type RuleCase = {
  readonly country: string;
  readonly packed: readonly (Packed & { readonly itemId: string | null })[];
  readonly valueMinor: bigint;
  readonly wish: string;
};

const within = (value: bigint, from: number, to: number): boolean =>
  value >= BigInt(from) && (to === 0 || value <= BigInt(to));

/** Whether a rule takes a parcel. @param home the business's country */
export function ruleTakes(rule: ParcelRule, of: RuleCase, home: string): boolean {
  if (rule.countries.length > 0 && !rule.countries.includes(of.country)) return false;
  if (rule.abroad && of.country === home) return false;
  if (!within(BigInt(contentGrams(of.packed)), rule.fromGrams, rule.toGrams)) return false;
  if (!within(of.valueMinor, rule.fromMinor, rule.toMinor)) return false;
  if (rule.itemIds.length > 0 && !of.packed.some(({ itemId }) => itemId !== null && rule.itemIds.includes(itemId)))
    return false;
  return rule.wish === '' || of.wish.toLocaleLowerCase().includes(rule.wish.trim().toLocaleLowerCase());
}

/** Which profile a parcel takes, and by which rule; both null where none knows it. */
export type Chosen = { readonly profile: ParcelProfile | null; readonly rule: ParcelRule | null };

/**
 * The profile of the first rule that takes a parcel and whose box holds what is in it. A rule whose profile is gone, or whose box is too
 * small or too weak for it, is passed over, as a person would.
 */
export function profileFor(
  of: RuleCase,
  rules: readonly ParcelRule[],
  profiles: readonly ParcelProfile[],
  home: string,
): Chosen {
  for (const rule of rules) {
    const profile = profiles.find(({ id }) => id === rule.profileId);
    if (!profile || !ruleTakes(rule, of, home)) continue;
    if (goesInto(of.packed, profile) && !isTooHeavy(contentGrams(of.packed), profile)) return { profile, rule };
  }
  return { profile: null, rule: null };
}

/** Whether it weighs more, with its packing, than the profile allows. */
export const isTooHeavy = (grams: number, { ownGrams, mostGrams }: ParcelProfile): boolean =>
  mostGrams !== 0 && grams + ownGrams > mostGrams;

/** What is insured of a worth, in minor units. */
export const insuredMinor = (insuring: Insuring, valueMinor: bigint): bigint =>
  insuring.kind === 'always' || (insuring.kind === 'from' && valueMinor >= BigInt(insuring.minor)) ? valueMinor : 0n;

/** What a rule says, in words: `To Canada, up to 2 kg, with rosin in it`; `Everything` where it names nothing. */
export function ruleWords(
  rule: ParcelRule,
  say: {
    readonly country: (code: string) => string;
    readonly weight: (grams: number) => string;
    readonly sum: (minor: number) => string;
    readonly item: (id: string) => string;
  },
): string {
  const span = (from: number, to: number, word: (one: number) => string) =>
    from > 0 && to > 0
      ? `${word(from)} to ${word(to)}`
      : from > 0
        ? `from ${word(from)}`
        : to > 0
          ? `up to ${word(to)}`
          : '';
  const worth = span(rule.fromMinor, rule.toMinor, say.sum);
  const parts = [
    rule.countries.length > 0 ? `to ${rule.countries.map(say.country).join(', ')}` : rule.abroad ? 'abroad' : '',
    span(rule.fromGrams, rule.toGrams, say.weight),
    worth ? `worth ${worth}` : '',
    rule.itemIds.length > 0 ? `with ${rule.itemIds.map(say.item).join(' or ')}` : '',
    rule.wish ? `“${rule.wish}” is wished` : '',
  ].filter(Boolean);
  const text = parts.join(', ') || 'everything else';
  return text.charAt(0).toUpperCase() + text.slice(1);
}
