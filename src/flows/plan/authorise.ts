import { randomUUID } from 'node:crypto';
import type { Customer } from '@/core/customer/customer';
import { cardText } from '@/core/payment/outcome';
import { USUAL_AUTHORISATION } from '@/core/plan/authorisation';
import { RUNNING_STATES } from '@/core/plan/state';
import { type AuthorisedHow } from '@/core/timeline/timeline';
import { type Authorisation, currentText, insertAuthorisation, insertText, withdraw } from '@/db/authorisations';
import { businessById } from '@/db/businesses';
import type { CardOnFile } from '@/db/cards';
import { type Plan, planById, plansOfCustomer } from '@/db/plans';
import type { Tx } from '@/db/pool';
import { addToTimeline } from '@/db/timeline';
import { desk, type Writing } from '@/flows/door/operation';
import { found } from '@/flows/door/rights';
import { type Agreement, agreementOf } from './agreement';
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

/**
 * Writes down that a customer agreed.
 *
 * @param plan the plan, or null for single purchases
 * @param shown what they read, where that was not the agreement in their own language
 */
export async function writeAuthorisation(
  tx: Tx,
  customer: Customer,
  { card, plan }: { readonly card: CardOnFile; readonly plan: Plan | null },
  given: Given,
  shown?: Agreement,
): Promise<string> {
  const { text, version } = shown ?? (await agreementOf(tx, await businessById(tx), customer, plan ? [plan] : []));
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
  const { paperLocale: locale } = await businessById(db);
  const usual = USUAL_AUTHORISATION[locale.slice(0, 2) as keyof typeof USUAL_AUTHORISATION] ?? USUAL_AUTHORISATION.en;
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
