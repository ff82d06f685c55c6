/** Under which name, and from which place, a business asks for something: its own, or one of those that it added. */
import { type Address, addressLines } from '../place/address';

/** A name under which the business trades beside its own, with all that its papers and mails take from it. */
export type TradingName = {
  readonly id: string;
  readonly name: string;
  readonly logoId: string | null;
  /** `#rrggbb`, the colour of its documents. */
  readonly accent: string;
  /** Where answers go; empty for the business's own, as are the next two. */
  readonly email: string;
  readonly phone: string;
  readonly website: string;
  /** The series that numbers its invoices, by name; empty for the business's first. */
  readonly series: string;
  /** Not offered any more; what was asked under it stays so. */
  readonly retired: boolean;
};

/** A place from which the business sells: its address stands on papers, and customers without one are taxed there. */
export type Location = {
  readonly id: string;
  /** How it is called at the desk. */
  readonly name: string;
  readonly place: Address;
  readonly phone: string;
  /** Where it is registered there; empty for the business's own. */
  readonly taxNumber: string;
  readonly retired: boolean;
};

export type Fronts = { readonly tradingNames: readonly TradingName[]; readonly locations: readonly Location[] };

/** What a paper, an offer or a plan asks under; none for the business's own. */
export type FrontChoice = { readonly tradingNameId?: string | null; readonly locationId?: string | null };

export const MOST_FRONTS = 30;

const byId = <One extends { readonly id: string }>(all: readonly One[], id: string | null | undefined): One | null =>
  (id && all.find((one) => one.id === id)) || null;

/** The trading name that was chosen; null for the business's own name. */
export const tradingNameOf = ({ tradingNames }: Fronts, { tradingNameId }: FrontChoice): TradingName | null =>
  byId(tradingNames, tradingNameId);

/** What of a business changes with the front, and what decides how: as much of it as a composer holds. */
export type House = Fronts & {
  readonly name: string;
  readonly legalName?: string;
  readonly place: Address;
  readonly country: string;
  readonly address: readonly string[];
  readonly phone: string;
  readonly email: string;
  readonly website: string;
  readonly taxNumber: string;
  readonly logoId: string | null;
  readonly accent: string;
  readonly paperLocale: string;
};

/**
 * The business as whoever is asked under a front sees it. Under a trading name its own name leads the address, as the law wants to know
 * who stands behind it; under a location address, phone, tax number and the place of taxing are the location's.
 */
export function asFront<Of extends House>(business: Of, chosen: FrontChoice): Of {
  const name = tradingNameOf(business, chosen);
  const location = byId(business.locations, chosen.locationId);
  // Done once is enough.
  if ((!name && !location) || business.legalName) return business;
  const place = location?.place ?? business.place;
  const lines = location ? addressLines(place, business.country, business.paperLocale) : business.address;
  return {
    ...business,
    place,
    address: name ? [business.name, ...lines] : lines,
    phone: location?.phone || name?.phone || business.phone,
    taxNumber: location?.taxNumber || business.taxNumber,
    ...(name
      ? {
          name: name.name,
          legalName: business.name,
          logoId: name.logoId,
          accent: name.accent,
          email: name.email || business.email,
          website: name.website || business.website,
        }
      : {}),
  };
}

/** What a composer holds of its business. */
export const houseOf = (business: House): House => ({
  tradingNames: business.tradingNames,
  locations: business.locations,
  name: business.name,
  place: business.place,
  country: business.country,
  address: business.address,
  phone: business.phone,
  email: business.email,
  website: business.website,
  taxNumber: business.taxNumber,
  logoId: business.logoId,
  accent: business.accent,
  paperLocale: business.paperLocale,
});

/** What can be chosen from: those that are offered, and the one that is chosen already. */
export const offered = <One extends { readonly id: string; readonly retired: boolean }>(
  all: readonly One[],
  chosen: string | null | undefined,
): readonly One[] => all.filter(({ id, retired }) => !retired || id === chosen);

/** What is wrong with fronts as they are to be kept, by place (`tradingNames.0.name`). @param series names of the business's series */
export function frontProblems(
  { tradingNames, locations }: Fronts,
  business: { readonly name: string },
  series: readonly string[],
): { field: string; words: string }[] {
  const problems: { field: string; words: string }[] = [];
  const key = (name: string) => name.trim().toLocaleLowerCase();
  const twice = (all: readonly { name: string }[], at: number): boolean =>
    all.slice(0, at).some(({ name }) => key(name) === key(all[at]?.name ?? ''));
  for (const [at, one] of tradingNames.entries()) {
    const field = `tradingNames.${at}`;
    if (key(one.name) === key(business.name))
      problems.push({ field: `${field}.name`, words: 'This is the business’s own name already.' });
    if (twice(tradingNames, at)) problems.push({ field: `${field}.name`, words: 'This name stands there twice.' });
    if (one.series && !series.includes(one.series))
      problems.push({ field: `${field}.series`, words: 'This series is not there any more. Choose another.' });
  }
  for (const [at, one] of locations.entries()) {
    const field = `locations.${at}`;
    if (twice(locations, at)) problems.push({ field: `${field}.name`, words: 'This name stands there twice.' });
    if (!one.place.country)
      problems.push({ field: `${field}.place.country`, words: 'Choose its country: it decides the taxes.' });
  }
  return problems;
}
