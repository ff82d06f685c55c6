import { randomUUID } from 'node:crypto';
import type { Business } from '@/core/business/business';
import { addDays } from '@/core/dates/calendar-date';
import { shortDate } from '@/core/dates/date-text';
import { sendBy } from '@/core/invoice/send-with';
import { firstCharges, MOST_INSTALMENTS, type PlanTerms } from '@/core/plan/plan';
import { dateTrouble } from '@/core/plan/sums';
import { isAuthorised } from '@/db/authorisations';
import { businessById, takeNumber } from '@/db/businesses';
import { type CardOnFile, cardById } from '@/db/cards';
import { customerById } from '@/db/customers';
import { invoiceById } from '@/db/invoices';
import { announce } from '@/db/jobs';
import type { Actor } from '@/db/people';
import { deletePlan, insertPlan, type Plan, planById, planHolder, updatePlan } from '@/db/plans';
import type { Tx } from '@/db/pool';
import { insertHappening } from '@/db/timeline';
import { inBusiness, inBusinessInTurn, outsideBusiness, readBusiness } from '@/db/transaction';
import { services } from '@/outside/services';
import { found, requireRight } from '../access';
import { linkToken, writeDraft } from '../draft';
import { queueMessage } from '../queue-message';
import { Refusal } from '../refusal';
import { sendInTurn } from '../send-invoice';
import { type Given, writeAuthorisation } from './authorise';
import { keepCard } from './cards-on-file';
import { askToCharge } from './charge-plans';
import { planAhead } from './plan-ahead';
import { planContext, planStanding, todayOf } from './plan-setting';

export type { Plan };

/** What a person says of a plan. */
export type PlanWords = { readonly terms: PlanTerms; readonly memo: string; readonly reference: string };

/** Keeps a plan that has not been handed to anybody: a new one, or as it was changed. Returns its id. */
export async function keepPlan(
  actor: Actor,
  id: string | null,
  words: PlanWords,
  revision = 0,
): Promise<{ id: string; revision: number }> {
  requireRight(actor, 'ask');
  const now = await services().clock.now();
  return inBusiness(actor.businessId, async (tx) => {
    const business = await businessById(tx, actor.businessId);
    const customer = found(await customerById(tx, actor.businessId, words.terms.paper.customerId ?? ''));
    const currency = words.terms.paper.currency || customer.currency || business.currency;
    if (!id) {
      const fresh = await writePlan(tx, actor, words, customer.id, currency, null, now);
      return { id: fresh, revision: 1 };
    }
    const plan = found(await planById(tx, actor.businessId, id, true));
    if (plan.state !== 'draft') throw new Refusal('plan-changed-elsewhere');
    if (plan.revision !== revision) throw new Refusal('plan-changed-elsewhere');
    await updatePlan(
      tx,
      actor.businessId,
      { ...plan, ...words, customerId: customer.id, currency, revision: revision + 1 },
      now,
    );
    await announce(tx, actor.businessId);
    return { id, revision: revision + 1 };
  });
}

/** Writes a new plan down as a draft. */
export async function writePlan(
  tx: Tx,
  actor: Pick<Actor, 'businessId' | 'name' | 'personId'>,
  words: PlanWords,
  customerId: string,
  currency: string,
  orderId: string | null,
  now: Date,
  id: string = randomUUID(),
): Promise<string> {
  const number = `P-${await takeNumber(tx, actor.businessId, 'plan')}`;
  const plan = { id, customerId, number, currency, linkToken: linkToken(), orderId, byId: actor.personId, ...words };
  await insertPlan(tx, actor.businessId, plan, now);
  await insertHappening(tx, actor.businessId, { planId: id }, { kind: 'made' }, actor.name, now);
  await announce(tx, actor.businessId);
  return id;
}

/** Throws a draft away. */
export async function discardPlan(actor: Actor, id: string): Promise<void> {
  requireRight(actor, 'ask');
  await inBusiness(actor.businessId, async (tx) => {
    await deletePlan(tx, actor.businessId, id);
    await announce(tx, actor.businessId);
  });
}

/** @throws Refusal `plan-not-ready` with the places */
async function requireReady(tx: Tx, business: Business, plan: Plan, now: Date): Promise<void> {
  const { sums, problems } = await planStanding(tx, business, plan);
  const today = todayOf(business, now);
  const trouble = problems.length === 0 ? dateTrouble(plan.terms, sums, planContext(business, plan, today)) : null;
  const all = trouble ? [...problems, { field: 'schedule', words: trouble }] : problems;
  if (all.length > 0) throw new Refusal('plan-not-ready', all);
}

/**
 * Sends the customer the link under which the whole calendar is seen, the card entered and the plan begun.
 *
 * @param way `link` sends nothing: it is copied and passed on
 * @throws Refusal `plan-not-ready`, `customer-without-email`, `customer-without-phone`
 */
export async function sendPlan(actor: Actor, id: string, way: 'mail' | 'text' | 'chat' | 'link'): Promise<void> {
  requireRight(actor, 'ask');
  const now = await services().clock.now();
  await inBusiness(actor.businessId, (tx) => sendPlanNow(tx, actor, id, way, now));
}

/** The work of sending a plan's link. */
export async function sendPlanNow(
  tx: Tx,
  actor: Pick<Actor, 'businessId' | 'name'>,
  id: string,
  way: 'mail' | 'text' | 'chat' | 'link',
  now: Date,
): Promise<void> {
  const business = await businessById(tx, actor.businessId);
  const plan = found(await planById(tx, actor.businessId, id, true));
  if (plan.state !== 'draft' && plan.state !== 'waiting') throw new Refusal('plan-ended');
  await requireReady(tx, business, plan, now);
  const customer = found(await customerById(tx, actor.businessId, plan.customerId));
  if (way === 'mail' && !customer.email) throw new Refusal('customer-without-email');
  if ((way === 'text' || way === 'chat') && !customer.phone) throw new Refusal('customer-without-phone');
  const times = plan.sentAt ? `again:${now.getTime()}` : 'first';
  if (way !== 'link')
    await queueMessage(
      tx,
      actor.businessId,
      {
        kind: 'plan-link',
        key: `plan-link:${id}:${times}`,
        way,
        planId: id,
        customerId: customer.id,
        toName: customer.name,
        toAddress: way === 'mail' ? customer.email : customer.phone,
      },
      now,
    );
  const lapsesOn = addDays(todayOf(business, now), business.charging.lapseDays);
  await updatePlan(tx, actor.businessId, { ...plan, state: 'waiting', sentAt: now, lapsesOn }, now);
  const note = way === 'link' ? 'to be passed on' : way === 'mail' ? customer.email : customer.phone;
  await insertHappening(
    tx,
    actor.businessId,
    { planId: id },
    { kind: 'plan-deed', lead: 'Link sent', note },
    actor.name,
    now,
  );
  await announce(tx, actor.businessId);
}

/**
 * Starts a plan: what is charged is written down from now on. A plan that charges a card needs an authorisation that stands.
 *
 * @throws Refusal `authorise-first`, `plan-not-ready`, `plan-ended`
 */
async function startPlan(tx: Tx, business: Business, plan: Plan, byName: string, now: Date): Promise<void> {
  if (plan.state === 'active') return;
  if (plan.state !== 'draft' && plan.state !== 'waiting') throw new Refusal('plan-ended');
  await requireReady(tx, business, plan, now);
  if (plan.terms.pay === 'card' && !(await isAuthorised(tx, business.id, plan.id)))
    throw new Refusal('authorise-first');
  const today = todayOf(business, now);
  const begun: Plan = { ...plan, state: 'active', startsOn: today };
  const invoiceId = plan.terms.kind === 'instalments' ? await balanceInvoice(tx, business, begun, byName, now) : null;
  const active = await planAhead(tx, business, { ...begun, invoiceId }, now);
  const first = active.nextOn ? shortDate(active.nextOn, business.locale) : 'at once';
  await insertHappening(tx, business.id, { planId: plan.id }, { kind: 'plan-started', first }, byName, now);
  await askToCharge(tx, business.id);
  await announce(tx, business.id);
}

/** The invoice over the whole balance, whose parts the plan charges; due with the last of them. */
async function balanceInvoice(tx: Tx, business: Business, plan: Plan, byName: string, now: Date): Promise<string> {
  const { sums } = await planStanding(tx, business, plan);
  const context = planContext(business, plan, todayOf(business, now));
  const { charges } = firstCharges(plan.terms, sums, context, MOST_INSTALMENTS + 1);
  const today = todayOf(business, now);
  // No earlier than today, whatever the dates were.
  const last = [today, ...charges.map(({ chargedOn }) => chargedOn)].sort().at(-1) ?? today;
  const { paper } = plan.terms;
  const id = await writeDraft(
    tx,
    business,
    {
      ...paper,
      customerId: plan.customerId,
      title: paper.title || plan.terms.name,
      reference: plan.reference || paper.reference,
      due: { kind: 'date', date: last },
      reminders: [],
      ways: { ...paper.ways, card: true, parts: true, first: '' },
    },
    1,
    'plan',
    now,
  );
  await insertHappening(tx, business.id, id, { kind: 'made', by: 'plan' }, plan.terms.name, now);
  const draft = found(await invoiceById(tx, business.id, id));
  await sendInTurn(tx, { businessId: business.id, name: byName }, business, draft, sendBy('plan'), now);
  return id;
}

/** How the card comes that a plan is started with: one on file, or one just typed. */
export type CardGiven = { readonly cardId: string } | { readonly cardToken: string; readonly key: string };

async function cardGiven(
  businessId: string,
  customerId: string,
  given: CardGiven,
  byName: string,
): Promise<CardOnFile> {
  if ('cardToken' in given) return keepCard(businessId, customerId, given.cardToken, given.key, byName);
  const card = found(await readBusiness(businessId, (db) => cardById(db, businessId, given.cardId)));
  if (card.customerId !== customerId || card.state === 'removed') throw new Refusal('no-card');
  return card;
}

/** Starts a plan at the desk, with a card and how it was authorised; or, for one by invoice, without. */
export async function startAtDesk(
  actor: Actor,
  id: string,
  card: CardGiven | null,
  given: Omit<Given, 'takenBy' | 'from'> | null,
): Promise<void> {
  requireRight(actor, 'ask');
  const { businessId } = actor;
  const plan = found(await readBusiness(businessId, (db) => planById(db, businessId, id)));
  if (plan.terms.pay === 'card' && (!card || !given?.givenBy.trim())) throw new Refusal('authorise-first');
  if ((given?.how === 'drawn' || given?.how === 'paper') && !given.fileId) throw new Refusal('authorise-first');
  const onFile = card ? await cardGiven(businessId, plan.customerId, card, actor.name) : null;
  const now = await services().clock.now();
  await inBusinessInTurn(businessId, async (tx) => {
    const business = await businessById(tx, businessId);
    const current = found(await planById(tx, businessId, id, true));
    if (current.state === 'active') return;
    if (onFile && given) {
      const customer = found(await customerById(tx, businessId, current.customerId));
      await writeAuthorisation(
        tx,
        business,
        customer,
        onFile,
        current,
        { ...given, takenBy: actor.name, from: 'the desk' },
        now,
      );
    }
    await startPlan(tx, business, current, actor.name, now);
  });
}

/**
 * The customer accepts a plan on its page: the card is kept, the authorisation written down, the plan begun. Pressed twice it
 * is begun once.
 *
 * @param address the network address it came from
 * @throws Refusal `plan-ended`, `authorise-first`, `card-not-kept`
 */
export async function acceptPlan(
  token: string,
  accepted: { readonly cardToken: string; readonly key: string; readonly name: string; readonly agrees: boolean },
  address: string,
): Promise<void> {
  const { businessId, planId } = found(await outsideBusiness((db) => planHolder(db, token)));
  if (!accepted.agrees || !accepted.name.trim()) throw new Refusal('authorise-first');
  const plan = found(await readBusiness(businessId, (db) => planById(db, businessId, planId)));
  if (plan.state === 'active') return;
  if (plan.state !== 'waiting') throw new Refusal('plan-ended');
  const card = await keepCard(businessId, plan.customerId, accepted.cardToken, accepted.key, accepted.name);
  const now = await services().clock.now();
  await inBusinessInTurn(businessId, async (tx) => {
    const business = await businessById(tx, businessId);
    const current = found(await planById(tx, businessId, planId, true));
    if (current.state === 'active') return;
    const customer = found(await customerById(tx, businessId, current.customerId));
    const given: Given = {
      how: 'ticked',
      givenBy: accepted.name.trim(),
      takenBy: 'Customer',
      from: address,
      fileId: null,
    };
    await writeAuthorisation(tx, business, customer, card, current, given, now);
    await startPlan(tx, business, current, 'Customer', now);
  });
}
