import type { Business } from '@/core/business/business';
import type { Customer } from '@/core/customer/customer';
import { filledAuthorisation, USUAL_AUTHORISATION } from '@/core/plan/authorisation';
import { stillToCome } from '@/core/plan/change';
import { todayOf } from '@/core/plan/days';
import { forecast } from '@/core/plan/plan';
import { dateTrouble } from '@/core/plan/sums';
import { agreedText } from '@/core/words/plan-wording';
import { wordsOf } from '@/core/words/words';
import { currentText } from '@/db/authorisations';
import { businessById } from '@/db/businesses';
import { knownCharges } from '@/db/charges';
import { customerById } from '@/db/customers';
import { type Plan, planById } from '@/db/plans';
import type { Db } from '@/db/pool';
import { desk } from '@/flows/door/operation';
import { found } from '@/flows/door/rights';
import { localeOf } from '@/flows/invoice/paper-setting';
import { planContext, readPlan } from './plan-setting';

type Language = keyof typeof USUAL_AUTHORISATION;

/** What somebody agrees to, as they read it, and the version of its wording: 0 is the usual one. */
export type Agreement = { readonly text: string; readonly version: number };

async function filled(
  db: Db,
  locale: string,
  about: { business: string; customer: string; what: string },
): Promise<Agreement> {
  const own = await currentText(db);
  const wording = own?.text ?? USUAL_AUTHORISATION[locale.slice(0, 2) as Language] ?? USUAL_AUTHORISATION.en;
  return { text: filledAuthorisation(wording, about), version: own?.version ?? 0 };
}

/** When a plan charges what, in the customer's words; empty while its terms cannot be read. */
export async function agreedCharges(db: Db, business: Business, plan: Plan, locale: string): Promise<string> {
  const { sums, currency, problems } = await readPlan(db, business, plan);
  const context = planContext(business, plan, todayOf(business, db.now));
  if (problems.length > 0 || dateTrouble(plan.terms, sums, context)) return '';
  const known = plan.startsOn ? await knownCharges(db, [plan.id]) : [];
  const planned = plan.startsOn ? stillToCome(plan, known, sums, context) : forecast(plan.terms, sums, context);
  const refused = known.filter(({ state }) => state === 'refused');
  const refusedMinor = refused.reduce((sum, { amountMinor }) => sum + amountMinor, 0n);
  return agreedText(plan.terms, sums, planned, { currency, locale }, refusedMinor);
}

/**
 * What a customer agrees to now: the business's wording, and for each plan what is charged when and until when.
 *
 * @param plans those that it is for; none for single purchases
 */
export async function agreementOf(
  db: Db,
  business: Business,
  customer: Customer,
  plans: readonly Plan[],
  locale: string = localeOf(business, customer),
): Promise<Agreement> {
  const names = [...new Set(plans.map(({ terms }) => terms.name))].join(', ');
  const what = names || wordsOf(locale).plan.purchases;
  const { text, version } = await filled(db, locale, { business: business.name, customer: customer.name, what });
  const charges: string[] = [];
  for (const plan of plans) {
    const words = plan.terms.pay === 'card' ? await agreedCharges(db, business, plan, locale) : '';
    if (words) charges.push(plans.length > 1 ? `${plan.terms.name}: ${words}` : words);
  }
  return { text: [text, ...charges].join('\n'), version };
}

/** The wording for a payer who is not a customer yet: `{customer}` stays to be filled in with their name. */
export const payerAgreement = (db: Db, business: Business, locale: string, what: string): Promise<Agreement> =>
  filled(db, locale, { business: business.name, customer: '{customer}', what });

/** What the customer of a plan agrees to at the desk: as it stands beside the signature, and as it is read out on the telephone. */
export const planAgreement = desk('see').read(async (db, planId: string): Promise<{ text: string; script: string }> => {
  const business = await businessById(db);
  const plan = found(await planById(db, planId));
  const customer = found(await customerById(db, plan.customerId));
  const locale = localeOf(business, customer);
  const { text } = await agreementOf(db, business, customer, [plan], locale);
  return { text, script: wordsOf(locale).plan.script(business.name, text) };
});
