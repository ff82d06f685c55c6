import { randomUUID } from 'node:crypto';
import type { Business } from '@/core/business/business';
import type { Customer } from '@/core/customer/customer';
import { type AuthorisedHow } from '@/core/invoice/timeline';
import { cardText } from '@/core/payment/outcome';
import { filledAuthorisation, USUAL_AUTHORISATION } from '@/core/plan/authorisation';
import { type Authorisation, currentText, insertAuthorisation, insertText, withdraw } from '@/db/authorisations';
import { businessById } from '@/db/businesses';
import type { CardOnFile } from '@/db/cards';
import { announce } from '@/db/jobs';
import type { Actor } from '@/db/people';
import { type Plan, planById, plansOfCustomer } from '@/db/plans';
import type { Db, Tx } from '@/db/pool';
import { insertHappening } from '@/db/timeline';
import { inBusiness, readBusiness } from '@/db/transaction';
import { services } from '@/outside/services';
import { found, requireRight } from '../access';
import { localeOf } from '../paper-setting';
import { endPlan } from './plan-state';

export type { Authorisation };

/** How somebody agreed: the name that was typed or said, who took it down, from where, with which signature or paper. */
export type Given = {
  readonly how: AuthorisedHow;
  readonly givenBy: string;
  readonly takenBy: string;
  readonly from: string;
  readonly fileId: string | null;
};

type Language = keyof typeof USUAL_AUTHORISATION;

/** What a customer is asked to agree to now, filled in, and its version: 0 is the usual wording. */
export async function authorisationText(
  db: Db,
  business: Business,
  customer: Customer,
  what: string,
): Promise<{ text: string; version: number }> {
  const own = await currentText(db, business.id);
  const language = localeOf(business, customer).slice(0, 2) as Language;
  const wording = own?.text ?? USUAL_AUTHORISATION[language] ?? USUAL_AUTHORISATION.en;
  const about = { business: business.name, customer: customer.name, what };
  return { text: filledAuthorisation(wording, about), version: own?.version ?? 0 };
}

/** The same for a payer who is not a customer yet: `{customer}` stays to be filled in with their name. */
export async function payerAgreement(db: Db, business: Business, locale: string, what: string): Promise<string> {
  const own = await currentText(db, business.id);
  const wording = own?.text ?? USUAL_AUTHORISATION[locale.slice(0, 2) as Language] ?? USUAL_AUTHORISATION.en;
  return filledAuthorisation(wording, { business: business.name, customer: '{customer}', what });
}

/** Writes down that a customer agreed. @param plan the plan, or null for single purchases */
export async function writeAuthorisation(
  tx: Tx,
  business: Business,
  customer: Customer,
  card: CardOnFile,
  plan: Plan | null,
  given: Given,
  now: Date,
): Promise<string> {
  const { text, version } = await authorisationText(
    tx,
    business,
    customer,
    plan?.terms.name ?? 'purchases that I order',
  );
  const id = randomUUID();
  await insertAuthorisation(tx, business.id, {
    id,
    customerId: customer.id,
    cardId: card.id,
    planId: plan?.id ?? null,
    how: given.how,
    text,
    textVersion: version,
    givenBy: given.givenBy,
    takenBy: given.takenBy,
    givenFrom: given.from,
    fileId: given.fileId,
    givenAt: now,
  });
  if (plan)
    await insertHappening(
      tx,
      business.id,
      { planId: plan.id },
      { kind: 'authorised', how: given.how, card: cardText(card) },
      given.givenBy,
      now,
    );
  return id;
}

/** Withdraws a customer's authorisation for a plan, or for everything: the plans it was for are cancelled. */
export async function withdrawAuthorisation(
  actor: Pick<Actor, 'businessId' | 'name'>,
  customerId: string,
  planId: string | null,
): Promise<void> {
  const now = await services().clock.now();
  const { businessId, name } = actor;
  await inBusiness(businessId, async (tx) => {
    const business = await businessById(tx, businessId);
    await withdraw(tx, businessId, customerId, planId, name, now);
    const plans = planId
      ? [found(await planById(tx, businessId, planId, true))]
      : await plansOfCustomer(tx, businessId, customerId);
    for (const plan of plans) {
      if (plan.customerId !== customerId || !['active', 'paused', 'waiting'].includes(plan.state)) continue;
      if (plan.terms.pay !== 'card') continue;
      await insertHappening(tx, businessId, { planId: plan.id }, { kind: 'withdrawn' }, name, now);
      await endPlan(tx, business, plan, 'cancelled', 'The authorisation was withdrawn', name, now);
    }
    await announce(tx, businessId);
  });
}

/** The business's wording as it is now, with its version; 0 is the usual one. */
export function authorisationWording(actor: Actor): Promise<{ version: number; text: string }> {
  requireRight(actor, 'read');
  return readBusiness(actor.businessId, async (db) => {
    const { locale } = await businessById(db, actor.businessId);
    const usual = USUAL_AUTHORISATION[locale.slice(0, 2) as Language] ?? USUAL_AUTHORISATION.en;
    return (await currentText(db, actor.businessId)) ?? { version: 0, text: usual };
  });
}

/** Keeps another wording as the next version; what was agreed to before stays as it was. */
export async function keepWording(actor: Actor, text: string): Promise<number> {
  requireRight(actor, 'ask');
  const now = await services().clock.now();
  return inBusiness(actor.businessId, async (tx) => {
    const before = await currentText(tx, actor.businessId);
    if (before?.text === text) return before.version;
    const version = (before?.version ?? 0) + 1;
    await insertText(tx, actor.businessId, version, text, actor.name, now);
    return version;
  });
}
