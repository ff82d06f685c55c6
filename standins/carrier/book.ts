import { type CalendarDate, weekday } from '../../src/core/dates/calendar-date';
import type { ClaimWhy } from '../../src/core/parcel/claim';
import { checkFigure } from '../../src/core/parcel/number';
import type { ServiceRefusal } from '../../src/core/parcel/service';
import { rateTotal } from '../../src/core/parcel/service';
import type { Journal } from '../journal';
import type { Seeded } from '../seeded';
import type { Goes, Label } from './label';
import { type Asked, ratesFor } from './tariff';
import { behaviourOf, wayAhead } from './ways';

export type CarrierEvent =
  | { readonly kind: 'goes'; readonly number: string; readonly goes: Goes }
  | {
      readonly kind: 'top-up';
      readonly account: string;
      readonly key: string;
      readonly currency: string;
      readonly minor: number;
      readonly at: string;
    }
  | { readonly kind: 'label'; readonly label: Label }
  | { readonly kind: 'refused'; readonly account: string; readonly key: string; readonly why: ServiceRefusal }
  | {
      readonly kind: 'claim';
      readonly account: string;
      readonly key: string;
      readonly number: string;
      readonly why: ClaimWhy;
      readonly minor: number;
      readonly at: string;
    }
  | {
      readonly kind: 'claim-paid';
      readonly account: string;
      readonly key: string;
      readonly minor: number;
      readonly at: string;
    }
  | {
      readonly kind: 'pick-up';
      readonly account: string;
      readonly key: string;
      readonly on: string;
      readonly number: string;
    }
  | {
      readonly kind: 'surcharge';
      readonly account: string;
      readonly number: string;
      readonly minor: number;
      readonly words: string;
      readonly at: string;
    }
  | { readonly kind: 'void'; readonly number: string; readonly at: string }
  | {
      readonly kind: 'dated';
      readonly number: string;
      readonly mailOn: CalendarDate;
      readonly promisedOn: CalendarDate;
    };

/** What became of a key under which a label was asked for. */
export type Outcome =
  | { readonly label: Label; readonly voidedAt: string | null }
  | { readonly refused: ServiceRefusal };

export type Wanted = { readonly key: string; readonly service: string; readonly asked: Asked };

/** One line of what moved on an account, with the key it was asked under; minor units, what leaves it is below 0. */
export type Move = {
  readonly at: string;
  readonly what: 'top-up' | 'label' | 'void' | 'claim' | 'surcharge';
  readonly number: string;
  readonly key: string;
  readonly words: string;
  readonly minor: number;
};

type ClaimEvent = Extract<CarrierEvent, { kind: 'claim' }>;
export type ClaimOutcome =
  | { readonly outcome: 'open' | 'refused'; readonly words: string }
  | { readonly outcome: 'paid'; readonly minor: number; readonly words: string };

const DAY_MS = 86_400_000;
/** So long a claim is looked at. */
const CLAIM_DAYS = 2;

/** The carrier's accounts, labels and what they cost. The same key is the same label, whatever happens between. */
export class CarrierBook {
  private readonly byKey = new Map<string, Outcome>();
  private readonly byNumber = new Map<string, { label: Label; voidedAt: string | null }>();
  private readonly balances = new Map<string, { currency: string; minor: number }>();
  private readonly topUps = new Map<string, number>();
  private readonly moves = new Map<string, Move[]>();
  private readonly claims = new Map<string, { event: ClaimEvent; paid: number | null }>();
  private readonly pickUps = new Map<string, string>();
  private readonly surcharged = new Set<string>();
  private count = 0;

  constructor(
    private readonly journal: Journal<CarrierEvent>,
    readonly seeded: Seeded,
    private readonly now: () => number,
  ) {
    for (const event of journal.past) this.apply(event);
  }

  private apply(event: CarrierEvent): void {
    if (event.kind === 'top-up') {
      this.topUps.set(`${event.account} ${event.key}`, event.minor);
      const { at, key, minor } = event;
      this.move(event.account, event.currency, { at, what: 'top-up', number: '', key, words: '', minor });
    } else if (event.kind === 'label') {
      const { label } = event;
      const kept: { label: Label; voidedAt: string | null } = { label, voidedAt: null };
      this.count++;
      this.byKey.set(`${label.account} ${label.key}`, kept);
      this.byNumber.set(label.number, kept);
      const minor = -(label.rateMinor + label.insuranceMinor);
      const { boughtAt: at, number, key, serviceName: words } = label;
      this.move(label.account, label.currency, { at, what: 'label', number, key, words, minor });
    } else if (event.kind === 'refused') this.byKey.set(`${event.account} ${event.key}`, { refused: event.why });
    else if (event.kind === 'pick-up') this.pickUps.set(`${event.account} ${event.key}`, event.number);
    else if (event.kind === 'claim') this.claims.set(`${event.account} ${event.key}`, { event, paid: null });
    else if (event.kind === 'claim-paid') {
      const claim = this.claims.get(`${event.account} ${event.key}`);
      if (!claim) return;
      claim.paid = event.minor;
      const { currency } = this.balanceOf(event.account);
      this.move(event.account, currency, {
        at: event.at,
        what: 'claim',
        number: claim.event.number,
        key: event.key,
        words: '',
        minor: event.minor,
      });
    } else if (event.kind === 'surcharge') {
      const { currency } = this.balanceOf(event.account);
      const { at, number, words, minor } = event;
      this.surcharged.add(number);
      this.move(event.account, currency, { at, what: 'surcharge', number, key: '', words, minor });
    } else if (event.kind === 'goes') {
      const kept = this.byNumber.get(event.number);
      if (kept) kept.label = { ...kept.label, goes: event.goes };
    } else if (event.kind === 'dated') {
      const kept = this.byNumber.get(event.number);
      if (kept)
        kept.label = {
          ...kept.label,
          promisedOn: event.promisedOn,
          asked: { ...kept.label.asked, mailOn: event.mailOn },
        };
    } else {
      const kept = this.byNumber.get(event.number);
      if (!kept) return;
      kept.voidedAt = event.at;
      this.byKey.set(`${kept.label.account} ${kept.label.key}`, kept);
      const { account, currency, rateMinor, insuranceMinor } = kept.label;
      this.move(account, currency, {
        at: event.at,
        what: 'void',
        number: event.number,
        key: `void:${event.number}`,
        words: '',
        minor: rateMinor + insuranceMinor,
      });
    }
  }

  private move(account: string, currency: string, move: Move): void {
    const balance = this.balances.get(account) ?? { currency, minor: 0 };
    this.balances.set(account, { ...balance, minor: balance.minor + move.minor });
    this.moves.set(account, [...(this.moves.get(account) ?? []), move]);
  }

  private keep(events: readonly CarrierEvent[]): void {
    this.journal.appendAll(events);
    for (const event of events) this.apply(event);
  }

  balanceOf(account: string): { currency: string; minor: number } {
    return this.balances.get(account) ?? { currency: '', minor: 0 };
  }

  /** What moved on an account: parcels whose recipient is called “heavier” were weighed again at their first scan. */
  movesOf(account: string): readonly Move[] {
    for (const { label, voidedAt } of this.byNumber.values()) {
      const weighedAt = wayAhead(label, this.seeded).scans[0]?.at;
      if (label.account !== account || voidedAt || this.surcharged.has(label.number)) continue;
      if (
        (label.goes ?? behaviourOf(label.asked.name)) !== 'heavier' ||
        !weighedAt ||
        Date.parse(weighedAt) > this.now()
      )
        continue;
      const minor = -Math.ceil(label.rateMinor / 4);
      const words = 'Weighed again: heavier than declared';
      this.keep([{ kind: 'surcharge', account, number: label.number, minor, words, at: weighedAt }]);
    }
    return this.moves.get(account) ?? [];
  }

  accounts(): string[] {
    return [...this.balances.keys()];
  }

  /** Takes up money, once for each key. Returns the balance. */
  topUp(account: string, key: string, currency: string, minor: number): { currency: string; minor: number } {
    if (!this.topUps.has(`${account} ${key}`)) {
      const at = new Date(this.now()).toISOString();
      this.keep([{ kind: 'top-up', account, key, currency, minor, at }]);
    }
    return this.balanceOf(account);
  }

  outcomeOf(account: string, key: string): Outcome | undefined {
    return this.byKey.get(`${account} ${key}`);
  }

  labelOf(number: string): { label: Label; voidedAt: string | null } | undefined {
    return this.byNumber.get(number);
  }

  /** Sells labels, each once for its key; all that is new is on the disk before any is answered. */
  sell(account: string, currency: string, wanted: readonly Wanted[]): Outcome[] {
    const fresh: CarrierEvent[] = [];
    let { minor: left } = this.balanceOf(account);
    const boughtAt = new Date(this.now()).toISOString();
    const outcomes = new Map<string, Outcome>();
    for (const { key, service, asked } of wanted) {
      const before = this.outcomeOf(account, key) ?? outcomes.get(key);
      if (before) {
        outcomes.set(key, before);
        continue;
      }
      const refuse = (why: ServiceRefusal) => {
        // What only lacked money may be asked for again under the same key.
        if (why !== 'not-covered') fresh.push({ kind: 'refused', account, key, why });
        outcomes.set(key, { refused: why });
      };
      const { rates, refused } = ratesFor(asked, currency);
      const rate = rates.find((one) => one.service === service);
      if (/\bunknown\b/i.test(asked.name)) refuse('bad-address');
      else if (!rate) refuse(refused.find((one) => one.service === service)?.why ?? 'other');
      else if (rateTotal(rate) > left) refuse('not-covered');
      else {
        left -= rateTotal(rate);
        const label: Label = {
          account,
          key,
          number: this.numberFor(this.count + fresh.length, asked.from.country),
          currency,
          service,
          serviceName: rate.name,
          asked,
          rateMinor: rate.rateMinor + rate.signatureMinor,
          insuranceMinor: rate.insuranceMinor,
          promisedOn: rate.promisedOn,
          customsForm: rate.customsForm,
          boughtAt,
        };
        fresh.push({ kind: 'label', label });
        outcomes.set(key, { label, voidedAt: null });
      }
    }
    if (fresh.length > 0) this.keep(fresh);
    return wanted.map(({ key }) => outcomes.get(key) ?? { refused: 'other' });
  }

  /** An item number of the post (UPU S10). */
  private numberFor(count: number, country: string): string {
    const figures = String(44_000_000 + ((count * 7919) % 50_000_000)).padStart(8, '0');
    return `TW${figures}${checkFigure(figures)}${/^[A-Z]{2}$/.test(country) ? country : 'US'}`;
  }

  /** Takes a label back: within a day, and before it was scanned. Returns what it is now; undefined where there is none. */
  takeBack(account: string, number: string): 'voided' | 'too-late' | undefined {
    const kept = this.byNumber.get(number);
    if (kept?.label.account !== account) return undefined;
    if (kept.voidedAt) return 'voided';
    const now = this.now();
    const first = wayAhead(kept.label, this.seeded).scans[0];
    if (now > Date.parse(kept.label.boughtAt) + DAY_MS || (first && Date.parse(first.at) <= now)) return 'too-late';
    this.keep([{ kind: 'void', number, at: new Date(now).toISOString() }]);
    return 'voided';
  }

  /** A parcel is handed over on another day: until its first scan. Returns when it is promised then; undefined where it cannot be. */
  redate(account: string, number: string, mailOn: CalendarDate): CalendarDate | undefined {
    const kept = this.byNumber.get(number);
    if (kept?.label.account !== account || kept.voidedAt) return undefined;
    const first = wayAhead(kept.label, this.seeded).scans[0];
    if (first && Date.parse(first.at) <= this.now()) return undefined;
    const { asked, service, currency } = kept.label;
    const rate = ratesFor({ ...asked, mailOn }, currency).rates.find((one) => one.service === service);
    if (!rate) return undefined;
    this.keep([{ kind: 'dated', number, mailOn, promisedOn: rate.promisedOn }]);
    return rate.promisedOn;
  }

  /**
   * Looks at what is asked for a parcel, once for a key: two days long, then it pays what was insured, or the postage, where its own scans
   * say that it was lost, damaged or late. A recipient called “contested” gets nothing. Undefined for what is no label of the account's.
   */
  claim(wanted: Omit<ClaimEvent, 'kind' | 'at'>): ClaimOutcome | undefined {
    const kept = this.byNumber.get(wanted.number);
    if (kept?.label.account !== wanted.account) return undefined;
    const key = `${wanted.account} ${wanted.key}`;
    const now = this.now();
    if (!this.claims.has(key)) this.keep([{ ...wanted, kind: 'claim', at: new Date(now).toISOString() }]);
    const claim = this.claims.get(key);
    if (!claim || now < Date.parse(claim.event.at) + CLAIM_DAYS * DAY_MS)
      return { outcome: 'open', words: 'We look for it; an answer comes within two days' };
    if (claim.paid !== null) return { outcome: 'paid', minor: claim.paid, words: 'Paid onto your balance' };
    const { label } = kept;
    const scans = wayAhead(label, this.seeded).scans.filter(({ at }) => Date.parse(at) <= now);
    const was = (scan: string) => scans.some((one) => one.scan === scan);
    const arrived = scans.find(({ scan }) => scan === 'delivered');
    const isTrue =
      claim.event.why === 'late'
        ? !arrived || arrived.at.slice(0, 10) > label.promisedOn
        : was(claim.event.why) && !(claim.event.why === 'lost' && arrived);
    if (/\bcontested\b/i.test(label.asked.name)) return { outcome: 'refused', words: 'It was not packed well enough' };
    if (!isTrue) return { outcome: 'refused', words: 'Our scans say otherwise' };
    const covered =
      claim.event.why !== 'late' && label.asked.insuredMinor > 0 ? label.asked.insuredMinor : label.rateMinor;
    const minor = Math.min(claim.event.minor, covered);
    const { account, key: own } = claim.event;
    this.keep([{ kind: 'claim-paid', account, key: own, minor, at: new Date(now).toISOString() }]);
    return { outcome: 'paid', minor, words: 'Paid onto your balance' };
  }

  /** Comes for parcels on a day, ordered once for a key: not on a Sunday, and not on a day that is over. */
  pickUp(account: string, key: string, on: CalendarDate): { number: string; words: string } {
    const before = this.pickUps.get(`${account} ${key}`);
    if (before) return { number: before, words: '' };
    if (weekday(on) === 7) return { number: '', words: 'nobody drives on a Sunday' };
    if (on < new Date(this.now() - DAY_MS).toISOString().slice(0, 10)) return { number: '', words: 'that day is over' };
    const number = `PU${String(10_000 + this.pickUps.size * 37)}`;
    this.keep([{ kind: 'pick-up', account, key, on, number }]);
    return { number, words: '' };
  }

  /** From now on it goes so, by hand. */
  say(number: string, goes: Goes): void {
    if (this.byNumber.has(number)) this.keep([{ kind: 'goes', number, goes }]);
  }

  labels(): { label: Label; voidedAt: string | null }[] {
    return [...this.byNumber.values()];
  }
}
