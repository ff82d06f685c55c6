import { type CalendarDate, isCalendarDate } from '../dates/calendar-date';
import { clockTime, longDate, shortDate } from '../dates/date-text';
import { dateInZone } from '../dates/zone';
import type { DisputeReason } from '../dispute/dispute';
import { DISPUTE_WORDS } from '../dispute/dispute-words';
import type { SendingWay } from '../invoice/send-with';
import { MESSAGE_KINDS, type MessageKind } from '../message/kinds';
import { type Money, money } from '../money/money';
import { moneyText } from '../money/money-text';
import type { ClaimWhy } from '../parcel/claim';
import { REASON_WORDS, type ReturnReason } from '../parcel/returning';
import { LOOK_WORDS, type Look, type ParcelState, SETTLED_WORDS, type Settled, STATE_WORDS } from '../parcel/shipment';
import type { PaymentMethod } from '../payment/methods';
import { METHOD_WORDS } from '../payment/methods';
import { ACCOUNT_SCHEME, REFUSAL_BRIEF, type RefusalReason } from '../payment/outcome';
import type { HowPaid } from '../plan/charge';
import { howPaidText } from '../plan/charge-words';
import type { Afterwards } from '../plan/dunning';
import { type RefusalCode, refusalWords } from '../refusal/refusal';

/** Something that happened to an invoice, an order or a plan, as a code with its values; amounts in minor units of its currency. */
export type TimelineEvent =
  | { readonly kind: 'made'; readonly by?: 'repeat' | 'batch' | 'import' | 'plan' | 'offer' }
  | { readonly kind: 'sent'; readonly number: string; readonly way: SendingWay }
  | { readonly kind: 'mail-handed-over'; readonly what: MessageKind; readonly to: string; readonly receipt?: string }
  | { readonly kind: 'mail-failed'; readonly what: MessageKind; readonly to: string; readonly trouble: string }
  | { readonly kind: 'delivered'; readonly what: MessageKind; readonly to: string }
  | { readonly kind: 'bounced'; readonly what: MessageKind; readonly to: string; readonly trouble: string }
  | { readonly kind: 'sent-again'; readonly to: string }
  | { readonly kind: 'reminded'; readonly to: string }
  /** To be sent at an instant (ISO 8601). */
  | { readonly kind: 'timed'; readonly at: string }
  | { readonly kind: 'timed-dropped' }
  | { readonly kind: 'not-sent-in-time'; readonly why: RefusalCode; readonly problem?: string }
  | { readonly kind: 'seen'; readonly device: 'phone' | 'computer' }
  | { readonly kind: 'refused'; readonly amount: number; readonly reason: RefusalReason; readonly card: string }
  | { readonly kind: 'approval-asked'; readonly amount: number; readonly card: string }
  | { readonly kind: 'checking'; readonly amount: number }
  | {
      readonly kind: 'paid';
      readonly amount: number;
      readonly card: string;
      readonly receipt: string;
      readonly tip?: number;
    }
  | {
      readonly kind: 'payment-taken-back';
      readonly amount: number;
      readonly receipt: string;
      readonly reason: string;
    }
  | { readonly kind: 'changed'; readonly version: number; readonly from: number; readonly to: number }
  | { readonly kind: 'cancelled'; readonly reason: string }
  | { readonly kind: 'credited'; readonly amount: number; readonly number: string; readonly reason: string }
  | { readonly kind: 'file-approved'; readonly name: string; readonly comment: string }
  | { readonly kind: 'change-asked'; readonly name: string; readonly comment: string }
  | { readonly kind: 'terms-accepted'; readonly version: number }
  | { readonly kind: 'ordered'; readonly offer: string; readonly amount: number }
  | {
      readonly kind: 'given-back';
      readonly amount: number;
      readonly reason: string;
      readonly voided: boolean;
      /** Where it went back another way than it came. */
      readonly how?: PaymentMethod;
      /** The number of the credit note that came with it. */
      readonly credit?: string;
    }
  /** A bank debit was begun: when it will be known whether it is paid. */
  | { readonly kind: 'collecting'; readonly amount: number; readonly card: string; readonly on: CalendarDate }
  | {
      readonly kind: 'debit-returned';
      readonly amount: number;
      readonly reason: RefusalReason;
      /** ISO 20022. */
      readonly code: string;
    }
  | { readonly kind: 'disputed'; readonly amount: number; readonly reason: DisputeReason }
  | { readonly kind: 'dispute-answered'; readonly accepted: boolean }
  | { readonly kind: 'dispute-won' | 'dispute-lost'; readonly amount: number }
  | { readonly kind: 'question'; readonly text: string }
  | { readonly kind: 'answer'; readonly text: string }
  | { readonly kind: 'authorised'; readonly how: AuthorisedHow; readonly card: string }
  | { readonly kind: 'withdrawn' }
  | { readonly kind: 'plan-started'; readonly first: CalendarDate | 'at-once' | 'with-order' }
  | { readonly kind: 'plan-link-sent'; readonly to: string }
  | { readonly kind: 'plan-reminded'; readonly to: string }
  | { readonly kind: 'plan-paused'; readonly why: 'by-hand' | 'refused'; readonly until?: CalendarDate }
  | { readonly kind: 'plan-resumed' }
  | { readonly kind: 'plan-ending'; readonly from: CalendarDate }
  | { readonly kind: 'plan-ended'; readonly state: 'cancelled' | 'finished'; readonly why: PlanEndReason }
  | { readonly kind: 'price-changed'; readonly from: string; readonly to: string }
  | { readonly kind: 'rest-charged' }
  | { readonly kind: 'new-card'; readonly card: string }
  | { readonly kind: 'part-asked'; readonly to: string }
  | { readonly kind: 'charge-skipped' | 'charge-waived' | 'charge-hurried'; readonly on: CalendarDate }
  | { readonly kind: 'plan-changed' | 'proposal-withdrawn' }
  | { readonly kind: 'change-proposed'; readonly to: string }
  | { readonly kind: 'charge-repriced'; readonly on: CalendarDate; readonly amount: number }
  | { readonly kind: 'charges-missed'; readonly days: readonly CalendarDate[]; readonly then: 'wait' | 'leave-out' }
  | { readonly kind: 'charge-moved'; readonly from: CalendarDate; readonly to: CalendarDate }
  | { readonly kind: 'charge-made'; readonly on: CalendarDate; readonly amount: number; readonly how: HowPaid }
  | {
      readonly kind: 'charge-not-made';
      readonly on: CalendarDate;
      readonly amount: number;
      readonly reason: RefusalReason;
      readonly card: string;
      readonly next: NextTold;
    }
  | { readonly kind: 'label-bought' | 'label-voided'; readonly number: string }
  | { readonly kind: 'parcel-left'; readonly number: string }
  | { readonly kind: 'parcel-moved'; readonly state: ParcelState; readonly place: string }
  | { readonly kind: 'parcel-trouble'; readonly why: Look }
  | { readonly kind: 'mail-day-moved'; readonly from: CalendarDate; readonly to: CalendarDate }
  | { readonly kind: 'notice-held' }
  | { readonly kind: 'return-asked'; readonly reason: ReturnReason }
  | { readonly kind: 'return-allowed' | 'return-refused' | 'return-received' | 'return-exchanged' }
  | { readonly kind: 'collected'; readonly name: string }
  | { readonly kind: 'downloaded'; readonly thing: string }
  | { readonly kind: 'claim-asked'; readonly why: ClaimWhy; readonly amount: number }
  | { readonly kind: 'claim-paid'; readonly amount: number }
  | { readonly kind: 'claim-refused'; readonly words: string }
  | { readonly kind: 'parcel-settled'; readonly how: Exclude<Settled, ''> }
  | ToldInWords;

/** What follows a refused charge, as told: a day instead of an instant. */
export type NextTold =
  | { readonly kind: 'soon' }
  | { readonly kind: 'other-card' }
  | { readonly kind: 'retry'; readonly on: CalendarDate }
  | { readonly kind: 'give-up'; readonly afterwards: Afterwards };

/** Why a plan ended. */
export type PlanEndReason = 'at-once' | 'after-period' | 'refused' | 'lapsed' | 'withdrawn' | 'all-charged';

/** Lines of before events were kept as codes: they stay as they were written. */
type ToldInWords =
  | { readonly kind: 'planned'; readonly on: string }
  | { readonly kind: 'plan-dropped'; readonly why: string }
  | { readonly kind: 'charged'; readonly on: string; readonly amount: number; readonly card: string }
  | {
      readonly kind: 'charge-refused';
      readonly on: string;
      readonly amount: number;
      readonly reason: RefusalReason;
      readonly card: string;
      readonly next: string;
    }
  | { readonly kind: 'plan-deed'; readonly lead: string; readonly note: string };

/** How a customer agreed to being charged again. */
export type AuthorisedHow = 'drawn' | 'ticked' | 'telephone' | 'paper';

export const AUTHORISED_WORDS: Readonly<Record<AuthorisedHow, string>> = {
  drawn: 'signed on screen',
  ticked: 'ticked on the customer’s page',
  telephone: 'by telephone',
  paper: 'on signed paper',
};

export type TimelineLine = { readonly at: Date; readonly byName: string; readonly event: TimelineEvent };

const WAYS: Readonly<Record<SendingWay, string>> = {
  mail: '',
  text: ', by text message',
  chat: ', by chat message',
  link: ', link to be passed on',
  hand: ', handed over in person',
  plan: ', by its billing plan',
};

const PAUSED = { 'by-hand': 'Until it is resumed', refused: 'A charge stayed refused' } as const;

const ENDED: Readonly<Record<PlanEndReason, string>> = {
  'at-once': 'At once',
  'after-period': 'After the period',
  refused: 'A charge stayed refused',
  lapsed: 'Nobody followed the link in time',
  withdrawn: 'The authorisation was withdrawn',
  'all-charged': 'Everything planned is charged',
};

const CHARGE_LEADS = {
  'charge-skipped': 'Skipped',
  'charge-waived': 'Waived',
  'charge-hurried': 'Charged again',
} as const;

const dayText = (on: CalendarDate, locale: string): string => shortDate(on, locale);

const firstText = (first: CalendarDate | 'at-once' | 'with-order', locale: string): string =>
  first === 'at-once' ? 'at once' : first === 'with-order' ? 'paid with the order' : legible(first, locale);

/** Days of before they were kept as dates are texts already. */
const legible = (on: string, locale: string): string => (isCalendarDate(on) ? dayText(on, locale) : on);

const momentText = (at: Date, { locale, zone }: LineSetting): string =>
  `${longDate(dateInZone(at, zone), locale)}, ${clockTime(at, zone)}`;

function nextText(next: NextTold, locale: string): string {
  if (next.kind === 'other-card') return 'the next card is tried';
  if (next.kind === 'soon') return 'tried again in a minute';
  if (next.kind === 'retry') return `tried again on ${dayText(next.on, locale)}`;
  const after = { pause: 'the plan is paused', cancel: 'the plan is cancelled', 'carry-on': 'the plan goes on' };
  return `not tried again; ${after[next.afterwards]}`;
}

/** How the lines of a business are worded: its currency, its way of writing dates, and its zone. */
export type LineSetting = { readonly currency: string; readonly locale: string; readonly zone: string };

/** A line in words: what happened (`lead` stands out) and what belongs to it. */
export function eventWords(
  event: TimelineEvent,
  byName: string,
  setting: LineSetting,
): { lead: string; rest: string; note: string } {
  const { currency, locale } = setting;
  const sum = (minor: number): string => moneyText(money(BigInt(minor), currency) satisfies Money, locale);
  switch (event.kind) {
    case 'label-bought':
      return { lead: 'Label bought', rest: `by ${byName}`, note: '' };
    case 'label-voided':
      return { lead: 'Label given back', rest: `by ${byName}`, note: '' };
    case 'parcel-left':
      return { lead: 'Told that it left', rest: byName === 'Dahlia' ? 'as planned' : `by ${byName}`, note: '' };
    case 'parcel-moved':
      return { lead: STATE_WORDS[event.state], rest: '', note: event.place };
    case 'parcel-trouble':
      return { lead: LOOK_WORDS[event.why], rest: '', note: '' };
    case 'mail-day-moved':
      return {
        lead: 'Mailing date moved',
        rest: `by ${byName}`,
        note: `From ${dayText(event.from, locale)} to ${dayText(event.to, locale)}`,
      };
    case 'collected':
      return { lead: 'Fetched', rest: `by ${event.name}`, note: `Handed over by ${byName}` };
    case 'return-asked':
      return { lead: 'Asked to send something back', rest: REASON_WORDS[event.reason].toLowerCase(), note: '' };
    case 'return-allowed':
      return { lead: 'Return allowed', rest: `by ${byName}`, note: '' };
    case 'return-refused':
      return { lead: 'Return refused', rest: `by ${byName}`, note: '' };
    case 'return-received':
      return { lead: 'Return received', rest: `by ${byName}`, note: '' };
    case 'return-exchanged':
      return { lead: 'Exchanged: sent again', rest: `by ${byName}`, note: '' };
    case 'downloaded':
      return { lead: 'Downloaded', rest: event.thing, note: '' };
    case 'claim-asked':
      return { lead: 'Carrier asked to pay', rest: sum(event.amount), note: `by ${byName}` };
    case 'claim-paid':
      return { lead: 'The carrier paid', rest: sum(event.amount), note: '' };
    case 'claim-refused':
      return { lead: 'The carrier pays nothing', rest: '', note: event.words };
    case 'parcel-settled':
      return { lead: SETTLED_WORDS[event.how].replace(/\.$/, ''), rest: `by ${byName}`, note: '' };
    case 'notice-held':
      return { lead: 'Notice held back', rest: `by ${byName}`, note: '' };
    case 'made':
      return { lead: 'Begun', rest: event.by ? `by a ${event.by}` : `by ${byName}`, note: '' };
    case 'sent':
      return { lead: 'Sent', rest: `by ${byName}`, note: `As number ${event.number}${WAYS[event.way]}` };
    case 'sent-again':
      return { lead: 'Sent again', rest: `by ${byName}`, note: event.to };
    case 'reminded':
      return { lead: 'Reminded', rest: byName === 'Dahlia' ? 'as planned' : `by ${byName}`, note: event.to };
    case 'timed':
      return { lead: 'To be sent', rest: momentText(new Date(event.at), setting), note: `Set by ${byName}` };
    case 'planned':
      return { lead: 'To be sent', rest: event.on, note: `Set by ${byName}` };
    case 'timed-dropped':
      return { lead: 'Not sent by itself', rest: '', note: `Taken back by ${byName}` };
    case 'not-sent-in-time':
      return { lead: 'Not sent as planned', rest: '', note: event.problem ?? refusalWords(event.why) };
    case 'plan-dropped':
      return { lead: 'Not sent as planned', rest: '', note: event.why };
    case 'mail-handed-over':
      return {
        lead: event.receipt ? `Receipt ${event.receipt}` : MESSAGE_KINDS[event.what].called,
        rest: 'handed to the mail server',
        note: `For ${event.to}`,
      };
    case 'mail-failed':
      return {
        lead: `${MESSAGE_KINDS[event.what].called} not delivered`,
        rest: '',
        note: `${event.to}: ${event.trouble}`,
      };
    case 'delivered':
      return { lead: MESSAGE_KINDS[event.what].called, rest: 'delivered', note: event.to };
    case 'bounced':
      return {
        lead: MESSAGE_KINDS[event.what].called,
        rest: 'came back',
        note: `${event.to}: ${event.trouble}`,
      };
    case 'seen':
      return {
        lead: 'Seen',
        rest: event.device === 'phone' ? 'on a phone' : 'on a computer',
        note: `By ${byName}`,
      };
    case 'refused':
      return {
        lead: `${event.card.startsWith(ACCOUNT_SCHEME) ? 'Debit not paid' : 'Card refused'}, ${sum(event.amount)}`,
        rest: '',
        note: [event.card, REFUSAL_BRIEF[event.reason]].filter(Boolean).join(', '),
      };
    case 'approval-asked':
      return { lead: 'Bank asks for approval', rest: '', note: `${event.card}, ${sum(event.amount)}` };
    case 'checking':
      return { lead: 'No answer yet', rest: `about ${sum(event.amount)}`, note: 'Dahlia asks the card processor' };
    case 'paid':
      return {
        lead: `Paid ${sum(event.amount)}`,
        rest: `by ${byName}`,
        note: [event.card, event.tip ? `tip ${sum(event.tip)}` : '', `receipt ${event.receipt}`]
          .filter(Boolean)
          .join(', '),
      };
    case 'payment-taken-back':
      return {
        lead: `Taken back, ${sum(event.amount)}`,
        rest: `by ${byName}`,
        note: [event.receipt ? `Receipt ${event.receipt} does not count` : '', event.reason].filter(Boolean).join(': '),
      };
    case 'changed':
      return {
        lead: `Version ${event.version}`,
        rest: `by ${byName}`,
        note: event.from === event.to ? '' : `Total ${sum(event.from)}, now ${sum(event.to)}`,
      };
    case 'cancelled':
      return { lead: 'Cancelled', rest: `by ${byName}`, note: event.reason };
    case 'credited':
      return {
        lead: `Credited ${sum(event.amount)}`,
        rest: `by ${byName}`,
        note: `Credit note ${event.number}: ${event.reason}`,
      };
    case 'file-approved':
      return {
        lead: 'Approved',
        rest: event.name,
        note: [`by ${byName}`, event.comment].filter(Boolean).join(': '),
      };
    case 'change-asked':
      return {
        lead: 'Change asked for',
        rest: event.name,
        note: [`by ${byName}`, event.comment].filter(Boolean).join(': '),
      };
    case 'terms-accepted':
      return { lead: 'Terms accepted', rest: `in version ${event.version}`, note: `by ${byName}` };
    case 'ordered':
      return { lead: `Ordered, ${sum(event.amount)}`, rest: `by ${byName}`, note: event.offer };
    case 'given-back':
      return {
        lead: `${event.voided ? 'Voided' : 'Refunded'}, ${sum(event.amount)}`,
        rest: [event.how ? `${METHOD_WORDS[event.how]},` : '', `by ${byName}`].filter(Boolean).join(' '),
        note: [event.credit ? `Credit note ${event.credit}` : '', event.reason].filter(Boolean).join(': '),
      };
    case 'collecting':
      return {
        lead: `Bank debit begun, ${sum(event.amount)}`,
        rest: `by ${byName}`,
        note: `${event.card}, expected ${dayText(event.on, locale)}`,
      };
    case 'debit-returned':
      return {
        lead: `Debit came back, ${sum(event.amount)}`,
        rest: '',
        note: `${REFUSAL_BRIEF[event.reason]} (${event.code}); owed again`,
      };
    case 'disputed':
      return {
        lead: `Disputed, ${sum(event.amount)}`,
        rest: 'by the card’s holder',
        note: DISPUTE_WORDS[event.reason],
      };
    case 'dispute-answered':
      return { lead: event.accepted ? 'Dispute accepted' : 'Dispute answered', rest: `by ${byName}`, note: '' };
    case 'dispute-won':
      return { lead: 'Dispute won', rest: '', note: `${sum(event.amount)} comes back` };
    case 'dispute-lost':
      return { lead: 'Dispute lost', rest: '', note: `${sum(event.amount)} stays with the holder` };
    case 'authorised':
      return { lead: 'Authorised', rest: AUTHORISED_WORDS[event.how], note: `${event.card}, by ${byName}` };
    case 'withdrawn':
      return { lead: 'Authorisation withdrawn', rest: `by ${byName}`, note: 'Nothing more is charged' };
    case 'plan-started':
      return { lead: 'Active', rest: '', note: `First charge ${firstText(event.first, locale)}` };
    case 'plan-link-sent':
      return { lead: 'Link sent', rest: `by ${byName}`, note: event.to || 'to be passed on' };
    case 'plan-reminded':
      return { lead: 'Reminded', rest: `by ${byName}`, note: event.to };
    case 'plan-paused':
      return {
        lead: 'Paused',
        rest: `by ${byName}`,
        note: event.until ? `Goes on by itself from ${dayText(event.until, locale)}` : PAUSED[event.why],
      };
    case 'plan-resumed':
      return { lead: 'Resumed', rest: `by ${byName}`, note: '' };
    case 'plan-ending':
      return {
        lead: 'To end after the period',
        rest: `by ${byName}`,
        note: `Not charged any more from ${dayText(event.from, locale)}`,
      };
    case 'plan-ended':
      return {
        lead: event.state === 'cancelled' ? 'Cancelled' : 'Finished',
        rest: `by ${byName}`,
        note: ENDED[event.why],
      };
    case 'price-changed':
      return {
        lead: 'Another price',
        rest: `by ${byName}`,
        note: `From the next charge on: ${event.to} instead of ${event.from}`,
      };
    case 'rest-charged':
      return { lead: 'The rest is charged now', rest: `by ${byName}`, note: '' };
    case 'new-card':
      return { lead: 'New card', rest: `by ${byName}`, note: event.card };
    case 'part-asked':
      return { lead: 'Part asked for', rest: `by ${byName}`, note: event.to };
    case 'charge-skipped':
    case 'charge-waived':
    case 'charge-hurried':
      return { lead: CHARGE_LEADS[event.kind], rest: `by ${byName}`, note: dayText(event.on, locale) };
    case 'plan-changed':
      return { lead: 'Changed', rest: `by ${byName}`, note: 'From now on; what is charged already stays' };
    case 'change-proposed':
      return { lead: 'Change proposed', rest: `by ${byName}`, note: `${event.to} is asked to agree` };
    case 'proposal-withdrawn':
      return { lead: 'Change withdrawn', rest: `by ${byName}`, note: '' };
    case 'charge-repriced':
      return {
        lead: 'Another sum, once',
        rest: `by ${byName}`,
        note: `${dayText(event.on, locale)}: ${sum(event.amount)}`,
      };
    case 'charges-missed':
      return {
        lead: event.then === 'wait' ? 'Missed, and not charged' : 'Missed, and left out',
        rest: `by ${byName}`,
        note: event.days.map((day) => dayText(day, locale)).join(', '),
      };
    case 'charge-moved':
      return {
        lead: 'Moved',
        rest: `by ${byName}`,
        note: `${dayText(event.from, locale)} to ${dayText(event.to, locale)}`,
      };
    case 'charge-made':
      return {
        lead: `Charged ${sum(event.amount)}`,
        rest: dayText(event.on, locale),
        note: howPaidText(event.how),
      };
    case 'charge-not-made':
      return {
        lead: `Refused, ${sum(event.amount)}`,
        rest: dayText(event.on, locale),
        note: [event.card, REFUSAL_BRIEF[event.reason], nextText(event.next, locale)].filter(Boolean).join(' · '),
      };
    case 'charged':
      return { lead: `Charged ${sum(event.amount)}`, rest: event.on, note: event.card };
    case 'charge-refused':
      return {
        lead: `Refused, ${sum(event.amount)}`,
        rest: event.on,
        note: [event.card, REFUSAL_BRIEF[event.reason], event.next].filter(Boolean).join(' · '),
      };
    case 'plan-deed':
      return { lead: event.lead, rest: `by ${byName}`, note: event.note };
    case 'question':
      return { lead: 'Asked', rest: `by ${byName}`, note: event.text };
    case 'answer':
      return { lead: 'Answered', rest: `by ${byName}`, note: event.text };
  }
}
