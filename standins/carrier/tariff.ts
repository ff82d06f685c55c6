import { isDeclared } from '../../src/core/customs/border';
import { addDays, type CalendarDate, weekday } from '../../src/core/dates/calendar-date';
import { minorDigits } from '../../src/core/money/currency';
import type { RateAnswer, ServiceRate, ServiceRefusal } from '../../src/core/parcel/service';

/** Where something goes or comes from, as far as a price hangs on it. */
export type Spot = {
  readonly country: string;
  readonly region: string;
  readonly postalCode: string;
  readonly city: string;
  readonly lines: readonly string[];
};

/** A parcel of which the price is asked; sides in millimetres, weight in grams, insured in minor units of the balance's currency. */
export type Asked = {
  readonly name: string;
  readonly from: Spot;
  readonly to: Spot;
  readonly grams: number;
  readonly lengthMm: number;
  readonly widthMm: number;
  readonly heightMm: number;
  readonly insuredMinor: number;
  readonly signature: boolean;
  readonly mailOn: CalendarDate;
  /** What it says for customs: what all of it is worth, in minor units, and of how many kinds; null where it says nothing. */
  readonly customs: { readonly minor: number; readonly kinds: number } | null;
};

type Service = {
  readonly code: string;
  readonly name: string;
  readonly mostGrams: number;
  readonly longestMm: number;
  /** Longest side and girth together. */
  readonly girthMm: number;
  /** The most that is insured, in hundredths. */
  readonly insures: number;
  /** What a signature costs, in hundredths; null where none is taken. */
  readonly signature: number | null;
  readonly perMille: number;
  readonly price: (grams: number) => number;
  /** In percent, by zone. */
  readonly zones: readonly number[];
  readonly days: readonly number[];
};

const perKilogram = (first: number, more: number) => (grams: number) =>
  first + more * Math.max(0, Math.ceil(grams / 1000) - 1);

const LIGHT_STEPS = [
  [100, 360],
  [250, 395],
  [500, 440],
  [1000, 490],
  [2000, 640],
] as const;

/** The three services; prices in hundredths of the currency's main unit. */
export const SERVICES: readonly Service[] = [
  {
    code: 'light',
    name: 'Light',
    mostGrams: 2000,
    longestMm: 600,
    girthMm: 1500,
    insures: 0,
    signature: null,
    perMille: 0,
    price: (grams) => LIGHT_STEPS.find(([most]) => grams <= most)?.[1] ?? 640,
    zones: [100, 100, 210, 320],
    days: [2, 3, 6, 12],
  },
  {
    code: 'steady',
    name: 'Steady',
    mostGrams: 30_000,
    longestMm: 1750,
    girthMm: 3600,
    insures: 250_000,
    signature: 110,
    perMille: 5,
    price: perKilogram(640, 110),
    zones: [100, 115, 240, 380],
    days: [1, 3, 5, 10],
  },
  {
    code: 'swift',
    name: 'Swift',
    mostGrams: 20_000,
    longestMm: 1200,
    girthMm: 3000,
    insures: 500_000,
    signature: 0,
    perMille: 4,
    price: perKilogram(1180, 190),
    zones: [100, 110, 260, 420],
    days: [1, 1, 3, 5],
  },
];

const NEAR = [
  'AT BE BG CH CY CZ DE DK EE ES FI FR GB GR HR HU IE IS IT LI LT LU LV MT NL NO PL PT RO SE SI SK',
  'US CA MX',
  'AU NZ',
].map((group) => new Set(group.split(' ')));

/** 0 in the same region, 1 in the same country, 2 in a country near by, 3 elsewhere. */
export function zoneOf(from: Spot, to: Spot): number {
  if (from.country !== to.country)
    return NEAR.some((group) => group.has(from.country) && group.has(to.country)) ? 2 : 3;
  return from.region !== '' && from.region === to.region ? 0 : 1;
}

/** Up to this worth, in hundredths, a letter goes with the small form: 300 SDR or so. */
const SMALL_FORM = 40_000;

/** Countries to which nothing is carried. */
const NOT_THERE = new Set(['AQ', 'BV', 'HM', 'TF']);

/** The day after so many working days, Sundays left out. */
export function arrival(mailOn: CalendarDate, days: number): CalendarDate {
  let day = mailOn;
  for (let left = days; left > 0; ) {
    day = addDays(day, 1);
    if (weekday(day) !== 7) left--;
  }
  return day;
}

/** What is charged for: the weight, or a fifth of a gram for each cubic centimetre, whichever is more. */
export const chargedGrams = ({ grams, lengthMm, widthMm, heightMm }: Asked): number =>
  Math.max(grams, Math.ceil((lengthMm * widthMm * heightMm) / 5000));

function refusal(service: Service, asked: Asked): ServiceRefusal | null {
  const sides = [asked.lengthMm, asked.widthMm, asked.heightMm].sort((a, b) => b - a);
  const [longest = 0, second = 0, third = 0] = sides;
  if (!asked.to.country || NOT_THERE.has(asked.to.country)) return 'not-there';
  // What is charged for may be more than what it weighs; what may be carried is weighed.
  if (asked.grams > service.mostGrams) return 'too-heavy';
  if (longest > service.longestMm || longest + 2 * (second + third) > service.girthMm) return 'too-large';
  if (asked.insuredMinor > 0 && service.insures === 0) return 'not-insured';
  if (asked.signature && service.signature === null) return 'no-signature';
  if (isDeclared(asked.from, asked.to) && asked.customs === null) return 'not-declared';
  return null;
}

/** What each service asks for a parcel, or why it does not take it. @param currency of the balance */
export function ratesFor(asked: Asked, currency: string): RateAnswer {
  const rates: ServiceRate[] = [];
  const refused: RateAnswer['refused'][number][] = [];
  const zone = zoneOf(asked.from, asked.to);
  const digits = minorDigits(currency);
  // Prices are the same figures in every currency that has hundredths.
  const own = (hundredths: number) => Math.round(digits === 3 ? hundredths * 10 : hundredths);
  for (const service of SERVICES) {
    const { code, name } = service;
    const insures = own(service.insures);
    const why = refusal(service, asked) ?? (asked.insuredMinor > insures && insures > 0 ? 'not-insured' : null);
    if (why) {
      refused.push({ service: code, name, why });
      continue;
    }
    const rate = Math.round((service.price(chargedGrams(asked)) * (service.zones[zone] ?? 100)) / 100);
    rates.push({
      service: code,
      name,
      rateMinor: own(Math.ceil(rate / 5) * 5),
      insuranceMinor:
        asked.insuredMinor > 0 ? Math.max(own(60), Math.ceil((asked.insuredMinor * service.perMille) / 1000)) : 0,
      signatureMinor: asked.signature ? own(service.signature ?? 0) : 0,
      promisedOn: arrival(asked.mailOn, service.days[zone] ?? 3),
      customsForm: !asked.customs ? '' : code === 'light' && asked.customs.minor <= own(SMALL_FORM) ? 'cn22' : 'cn23',
    });
  }
  return { rates, refused };
}
