import { daysBetween } from '@/core/dates/calendar-date';
import { dateInZone } from '@/core/dates/zone';
import { jsonMinor } from '@/core/money/money';
import { moneyText } from '@/core/money/money-text';
import { filesByApprover } from '@/core/paper/approval';
import type { RefusalReason } from '@/core/payment/outcome';
import { wordsOf } from '@/core/words/words';
import {
  answerLetter,
  approvalLetter,
  cancelledLetter,
  creditLetter,
  invoiceLetter,
  reminderLetter,
  remindersLetter,
} from '@/documents/mail/invoice-letters';
import { notice } from '@/documents/mail/letter';
import {
  debitBackLetter,
  paymentNotice,
  receiptLetter,
  refundLetter,
  takenBackLetter,
} from '@/documents/mail/receipt-letters';
import { found } from '@/flows/door/rights';
import { keptCreditPdf, keptInvoicePdf, keptReceiptPdf } from '@/flows/file/kept-files';
import { approverSign } from '@/flows/invoice/approvers';
import { draftPrinted } from '@/flows/invoice/invoice-sheet';
import { customerLink, deskLink, invoiceLink, type Subject, type Written } from './subject';

/** The invoice as the letter shows it: what is asked for, with words of the business's own. */
async function shown(subject: Subject, ownWords: boolean) {
  const { ctx, message, business } = subject;
  const invoice = found(subject.invoice);
  const printed = invoice.printed ?? (await ctx.read((db) => draftPrinted(db, business, invoice)));
  const { stage } = invoice;
  const dueMinor = stage === 'draft' ? printed.total : stage === 'sent' ? jsonMinor(invoice.dueMinor) : 0;
  const over = invoice.paidMinor - invoice.refundedMinor + invoice.creditedMinor - invoice.totalMinor;
  const overMinor = stage === 'sent' && over > 0n ? jsonMinor(over) : 0;
  const link = customerLink(subject);
  const usual = ownWords ? business.mailTexts[printed.locale.slice(0, 2)] : undefined;
  const logo = printed.logoId && stage !== 'draft' ? `${link}/files/${printed.logoId}` : undefined;
  const files = invoice.printed ? [await keptInvoicePdf(ctx, invoice)] : [];
  return { printed, given: { dueMinor, overMinor, link, logo, text: message.details.text ?? usual }, files };
}

export async function invoiceMail(subject: Subject): Promise<Written> {
  const { printed, given, files } = await shown(subject, true);
  return { ...invoiceLetter(printed, given, false), files };
}

export async function changedMail(subject: Subject): Promise<Written> {
  const { printed, given, files } = await shown(subject, false);
  return { ...invoiceLetter(printed, given, true), files };
}

/** A reminder of what is still open of its invoices when it goes out; null where all of it was paid meanwhile. */
export async function reminderMail(subject: Subject): Promise<Written | null> {
  const { ctx, message, business } = subject;
  const open = [found(subject.invoice), ...subject.others].filter(
    ({ stage, dueMinor }) => stage === 'sent' && dueMinor > 0n,
  );
  const [only] = open;
  if (!only) return null;
  if (open.length === 1) {
    const { printed, given, files } = await shown({ ...subject, invoice: only }, false);
    const offset = daysBetween(printed.dueOn, dateInZone(ctx.now, business.zone));
    const isFirst = only.id === message.invoiceId;
    return { ...reminderLetter(printed, { ...given, offset: (isFirst && message.details.offset) || offset }), files };
  }
  const files = [];
  for (const invoice of open) files.push(await keptInvoicePdf(ctx, invoice));
  const shownOf = open.map((invoice) => ({
    printed: found(invoice.printed),
    dueMinor: jsonMinor(invoice.dueMinor),
    link: invoiceLink(invoice),
  }));
  return { ...remindersLetter(shownOf, message.details.text), files };
}

export async function cancelledMail(subject: Subject): Promise<Written> {
  const { printed, given } = await shown(subject, false);
  return { ...cancelledLetter(printed, given), files: [] };
}

export async function answerMail(subject: Subject): Promise<Written> {
  const { printed, given } = await shown(subject, false);
  const { subject: question = '', text = '' } = subject.message.details;
  return { ...answerLetter(printed, { link: given.link, logo: given.logo, question, answer: text }), files: [] };
}

/** Null for somebody who is not asked any more: the invoice was changed meanwhile, or cancelled. */
export async function approvalMail(subject: Subject): Promise<Written | null> {
  const { id, stage } = found(subject.invoice);
  const { printed, given } = await shown(subject, false);
  const asked = filesByApprover(printed.files).find(
    ({ approver }) => approver.id === subject.message.details.approverId,
  );
  if (!asked || stage !== 'sent') return null;
  const link = `${given.link}?approver=${approverSign(id, asked.approver.id)}`;
  const files = asked.files.map(({ name }) => name);
  return { ...approvalLetter(printed, { files, link, logo: given.logo }), files: [] };
}

export async function creditMail(subject: Subject): Promise<Written> {
  const { id, printed } = found(subject.credit);
  return {
    ...creditLetter(printed, { link: customerLink(subject) }),
    files: [await keptCreditPdf(subject.ctx, id, printed)],
  };
}

export async function receiptMail(subject: Subject): Promise<Written> {
  const receipt = found(subject.receipt);
  return {
    ...receiptLetter(receipt.printed, customerLink(subject)),
    files: [await keptReceiptPdf(subject.ctx, receipt)],
  };
}

/** Null where the invoice was paid again before the letter went out. */
export async function takenBackMail(subject: Subject): Promise<Written | null> {
  const { printed } = found(subject.receipt);
  const due = jsonMinor(found(subject.invoice).dueMinor);
  const { text = '' } = subject.message.details;
  return due === 0 ? null : { ...takenBackLetter(printed, text, due, customerLink(subject)), files: [] };
}

export async function debitBackMail(subject: Subject): Promise<Written | null> {
  const invoice = found(subject.invoice);
  const printed = found(invoice.printed);
  const { minor = 0, text = '' } = subject.message.details;
  const why = wordsOf(printed.locale).refusals[text as RefusalReason] ?? '';
  const dueMinor = jsonMinor(invoice.dueMinor);
  // What was paid again meanwhile, or credited, needs no letter.
  if (dueMinor === 0) return null;
  return { ...debitBackLetter(printed, { minor, why, dueMinor }, customerLink(subject)), files: [] };
}

export async function refundMail(subject: Subject): Promise<Written> {
  const { printed } = found(subject.receipt);
  const { minor = 0, text = '', byHand = null } = subject.message.details;
  const { credit } = subject;
  const told = { minor, byHand, reason: text, credit: credit?.number ?? null };
  return {
    ...refundLetter(printed, told, customerLink(subject)),
    files: credit ? [await keptCreditPdf(subject.ctx, credit.id, credit.printed)] : [],
  };
}

export const paymentMail = async (subject: Subject): Promise<Written> => ({
  ...paymentNotice(found(subject.receipt).printed, deskLink(subject)),
  files: [],
});

/** What a customer wrote or did, for the business. @param sum what it is, in a word */
export const newsMail =
  (sum: string) =>
  async (subject: Subject): Promise<Written> => {
    const { message, business, invoice } = subject;
    return {
      ...notice({
        seller: business,
        subject: message.details.subject ?? 'News of an invoice',
        lead: `Invoice ${invoice?.number ?? ''}, ${invoice?.printed?.payer.name ?? ''}`,
        sum,
        words: message.details.text ?? '',
        link: deskLink(subject),
        foot: 'Sent to you by Dahlia, because your customer wrote or did this.',
      }),
      files: [],
    };
  };

/** The short text about an invoice, for a phone. */
export async function shortInvoice(subject: Subject): Promise<string> {
  const { message, business } = subject;
  const { printed, dueMinor } = found(subject.invoice);
  const { number, currency, locale } = found(printed);
  const words = wordsOf(locale);
  const say = message.kind === 'reminder' ? words.shortReminder : words.shortText;
  return say(business.name, number, moneyText({ minor: dueMinor, currency }, locale), customerLink(subject));
}
