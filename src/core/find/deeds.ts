import type { Found, FoundKind } from './found';

/** What can be done with something that was found, by a verb. */
export type Deed =
  | 'remind'
  | 'record'
  | 'send'
  | 'copy'
  | 'edit'
  | 'credit'
  | 'cancel'
  | 'pause'
  | 'resume'
  | 'invoice'
  | 'plan'
  | 'statement';

/** Which verbs mean which deed; the first is how it is said. */
const VERBS: readonly { readonly deed: Deed; readonly words: readonly string[] }[] = [
  { deed: 'remind', words: ['remind'] },
  { deed: 'record', words: ['record', 'received', 'paid'] },
  { deed: 'send', words: ['send'] },
  { deed: 'copy', words: ['copy', 'duplicate'] },
  { deed: 'edit', words: ['edit', 'change'] },
  { deed: 'credit', words: ['credit'] },
  { deed: 'cancel', words: ['cancel', 'void'] },
  { deed: 'pause', words: ['pause', 'stop'] },
  { deed: 'resume', words: ['resume', 'continue', 'open'] },
  { deed: 'invoice', words: ['invoice', 'bill', 'new invoice'] },
  { deed: 'plan', words: ['plan', 'new plan', 'new billing plan'] },
  { deed: 'statement', words: ['statement'] },
];

/** What a typed line wants done, and with what: `pause P-21` pauses what answers to `P-21`. */
export type Wish = { readonly deed: Deed; readonly rest: string };

/** All that a line may mean as a deed; none for a line that does not begin with a verb and go on. `for` and `of` are passed over. */
export function wishesOf(line: string): Wish[] {
  const typed = line.trim().toLowerCase().replace(/\s+/g, ' ');
  return VERBS.flatMap(({ deed, words }) =>
    words.flatMap((verb) => {
      if (!typed.startsWith(`${verb} `)) return [];
      const rest = typed
        .slice(verb.length + 1)
        .replace(/^(for|of|to|invoice|plan|customer|link|page|button) /, '')
        .trim();
      return rest.length > 0 ? [{ deed, rest }] : [];
    }),
  );
}

const OFFERS: readonly FoundKind[] = ['link', 'page', 'button'];

/** Whether a deed can be done with something as it stands. */
export function canDo(deed: Deed, { kind, state }: Pick<Found, 'kind' | 'state'>): boolean {
  switch (deed) {
    case 'remind':
    case 'record':
      return kind === 'invoice' && state === 'open';
    case 'send':
      return (
        (kind === 'invoice' && (state === 'open' || state === 'draft')) || (kind === 'plan' && state === 'waiting')
      );
    case 'credit':
      return kind === 'invoice' && (state === 'open' || state === 'paid');
    case 'cancel':
      return kind === 'invoice' && state === 'open';
    case 'copy':
      return kind === 'invoice' || kind === 'plan' || OFFERS.includes(kind);
    case 'edit':
      return (
        (kind === 'invoice' && (state === 'draft' || state === 'open')) ||
        (kind === 'plan' && ['draft', 'active', 'paused'].includes(state)) ||
        OFFERS.includes(kind)
      );
    case 'pause':
      return kind === 'plan' || kind === 'recurring' ? state === 'active' : OFFERS.includes(kind) && state === 'open';
    case 'resume':
      return (kind === 'plan' || kind === 'recurring' || OFFERS.includes(kind)) && state === 'paused';
    case 'invoice':
    case 'plan':
    case 'statement':
      return kind === 'customer';
  }
}
