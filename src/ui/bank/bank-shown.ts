/** What of a line agrees with a proposal, and how. */
export type BankFact = {
  readonly label: string;
  readonly found: string;
  readonly means: string;
  readonly agrees: 'equal' | 'like' | 'no';
};

/** What a line could be for; minor units. */
export type BankProposal = {
  readonly key: string;
  readonly title: string;
  readonly parts: readonly {
    readonly kind: string;
    readonly id: string;
    readonly label: string;
    readonly minor: number;
  }[];
  readonly rest: number;
  readonly facts: readonly BankFact[];
  readonly agreeing: number;
  readonly sure: 'sure' | 'likely' | 'could';
};

export type BankGroup = 'sure' | 'likely' | 'could' | 'unknown' | 'later' | 'matched';

/** A line of the bank as it is shown; minor units, `open` is what of it is for nothing yet. */
export type BankLineShown = {
  readonly id: string;
  readonly day: string;
  readonly minor: number;
  readonly open: number;
  readonly name: string;
  readonly text: string;
  readonly reference: string;
  readonly otherAccount: string;
  readonly title: string;
  readonly under: string;
  readonly group: BankGroup;
  readonly matches: readonly {
    readonly words: string;
    readonly minor: number;
    readonly href: string | null;
    readonly byName: string;
  }[];
  readonly proposals: readonly BankProposal[];
};

export const GROUPS: readonly { readonly group: BankGroup; readonly name: string }[] = [
  { group: 'sure', name: 'Sure' },
  { group: 'likely', name: 'Likely, have a look' },
  { group: 'could', name: 'Could be' },
  { group: 'unknown', name: 'Unknown' },
  { group: 'later', name: 'Left for later' },
  { group: 'matched', name: 'Matched' },
];

export const SURE_WORDS = { sure: 'Sure', likely: 'Likely', could: 'Could be' } as const;
