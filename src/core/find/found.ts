/** What can be found, in the order in which kinds are preferred where all else is alike. */
export const FOUND_KINDS = [
  'customer',
  'invoice',
  'plan',
  'page',
  'link',
  'button',
  'payment',
  'item',
  'shipment',
  'receipt',
  'partner',
  'code',
  'recurring',
  'bulk',
] as const;
export type FoundKind = (typeof FOUND_KINDS)[number];

/** Something that was found; `amountMinor` in minor units where it has a sum (what is due of what is open). A receipt's id is its payment's. */
export type Found = {
  readonly kind: FoundKind;
  readonly id: string;
  readonly name: string;
  readonly number: string;
  readonly about: string;
  readonly state: string;
  readonly amountMinor: bigint | null;
  readonly currency: string;
  readonly at: Date;
};

/** States in which somebody is still likely to be looked for something; all others come after them. */
const LIVELY = new Set(['', 'open', 'active', 'waiting', 'draft', 'paid', 'pending']);
const OPEN = new Set(['open', 'active', 'waiting']);

/** How well one text answers to what was typed: equal, begun so, a word of it begun so, held somewhere, or not at all. */
function likeness(text: string, typed: string): number {
  const own = text.toLocaleLowerCase();
  if (own === '' || typed === '') return 0;
  if (own === typed) return 100;
  if (own.startsWith(typed)) return 80;
  if (own.split(/[\s\-/,.]+/).some((word) => word.startsWith(typed))) return 60;
  return own.includes(typed) ? 40 : 0;
}

/** A number as it is said without its letters and noughts: `P-21` answers to `21`, `R-0007` to `7`. */
const bare = (number: string): string => number.replace(/^\D*0*/, '');

/** How well something answers to what was typed; larger is better. What was found by another of its sides (a sum, a card) has no likeness. */
function score(one: Found, typed: string): number {
  const words = typed.split(/\s+/);
  const all = (text: string) => Math.min(...words.map((word) => likeness(text, word)));
  const best = Math.max(
    likeness(one.number, typed) + (one.number ? 5 : 0),
    bare(one.number) === typed ? 95 : 0,
    likeness(one.name, typed),
    words.length > 1 ? all(one.name) : 0,
    likeness(one.about, typed) * 0.8,
  );
  const kind = (FOUND_KINDS.length - FOUND_KINDS.indexOf(one.kind)) / 2;
  return best + kind + (OPEN.has(one.state) || one.kind === 'customer' ? 3 : LIVELY.has(one.state) ? 0 : -12);
}

/** The best of what was found, best first; of alike ones the latest. @param most how many at most */
export function bestFound(found: readonly Found[], words: string, most: number): Found[] {
  const typed = words.trim().toLocaleLowerCase();
  return found
    .map((one) => ({ one, score: score(one, typed) }))
    .sort((a, b) => b.score - a.score || b.one.at.getTime() - a.one.at.getTime() || (a.one.id < b.one.id ? -1 : 1))
    .slice(0, most)
    .map(({ one }) => one);
}
