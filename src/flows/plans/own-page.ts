import { randomUUID } from 'node:crypto';
import { sellerOf } from '@/core/business/business';
import type { Seller } from '@/core/invoice/printed';
import { cardText } from '@/core/payment/outcome';
import type { Address } from '@/core/place/address';
import { payBy } from '@/core/plan/plan';
import type { PlanState } from '@/core/plan/state';
import { authorisationsOf } from '@/db/authorisations';
import { businessById } from '@/db/businesses';
import { type CardOnFile, cardsOf } from '@/db/cards';
import { chargesAhead } from '@/db/charges';
import { customerById, updateCustomer } from '@/db/customers';
import { invoiceById } from '@/db/invoices';
import { announce } from '@/db/jobs';
import { countAttempt } from '@/db/limits';
import { plansOfCustomer } from '@/db/plans';
import { receiptsOfCustomer } from '@/db/receipts';
import { inBusiness, readBusiness } from '@/db/transaction';
import { services } from '@/outside/services';
import { type Actor, found, requireRight } from '../access';
import { localeOf } from '../paper-setting';
import { queueMessage } from '../queue-message';
import { Refusal } from '../refusal';
import { servedPath } from '../served-file';
import { authorisationText, withdrawAuthorisation, writeAuthorisation } from './authorise';
import { keepCard, orderCards, removeCard, shownCard } from './cards-on-file';
import { retryAfterNewCard } from './charge-plans';
import { openedBy, ownPageLink } from './own-page-link';

/** A customer's own page: cards, plans, what comes, receipts. Sums in minor units. */
export type OwnPage = {
  readonly over: boolean;
  readonly seller: Seller;
  readonly accent: string;
  /** Where the logo is fetched; null without one. */
  readonly logo: string | null;
  readonly locale: string;
  readonly name: string;
  readonly address: Address;
  readonly cards: readonly Pick<CardOnFile, 'id' | 'scheme' | 'last4' | 'expires' | 'state'>[];
  readonly plans: readonly {
    readonly id: string;
    readonly name: string;
    readonly state: PlanState;
    readonly nextOn: string | null;
    readonly byCard: boolean;
  }[];
  readonly coming: readonly {
    readonly id: string;
    readonly on: string;
    readonly what: string;
    readonly minor: number;
    readonly currency: string;
  }[];
  /** What was refused or is asked for by invoice, with where each can be paid. */
  readonly open: readonly {
    readonly id: string;
    /** Until when it is to be paid; null for a refused charge. */
    readonly payBy: string | null;
    readonly what: string;
    readonly minor: number;
    readonly currency: string;
    readonly link: string | null;
  }[];
  readonly receipts: readonly {
    readonly number: string;
    readonly on: string;
    readonly minor: number;
    readonly currency: string;
    readonly link: string;
  }[];
  readonly agreement: string;
};

const NOTHING = { cards: [], plans: [], coming: [], open: [], receipts: [], agreement: '' } as const;

/** What a token opens; null for one that is not ours. A link that is over shows nothing but whose it was. */
export async function ownPage(token: string): Promise<OwnPage | null> {
  const now = await services().clock.now();
  const opens = openedBy(token, now);
  if (!opens) return null;
  const { businessId, customerId, over } = opens;
  return readBusiness(businessId, async (db) => {
    const business = await businessById(db, businessId);
    const customer = await customerById(db, businessId, customerId);
    if (!customer) return null;
    const locale = localeOf(business, customer);
    const head = {
      over,
      seller: sellerOf(business),
      accent: business.accent,
      logo: business.logoId ? servedPath(businessId, business.logoId) : null,
      locale,
      name: over ? '' : customer.name,
      address: customer.billing,
    };
    if (over) return { ...head, ...NOTHING };
    const plans = await plansOfCustomer(db, businessId, customerId);
    const planOf = new Map(plans.map((plan) => [plan.id, plan]));
    const ahead = await chargesAhead(db, businessId, customerId, 30);
    const what = (planId: string) => planOf.get(planId)?.terms.name ?? '';
    const open = [];
    for (const charge of ahead.filter(({ state }) => state === 'refused' || state === 'billed')) {
      const invoice = charge.invoiceId ? await invoiceById(db, businessId, charge.invoiceId) : null;
      const terms = charge.state === 'billed' ? planOf.get(charge.planId)?.terms : undefined;
      open.push({
        id: charge.id,
        payBy: terms ? payBy(terms, charge.chargedOn) : null,
        what: what(charge.planId),
        minor: Number(charge.amountMinor),
        currency: charge.currency,
        link: invoice ? `/i/${invoice.linkToken}` : null,
      });
    }
    const { text } = await authorisationText(
      db,
      business,
      customer,
      [...new Set(plans.map(({ terms }) => terms.name))].join(', '),
    );
    return {
      ...head,
      cards: (await cardsOf(db, businessId, customerId)).map(({ id, scheme, last4, expires, state }) => ({
        id,
        scheme,
        last4,
        expires,
        state,
      })),
      plans: plans.map(({ id, terms, state, nextOn }) => ({
        id,
        name: terms.name,
        state,
        nextOn,
        byCard: terms.pay === 'card',
      })),
      coming: ahead
        .filter(({ state }) => state === 'upcoming')
        .slice(0, 12)
        .map(({ id, chargedOn, planId, amountMinor, currency }) => ({
          id,
          on: chargedOn,
          what: what(planId),
          minor: Number(amountMinor),
          currency,
        })),
      open,
      receipts: await receiptsOfCustomer(db, businessId, customerId, 24),
      agreement: text,
    };
  });
}

/** What a customer does on their page. */
export type OwnDeed = {
  readonly deed: 'card' | 'remove' | 'withdraw' | 'address';
  readonly cardToken?: string | undefined;
  readonly key?: string | undefined;
  readonly name?: string | undefined;
  readonly agrees?: boolean | undefined;
  readonly cardId?: string | undefined;
  readonly planId?: string | undefined;
  readonly lines?: readonly string[] | undefined;
  readonly city?: string | undefined;
  readonly postalCode?: string | undefined;
};

/**
 * Does what the customer asks for on their own page; the link must still be good.
 *
 * @throws Refusal `not-found`, `link-over`, `authorise-first`, `card-not-kept`
 */
export async function doOnOwnPage(token: string, asked: OwnDeed, address: string): Promise<void> {
  const now = await services().clock.now();
  const { businessId, customerId, over } = found(openedBy(token, now));
  if (over) throw new Refusal('link-over');
  const customer = found(await readBusiness(businessId, (db) => customerById(db, businessId, customerId)));
  const self = { businessId, name: customer.name };
  switch (asked.deed) {
    case 'card':
      return replaceCard(self, customerId, asked, address, now);
    case 'remove': {
      const mine = await readBusiness(businessId, (db) => cardsOf(db, businessId, customerId));
      return removeCard(self, found(mine.find(({ id }) => id === asked.cardId)).id);
    }
    case 'withdraw': {
      const plans = await readBusiness(businessId, (db) => plansOfCustomer(db, businessId, customerId));
      return withdrawAuthorisation(self, customerId, found(plans.find(({ id }) => id === asked.planId)).id);
    }
    case 'address':
      return inBusiness(businessId, async (tx) => {
        const current = found(await customerById(tx, businessId, customerId));
        const lines = (asked.lines ?? []).map((line) => line.trim()).filter(Boolean);
        const billing = {
          ...current.billing,
          lines,
          city: asked.city?.trim() ?? '',
          postalCode: asked.postalCode?.trim() ?? '',
        };
        await updateCustomer(tx, businessId, { ...current, billing }, now);
        await announce(tx, businessId);
      });
  }
}

/** How many cards one customer may give in an hour: a page of one's own is no place to try out cards. */
const NEW_CARDS = { name: 'own-page-cards', attempts: 8, seconds: 3600 };

/** A new card comes first from now on; what was refused is tried again with it. */
async function replaceCard(
  self: { businessId: string; name: string },
  customerId: string,
  asked: OwnDeed,
  address: string,
  now: Date,
): Promise<void> {
  const { businessId } = self;
  if (!asked.agrees || !asked.name?.trim()) throw new Refusal('authorise-first');
  if ((await countAttempt(NEW_CARDS, customerId)) > 0) throw new Refusal('too-many-attempts');
  const card = await keepCard(businessId, customerId, asked.cardToken ?? '', asked.key ?? randomUUID(), asked.name);
  await inBusiness(businessId, async (tx) => {
    const business = await businessById(tx, businessId);
    const customer = found(await customerById(tx, businessId, customerId));
    const given = {
      how: 'ticked',
      givenBy: asked.name?.trim() ?? '',
      takenBy: 'Customer',
      from: address,
      fileId: null,
    } as const;
    const plans = (await plansOfCustomer(tx, businessId, customerId)).filter(
      ({ state, terms }) => terms.pay === 'card' && (state === 'active' || state === 'paused'),
    );
    for (const plan of plans) await writeAuthorisation(tx, business, customer, card, plan, given, now);
    if (plans.length === 0) await writeAuthorisation(tx, business, customer, card, null, given, now);
  });
  await orderCards(self, customerId, [card.id]);
  await retryAfterNewCard(businessId, customerId, cardText(card));
}

const LINKS = { name: 'own-page-links', attempts: 5, seconds: 3600 };

/** Sends the customer of a link that is over a new one, to the address on file. @throws Refusal `not-found`, `asked-too-often` */
export async function sendNewLink(token: string): Promise<void> {
  const now = await services().clock.now();
  const { businessId, customerId } = found(openedBy(token, now));
  if ((await countAttempt(LINKS, customerId)) > 0) throw new Refusal('asked-too-often');
  await inBusiness(businessId, async (tx) => {
    const customer = found(await customerById(tx, businessId, customerId));
    if (!customer.email) throw new Refusal('customer-without-email');
    const to = { toName: customer.name, toAddress: customer.email };
    await queueMessage(
      tx,
      businessId,
      { kind: 'own-page', customerId, ...to, key: `own-page:${customerId}:${now.getTime()}` },
      now,
    );
  });
}

/** Sends a customer the link to their own page, where a card is added or replaced. @throws Refusal `customer-without-email`, `customer-without-phone` */
export async function sendOwnPage(actor: Actor, customerId: string, way: 'mail' | 'text' | 'chat'): Promise<void> {
  requireRight(actor, 'ask');
  const now = await services().clock.now();
  await inBusiness(actor.businessId, async (tx) => {
    const customer = found(await customerById(tx, actor.businessId, customerId));
    if (way === 'mail' && !customer.email) throw new Refusal('customer-without-email');
    if (way !== 'mail' && !customer.phone) throw new Refusal('customer-without-phone');
    const to = { way, toName: customer.name, toAddress: way === 'mail' ? customer.email : customer.phone };
    const key = `own-page:${customerId}:${now.getTime()}`;
    await queueMessage(tx, actor.businessId, { kind: 'own-page', customerId, ...to, key }, now);
  });
}

/** What the desk shows of a customer's cards, plans and authorisations, and the link to their own page. */
export async function customerPlans(actor: Actor, customerId: string) {
  requireRight(actor, 'read');
  const now = await services().clock.now();
  const { businessId } = actor;
  return readBusiness(businessId, async (db) => {
    const business = await businessById(db, businessId);
    return {
      cards: (await cardsOf(db, businessId, customerId)).map((card) => shownCard(card, business, now)),
      plans: await plansOfCustomer(db, businessId, customerId),
      authorisations: await authorisationsOf(db, businessId, customerId),
      ownPage: ownPageLink(businessId, customerId, now),
    };
  });
}
