import { minorDigits } from '../money/currency';
import { powerOfTen } from '../money/decimal';

/** How many countries of a zone are asked about; where they are many, the first tell enough. */
const MOST_ASKED = 6;
/** Where “everywhere else” is asked about: a country of each zone that carriers commonly have, whatever the home. */
const FAR = ['DE', 'US', 'JP', 'AU'] as const;

/** A group of countries with one price; no countries at all means everywhere else. */
export type ZoneToAsk = { readonly id: string; readonly countries: readonly string[] };

/** The countries that stand for a zone. @param home the business's own, which “everywhere else” takes in where no zone names it */
export function countriesToAsk(zone: ZoneToAsk, zones: readonly ZoneToAsk[], home: string): string[] {
  if (zone.countries.length > 0) return zone.countries.slice(0, MOST_ASKED);
  const named = new Set(zones.flatMap(({ countries }) => countries));
  return [...new Set([home, ...FAR])].filter((country) => !named.has(country));
}

/** What one thing alone costs to deliver somewhere, in minor units of one currency; null where no service takes it, or nobody said. */
export type DeliveryCase = {
  readonly what: string;
  readonly country: string;
  readonly service: string;
  readonly costMinor: bigint | null;
};

/** What a zone costs and what it may be sold for. */
export type ZoneProposal = {
  readonly zoneId: string;
  readonly least: DeliveryCase | null;
  readonly most: DeliveryCase | null;
  /** What cannot be worked out: no profile, or no service. */
  readonly unknown: readonly DeliveryCase[];
  /** The dearest of them, rounded up; null where none is known. */
  readonly priceMinor: bigint | null;
};

/** Rounded up to the next half of the main unit, or the next fifty where it has no parts. @param minor at least 0 */
export function roundedUpPrice(minor: bigint, currency: string): bigint {
  const digits = minorDigits(currency);
  const step = digits === 0 ? 50n : powerOfTen(digits) / 2n;
  return ((minor + step - 1n) / step) * step;
}

/** What is proposed for a zone: the price that the dearest thing in it costs, so that nothing bought alone loses money. */
export function proposedFor(zoneId: string, cases: readonly DeliveryCase[], currency: string): ZoneProposal {
  const known = cases
    .flatMap((one) => (one.costMinor === null ? [] : [{ ...one, costMinor: one.costMinor }]))
    .sort((one, other) => (one.costMinor < other.costMinor ? -1 : one.costMinor > other.costMinor ? 1 : 0));
  const most = known.at(-1) ?? null;
  return {
    zoneId,
    least: known[0] ?? null,
    most,
    unknown: cases.filter(({ costMinor }) => costMinor === null),
    priceMinor: most && roundedUpPrice(most.costMinor, currency),
  };
}
