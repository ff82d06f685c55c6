import { jsonMinor } from '@/core/money/money';
import { moneyText } from '@/core/money/money-text';
import { wordsOf } from '@/core/words/words';
import {
  answerLetter,
  cancelledLetter,
  creditLetter,
  invoiceLetter,
  notice,
  paymentNotice,
  receiptLetter,
  refundLetter,
  reminderLetter,
} from '@/documents/mail/letters';
import { found } from '@/flows/door/rights';
import { keptCreditPdf, keptInvoicePdf, keptReceiptPdf } from '@/flows/file/kept-files';
import { draftPrinted } from '@/flows/invoice/invoice-sheet';
import { customerLink, deskLink, type Subject, type Written } from './subject';

/** The invoice as the letter shows it: what is asked for, with words of the business's own. */
async function shown(subject: Subject, ownWords: boolean) {
  const { ctx, message, business } = subject;
  const invoice = found(subject.invoice);
  const printed = invoice.printed ?? (await ctx.read((db) => draftPrinted(db, business, invoice)));
  const { stage } = invoice;
  const dueMinor = stage === 'draft' ? printed.total : stage === 'sent' ? jsonMinor(invoice.dueMinor) : 0;
  const link = customerLink(subject);
  const usual = ownWords ? business.mailTexts[printed.locale.slice(0, 2)] : undefined;
  const logo = printed.logoId && stage !== 'draft' ? `${link}/files/${printed.logoId}` : undefined;
  const files = invoice.printed ? [await keptInvoicePdf(ctx, invoice)] : [];
  return { printed, given: { dueMinor, link, logo, text: message.details.text ?? usual }, files };
}

export async function invoiceMail(subject: Subject): Promise<Written> {
  const { printed, given, files } = await shown(subject, true);
  return { ...invoiceLetter(printed, given, false), files };
}

export async function changedMail(subject: Subject): Promise<Written> {
  const { printed, given, files } = await shown(subject, false);
  return { ...invoiceLetter(printed, given, true), files };
}

export async function reminderMail(subject: Subject): Promise<Written> {
  const { printed, given, files } = await shown(subject, false);
  return { ...reminderLetter(printed, { ...given, offset: subject.message.details.offset ?? 0 }), files };
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

export async function refundMail(subject: Subject): Promise<Written> {
  const { printed } = found(subject.receipt);
  const minor = subject.message.details.minor ?? 0;
  return { ...refundLetter(printed, minor, printed.method, customerLink(subject)), files: [] };
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
