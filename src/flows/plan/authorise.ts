import { randomUUID } from 'node:crypto';
import type { Business } from '@/core/business/business';
import type { Customer } from '@/core/customer/customer';
import { cardText } from '@/core/payment/outcome';
import { filledAuthorisation, USUAL_AUTHORISATION } from '@/core/plan/authorisation';
import { RUNNING_STATES } from '@/core/plan/state';
import { type AuthorisedHow } from '@/core/timeline/timeline';
import { type Authorisation, currentText, insertAuthorisation, insertText, withdraw } from '@/db/authorisations';
import { businessById } from '@/db/businesses';
import type { CardOnFile } from '@/db/cards';
import { type Plan, planById, plansOfCustomer } from '@/db/plans';
import type { Db, Tx } from '@/db/pool';
import { addToTimeline } from '@/db/timeline';
import { desk, type Writing } from '@/flows/door/operation';
import { found } from '@/flows/door/rights';
import { localeOf } from '@/flows/invoice/paper-setting';
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
  const own = await currentText(db);
  const language = localeOf(business, customer).slice(0, 2) as Language;
  const wording = own?.text ?? USUAL_AUTHORISATION[language] ?? USUAL_AUTHORISATION.en;
  const about = { business: business.name, customer: customer.name, what };
  return { text: filledAuthorisation(wording, about), version: own?.version ?? 0 };
}

/** The same for a payer who is not a customer yet: `{customer}` stays to be filled in with their name. */
export async function payerAgreement(db: Db, business: Business, locale: string, what: string): Promise<string> {
  const own = await currentText(db);
  const wording = own?.text ?? USUAL_AUTHORISATION[locale.slice(0, 2) as Language] ?? USUAL_AUTHORISATION.en;
  return filledAuthorisation(wording, { business: business.name, customer: '{customer}', what });
}

/** Writes down that a customer agreed. @param plan the plan, or null for single purchases */
export async function writeAuthorisation(
  tx: Tx,
  customer: Customer,
  { card, plan }: { readonly card: CardOnFile; readonly plan: Plan | null },
  given: Given,
): Promise<string> {
  const business = await businessById(tx);
  const { text, version } = await authorisationText(
    tx,
    business,
    customer,
    plan?.terms.name ?? 'purchases that I order',
  );
  const id = randomUUID();
  await insertAuthorisation(tx, {
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
    givenAt: tx.now,
  });
  if (plan)
    await addToTimeline(
      tx,
      { planId: plan.id },
      { kind: 'authorised', how: given.how, card: cardText(card) },
      given.givenBy,
    );
  return id;
}

/** Withdraws a customer's authorisation for a plan, or for everything: the plans it was for are cancelled. */
export async function withdrawAuthorisation(tx: Writing, customerId: string, planId: string | null): Promise<void> {
  await withdraw(tx, customerId, planId, tx.name);
  const plans = planId ? [found(await planById(tx, planId, true))] : await plansOfCustomer(tx, customerId);
  for (const plan of plans) {
    if (plan.customerId !== customerId || ![...RUNNING_STATES, 'waiting'].includes(plan.state)) continue;
    if (plan.terms.pay !== 'card') continue;
    await addToTimeline(tx, { planId: plan.id }, { kind: 'withdrawn' }, tx.name);
    await endPlan(tx, plan, 'cancelled', { why: 'withdrawn', byName: tx.name });
  }
}

/** The business's wording as it is now, with its version; 0 is the usual one. */
export const authorisationWording = desk('see').read(async (db): Promise<{ version: number; text: string }> => {
  const { locale } = await businessById(db);
  const usual = USUAL_AUTHORISATION[locale.slice(0, 2) as Language] ?? USUAL_AUTHORISATION.en;
  return (await currentText(db)) ?? { version: 0, text: usual };
});

/** Keeps another wording as the next version; what was agreed to before stays as it was. */
export const keepWording = desk('settings').write(async (tx, text: string): Promise<number> => {
  const before = await currentText(tx);
  if (before?.text === text) return before.version;
  const version = (before?.version ?? 0) + 1;
  await insertText(tx, version, text, tx.name);
  return version;
});
