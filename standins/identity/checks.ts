import type { Journal } from '../journal';

/** Somebody who is looked at, and the pictures of them by the hash of what they are. */
export type Looked = {
  readonly name: string;
  readonly born: string;
  readonly country: string;
  readonly pictures: readonly { readonly side: string; readonly sha256: string }[];
};

/** A check of who stands behind a business. `decideAt` by the stand-ins' clock. */
export type Check = {
  readonly key: string;
  readonly business: string;
  readonly about: string;
  readonly people: readonly Looked[];
  readonly askedAt: string;
  readonly decideAt: string;
  readonly state: 'checking' | 'asked' | 'accepted' | 'refused';
  readonly reason: string;
};

export type CheckEvent = Check;

const HOUR_MS = 3_600_000;

/** How it goes with people by what stands in their name: for trying each of them out. Others are accepted within two days. */
const BY_NAME: readonly {
  readonly word: string;
  readonly state: Check['state'];
  readonly reason: string;
  readonly hours: number;
}[] = [
  { word: 'blur', state: 'asked', reason: 'picture-unclear', hours: 5 },
  { word: 'expired', state: 'asked', reason: 'document-over', hours: 5 },
  { word: 'other', state: 'asked', reason: 'names-differ', hours: 5 },
  { word: 'double', state: 'refused', reason: 'not-the-same', hours: 30 },
  { word: 'nobody', state: 'refused', reason: 'not-known', hours: 30 },
  { word: 'listed', state: 'refused', reason: 'on-a-list', hours: 60 },
  { word: 'slow', state: 'accepted', reason: '', hours: 24 * 9 },
];
const USUAL_HOURS = 26;

const ruleOf = (people: readonly Looked[]) => {
  const words = people.flatMap(({ name }) => name.toLowerCase().split(/\s+/));
  return BY_NAME.find(({ word }) => words.includes(word));
};

/** The office that looks who people are. */
export class Checks {
  private readonly byKey = new Map<string, Check>();

  constructor(
    private readonly journal: Journal<CheckEvent>,
    private readonly now: () => number,
  ) {
    for (const check of journal.past) this.byKey.set(check.key, check);
  }

  /** Begins a check; the same key again is the same one. */
  begin(given: Pick<Check, 'key' | 'business' | 'about' | 'people'>): Check {
    const before = this.find(given.key);
    if (before) return before;
    const rule = ruleOf(given.people);
    const now = this.now();
    const decideAt = new Date(now + (rule?.hours ?? USUAL_HOURS) * HOUR_MS);
    return this.keep({
      ...given,
      askedAt: new Date(now).toISOString(),
      decideAt: decideAt.toISOString(),
      state: 'checking',
      reason: '',
    });
  }

  /** A check as it stands by now. */
  find(key: string): Check | undefined {
    const check = this.byKey.get(key);
    if (check?.state !== 'checking' || this.now() < Date.parse(check.decideAt)) return check;
    const rule = ruleOf(check.people);
    return this.keep({ ...check, state: rule?.state ?? 'accepted', reason: rule?.reason ?? '' });
  }

  /** Decides now, by hand. */
  decide(key: string, state: Check['state'], reason: string): Check | undefined {
    const check = this.byKey.get(key);
    return check && this.keep({ ...check, state, reason });
  }

  list(): Check[] {
    return [...this.byKey.keys()].flatMap((key) => this.find(key) ?? []);
  }

  private keep(check: Check): Check {
    this.byKey.set(check.key, check);
    this.journal.append(check);
    return check;
  }
}
