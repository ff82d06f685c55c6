import { sellerOf } from '@/core/business/business';
import { longDate, monthText } from '@/core/dates/date-text';
import { money } from '@/core/money/money';
import { moneyText } from '@/core/money/money-text';
import { cardText } from '@/core/payment/outcome';
import { forecast, payBy } from '@/core/plan/plan';
import { wordsOf } from '@/core/words/words';
import type { Business } from '@/db/businesses';
import { cardsOf } from '@/db/cards';
import { chargeById } from '@/db/charges';
import { customerById } from '@/db/customers';
import { invoiceById } from '@/db/invoices';
import type { Message } from '@/db/messages';
import { type Plan, planById } from '@/db/plans';
import { readBusiness } from '@/db/transaction';
import type { Letter } from '@/documents/mail/letters';
import {
  cardAskedLetter,
  chargeNoticeLetter,
  chargeRefusedLetter,
  ownPageLetter,
  type PlanDates,
  type PlanLetterOf,
  partDueLetter,
  planEndedLetter,
  planLinkLetter,
} from '@/documents/mail/plan-letters';
import { found } from '../access';
import { localeOf } from '../paper-setting';
import { ownPageLink } from './own-page-link';
import { planContext, planStanding, todayOf } from './plan-setting';

/** Kinds of messages about plans and cards. */
const KINDS = [
  'plan-link',
  'plan-reminder',
  'charge-notice',
  'charge-refused',
  'part-due',
  'card-asked',
  'own-page',
  'plan-ended',
] as const;
type PlanMessageKind = (typeof KINDS)[number];

export const isPlanMessage = (kind: Message['kind']): kind is PlanMessageKind => KINDS.some((one) => one === kind);

/** Where the customer looks at a plan and begins it. */
export const planLink = (publicUrl: string, token: string): string => `${publicUrl}/a/${token}`;

async function subjectOf(business: Business, message: Message) {
  return readBusiness(business.id, async (db) => {
    const customer = found(await customerById(db, business.id, message.customerId ?? ''));
    const charge = message.details.chargeId ? await chargeById(db, business.id, message.details.chargeId) : null;
    const plan = message.planId ? await planById(db, business.id, message.planId) : null;
    const cards = await cardsOf(db, business.id, customer.id);
    const invoice = plan?.invoiceId ? await invoiceById(db, business.id, plan.invoiceId) : null;
    return { customer, charge, plan, invoice, card: cards.find(({ state }) => state === 'good') ?? null };
  });
}

const DATES = 3;

/** The first dates of a plan with their sums, and what all come to where they have an end. */
async function firstDates(business: Business, plan: Plan, locale: string, now: Date): Promise<PlanDates> {
  const { sums, currency } = await readBusiness(business.id, (db) => planStanding(db, business, plan));
  const { charges, endless, count, totalMinor } = forecast(
    plan.terms,
    sums,
    planContext(business, plan, todayOf(business, now)),
  );
  const { plan: words } = wordsOf(locale);
  const text = (minor: bigint) => moneyText(money(minor, currency), locale);
  const first = charges.filter(({ amountMinor }) => amountMinor > 0n).slice(0, DATES);
  return {
    rows: first.map(({ chargedOn, amountMinor }) => ({
      label: longDate(chargedOn, locale),
      value: text(amountMinor),
    })),
    total: endless ? null : { label: `${words.inAll}, ${words.count(count)}`, value: text(totalMinor) },
  };
}

/** The letter for a message about a plan, in the customer's language. */
export async function writtenPlan(business: Business, message: Message, publicUrl: string, now: Date): Promise<Letter> {
  const { customer, charge, plan, invoice, card } = await subjectOf(business, message);
  const locale = localeOf(business, customer);
  const what = plan?.terms.name ?? '';
  const own = ownPageLink(business.id, customer.id, now);
  const of: PlanLetterOf = {
    locale,
    seller: sellerOf(business),
    accent: business.accent,
    toName: customer.name,
    what,
    link: own,
  };
  const sum = charge ? moneyText(money(charge.amountMinor, charge.currency), locale) : '';
  const kind = message.kind as PlanMessageKind;
  switch (kind) {
    case 'plan-link':
    case 'plan-reminder':
      return planLinkLetter(
        { ...of, link: planLink(publicUrl, plan?.linkToken ?? '') },
        kind === 'plan-reminder',
        plan ? await firstDates(business, plan, locale, now) : { rows: [], total: null },
      );
    case 'charge-notice':
      return chargeNoticeLetter(of, sum, charge ? longDate(charge.chargedOn, locale) : '', card ? cardText(card) : '');
    case 'charge-refused':
      return chargeRefusedLetter(of, sum, message.details.subject === 'last');
    case 'part-due':
      return partDueLetter(
        { ...of, link: `${publicUrl}/i/${invoice?.linkToken ?? ''}` },
        sum,
        charge && plan ? longDate(payBy(plan.terms, charge.chargedOn), locale) : '',
        message.details.offset !== undefined,
      );
    case 'card-asked':
      return cardAskedLetter(of, message.details.subject ?? '', monthText(message.details.to ?? '', locale));
    case 'own-page':
      return ownPageLetter(of);
    case 'plan-ended':
      return planEndedLetter(of);
  }
}

/** The short text with the link of a plan, for a phone. */
export async function shortPlan(business: Business, message: Message, publicUrl: string, now: Date): Promise<string> {
  const { customer, plan } = await subjectOf(business, message);
  const words = wordsOf(localeOf(business, customer)).plan;
  if (message.kind === 'own-page')
    return `${words.ownPageAt(business.name)}: ${ownPageLink(business.id, customer.id, now)}`;
  return `${words.linkSubject(business.name, plan?.terms.name ?? '')}: ${planLink(publicUrl, plan?.linkToken ?? '')}`;
}
