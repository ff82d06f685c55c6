import { type CustomsForm, isCustomsForm } from '@/core/customs/form';
import type { CalendarDate } from '@/core/dates/calendar-date';
import { isCalendarDate } from '@/core/dates/calendar-date';
import type { ClaimWhy } from '@/core/parcel/claim';
import type { ParcelSpec } from '@/core/parcel/packed';
import type { DeliveryProof } from '@/core/parcel/proof';
import { isServiceRefusal, type RateAnswer, type ServiceRate, type ServiceRefusal } from '@/core/parcel/service';
import { isScan, type ScanLine } from '@/core/parcel/shipment';
import type { Address } from '@/core/place/address';
import { call } from './http';

/** A label as it was sold, or why not. */
export type LabelAnswer =
  | {
      readonly kind: 'sold';
      readonly number: string;
      readonly service: string;
      readonly serviceName: string;
      readonly rateMinor: number;
      readonly insuranceMinor: number;
      readonly promisedOn: CalendarDate;
      readonly customsForm: CustomsForm;
      readonly voided: boolean;
    }
  | { readonly kind: 'refused'; readonly why: ServiceRefusal };

export type WantedLabel = { readonly key: string; readonly service: string; readonly parcel: ParcelSpec };

/** What the carrier knows of a parcel's way. */
export type Tracked = {
  readonly scans: readonly ScanLine[];
  readonly ahead: readonly string[];
  readonly proof: DeliveryProof | null;
};

export type WantedPickUp = {
  readonly key: string;
  readonly on: CalendarDate;
  readonly parcels: number;
  readonly grams: number;
  readonly from: Address;
};

export type WantedClaim = {
  readonly key: string;
  readonly number: string;
  readonly why: ClaimWhy;
  readonly minor: number;
};

/** What became of a claim; `minor` is what was paid onto the balance. */
export type ClaimAnswer =
  | { readonly outcome: 'open'; readonly words: string }
  | { readonly outcome: 'refused'; readonly words: string }
  | { readonly outcome: 'paid'; readonly minor: number; readonly words: string };

export type AddressCheck =
  | { readonly says: 'known' | 'unknown' }
  | { readonly says: 'proposal'; readonly address: Address };

/** The carrier, in our words. No method throws for an outage: null is no answer, and then nothing is known. */
export interface Carrier {
  /** What the services cost, for each parcel. Nothing is bought. */
  rates(currency: string, parcels: readonly ParcelSpec[]): Promise<readonly RateAnswer[] | null>;
  checkAddresses(addresses: readonly Address[]): Promise<readonly AddressCheck[] | null>;
  /** Buys labels from an account's balance; the same key again is the same label. */
  buy(account: string, currency: string, labels: readonly WantedLabel[]): Promise<readonly LabelAnswer[] | null>;
  /** What became of keys; `never-seen` where nothing was asked under one. */
  known(account: string, keys: readonly string[]): Promise<readonly (LabelAnswer | 'never-seen')[] | null>;
  /** Gives a label back: within a day and before its first scan. */
  giveBack(account: string, number: string): Promise<'voided' | 'too-late' | null>;
  /** Says that a parcel is handed over on another day; answers when it is promised then. Null also where it is too late for that. */
  redate(account: string, number: string, mailOn: CalendarDate): Promise<CalendarDate | null>;
  /** Puts money on an account, once for a key. Answers the balance in minor units. */
  topUp(account: string, key: string, currency: string, minor: number): Promise<{ readonly minor: number } | null>;
  balance(account: string): Promise<{ readonly minor: number; readonly currency: string } | null>;
  /** Asks to be paid for a parcel, once for a key, and what became of that under the same key. */
  claim(account: string, claim: WantedClaim): Promise<ClaimAnswer | null>;
  /** Orders it to come for parcels, once for a key; an empty number says that it does not come, and `words` why. */
  pickUp(account: string, wanted: WantedPickUp): Promise<{ readonly number: string; readonly words: string } | null>;
  /** The statement of a month as a file (CSV), by the month's first day; null also where it is not over yet. */
  statement(account: string, month: CalendarDate): Promise<Uint8Array | null>;
  /** Where parcels are, by their numbers; null for one that the carrier does not know. */
  scans(account: string, numbers: readonly string[]): Promise<readonly (Tracked | null)[] | null>;
}

const TIMEOUT_MS = 15_000;
type Json = Record<string, unknown>;

const whole = (value: unknown): number | null =>
  Number.isSafeInteger(value) && Number(value) >= 0 ? Number(value) : null;
const text = (value: unknown, most = 200): string => String(value ?? '').slice(0, most);
const refusalOf = (value: unknown): ServiceRefusal => {
  const said = text(value);
  return isServiceRefusal(said) ? said : 'other';
};
const formOf = (value: unknown): CustomsForm => {
  const said = text(value);
  return isCustomsForm(said) ? said : '';
};
const objectOf = (value: unknown): Json => (typeof value === 'object' && value !== null ? (value as Json) : {});
const listOf = (value: unknown): Json[] => (Array.isArray(value) ? value.map(objectOf) : []);

function rateOf(read: Json): ServiceRate[] {
  const [rateMinor, insuranceMinor, signatureMinor] = [read.rateMinor, read.insuranceMinor, read.signatureMinor].map(
    whole,
  );
  const promisedOn = text(read.promisedOn);
  if (rateMinor == null || insuranceMinor == null || signatureMinor == null || !isCalendarDate(promisedOn)) return [];
  return [
    {
      service: text(read.service, 40),
      name: text(read.name, 60),
      rateMinor,
      insuranceMinor,
      signatureMinor,
      promisedOn,
      customsForm: formOf(read.customsForm),
    },
  ];
}

const rateAnswer = (read: Json): RateAnswer => ({
  rates: listOf(read.rates).flatMap(rateOf),
  refused: listOf(read.refused).map((one) => ({
    service: text(one.service, 40),
    name: text(one.name, 60),
    why: refusalOf(one.why),
  })),
});

function labelAnswer(read: Json): LabelAnswer | null {
  if (read.refused !== undefined) return { kind: 'refused', why: refusalOf(read.refused) };
  const [rateMinor, insuranceMinor] = [read.rateMinor, read.insuranceMinor].map(whole);
  const [number, promisedOn] = [text(read.number, 40), text(read.promisedOn)];
  if (rateMinor == null || insuranceMinor == null || !/^[A-Z0-9]{8,40}$/.test(number) || !isCalendarDate(promisedOn))
    return null;
  return {
    kind: 'sold',
    number,
    service: text(read.service, 40),
    serviceName: text(read.serviceName, 60),
    rateMinor,
    insuranceMinor,
    promisedOn,
    customsForm: formOf(read.customsForm),
    voided: read.voided === true,
  };
}

const ISO = /^\d{4}-\d\d-\d\dT\d\d:\d\d:\d\d(\.\d+)?Z$/;

const scanOf = (read: Json): ScanLine[] => {
  const [at, scan] = [text(read.at), text(read.scan)];
  // What we do not understand of a way is left out: it says nothing that we could tell.
  if (!ISO.test(at) || !isScan(scan)) return [];
  return [{ at: new Date(at), scan, place: text(read.place, 120), words: text(read.words, 200) }];
};

const STROKES = /^[ML0-9. ,-]{0,4000}$/;

function proofOf(value: unknown): DeliveryProof | null {
  if (typeof value !== 'object' || value === null) return null;
  const read = objectOf(value);
  const strokes = text(read.strokes, 4000);
  if (!ISO.test(text(read.at))) return null;
  return {
    name: text(read.name, 120),
    at: text(read.at),
    place: text(read.place, 120),
    strokes: STROKES.test(strokes) ? strokes : '',
  };
}

const addressOf = (read: Json, before: Address): Address => ({
  lines: Array.isArray(read.lines) ? read.lines.slice(0, 6).map((line) => text(line, 120)) : before.lines,
  city: text(read.city, 120),
  region: /^([A-Z]{2}-[A-Z0-9]{1,3})?$/.test(text(read.region)) ? text(read.region) : before.region,
  postalCode: text(read.postalCode, 20),
  country: before.country,
});

/** The carrier over HTTP. */
export function httpCarrier(url: string, apiKey: string): Carrier {
  const ask = async (path: string, body?: object): Promise<Json | null> => {
    try {
      const headers = { authorization: `Bearer ${apiKey}` };
      const answer = await call(`${url}/api/${path}`, {
        method: body ? 'POST' : 'GET',
        headers,
        body,
        timeoutMs: TIMEOUT_MS,
      });
      return answer.status === 200 ? objectOf(answer.json) : null;
    } catch {
      return null;
    }
  };
  /** As many answers as were asked for, or none: half an answer is none. */
  const each = <T>(given: unknown, count: number, read: (one: unknown) => T | null): T[] | null => {
    if (!Array.isArray(given) || given.length !== count) return null;
    const all = given.map(read);
    return all.some((one) => one === null) ? null : (all as T[]);
  };
  return {
    rates: async (currency, parcels) => {
      const answer = await ask('rates', { currency, parcels });
      return answer && each(answer.answers, parcels.length, (one) => rateAnswer(objectOf(one)));
    },
    checkAddresses: async (addresses) => {
      const answer = await ask('addresses', { addresses });
      if (!answer || !Array.isArray(answer.answers) || answer.answers.length !== addresses.length) return null;
      return addresses.map((before, at): AddressCheck => {
        const read = listOf(answer.answers)[at] ?? {};
        if (read.says === 'proposal') return { says: 'proposal', address: addressOf(objectOf(read.address), before) };
        return { says: read.says === 'known' ? 'known' : 'unknown' };
      });
    },
    buy: async (account, currency, labels) => {
      const answer = await ask('labels', { account, currency, labels });
      return answer && each(answer.outcomes, labels.length, (one) => labelAnswer(objectOf(one)));
    },
    known: async (account, keys) => {
      const answer = await ask('labels/known', { account, keys });
      return (
        answer &&
        each(answer.outcomes, keys.length, (one) => (one === null ? 'never-seen' : labelAnswer(objectOf(one))))
      );
    },
    giveBack: async (account, number) => {
      const answer = await ask('voids', { account, number });
      return answer?.outcome === 'voided' || answer?.outcome === 'too-late' ? answer.outcome : null;
    },
    redate: async (account, number, mailOn) => {
      const answer = await ask('dates', { account, number, mailOn });
      const promisedOn = text(answer?.promisedOn, 10);
      return isCalendarDate(promisedOn) ? promisedOn : null;
    },
    topUp: async (account, key, currency, minor) => {
      const answer = await ask('top-ups', { account, key, currency, minor });
      const held = Number(answer?.minor);
      return answer && Number.isSafeInteger(held) ? { minor: held } : null;
    },
    balance: async (account) => {
      const answer = await ask(`balance/${encodeURIComponent(account)}`);
      const held = Number(answer?.minor);
      return answer && Number.isSafeInteger(held) ? { minor: held, currency: text(answer.currency, 3) } : null;
    },
    pickUp: async (account, wanted) => {
      const answer = await ask('pick-ups', { account, ...wanted });
      return answer && { number: text(answer.number, 40), words: text(answer.words) };
    },
    claim: async (account, claim) => {
      const answer = await ask('claims', { account, ...claim });
      const words = text(answer?.words);
      if (answer?.outcome === 'open' || answer?.outcome === 'refused') return { outcome: answer.outcome, words };
      const minor = whole(answer?.minor);
      return answer?.outcome === 'paid' && minor !== null ? { outcome: 'paid', minor, words } : null;
    },
    statement: async (account, month) => {
      const answer = await ask(`statements/${encodeURIComponent(account)}/${month.slice(0, 7)}`);
      return typeof answer?.file === 'string' ? Buffer.from(answer.file, 'base64') : null;
    },
    scans: async (account, numbers) => {
      const answer = await ask('scans', { account, numbers });
      if (!answer || !Array.isArray(answer.parcels) || answer.parcels.length !== numbers.length) return null;
      return answer.parcels.map((one: unknown) => {
        if (typeof one !== 'object' || one === null) return null;
        const read = objectOf(one);
        return {
          scans: listOf(read.scans).flatMap(scanOf),
          ahead: Array.isArray(read.ahead) ? read.ahead.slice(0, 20).map((place) => text(place, 120)) : [],
          proof: proofOf(read.proof),
        };
      });
    },
  };
}
