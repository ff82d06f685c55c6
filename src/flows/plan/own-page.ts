import { sellerOf } from '@/core/business/business';
import type { Seller } from '@/core/invoice/printed';
import { jsonMinor } from '@/core/money/money';
import type { Address } from '@/core/place/address';
import { payBy } from '@/core/plan/plan';
import type { PlanState } from '@/core/plan/state';
import { authorisationsOf } from '@/db/authorisations';
import { businessById } from '@/db/businesses';
import { type CardOnFile, cardsOf } from '@/db/cards';
import { chargesAhead, retriedSums } from '@/db/charges';
import { customerById, updateCustomer } from '@/db/customers';
import { invoiceById } from '@/db/invoices';
import { erasedAt } from '@/db/keeping';
import { countAttempt } from '@/db/limits';
import { plansOfCustomer } from '@/db/plans';
import { receiptsOfCustomer } from '@/db/receipts';
import { OWN_PAGE_LINK, type OwnPageOpened } from '@/flows/door/links';
import { each, type ManyResult } from '@/flows/door/many';
import { byLink, desk, orNull, type Writing } from '@/flows/door/operation';
import { Refusal } from '@/flows/door/refusal';
import { found } from '@/flows/door/rights';
import { servedPath } from '@/flows/file/served-file';
import { localeOf } from '@/flows/invoice/paper-setting';
import { queueMessage } from '@/flows/message/queue-message';
import { agreementOf } from './agreement';
import { withdrawAuthorisation } from './authorise';
import { removeCard, shownCard } from './cards-on-file';
import { ownPageLink } from './links';
import { isCharged, type NewCard, takeNewCard } from './new-card';

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
  /** The plans that a card is charged for. */
  readonly needing: readonly string[];
  /** What is charged at once to a card that is given now, by currency. */
  readonly atOnce: readonly { readonly currency: string; readonly minor: number }[];
};

const NOTHING = {
  cards: [],
  plans: [],
  coming: [],
  open: [],
  receipts: [],
  agreement: '',
  atOnce: [],
  needing: [],
} as const;

/** What a token opens; null for one that is not ours. A link that is over shows nothing but whose it was. */
export const ownPage = orNull(
  byLink(OWN_PAGE_LINK).read(async (db, { customerId, over }): Promise<OwnPage> => {
    const business = await businessById(db);
    if (await erasedAt(db, customerId)) throw new Refusal('not-found');
    const customer = found(await customerById(db, customerId));
    const locale = localeOf(business, customer);
    const head = {
      over,
      seller: sellerOf(business),
      accent: business.accent,
      logo: business.logoId ? servedPath(db, business.logoId) : null,
      locale,
      name: over ? '' : customer.name,
      address: customer.billing,
    };
    if (over) return { ...head, ...NOTHING };
    const plans = await plansOfCustomer(db, customerId);
    const planOf = new Map(plans.map((plan) => [plan.id, plan]));
    const ahead = await chargesAhead(db, customerId, 30);
    const what = (planId: string) => planOf.get(planId)?.terms.name ?? '';
    const open = [];
    for (const charge of ahead.filter(({ state }) => state === 'refused' || state === 'billed')) {
      const invoice = charge.invoiceId ? await invoiceById(db, charge.invoiceId) : null;
      const terms = charge.state === 'billed' ? planOf.get(charge.planId)?.terms : undefined;
      open.push({
        id: charge.id,
        payBy: terms ? payBy(terms, charge.chargedOn) : null,
        what: what(charge.planId),
        minor: jsonMinor(charge.amountMinor),
        currency: charge.currency,
        link: invoice ? `/i/${invoice.linkToken}` : null,
      });
    }
    const { text } = await agreementOf(db, business, customer, plans.filter(isCharged));
    return {
      ...head,
      cards: (await cardsOf(db, customerId)).map(({ id, scheme, last4, expires, state }) => ({
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
          minor: jsonMinor(amountMinor),
          currency,
        })),
      open,
      receipts: (await receiptsOfCustomer(db, customerId, 24)).map((one) => ({ ...one, minor: jsonMinor(one.minor) })),
      agreement: text,
      needing: plans.filter(isCharged).map(({ terms }) => terms.name),
      atOnce: (await retriedSums(db, customerId)).map((one) => ({ ...one, minor: jsonMinor(one.minor) })),
    };
  }),
);

/** What a customer does on their page. */
export type OwnAction = NewCard & {
  readonly action: 'card' | 'remove' | 'withdraw' | 'address';
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
export const doOnOwnPage = byLink(OWN_PAGE_LINK).run(
  async (given, { customerId, over }: OwnPageOpened, asked: OwnAction, address: string): Promise<void> => {
    if (over) throw new Refusal('link-over');
    if (await given.read((db) => erasedAt(db, customerId))) throw new Refusal('not-found');
    const customer = found(await given.read((db) => customerById(db, customerId)));
    const ctx = given.named(customer.name);
    switch (asked.action) {
      case 'card':
        return takeNewCard(ctx, customerId, asked, address);
      case 'remove': {
        const mine = await ctx.read((db) => cardsOf(db, customerId));
        return removeCard(ctx, found(mine.find(({ id }) => id === asked.cardId)).id);
      }
      case 'withdraw': {
        return ctx.turn(async (tx) => {
          const plans = await plansOfCustomer(tx, customerId);
          await withdrawAuthorisation(tx, customerId, found(plans.find(({ id }) => id === asked.planId)).id);
        });
      }
      case 'address':
        return ctx.write(async (tx) => {
          const current = found(await customerById(tx, customerId));
          const lines = (asked.lines ?? []).map((line) => line.trim()).filter(Boolean);
          const billing = {
            ...current.billing,
            lines,
            city: asked.city?.trim() ?? '',
            postalCode: asked.postalCode?.trim() ?? '',
          };
          await updateCustomer(tx, { ...current, billing });
        });
    }
  },
);

const LINKS = { name: 'own-page-links', attempts: 5, seconds: 3600 };

/** Sends the customer of a link that is over a new one, to the address on file. @throws Refusal `not-found`, `asked-too-often` */
export const sendNewLink = byLink(OWN_PAGE_LINK).run(async (ctx, { customerId }): Promise<void> => {
  if ((await countAttempt(LINKS, customerId)) > 0) throw new Refusal('asked-too-often');
  await ctx.write(async (tx) => {
    const customer = found(await customerById(tx, customerId));
    if (!customer.email) throw new Refusal('customer-without-email');
    const to = { toName: customer.name, toAddress: customer.email };
    await queueMessage(tx, { kind: 'own-page', customerId, ...to, key: `own-page:${customerId}:${tx.now.getTime()}` });
  });
});

/** Sends a customer the link to their own page, where a card is added or replaced. @throws Refusal `customer-without-email`, `customer-without-phone` */
export const sendOwnPage = desk('ask').write(
  async (tx, customerId: string, way: 'mail' | 'text' | 'chat'): Promise<void> => {
    await queueOwnPage(tx, customerId, way, String(tx.now.getTime()));
  },
);

async function queueOwnPage(tx: Writing, customerId: string, way: 'mail' | 'text' | 'chat', key: string) {
  const customer = found(await customerById(tx, customerId));
  if (way === 'mail' && !customer.email) throw new Refusal('customer-without-email');
  if (way !== 'mail' && !customer.phone) throw new Refusal('customer-without-phone');
  const to = { way, toName: customer.name, toAddress: way === 'mail' ? customer.email : customer.phone };
  await queueMessage(tx, { kind: 'own-page', customerId, ...to, key: `own-page:${customerId}:${key}` });
}

/**
 * Sends several customers the link under which they give another card, by mail.
 *
 * @param requestKey one press, one mail each
 * @returns how many it went to, and why it did not go to the others
 */
export const sendCardLinks = desk('ask').run(
  (ctx, customerIds: readonly string[], requestKey: string): Promise<ManyResult> =>
    each([...new Set(customerIds)], (id) => ctx.write((tx) => queueOwnPage(tx, id, 'mail', requestKey))),
);

/** What the desk shows of a customer's cards, plans and authorisations, and the link to their own page. */
export const customerPlans = desk('see').read(async (db, customerId: string) => {
  const business = await businessById(db);
  return {
    cards: (await cardsOf(db, customerId)).map((card) => shownCard(card, business, db.now)),
    plans: await plansOfCustomer(db, customerId),
    authorisations: await authorisationsOf(db, customerId),
    ownPage: ownPageLink(db.businessId, customerId, db.now),
  };
});
