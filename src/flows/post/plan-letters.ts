import { sellerOf } from '@/core/business/business';
import { longDate, monthText } from '@/core/dates/date-text';
import { money } from '@/core/money/money';
import { moneyText } from '@/core/money/money-text';
import { cardText } from '@/core/payment/outcome';
import { todayOf } from '@/core/plan/days';
import { forecast, payBy } from '@/core/plan/plan';
import { wordsOf } from '@/core/words/words';
import { cardsOf } from '@/db/cards';
import { chargeById } from '@/db/charges';
import { customerById } from '@/db/customers';
import { invoiceById } from '@/db/invoices';
import { type Plan, planById } from '@/db/plans';
import type { Letter } from '@/documents/mail/letter';
import {
  cardAskedLetter,
  chargeNoticeLetter,
  chargeRefusedLetter,
  ownPageLetter,
  type PlanDates,
  type PlanLetterOf,
  partDueLetter,
  planChangedLetter,
  planEndedLetter,
  planEndingLetter,
  planLinkLetter,
  planOverNotice,
  planProposedLetter,
} from '@/documents/mail/plan-letters';
import { found } from '@/flows/door/rights';
import { localeOf } from '@/flows/invoice/paper-setting';
import { agreedCharges } from '@/flows/plan/agreement';
import { proposedChange } from '@/flows/plan/change-terms';
import { ownPageLink, planLink } from '@/flows/plan/links';
import { planContext, readPlan } from '@/flows/plan/plan-setting';
import { services } from '@/outside/services';
import type { Subject, Written } from './subject';

/** What a message about a plan or a card speaks of. */
async function aboutPlan({ ctx, message, business }: Subject) {
  const { customer, charge, plan, card, invoice } = await ctx.read(async (db) => {
    const owner = found(await customerById(db, message.customerId ?? ''));
    const subject = message.planId ? await planById(db, message.planId) : null;
    const cards = await cardsOf(db, owner.id);
    return {
      customer: owner,
      plan: subject,
      charge: message.details.chargeId ? await chargeById(db, message.details.chargeId) : null,
      invoice: subject?.invoiceId ? await invoiceById(db, subject.invoiceId) : null,
      card: cards.find(({ state }) => state === 'good') ?? null,
    };
  });
  const locale = localeOf(business, customer);
  const of: PlanLetterOf = {
    locale,
    seller: sellerOf(business),
    accent: business.accent,
    toName: customer.name,
    what: plan?.terms.name ?? '',
    link: ownPageLink(business.id, customer.id, ctx.now),
  };
  const sum = charge ? moneyText(money(charge.amountMinor, charge.currency), locale) : '';
  return { of, plan, charge, invoice, sum, card: card ? cardText(card) : '' };
}

type About = Awaited<ReturnType<typeof aboutPlan>>;

/** A mail about a plan. @param write what it says of its subject */
const planMail =
  (write: (about: About, subject: Subject) => Letter | Promise<Letter>) =>
  async (subject: Subject): Promise<Written> => ({
    ...(await write(await aboutPlan(subject), subject)),
    files: [],
  });

const DATES = 3;

/** The first dates of a plan with their sums, and what all come to where they have an end. */
async function firstDates({ ctx, business }: Subject, plan: Plan, locale: string): Promise<PlanDates> {
  const { sums, currency } = await ctx.read((db) => readPlan(db, business, plan));
  const { charges, endless, count, totalMinor } = forecast(
    plan.terms,
    sums,
    planContext(business, plan, todayOf(business, ctx.now)),
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

/** @param again whether it is the reminder of a link that nobody followed */
export const planLinkMail = (again: boolean) =>
  planMail(async ({ of, plan }, subject) =>
    planLinkLetter(
      { ...of, link: planLink(plan?.linkToken ?? '') },
      again,
      plan ? await firstDates(subject, plan, of.locale) : { rows: [], total: null },
    ),
  );

export const chargeNoticeMail = planMail(({ of, sum, charge, card }) =>
  chargeNoticeLetter(of, sum, charge ? longDate(charge.chargedOn, of.locale) : '', card),
);

export const chargeRefusedMail = planMail(({ of, sum }, { message }) =>
  chargeRefusedLetter(of, sum, message.details.subject === 'last'),
);

export const partDueMail = planMail(({ of, sum, charge, plan, invoice }, { message }) =>
  partDueLetter(
    { ...of, link: `${services().publicUrl}/i/${invoice?.linkToken ?? ''}` },
    sum,
    charge && plan ? longDate(payBy(plan.terms, charge.chargedOn), of.locale) : '',
    message.details.offset !== undefined,
  ),
);

export const cardAskedMail = planMail(({ of }, { message }) =>
  cardAskedLetter(of, message.details.subject ?? '', monthText(message.details.to ?? '', of.locale)),
);

export const ownPageMail = planMail(({ of }) => ownPageLetter(of));

export const planEndedMail = planMail(({ of }) => planEndedLetter(of));

/** Says how a plan goes on now. */
export const planChangedMail = planMail(async ({ of, plan }, { ctx, business }) =>
  planChangedLetter(of, plan ? await ctx.read((db) => agreedCharges(db, business, plan, of.locale)) : ''),
);

/** Asks the customer to agree to a change, with how it is and how it would be. */
export const planProposedMail = planMail(async ({ of, plan }, { ctx, business }) => {
  const change = plan && (await ctx.read((db) => proposedChange(db, business, plan, of.locale.slice(0, 2))));
  return planProposedLetter(
    { ...of, link: planLink(plan?.linkToken ?? '') },
    change?.before ?? '',
    change?.after ?? '',
  );
});

export const planEndingMail = planMail(({ of, plan }) =>
  planEndingLetter(of, plan?.endsOn ? longDate(plan.endsOn, of.locale) : ''),
);

/** The business reads that a plan has ended by itself. */
export const planOverMail = planMail(({ of, plan }) =>
  planOverNotice(of, `${services().publicUrl}/ask/plans/${plan?.id ?? ''}`),
);

/** The short text with the link of a plan, for a phone. */
export async function shortPlan(subject: Subject): Promise<string> {
  const { of, plan } = await aboutPlan(subject);
  const words = wordsOf(of.locale).plan;
  return `${words.linkSubject(subject.business.name, of.what)}: ${planLink(plan?.linkToken ?? '')}`;
}

/** The short text with the link to a customer's own page. */
export async function shortOwnPage(subject: Subject): Promise<string> {
  const { of } = await aboutPlan(subject);
  return `${wordsOf(of.locale).plan.ownPageAt(subject.business.name)}: ${of.link}`;
}
