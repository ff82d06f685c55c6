import { randomUUID } from 'node:crypto';
import type { Business } from '@/core/business/business';
import { addDays } from '@/core/dates/calendar-date';
import { sendBy } from '@/core/invoice/send-with';
import { todayOf } from '@/core/plan/days';
import { firstCharges, isAtStart, MOST_INSTALMENTS, type PlanTerms } from '@/core/plan/plan';
import { dateTrouble } from '@/core/plan/sums';
import { isLanguage, localeFor } from '@/core/words/words';
import { isAuthorised } from '@/db/authorisations';
import { businessById, takeNumber } from '@/db/businesses';
import { type CardOnFile, cardById, cardsOf } from '@/db/cards';
import { chargesOfPlan } from '@/db/charges';
import { customerById } from '@/db/customers';
import { invoiceById } from '@/db/invoices';
import { newToken } from '@/db/link-tokens';
import { deletePlan, insertPlan, type Plan, planById, updatePlan } from '@/db/plans';
import type { Db, Tx } from '@/db/pool';
import { addToTimeline } from '@/db/timeline';
import { PLAN_LINK } from '@/flows/door/links';
import { requireCards, requireSending } from '@/flows/door/opening';
import { byLink, type Context, desk, inNameOf, type Writing } from '@/flows/door/operation';
import { Refusal } from '@/flows/door/refusal';
import { found } from '@/flows/door/rights';
import { writeDraft } from '@/flows/invoice/draft';
import { issueDraft } from '@/flows/invoice/issue-invoices';
import { localeOf } from '@/flows/invoice/paper-setting';
import { queueMessage } from '@/flows/message/queue-message';
import { agreementOf } from './agreement';
import { type Given, writeAuthorisation } from './authorise';
import { putOnFile } from './cards-on-file';
import { askToCharge } from './charge-now';
import { withKeptCard } from './claim-card';
import { isCharged, takeNewCard } from './new-card';
import { planAhead } from './plan-ahead';
import { planContext, readPlan } from './plan-setting';

export type { Plan };

/** What a person says of a plan. */
export type PlanWords = { readonly terms: PlanTerms; readonly memo: string; readonly reference: string };

/** Keeps a plan that has not been handed to anybody: a new one, or as it was changed. Returns its id. */
export const keepPlan = desk('ask').write(
  async (tx, id: string | null, words: PlanWords, revision: number = 0): Promise<{ id: string; revision: number }> => {
    const business = await businessById(tx);
    const customer = found(await customerById(tx, words.terms.paper.customerId ?? ''));
    const currency = words.terms.paper.currency || customer.currency || business.currency;
    if (!id) {
      const fresh = await writePlan(tx, words, { customerId: customer.id, currency });
      return { id: fresh, revision: 1 };
    }
    const plan = found(await planById(tx, id, true));
    if (plan.state !== 'draft') throw new Refusal('plan-changed-elsewhere');
    if (plan.revision !== revision) throw new Refusal('plan-changed-elsewhere');
    await updatePlan(tx, { ...plan, ...words, customerId: customer.id, currency, revision: revision + 1 });
    return { id, revision: revision + 1 };
  },
);

/** Writes a new plan down as a draft. */
export async function writePlan(
  tx: Writing,
  words: PlanWords,
  {
    id = randomUUID(),
    customerId,
    currency,
  }: { readonly id?: string; readonly customerId: string; readonly currency: string },
): Promise<string> {
  const number = `P-${await takeNumber(tx, 'plan')}`;
  const plan = {
    id,
    customerId,
    number,
    currency,
    linkToken: newToken(tx.businessId),
    orderId: null,
    byId: tx.personId,
    ...words,
  };
  await insertPlan(tx, plan);
  await addToTimeline(tx, { planId: id }, { kind: 'made' }, tx.name);
  return id;
}

/** Throws a draft away. */
export const discardPlan = desk('ask').write(async (tx, id: string): Promise<void> => {
  await deletePlan(tx, id);
});

/** @throws Refusal `plan-not-ready` with the places */
async function requireReady(tx: Tx, business: Business, plan: Plan): Promise<void> {
  const { sums, problems } = await readPlan(tx, business, plan);
  const today = todayOf(business, tx.now);
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
export const sendPlan = desk('ask').write(sendPlanNow);

/** The work of sending a plan's link. */
export async function sendPlanNow(tx: Writing, id: string, way: 'mail' | 'text' | 'chat' | 'link'): Promise<void> {
  const business = await businessById(tx);
  const plan = found(await planById(tx, id, true));
  if (plan.state === 'active' || plan.state === 'paused') throw new Refusal('plan-runs');
  if (plan.state !== 'draft' && plan.state !== 'waiting') throw new Refusal('plan-ended');
  await requireReady(tx, business, plan);
  await requireSending(tx, business);
  if (plan.terms.pay === 'card') await requireCards(tx, business);
  const customer = found(await customerById(tx, plan.customerId));
  if (way === 'mail' && !customer.email) throw new Refusal('customer-without-email');
  if ((way === 'text' || way === 'chat') && !customer.phone) throw new Refusal('customer-without-phone');
  const times = plan.sentAt ? `again:${tx.now.getTime()}` : 'first';
  if (way !== 'link')
    await queueMessage(tx, {
      kind: 'plan-link',
      key: `plan-link:${id}:${times}`,
      way,
      planId: id,
      customerId: customer.id,
      toName: customer.name,
      toAddress: way === 'mail' ? customer.email : customer.phone,
    });
  const { lapseDays, remindDays } = business.charging;
  const lapsesOn = addDays(todayOf(business, tx.now), lapseDays);
  const remindAt = new Date(tx.now.getTime() + remindDays * 86_400_000);
  await updatePlan(tx, { ...plan, state: 'waiting', sentAt: tx.now, remindAt, lapsesOn });
  const to = way === 'link' ? '' : way === 'mail' ? customer.email : customer.phone;
  await addToTimeline(tx, { planId: id }, { kind: 'plan-link-sent', to }, tx.name);
}

/**
 * Starts a plan: what is charged is written down from now on. A plan that charges a card needs an authorisation that stands.
 *
 * @throws Refusal `authorise-first`, `plan-not-ready`, `plan-ended`
 */
async function startPlan(
  tx: Tx,
  business: Business,
  plan: Plan,
  byName: string,
  cardIds: readonly string[] = [],
): Promise<void> {
  if (plan.state === 'active') return;
  if (plan.state === 'paused') throw new Refusal('plan-runs');
  if (plan.state !== 'draft' && plan.state !== 'waiting') throw new Refusal('plan-ended');
  await requireReady(tx, business, plan);
  if (plan.terms.pay === 'card' && !(await isAuthorised(tx, plan.id))) throw new Refusal('authorise-first');
  const today = todayOf(business, tx.now);
  const begun: Plan = { ...plan, state: 'active', startsOn: today, cardIds };
  const invoiceId = plan.terms.kind === 'instalments' ? await balanceInvoice(tx, business, begun, byName) : null;
  const active = await planAhead(tx, business, { ...begun, invoiceId });
  const first = active.nextOn ?? 'at-once';
  await addToTimeline(tx, { planId: plan.id }, { kind: 'plan-started', first }, byName);
  await askToCharge(tx);
}

/** The invoice over the whole balance, whose parts the plan charges; due with the last of them. */
async function balanceInvoice(tx: Tx, business: Business, plan: Plan, byName: string): Promise<string> {
  const { sums } = await readPlan(tx, business, plan);
  const context = planContext(business, plan, todayOf(business, tx.now));
  const { charges } = firstCharges(plan.terms, sums, context, MOST_INSTALMENTS + 1);
  const today = todayOf(business, tx.now);
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
    { revision: 1, origin: 'plan' },
  );
  await addToTimeline(tx, id, { kind: 'made', by: 'plan' }, plan.terms.name);
  const draft = found(await invoiceById(tx, id));
  await issueDraft(inNameOf(tx, byName), business, draft, sendBy('plan'));
  return id;
}

/** How the card comes that a plan is started with: one on file, or one just typed. */
export type CardGiven = { readonly cardId: string } | { readonly cardToken: string; readonly key: string };

/** Does something in turn with the card that was given, on file from then on. */
async function withCardGiven<T>(
  ctx: Context,
  customerId: string,
  given: CardGiven,
  work: (tx: Writing, card: () => Promise<CardOnFile>) => Promise<T>,
): Promise<T> {
  if ('cardToken' in given) {
    return withKeptCard(ctx, { token: given.cardToken, key: given.key }, (tx, kept) =>
      work(tx, () => putOnFile(tx, customerId, kept, ctx.name)),
    );
  }
  return ctx.turn((tx) =>
    work(tx, async () => {
      const card = found(await cardById(tx, given.cardId));
      if (card.customerId !== customerId || card.state === 'removed') throw new Refusal('no-card');
      return card;
    }),
  );
}

/** The cards that a plan tries after its first: the one that was chosen as the second, or all others of the customer in their order. @throws Refusal `no-card` */
async function othersOf(tx: Tx, customerId: string, firstId: string, secondId: string | null): Promise<string[]> {
  const others = (await cardsOf(tx, customerId)).filter(({ id }) => id !== firstId).map(({ id }) => id);
  if (secondId === null) return others;
  if (!others.includes(secondId)) throw new Refusal('no-card');
  return [secondId];
}

/**
 * Starts a plan at the desk, with a card and how it was authorised; or, for one by invoice, without.
 *
 * @param secondId the card that is tried where the first is refused; null for the customer's others in their order
 */
export const startAtDesk = desk('take').run(
  async (
    ctx,
    id: string,
    card: CardGiven | null,
    given: Omit<Given, 'takenBy' | 'from'> | null,
    secondId: string | null = null,
  ): Promise<void> => {
    const plan = found(await ctx.read((db) => planById(db, id)));
    if (plan.terms.pay === 'card' && (!card || !given?.givenBy.trim())) throw new Refusal('authorise-first');
    if ((given?.how === 'drawn' || given?.how === 'paper') && !given.fileId) throw new Refusal('authorise-first');
    const start = async (tx: Writing, onFile: (() => Promise<CardOnFile>) | null): Promise<void> => {
      const business = await businessById(tx);
      const current = found(await planById(tx, id, true));
      if (current.state === 'active') return;
      let cardIds: string[] = [];
      if (onFile && given) {
        const customer = found(await customerById(tx, current.customerId));
        const by = { ...given, takenBy: ctx.name, from: 'the desk' };
        const first = await onFile();
        await writeAuthorisation(tx, customer, { card: first, plan: current }, by);
        cardIds = [first.id, ...(await othersOf(tx, customer.id, first.id, secondId))];
      }
      await startPlan(tx, business, current, ctx.name, cardIds);
    };
    await (card ? withCardGiven(ctx, plan.customerId, card, start) : ctx.turn((tx) => start(tx, null)));
  },
);

/** Whether what a plan charges at its beginning was refused. */
const firstRefused = async (db: Db, planId: string): Promise<boolean> =>
  (await chargesOfPlan(db, planId)).some((charge) => isAtStart(charge) && charge.state === 'refused');

/**
 * The customer accepts a plan on its page: the card is kept, the authorisation written down, the plan begun. Pressed twice it
 * is begun once.
 *
 * @param accepted.lang in which language it was read @param address the network address it came from
 * @throws Refusal `plan-ended`, `authorise-first`, `card-not-kept`
 */
export const acceptPlan = byLink(PLAN_LINK).run(
  async (
    ctx,
    planId: string,
    accepted: {
      readonly cardToken: string;
      readonly key: string;
      readonly name: string;
      readonly agrees: boolean;
      readonly lang?: string | undefined;
    },
    address: string,
  ): Promise<void> => {
    if (!accepted.agrees || !accepted.name.trim()) throw new Refusal('authorise-first');
    const plan = found(await ctx.read((db) => planById(db, planId)));
    // It has begun, and its first charge was refused: this is another card for it.
    if (isCharged(plan) && (await ctx.read((db) => firstRefused(db, planId)))) {
      const customer = found(await ctx.read((db) => customerById(db, plan.customerId)));
      return takeNewCard(ctx.named(customer.name), plan.customerId, accepted, address);
    }
    if (plan.state === 'active') return;
    if (plan.state !== 'waiting') throw new Refusal('plan-ended');
    await withKeptCard(ctx, { token: accepted.cardToken, key: accepted.key }, async (tx, kept) => {
      const business = await businessById(tx);
      const current = found(await planById(tx, planId, true));
      // Somebody was faster: this card is dropped again.
      if (current.state === 'active') return;
      if (current.state !== 'waiting') throw new Refusal('plan-ended');
      const customer = found(await customerById(tx, current.customerId));
      const given: Given = {
        how: 'ticked',
        givenBy: accepted.name.trim(),
        takenBy: 'Customer',
        from: address,
        fileId: null,
      };
      const card = await putOnFile(tx, customer.id, kept, accepted.name);
      const locale = localeFor(
        isLanguage(accepted.lang ?? '') ? (accepted.lang ?? '') : '',
        localeOf(business, customer),
        '',
      );
      const shown = await agreementOf(tx, business, customer, [current], locale);
      await writeAuthorisation(tx, customer, { card, plan: current }, given, shown);
      await startPlan(tx, business, current, 'Customer', [
        card.id,
        ...(await othersOf(tx, customer.id, card.id, null)),
      ]);
    });
  },
);
