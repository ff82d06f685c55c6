import type { Seller } from '@/core/invoice/printed';
import { wordsOf } from '@/core/words/words';
import { type Letter, letter, notice, type Row } from './letter';

/** What every letter about a plan needs; `locale` is the customer's. */
export type PlanLetterOf = {
  readonly locale: string;
  readonly seller: Seller;
  readonly accent: string;
  readonly toName: string;
  /** What the plan is for. */
  readonly what: string;
  readonly link: string;
};

/** Dates with their sums as text; `total` where they have an end. */
export type PlanDates = { readonly rows: readonly Row[]; readonly total: Row | null };

type Parts = { subject: string; sum: string; under?: string; text: string; dates?: PlanDates; button: string };

const planLetter = (of: PlanLetterOf, { subject, sum, under = '', text, dates, button }: Parts): Letter =>
  letter({
    locale: of.locale,
    seller: of.seller,
    accent: of.accent,
    subject,
    lead: of.toName,
    sum,
    under,
    words: [text],
    rows: dates?.rows ?? [],
    ...(dates?.total ? { total: dates.total } : {}),
    button: { words: button, link: of.link },
    last: wordsOf(of.locale).answerThis(of.seller.name),
  });

/**
 * The link under which a plan is seen and begun.
 *
 * @param again whether it was sent before @param dates the first of them with their sums, and what all come to
 */
export function planLinkLetter(of: PlanLetterOf, again: boolean, dates: PlanDates): Letter {
  const { plan } = wordsOf(of.locale);
  const subject = again ? plan.remindSubject : plan.linkSubject;
  return planLetter(of, {
    subject: subject(of.seller.name, of.what),
    sum: of.what,
    text: again ? plan.remindText : plan.linkText,
    dates,
    button: plan.lookAndBegin,
  });
}

/** Says before a charge what will be charged, when, and to which card. */
export function chargeNoticeLetter(of: PlanLetterOf, sum: string, date: string, card: string): Letter {
  const { plan } = wordsOf(of.locale);
  return planLetter(of, {
    subject: plan.noticeSubject(sum, date),
    sum: plan.noticeSubject(sum, date),
    under: of.what,
    text: plan.noticeText(card || plan.yourCardOnFile),
    button: plan.seeOwnPage,
  });
}

/** Asks for a part of a balance, and leads to where it is paid. @param date until when @param again whether it was asked for before */
export function partDueLetter(of: PlanLetterOf, sum: string, date: string, again: boolean): Letter {
  const { plan } = wordsOf(of.locale);
  const due = plan.partSubject(sum, date);
  const subject = again ? plan.remindSubject(of.seller.name, of.what) : due;
  return planLetter(of, { subject, sum: due, under: of.what, text: plan.partText, button: plan.payPart(sum) });
}

/** Says that a charge was refused, and how it can be settled. @param last nobody tries again by themselves */
export function chargeRefusedLetter(of: PlanLetterOf, sum: string, last: boolean): Letter {
  const { plan } = wordsOf(of.locale);
  return planLetter(of, {
    subject: plan.refusedSubject(sum, of.what),
    sum: plan.refusedSubject(sum, of.what),
    text: last ? plan.refusedLast : plan.refusedFirst,
    button: plan.payOrReplace,
  });
}

/** Asks for a new card before one ends. @param month as people write it */
export function cardAskedLetter(of: PlanLetterOf, card: string, month: string): Letter {
  const { plan } = wordsOf(of.locale);
  const subject = plan.askedSubject(card, month);
  return planLetter(of, { subject, sum: subject, text: plan.askedText, button: plan.giveCard });
}

/** The link to the customer's own page. */
export function ownPageLetter(of: PlanLetterOf): Letter {
  const { plan } = wordsOf(of.locale);
  const subject = plan.ownPageSubject(of.seller.name);
  return planLetter(of, { subject, sum: plan.ownPage, text: plan.ownPageText, button: plan.ownPage });
}

/** Says that a plan has ended. */
export function planEndedLetter(of: PlanLetterOf): Letter {
  const { plan } = wordsOf(of.locale);
  return planLetter(of, {
    subject: plan.endedSubject(of.what),
    sum: plan.endedSubject(of.what),
    text: plan.endedText,
    button: plan.ownPage,
  });
}

/** Says on which day a plan ends that is cancelled for the end of what is paid for. */
export function planEndingLetter(of: PlanLetterOf, day: string): Letter {
  const { plan } = wordsOf(of.locale);
  const says = plan.endingSubject(of.what, day);
  return planLetter(of, { subject: says, sum: says, text: plan.endingText, button: plan.ownPage });
}

/** The business reads that a plan has ended by itself. @param link to its sheet at the desk */
export const planOverNotice = (of: PlanLetterOf, link: string): Letter =>
  notice({
    seller: of.seller,
    subject: `${of.what} of ${of.toName} has ended`,
    lead: of.toName,
    sum: of.what,
    words: 'The period that was paid for is over; it was cancelled for then. Nothing more is charged.',
    link,
    open: 'Open the plan',
    foot: 'Sent to you by Dahlia, because a plan of yours has ended.',
  });

/** Says how a changed plan goes on. @param now in the customer's words */
export function planChangedLetter(of: PlanLetterOf, now: string): Letter {
  const { plan } = wordsOf(of.locale);
  return planLetter(of, { subject: plan.changedSubject(of.what), sum: of.what, text: now, button: plan.ownPage });
}

/** Asks to agree to a change of a plan. @param before how it goes on without @param after with it, in the customer's words */
export function planProposedLetter(of: PlanLetterOf, before: string, after: string): Letter {
  const { plan } = wordsOf(of.locale);
  const text = [`${plan.wasSo} ${before}`, `${plan.willBeSo} ${after}`, plan.untilAgreed].join('\n\n');
  return planLetter(of, { subject: plan.proposedSubject(of.what), sum: of.what, text, button: plan.lookAndAgree });
}
