import type { CustomsForm } from '../customs/form';
import type { CalendarDate } from '../dates/calendar-date';

/** What a service of the carrier's asks for one parcel; amounts in minor units of the balance's currency. */
export type ServiceRate = {
  readonly service: string;
  readonly name: string;
  readonly rateMinor: number;
  /** What the insurance of what it is worth costs; 0 where nothing is insured. */
  readonly insuranceMinor: number;
  readonly signatureMinor: number;
  /** When it is promised to be at the door, handed over on the mailing date. */
  readonly promisedOn: CalendarDate;
  /** The customs form that goes with it; none where no border asks. */
  readonly customsForm?: CustomsForm;
};

/** Why a service does not take a parcel. */
export const SERVICE_REFUSALS = [
  'too-heavy',
  'too-large',
  'not-there',
  'not-insured',
  'no-signature',
  'bad-address',
  'not-covered',
  'not-declared',
  'other',
] as const;
export type ServiceRefusal = (typeof SERVICE_REFUSALS)[number];

/** What the carrier said of one parcel: what each service costs, or why it does not take it. */
export type RateAnswer = {
  readonly rates: readonly ServiceRate[];
  readonly refused: readonly { readonly service: string; readonly name: string; readonly why: ServiceRefusal }[];
};

export const REFUSED_WORDS: Readonly<Record<ServiceRefusal, string>> = {
  'too-heavy': 'heavier than this service takes',
  'too-large': 'larger than this service takes',
  'not-there': 'this service does not go there',
  'not-insured': 'this service insures less than it is worth',
  'no-signature': 'this service takes no signature',
  'bad-address': 'the carrier does not know this address',
  'not-covered': 'the balance at the carrier is too small',
  'not-declared': 'it does not say what customs ask',
  other: 'the carrier does not take it',
};

export const isServiceRefusal = (text: string): text is ServiceRefusal => SERVICE_REFUSALS.some((one) => one === text);

/** What a rate comes to, in minor units. */
export const rateTotal = ({ rateMinor, insuranceMinor, signatureMinor }: ServiceRate): number =>
  rateMinor + insuranceMinor + signatureMinor;

/** Services from the cheapest on; of two alike the one that is there first. */
export const cheapestFirst = (rates: readonly ServiceRate[]): ServiceRate[] =>
  [...rates].sort(
    (one, other) =>
      rateTotal(one) - rateTotal(other) ||
      (one.promisedOn < other.promisedOn ? -1 : one.promisedOn > other.promisedOn ? 1 : 0) ||
      (one.service < other.service ? -1 : 1),
  );

/** The cheapest that is there by a day; null where none is. */
export const cheapestBy = (rates: readonly ServiceRate[], by: CalendarDate): ServiceRate | null =>
  cheapestFirst(rates).find(({ promisedOn }) => promisedOn <= by) ?? null;
