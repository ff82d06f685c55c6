import { randomUUID } from 'node:crypto';
import type { Business, ProfileFields } from '@/core/business/business';
import { changedBetween, frontSettings, profileSettings, tariffSettings } from '@/core/business/money-settings';
import type { Tariff } from '@/core/business/tariff';
import { type Fronts, frontProblems } from '@/core/front/front';
import { type NumberSeries, patternProblem } from '@/core/invoice/numbering';
import { addressLines } from '@/core/place/address';
import { businessById, numberSeries, replaceSeries, updateBusiness } from '@/db/businesses';
import { archiveTerms, insertTerms, insertTermsVersion, type Terms, termsById, termsList } from '@/db/terms';
import { desk } from '@/flows/door/operation';
import { Refusal } from '@/flows/door/refusal';
import { found } from '@/flows/door/rights';
import { noteSettings } from '@/flows/log/log';
import { taxNumberProblem } from '@/outside/tax-number';

export type { Terms };

export type Profile = { readonly business: Business; readonly series: NumberSeries[]; readonly terms: Terms[] };

/** Keeps what stands on receipts beside what was paid. */
export const keepReceiptStyle = desk('settings').write(
  async (tx, receiptStyle: Business['receiptStyle']): Promise<void> => {
    await updateBusiness(tx, { ...(await businessById(tx)), receiptStyle });
  },
);

/** Keeps what is agreed with the card processor; payments before keep what was agreed then. */
export const keepTariff = desk('settings').write(async (tx, tariff: Tariff): Promise<void> => {
  const before = await businessById(tx);
  await updateBusiness(tx, { ...before, tariff });
  await noteSettings(tx, 'tariff', changedBetween(tariffSettings(before.tariff), tariffSettings(tariff)));
});

/**
 * Keeps the names under which the business trades and the places from which it sells, as a whole. One that something was asked under is
 * retired rather than taken away.
 *
 * @throws Refusal `paper-not-ready` with the places
 */
export const keepFronts = desk('settings').write(async (tx, fronts: Fronts): Promise<void> => {
  const before = await businessById(tx);
  const gone = (was: readonly { readonly id: string }[], is: readonly { readonly id: string }[]): boolean =>
    was.some(({ id }) => !is.some((one) => one.id === id));
  const series = (await numberSeries(tx)).map(({ name }) => name);
  const problems = frontProblems(fronts, before, series);
  for (const [at, { taxNumber }] of fronts.locations.entries()) {
    const words = taxNumberProblem(taxNumber);
    if (words) problems.push({ field: `locations.${at}.taxNumber`, words });
  }
  if (gone(before.tradingNames, fronts.tradingNames) || gone(before.locations, fronts.locations))
    problems.push({ field: 'tradingNames', words: 'Somebody else changed this meanwhile. Load the page again.' });
  if (problems.length > 0) throw new Refusal('paper-not-ready', problems);
  const after = { ...before, ...fronts };
  await updateBusiness(tx, after);
  await noteSettings(tx, 'profile', changedBetween(frontSettings(before), frontSettings(after)));
});

/** The profile with the series and terms that belong to it. */
export const businessProfile = desk('see').read(async (db): Promise<Profile> => {
  return {
    business: await businessById(db),
    series: await numberSeries(db),
    terms: await termsList(db),
  };
});

/** Keeps the profile; what has been sent stays as it went out. @throws Refusal `paper-not-ready` with the places */
export const keepProfile = desk('settings').run(async (ctx, { series, ...fields }: ProfileFields): Promise<void> => {
  const problems = series.flatMap(({ pattern }, at) => {
    const words = patternProblem(pattern);
    return words ? [{ field: `series.${at}.pattern`, words }] : [];
  });
  const names = series.map(({ name }) => name.trim().toLowerCase());
  if (new Set(names).size < names.length)
    problems.push({ field: 'series', words: 'Each series needs a name of its own.' });
  const wrong = taxNumberProblem(fields.taxNumber);
  if (wrong) problems.push({ field: 'taxNumber', words: wrong });
  if (problems.length > 0) throw new Refusal('paper-not-ready', problems);
  await ctx.write(async (tx) => {
    const before = await businessById(tx);
    const address = addressLines(fields.place, fields.place.country, before.paperLocale);
    const after = { ...before, ...fields, country: fields.place.country || before.country, address };
    await updateBusiness(tx, after);
    await noteSettings(tx, 'profile', changedBetween(profileSettings(before), profileSettings(after)));
    await replaceSeries(tx, series);
  });
});

/** Keeps terms: a new text is a new version, and the earlier ones stay. Returns the terms' id. */
export const keepTerms = desk('settings').run(
  async (ctx, id: string | null, name: string, text: string): Promise<string> => {
    const termsId = id ?? randomUUID();
    await ctx.write(async (tx) => {
      const before = id ? found(await termsById(tx, id)) : null;
      await insertTerms(tx, termsId, name);
      if (before?.text === text) return;
      const version = { id: randomUUID(), termsId, version: (before?.version ?? 0) + 1, text };
      await insertTermsVersion(tx, version, ctx.name);
    });
    return termsId;
  },
);

/** Takes terms off the list; invoices that were sent with them keep them. */
export const dropTerms = desk('settings').write(async (tx, id: string): Promise<void> => {
  await archiveTerms(tx, id);
});
