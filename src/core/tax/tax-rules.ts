/** Where a buyer is: ISO 3166-1 country, ISO 3166-2 region, postal code as written. */
export type Place = { readonly country: string; readonly region?: string; readonly postalCode?: string };

/** A tax for a class of goods at a place; without regions or postal codes, everywhere in the country. */
export type TaxRule = {
  readonly name: string;
  readonly class: string;
  readonly country: string;
  readonly regions?: readonly string[];
  /** Exact codes, ranges of digits of one length (`32004-32099`, both included) or prefixes (`32*`). */
  readonly postalCodes?: readonly string[];
  /** Applies beside the others instead of competing with them. */
  readonly additional?: boolean;
};

/** How specific a match is: the rank first, then what decides within it. */
type Level = readonly [rank: number, within: number];

const COUNTRY: Level = [0, 0];
const REGION: Level = [1, 0];
const tidy = (code: string): string => code.replace(/\s/g, '').toUpperCase();
const compare = (one: Level, other: Level): number => one[0] - other[0] || one[1] - other[1];

function codeLevel(pattern: string, code: string): Level | null {
  const range = /^(\d+)-(\d+)$/.exec(pattern);
  const [from, to] = [range?.[1] ?? '', range?.[2] ?? ''];
  if (range && from.length === to.length) {
    const inside = /^\d+$/.test(code) && code.length === from.length && code >= from && code <= to;
    return inside ? [3, -(Number(to) - Number(from))] : null;
  }
  if (pattern.endsWith('*')) return code.startsWith(pattern.slice(0, -1)) ? [2, pattern.length - 1] : null;
  return code === pattern ? [4, 0] : null;
}

function ruleLevel(rule: TaxRule, place: Place): Level | null {
  if (rule.country !== place.country) return null;
  if (rule.regions && !rule.regions.includes(place.region ?? '')) return null;
  if (!rule.postalCodes) return rule.regions ? REGION : COUNTRY;
  if (!place.postalCode) return null;
  const code = tidy(place.postalCode);
  let best: Level | null = null;
  for (const pattern of rule.postalCodes) {
    const level = codeLevel(tidy(pattern), code);
    if (level && (!best || compare(level, best) > 0)) best = level;
  }
  return best;
}

/**
 * Which rules apply to a class of goods at a place (`calculation.md` 9), as positions in the list, ascending.
 *
 * The most specific level that matches wins (exact code, narrowest range, longest prefix, region, country) and all rules
 * on it apply together, of several with one name the last. Additional ones apply beside it, unless a rule of their name
 * does already; of several with one name the most specific, then the last.
 */
export function applyingRules(place: Place, taxClass: string, rules: readonly TaxRule[]): number[] {
  const matches = rules.flatMap((rule, at) => {
    const level = rule.class === taxClass ? ruleLevel(rule, place) : null;
    return level ? [{ at, rule, level }] : [];
  });
  const competing = matches.filter(({ rule }) => !rule.additional);
  const [winner] = [...competing].sort((a, b) => compare(b.level, a.level));
  const byName = new Map<string, number>();
  for (const { at, rule, level } of competing) {
    if (winner && compare(level, winner.level) === 0) byName.set(rule.name, at);
  }
  const beside = new Map<string, (typeof matches)[number]>();
  for (const match of matches.filter(({ rule }) => rule.additional && !byName.has(rule.name))) {
    const before = beside.get(match.rule.name);
    if (!before || compare(match.level, before.level) >= 0) beside.set(match.rule.name, match);
  }
  return [...byName.values(), ...[...beside.values()].map(({ at }) => at)].sort((a, b) => a - b);
}
