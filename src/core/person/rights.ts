/**
 * What an operation at the desk needs, in the order in which they are shown. Each operation names its right where it is declared; this
 * list is what the desk, the operations and the table of who may what all read.
 */
export const RIGHTS = ['see', 'ask', 'take', 'give-back', 'records', 'settings', 'people'] as const;
export type Right = (typeof RIGHTS)[number];

/** What each right is, in the words of what one then can do. */
export const RIGHT_WORDS: Readonly<Record<Right, string>> = {
  see: 'Look at everything',
  ask: 'Write and send invoices, links, pages, buttons and plans',
  take: 'Take payments, charge cards, match the bank',
  'give-back': 'Refund and pay out',
  records: 'Change customers and items',
  settings: 'Change the business: profile, taxes, accounts, partners',
  people: 'Decide who may what, and read the log',
};

export const ROLES = ['owner', 'bookkeeper', 'clerk', 'reader'] as const;
export type Role = (typeof ROLES)[number];

export const ROLE_WORDS: Readonly<Record<Role, string>> = {
  owner: 'Owner',
  bookkeeper: 'Bookkeeper',
  clerk: 'Clerk',
  reader: 'Reader',
};

/** As what somebody acts: a person's role, or a program, which may only what its key says. */
export type ActsAs = Role | 'program';

const MAY: Readonly<Record<ActsAs, ReadonlySet<Right>>> = {
  owner: new Set(RIGHTS),
  bookkeeper: new Set(['see', 'take', 'give-back', 'records']),
  clerk: new Set(['see', 'ask', 'take', 'records']),
  reader: new Set(['see']),
  program: new Set(),
};

/** Rights that can be given beyond a role. Who may what is decided by owners alone. */
export const EXTRA_RIGHTS = ['ask', 'take', 'give-back', 'records', 'settings'] as const satisfies readonly Right[];
export type ExtraRight = (typeof EXTRA_RIGHTS)[number];

/** What somebody holds: a role, and single rights on top. */
export type Holds = { readonly role: Role; readonly extra: readonly ExtraRight[] };

/** As what somebody acts, and what they may beyond that. */
export type Acting = { readonly role: ActsAs; readonly extra: readonly Right[] };

/** Whether somebody has a right: the only place that knows. */
export const mayDo = ({ role, extra }: Acting, right: Right): boolean => MAY[role].has(right) || extra.includes(right);

/** Single rights that say something beside the role, each once, in their order. */
export const extraBeyond = (role: Role, extra: readonly ExtraRight[]): readonly ExtraRight[] =>
  EXTRA_RIGHTS.filter((right) => extra.includes(right) && !MAY[role].has(right));

/** What somebody holds, in words: `Clerk, and: Refund and pay out`. */
export function holdsText({ role, extra }: Holds): string {
  const more = extraBeyond(role, extra).map((right) => RIGHT_WORDS[right]);
  return more.length === 0 ? ROLE_WORDS[role] : `${ROLE_WORDS[role]}, and: ${more.join('; ')}`;
}
