/**
 * What an operation at the desk needs, in the order in which they are shown. Each operation names its right where it is declared; this
 * list is what the desk, the operations and the table of who may what all read. What shows both customers and sums, or a paper on which
 * both stand, needs `see`.
 */
export const RIGHTS = [
  'own',
  'customers',
  'sums',
  'see',
  'ask',
  'take',
  'give-back',
  'records',
  'pack',
  'settings',
  'people',
] as const;
export type Right = (typeof RIGHTS)[number];

/** What each right is, in the words of what one then can do. */
export const RIGHT_WORDS: Readonly<Record<Right, string>> = {
  own: 'Decide what is their own: how they sign in and write',
  customers: 'Look up names, addresses and numbers of customers',
  sums: 'Look at what came in and was paid out, without names',
  see: 'Look at everything',
  ask: 'Write and send invoices, links, pages, buttons and plans',
  take: 'Take payments, charge cards, match the bank',
  'give-back': 'Refund and pay out',
  records: 'Change customers and items',
  pack: 'Pack, buy labels, hand over to the carrier',
  settings: 'Change the business: profile, taxes, accounts, partners',
  people: 'Decide who may what, and read the log',
};

export const ROLES = ['owner', 'bookkeeper', 'clerk', 'packer', 'reader'] as const;
export type Role = (typeof ROLES)[number];

export const ROLE_WORDS: Readonly<Record<Role, string>> = {
  owner: 'Owner',
  bookkeeper: 'Bookkeeper',
  clerk: 'Clerk',
  packer: 'Packer',
  reader: 'Reader',
};

/** As what somebody acts: a person's role, or a program, which may only what its key says. */
export type ActsAs = Role | 'program';

/** What can be hidden from somebody, whatever else they may. */
export const SIGHTS = ['customers', 'sums'] as const satisfies readonly Right[];
export type Sight = (typeof SIGHTS)[number];

const LOOKS: readonly Right[] = ['own', 'customers', 'sums', 'see'];

const MAY: Readonly<Record<ActsAs, ReadonlySet<Right>>> = {
  owner: new Set(RIGHTS),
  bookkeeper: new Set([...LOOKS, 'take', 'give-back', 'records']),
  clerk: new Set([...LOOKS, 'ask', 'take', 'records', 'pack']),
  // Who packs needs names and addresses, and no sums.
  packer: new Set(['own', 'customers', 'pack']),
  reader: new Set(LOOKS),
  program: new Set(),
};

/** Rights that can be given beyond a role. Who may what is decided by owners alone. */
export const EXTRA_RIGHTS = [
  'ask',
  'take',
  'give-back',
  'records',
  'pack',
  'settings',
] as const satisfies readonly Right[];

/** What can be hidden from who only looks on: kept beside the rights that go beyond a role. */
export const HIDDEN = ['no-customers', 'no-sums'] as const;
export const HIDDEN_WORDS: Readonly<Record<(typeof HIDDEN)[number], string>> = {
  'no-customers': 'Customers: no names, addresses or papers',
  'no-sums': 'Sums: no prices, takings or papers',
};
const HIDES: Readonly<Record<Sight, (typeof HIDDEN)[number]>> = { customers: 'no-customers', sums: 'no-sums' };

export const EXTRAS = [...EXTRA_RIGHTS, ...HIDDEN] as const;
export type ExtraRight = (typeof EXTRAS)[number];

/** What somebody holds: a role, and single rights on top, or what is hidden from them. */
export type Holds = { readonly role: Role; readonly extra: readonly ExtraRight[] };

/** As what somebody acts, and what they may beyond that. */
export type Acting = { readonly role: ActsAs; readonly extra: readonly (Right | ExtraRight)[] };

/** What somebody has to see for a right: all but these show customers and sums together. Who packs needs no sums. */
const sightsOf = (right: Right): readonly Sight[] =>
  right === 'own'
    ? []
    : right === 'customers' || right === 'sums'
      ? [right]
      : right === 'pack'
        ? ['customers']
        : SIGHTS;

const holds = ({ role, extra }: Acting, right: Right): boolean =>
  MAY[role].has(right) ||
  extra.includes(right) ||
  (role === 'program' && LOOKS.includes(right) && extra.includes('see'));

/** Whether somebody has a right: the only place that knows. What is hidden from them takes along whatever would show it. */
export const mayDo = (acting: Acting, right: Right): boolean =>
  holds(acting, right) &&
  sightsOf(right).every((sight) => holds(acting, sight) && !acting.extra.includes(HIDES[sight]));

/** What an owner can tick for a role: what it has not, and for who only looks on what is hidden; what would show the hidden is not offered. */
export const extrasFor = (role: Role, chosen: readonly ExtraRight[]): readonly ExtraRight[] => {
  const hidden = role === 'reader' ? HIDDEN : [];
  const isHiding = role === 'packer' || (role === 'reader' && HIDDEN.some((one) => chosen.includes(one)));
  return [...(isHiding ? [] : EXTRA_RIGHTS.filter((right) => !MAY[role].has(right))), ...hidden];
};

/** Single rights that say something beside the role, each once, in their order. */
export const extraBeyond = (role: Role, extra: readonly ExtraRight[]): readonly ExtraRight[] =>
  extrasFor(role, extra).filter((one) => extra.includes(one));

/** Whether it takes something away rather than giving it. */
export const isHidden = (one: ExtraRight): one is (typeof HIDDEN)[number] => HIDDEN.some((hidden) => hidden === one);

export const extraWords = (one: ExtraRight): string => (isHidden(one) ? HIDDEN_WORDS[one] : RIGHT_WORDS[one]);

/** What somebody holds, in words: `Clerk, and: Refund and pay out`, `Reader, hidden: Sums …`. */
export function holdsText({ role, extra }: Holds): string {
  const kept = extraBeyond(role, extra);
  const more = kept.filter((one) => !isHidden(one)).map(extraWords);
  const less = kept.filter(isHidden).map(extraWords);
  return [
    ROLE_WORDS[role],
    more.length > 0 ? `and: ${more.join('; ')}` : '',
    less.length > 0 ? `hidden: ${less.join('; ')}` : '',
  ]
    .filter(Boolean)
    .join(', ');
}
