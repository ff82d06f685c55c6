import type { Business } from '@/core/business/business';
import { changedTerms, changeTrouble, needsConsent, stillToCome } from '@/core/plan/change';
import { todayOf } from '@/core/plan/days';
import type { PlanTerms } from '@/core/plan/plan';
import { RUNNING_STATES } from '@/core/plan/state';
import { dateTrouble } from '@/core/plan/sums';
import { agreedText } from '@/core/words/plan-wording';
import { isLanguage, localeFor } from '@/core/words/words';
import { businessById } from '@/db/businesses';
import { cardById, cardsOf } from '@/db/cards';
import { deleteUpcoming, knownCharges } from '@/db/charges';
import { customerById } from '@/db/customers';
import { type Plan, planById, updatePlan } from '@/db/plans';
import type { Db, Tx } from '@/db/pool';
import { addToTimeline } from '@/db/timeline';
import { PLAN_LINK } from '@/flows/door/links';
import { byLink, desk, inNameOf } from '@/flows/door/operation';
import { Refusal } from '@/flows/door/refusal';
import { found } from '@/flows/door/rights';
import { localeOf } from '@/flows/invoice/paper-setting';
import { queueMessage } from '@/flows/message/queue-message';
import { agreementOf } from './agreement';
import { type Given, writeAuthorisation } from './authorise';
import { askToCharge } from './charge-now';
import { planAhead } from './plan-ahead';
import { planContext, readPlan } from './plan-setting';

/** What a change of a running plan comes to, in the words of the customer, and whether they have to agree to it. */
export type PlanChange = { readonly before: string; readonly after: string; readonly needsConsent: boolean };

/** How a plan goes on with these terms, in the customer's words. */
async function goesOn(db: Db, business: Business, plan: Plan, locale: string): Promise<string> {
  const { sums, currency } = await readPlan(db, business, plan);
  const context = planContext(business, plan, todayOf(business, db.now));
  const known = await knownCharges(db, [plan.id]);
  return agreedText(plan.terms, sums, stillToCome(plan, known, sums, context), { currency, locale });
}

/** A running plan as it would be with other terms. @throws Refusal `plan-ended`, `plan-not-ready` with the places */
async function changed(db: Db, business: Business, plan: Plan, wished: PlanTerms): Promise<Plan> {
  if (!RUNNING_STATES.some((state) => state === plan.state) || plan.endsOn) throw new Refusal('plan-ended');
  const terms = changedTerms(plan.terms, wished);
  const next = { ...plan, terms };
  const trouble = changeTrouble(plan.terms, { ...terms, kind: wished.kind }, todayOf(business, db.now));
  if (trouble) throw new Refusal('plan-not-ready', [{ field: 'schedule', words: trouble }]);
  const { problems, sums } = await readPlan(db, business, next);
  const dates = dateTrouble(terms, sums, planContext(business, next, todayOf(business, db.now)));
  const all = dates ? [...problems, { field: 'schedule', words: dates }] : problems;
  if (all.length > 0) throw new Refusal('plan-not-ready', all);
  return next;
}

async function changeOf(db: Db, business: Business, plan: Plan, next: Plan, lang = ''): Promise<PlanChange> {
  const customer = found(await customerById(db, plan.customerId));
  const locale = localeFor(isLanguage(lang) ? lang : '', localeOf(business, customer), '');
  const [before, after] = [await readPlan(db, business, plan), await readPlan(db, business, next)];
  return {
    before: await goesOn(db, business, plan, locale),
    after: await goesOn(db, business, next, locale),
    needsConsent: needsConsent({ terms: plan.terms, sums: before.sums }, { terms: next.terms, sums: after.sums }),
  };
}

/** What a change would come to, before anything is changed. @throws Refusal as `changeTerms` */
export const lookAtChange = desk('ask').read(async (db, planId: string, wished: PlanTerms): Promise<PlanChange> => {
  const business = await businessById(db);
  const plan = found(await planById(db, planId));
  return changeOf(db, business, plan, await changed(db, business, plan, wished));
});

/**
 * Changes a running plan whole: lines, rhythm, end, receipts, how it is paid. What is charged already and what a person decided about single
 * dates stays. Where the customer has to agree, it waits beside the plan until they do; the consent can be taken down at the desk at once.
 *
 * @param revision as it was seen @param given how the customer agreed at the desk; null to ask them by mail
 * @returns whether it holds now, or waits for the customer
 * @throws Refusal `plan-ended`, `plan-not-ready`, `plan-changed-elsewhere`, `authorise-first`, `customer-without-email`
 */
export const changeTerms = desk('ask').turn(
  async (
    tx,
    planId: string,
    wished: PlanTerms,
    revision: number,
    given: Omit<Given, 'takenBy' | 'from'> | null,
  ): Promise<'changed' | 'asked'> => {
    const business = await businessById(tx);
    const plan = found(await planById(tx, planId, true));
    if (plan.revision !== revision) throw new Refusal('plan-changed-elsewhere');
    const next = await changed(tx, business, plan, wished);
    const change = await changeOf(tx, business, plan, next);
    if (change.needsConsent && !given) {
      await propose(tx, plan, next.terms, tx.name);
      return 'asked';
    }
    if (given && (!given.givenBy.trim() || (given.how !== 'telephone' && !given.fileId)))
      throw new Refusal('authorise-first');
    await apply(tx, business, plan, next, tx.name);
    if (change.needsConsent && given) await agree(tx, business, next, { ...given, takenBy: tx.name, from: 'the desk' });
    return 'changed';
  },
);

async function propose(tx: Tx, plan: Plan, terms: PlanTerms, byName: string): Promise<void> {
  const customer = found(await customerById(tx, plan.customerId));
  if (!customer.email) throw new Refusal('customer-without-email');
  await updatePlan(tx, { ...plan, proposed: { terms, byName }, revision: plan.revision + 1 });
  await addToTimeline(tx, { planId: plan.id }, { kind: 'change-proposed', to: customer.email }, byName);
  await tellOf(tx, plan, 'plan-proposed');
}

/** Writes to the customer about a change. */
async function tellOf(tx: Tx, plan: Plan, kind: 'plan-proposed' | 'plan-changed'): Promise<void> {
  const customer = found(await customerById(tx, plan.customerId));
  if (!customer.email) return;
  const key = `${kind}:${plan.id}:${plan.revision + 1}`;
  const to = { toName: customer.name, toAddress: customer.email };
  await queueMessage(tx, { kind, key, planId: plan.id, customerId: customer.id, ...to });
}

/** From now on the plan is so; the customer is told. */
async function apply(tx: Tx, business: Business, plan: Plan, next: Plan, byName: string): Promise<void> {
  await deleteUpcoming(tx, plan.id);
  const revision = plan.revision + 1;
  const written = { ...next, proposed: null, revision };
  if (plan.state === 'active') await planAhead(tx, business, written);
  else await updatePlan(tx, written);
  await addToTimeline(tx, { planId: plan.id }, { kind: 'plan-changed' }, byName);
  await tellOf(tx, plan, 'plan-changed');
  await askToCharge(tx);
}

/** Writes down that the customer agreed to the plan as it is now, for the card that it tries first. */
async function agree(tx: Tx, business: Business, plan: Plan, given: Given): Promise<void> {
  const customer = found(await customerById(tx, plan.customerId));
  const own = plan.cardIds[0] ? await cardById(tx, plan.cardIds[0]) : null;
  const card = own ?? (await cardsOf(tx, customer.id))[0];
  if (!card) throw new Refusal('no-card');
  const current = found(await planById(tx, plan.id, true));
  const shown = await agreementOf(tx, business, customer, [current]);
  await writeAuthorisation(tx, customer, { card, plan: current }, given, shown);
}

/** What the customer of a plan is asked to agree to anew; null where nothing is. */
export async function proposedChange(db: Db, business: Business, plan: Plan, lang: string): Promise<PlanChange | null> {
  if (!plan.proposed || !RUNNING_STATES.some((state) => state === plan.state)) return null;
  return changeOf(db, business, plan, { ...plan, terms: plan.proposed.terms }, lang);
}

/**
 * The customer agrees to a change on the plan's page: it holds from now on. Pressed twice it is changed once.
 *
 * @param address the network address it came from
 * @throws Refusal `authorise-first`, `plan-ended`
 */
export const acceptChange = byLink(PLAN_LINK).turn(
  async (
    tx,
    planId: string,
    accepted: { readonly name: string; readonly agrees: boolean },
    address: string,
  ): Promise<void> => {
    if (!accepted.agrees || !accepted.name.trim()) throw new Refusal('authorise-first');
    const business = await businessById(tx);
    const plan = found(await planById(tx, planId, true));
    if (!plan.proposed) return;
    const wished = plan.proposed.terms;
    const customer = found(await customerById(tx, plan.customerId));
    const next = await changed(tx, business, plan, wished);
    const named = inNameOf(tx, customer.name);
    await apply(named, business, plan, next, customer.name);
    const given = {
      how: 'ticked',
      givenBy: accepted.name.trim(),
      takenBy: 'Customer',
      from: address,
      fileId: null,
    } as const;
    await agree(named, business, next, given);
  },
);

/** A change that waits for the customer is taken back: the plan stays as it is. */
export const withdrawProposal = desk('ask').turn(async (tx, planId: string): Promise<void> => {
  const plan = found(await planById(tx, planId, true));
  if (!plan.proposed) return;
  await updatePlan(tx, { ...plan, proposed: null, revision: plan.revision + 1 });
  await addToTimeline(tx, { planId }, { kind: 'proposal-withdrawn' }, tx.name);
});
