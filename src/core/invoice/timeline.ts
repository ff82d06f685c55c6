import { type Money, money } from '../money/money';
import { moneyText } from '../money/money-text';
import { REFUSAL_BRIEF, type RefusalReason } from '../payment/outcome';
import type { SendingWay } from './send-with';

/** What a message was. */
export type MailKind =
  | 'invoice'
  | 'receipt'
  | 'payment-notice'
  | 'reminder'
  | 'changed'
  | 'cancelled'
  | 'credit-note'
  | 'question'
  | 'answer'
  | 'trial'
  | 'statement'
  | 'notice'
  | 'request'
  | 'order-notice'
  | 'refund'
  | 'gift-letter'
  | 'plan-link'
  | 'plan-reminder'
  | 'charge-notice'
  | 'charge-refused'
  | 'part-due'
  | 'card-asked'
  | 'own-page'
  | 'plan-ended';

/** Something that happened to an invoice; amounts in minor units of its currency. */
export type Happening =
  | { readonly kind: 'made'; readonly by?: 'repeat' | 'batch' | 'import' | 'plan' | 'offer' }
  | { readonly kind: 'sent'; readonly number: string; readonly way: SendingWay }
  | { readonly kind: 'mail-handed-over'; readonly what: MailKind; readonly to: string; readonly receipt?: string }
  | { readonly kind: 'mail-failed'; readonly what: MailKind; readonly to: string; readonly trouble: string }
  | { readonly kind: 'delivered'; readonly what: MailKind; readonly to: string }
  | { readonly kind: 'bounced'; readonly what: MailKind; readonly to: string; readonly trouble: string }
  | { readonly kind: 'sent-again'; readonly to: string }
  | { readonly kind: 'reminded'; readonly to: string }
  | { readonly kind: 'planned'; readonly on: string }
  | { readonly kind: 'plan-dropped'; readonly why: string }
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
  | { readonly kind: 'changed'; readonly version: number; readonly from: number; readonly to: number }
  | { readonly kind: 'cancelled'; readonly reason: string }
  | { readonly kind: 'credited'; readonly amount: number; readonly number: string; readonly reason: string }
  | { readonly kind: 'file-approved'; readonly name: string; readonly comment: string }
  | { readonly kind: 'change-asked'; readonly name: string; readonly comment: string }
  | { readonly kind: 'terms-accepted'; readonly version: number }
  | { readonly kind: 'ordered'; readonly offer: string; readonly amount: number }
  | { readonly kind: 'given-back'; readonly amount: number; readonly reason: string; readonly voided: boolean }
  | { readonly kind: 'question'; readonly text: string }
  | { readonly kind: 'answer'; readonly text: string }
  | { readonly kind: 'authorised'; readonly how: AuthorisedHow; readonly card: string }
  | { readonly kind: 'withdrawn' }
  | { readonly kind: 'plan-started'; readonly first: string }
  | { readonly kind: 'charged'; readonly on: string; readonly amount: number; readonly card: string }
  | {
      readonly kind: 'charge-refused';
      readonly on: string;
      readonly amount: number;
      readonly reason: RefusalReason;
      readonly card: string;
      /** What happens now, in words. */
      readonly next: string;
    }
  /** Something that a person or the policy did with the plan or one of its charges, in words. */
  | { readonly kind: 'plan-deed'; readonly lead: string; readonly note: string };

/** How a customer agreed to being charged again. */
export type AuthorisedHow = 'drawn' | 'ticked' | 'telephone' | 'paper';

export const AUTHORISED_WORDS: Readonly<Record<AuthorisedHow, string>> = {
  drawn: 'signed on screen',
  ticked: 'ticked on the customer’s page',
  telephone: 'by telephone',
  paper: 'on signed paper',
};

export type TimelineLine = { readonly at: Date; readonly byName: string; readonly happening: Happening };

const MAILS: Readonly<Record<MailKind, string>> = {
  invoice: 'Invoice',
  receipt: 'Receipt',
  'gift-letter': 'Letter over gifts',
  'payment-notice': 'Notice of the payment',
  reminder: 'Reminder',
  changed: 'Changed invoice',
  cancelled: 'Cancellation',
  'credit-note': 'Credit note',
  question: 'Question',
  answer: 'Answer',
  trial: 'Trial copy',
  statement: 'Statement',
  notice: 'Notice',
  request: 'Request',
  'order-notice': 'Notice of the payment',
  refund: 'Notice of the refund',
  'plan-link': 'Link to the plan',
  'plan-reminder': 'Reminder of the plan',
  'charge-notice': 'Notice before a charge',
  'charge-refused': 'Notice of the refused charge',
  'part-due': 'Request for a part',
  'card-asked': 'Request for a new card',
  'own-page': 'Link to the customer’s own page',
  'plan-ended': 'Notice of the plan’s end',
};

const WAYS: Readonly<Record<SendingWay, string>> = {
  mail: '',
  text: ', by text message',
  chat: ', by chat message',
  link: ', link to be passed on',
  hand: ', handed over in person',
  plan: ', by its billing plan',
};

/** A line in words: what happened (`lead` stands out) and what belongs to it. */
export function happeningWords(
  happening: Happening,
  byName: string,
  currency: string,
  locale: string,
): { lead: string; rest: string; note: string } {
  const sum = (minor: number): string => moneyText(money(BigInt(minor), currency) satisfies Money, locale);
  switch (happening.kind) {
    case 'made':
      return { lead: 'Begun', rest: happening.by ? `by a ${happening.by}` : `by ${byName}`, note: '' };
    case 'sent':
      return { lead: 'Sent', rest: `by ${byName}`, note: `As number ${happening.number}${WAYS[happening.way]}` };
    case 'sent-again':
      return { lead: 'Sent again', rest: `by ${byName}`, note: happening.to };
    case 'reminded':
      return { lead: 'Reminded', rest: byName === 'Dahlia' ? 'as planned' : `by ${byName}`, note: happening.to };
    case 'planned':
      return { lead: 'To be sent', rest: happening.on, note: `Planned by ${byName}` };
    case 'plan-dropped':
      return { lead: 'Not sent as planned', rest: '', note: happening.why };
    case 'mail-handed-over':
      return {
        lead: happening.receipt ? `Receipt ${happening.receipt}` : MAILS[happening.what],
        rest: 'handed to the mail server',
        note: `For ${happening.to}`,
      };
    case 'mail-failed':
      return {
        lead: `${MAILS[happening.what]} not delivered`,
        rest: '',
        note: `${happening.to}: ${happening.trouble}`,
      };
    case 'delivered':
      return { lead: MAILS[happening.what], rest: 'delivered', note: happening.to };
    case 'bounced':
      return { lead: MAILS[happening.what], rest: 'came back', note: `${happening.to}: ${happening.trouble}` };
    case 'seen':
      return {
        lead: 'Seen',
        rest: happening.device === 'phone' ? 'on a phone' : 'on a computer',
        note: `By ${byName}`,
      };
    case 'refused':
      return {
        lead: `Card refused, ${sum(happening.amount)}`,
        rest: '',
        note: [happening.card, REFUSAL_BRIEF[happening.reason]].filter(Boolean).join(', '),
      };
    case 'approval-asked':
      return { lead: 'Bank asks for approval', rest: '', note: `${happening.card}, ${sum(happening.amount)}` };
    case 'checking':
      return { lead: 'No answer yet', rest: `about ${sum(happening.amount)}`, note: 'Dahlia asks the card processor' };
    case 'paid':
      return {
        lead: `Paid ${sum(happening.amount)}`,
        rest: `by ${byName}`,
        note: [happening.card, happening.tip ? `tip ${sum(happening.tip)}` : '', `receipt ${happening.receipt}`]
          .filter(Boolean)
          .join(', '),
      };
    case 'changed':
      return {
        lead: `Version ${happening.version}`,
        rest: `by ${byName}`,
        note: happening.from === happening.to ? '' : `Total ${sum(happening.from)}, now ${sum(happening.to)}`,
      };
    case 'cancelled':
      return { lead: 'Cancelled', rest: `by ${byName}`, note: happening.reason };
    case 'credited':
      return {
        lead: `Credited ${sum(happening.amount)}`,
        rest: `by ${byName}`,
        note: `Credit note ${happening.number}: ${happening.reason}`,
      };
    case 'file-approved':
      return {
        lead: 'Approved',
        rest: happening.name,
        note: [`by ${byName}`, happening.comment].filter(Boolean).join(': '),
      };
    case 'change-asked':
      return {
        lead: 'Change asked for',
        rest: happening.name,
        note: [`by ${byName}`, happening.comment].filter(Boolean).join(': '),
      };
    case 'terms-accepted':
      return { lead: 'Terms accepted', rest: `in version ${happening.version}`, note: `by ${byName}` };
    case 'ordered':
      return { lead: `Ordered, ${sum(happening.amount)}`, rest: `by ${byName}`, note: happening.offer };
    case 'given-back':
      return {
        lead: `${happening.voided ? 'Voided' : 'Given back'}, ${sum(happening.amount)}`,
        rest: `by ${byName}`,
        note: happening.reason,
      };
    case 'authorised':
      return { lead: 'Authorised', rest: AUTHORISED_WORDS[happening.how], note: `${happening.card}, by ${byName}` };
    case 'withdrawn':
      return { lead: 'Authorisation withdrawn', rest: `by ${byName}`, note: 'Nothing more is charged' };
    case 'plan-started':
      return { lead: 'Active', rest: '', note: `First charge ${happening.first}` };
    case 'charged':
      return { lead: `Charged ${sum(happening.amount)}`, rest: happening.on, note: happening.card };
    case 'charge-refused':
      return {
        lead: `Refused, ${sum(happening.amount)}`,
        rest: happening.on,
        note: [happening.card, REFUSAL_BRIEF[happening.reason], happening.next].filter(Boolean).join(' · '),
      };
    case 'plan-deed':
      return { lead: happening.lead, rest: `by ${byName}`, note: happening.note };
    case 'question':
      return { lead: 'Asked', rest: `by ${byName}`, note: happening.text };
    case 'answer':
      return { lead: 'Answered', rest: `by ${byName}`, note: happening.text };
  }
}
