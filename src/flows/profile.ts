import { randomUUID } from 'node:crypto';
import type { Business } from '@/core/business/business';
import { type NumberSeries, patternProblem } from '@/core/invoice/numbering';
import { addressLines } from '@/core/place/address';
import { businessById, numberSeries, replaceSeries, updateBusiness } from '@/db/businesses';
import { announce } from '@/db/jobs';
import type { Actor } from '@/db/people';
import { archiveTerms, insertTerms, insertTermsVersion, type Terms, termsById, termsList } from '@/db/terms';
import { inBusiness, readBusiness } from '@/db/transaction';
import { services } from '@/outside/services';
import { found, requireRight } from './access';
import { Refusal } from './refusal';

export type { Terms };

/** What a person may write of a business; zone, locale, currency and the smallest payment stay. */
export type ProfileFields = Omit<
  Business,
  | 'id'
  | 'address'
  | 'zone'
  | 'locale'
  | 'currency'
  | 'smallestPaymentMinor'
  | 'signingSecret'
  | 'receiptStyle'
  | 'charging'
> & { readonly series: readonly NumberSeries[] };

export type Profile = { readonly business: Business; readonly series: NumberSeries[]; readonly terms: Terms[] };

/** Keeps what stands on receipts beside what was paid. */
export async function keepReceiptStyle(actor: Actor, receiptStyle: Business['receiptStyle']): Promise<void> {
  requireRight(actor, 'ask');
  await inBusiness(actor.businessId, async (tx) => {
    await updateBusiness(tx, { ...(await businessById(tx, actor.businessId)), receiptStyle });
    await announce(tx, actor.businessId);
  });
}

/** The profile with the series and terms that belong to it. */
export function businessProfile(actor: Actor): Promise<Profile> {
  requireRight(actor, 'read');
  return readBusiness(actor.businessId, async (db) => ({
    business: await businessById(db, actor.businessId),
    series: await numberSeries(db, actor.businessId),
    terms: await termsList(db, actor.businessId),
  }));
}

/** Keeps the profile; what has been sent stays as it went out. @throws Refusal `paper-not-ready` with the places */
export async function keepProfile(actor: Actor, { series, ...fields }: ProfileFields): Promise<void> {
  requireRight(actor, 'ask');
  const problems = series.flatMap(({ pattern }, at) => {
    const words = patternProblem(pattern);
    return words ? [{ field: `series.${at}.pattern`, words }] : [];
  });
  const names = series.map(({ name }) => name.trim().toLowerCase());
  if (new Set(names).size < names.length)
    problems.push({ field: 'series', words: 'Each series needs a name of its own.' });
  if (problems.length > 0) throw new Refusal('paper-not-ready', problems);
  await inBusiness(actor.businessId, async (tx) => {
    const before = await businessById(tx, actor.businessId);
    const address = addressLines(fields.place, fields.place.country, before.locale);
    await updateBusiness(tx, { ...before, ...fields, country: fields.place.country || before.country, address });
    await replaceSeries(tx, actor.businessId, series);
    await announce(tx, actor.businessId);
  });
}

/** Keeps terms: a new text is a new version, and the earlier ones stay. Returns the terms' id. */
export async function keepTerms(actor: Actor, id: string | null, name: string, text: string): Promise<string> {
  requireRight(actor, 'ask');
  const now = await services().clock.now();
  const termsId = id ?? randomUUID();
  await inBusiness(actor.businessId, async (tx) => {
    const before = id ? found(await termsById(tx, actor.businessId, id)) : null;
    await insertTerms(tx, actor.businessId, termsId, name, now);
    if (before?.text === text) return;
    const version = { id: randomUUID(), termsId, version: (before?.version ?? 0) + 1, text };
    await insertTermsVersion(tx, actor.businessId, version, actor.name, now);
  });
  return termsId;
}

/** Takes terms off the list; invoices that were sent with them keep them. */
export async function dropTerms(actor: Actor, id: string): Promise<void> {
  requireRight(actor, 'ask');
  await inBusiness(actor.businessId, (tx) => archiveTerms(tx, actor.businessId, id));
}
