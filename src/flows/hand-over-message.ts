import { sellerOf } from '@/core/business/business';
import { wireMinor } from '@/core/money/money';
import { moneyText } from '@/core/money/money-text';
import { priceMinor } from '@/core/offer/price';
import { wordsOf } from '@/core/words/words';
import { type Business, businessById } from '@/db/businesses';
import { type CreditNote, creditById } from '@/db/credit-notes';
import { customerById } from '@/db/customers';
import { type Invoice, invoiceById } from '@/db/invoices';
import { announce } from '@/db/jobs';
import { type Message, messageById, updateMessage } from '@/db/messages';
import { offerById, type PlacedOffer } from '@/db/offers';
import { type Order, orderById } from '@/db/orders';
import { type Receipt, receiptOfPayment } from '@/db/receipts';
import { type Request, requestById } from '@/db/requests';
import { type HappenedTo, insertHappening } from '@/db/timeline';
import { inBusiness, readBusiness } from '@/db/transaction';
import {
  answerLetter,
  cancelledLetter,
  creditLetter,
  invoiceLetter,
  type Letter,
  notice,
  orderNotice,
  paymentNotice,
  receiptLetter,
  refundLetter,
  reminderLetter,
  requestLetter,
  statementLetter,
} from '@/documents/mail/letters';
import { statementPdf } from '@/documents/pdf/draw';
import { MailRefused } from '@/outside/mail';
import { MessageRefused } from '@/outside/messages';
import { services } from '@/outside/services';
import { found } from './access';
import { type File, keptCreditPdf, keptInvoicePdf, keptReceiptPdf, picturesOf } from './files';
import { writtenGiftLetter } from './gifts';
import { draftPrinted } from './invoice-sheet';
import { isPlanMessage, shortPlan, writtenPlan } from './plans/written-plan';
import { requestLink } from './requests';
import { loadStatement } from './statement';

/** All that a message may speak of. */
type Subject = {
  readonly message: Message;
  readonly business: Business;
  readonly invoice: Invoice | null;
  readonly receipt: Receipt | null;
  readonly credit: CreditNote | null;
  readonly order: Order | null;
  readonly request: Request | null;
};

type Written = Letter & { readonly files: readonly File[] };

/**
 * Hands one queued message over and notes it. Killed between the two it is handed over once more, with the same Message-ID
 * or key; a refusal for good is noted and not tried again, any other trouble is thrown for the job to be retried.
 */
export async function handOverMessage(businessId: string, messageId: string): Promise<void> {
  const { clock } = services();
  const subject = await readBusiness(businessId, async (db): Promise<Subject | null> => {
    const message = await messageById(db, businessId, messageId);
    if (message?.state !== 'queued') return null;
    return {
      message,
      business: await businessById(db, businessId),
      invoice: message.invoiceId ? await invoiceById(db, businessId, message.invoiceId) : null,
      receipt: message.paymentId ? await receiptOfPayment(db, businessId, message.paymentId) : null,
      credit: message.details.creditId ? await creditById(db, businessId, message.details.creditId) : null,
      order: message.orderId ? await orderById(db, businessId, message.orderId) : null,
      request: message.requestId ? await requestById(db, businessId, message.requestId) : null,
    };
  });
  if (!subject) return;
  try {
    await (subject.message.way === 'mail' ? postMail(subject) : postShort(subject));
  } catch (error) {
    if (!(error instanceof MailRefused) && !(error instanceof MessageRefused)) throw error;
    await note(businessId, subject, { state: 'failed', trouble: error.message }, await clock.now());
    return;
  }
  await note(businessId, subject, { state: 'handed-over', trouble: null }, await clock.now());
}

/** Kinds whose reader is the business itself. */
const INWARD = new Set<Message['kind']>(['payment-notice', 'order-notice', 'question', 'notice']);

async function postMail(subject: Subject): Promise<void> {
  const { post, mailFrom, publicUrl } = services();
  const { message, business } = subject;
  const { subject: about, text, html, files } = await written(subject, publicUrl);
  const inward = INWARD.has(message.kind);
  await post.handOver({
    messageId: `<${message.id}@${new URL(publicUrl).hostname}>`,
    from: { name: business.name, address: mailFrom },
    // Whoever answers a customer's question from the mail program reaches the customer.
    replyTo: message.kind === 'question' ? (message.details.from ?? mailFrom) : inward ? mailFrom : business.email,
    to: { name: message.toName, address: message.toAddress },
    subject: about,
    text,
    html,
    attachments: files.map(({ name, bytes, type }) => ({ filename: name, content: bytes, contentType: type })),
  });
}

async function postShort({ message, business, invoice, request }: Subject): Promise<void> {
  const { messenger, publicUrl } = services();
  const way = message.way === 'chat' ? 'chat' : 'text';
  if (request) {
    const { placed, link } = await requested(business.id, request);
    const text = wordsOf(business.locale).offer.shortRequest(business.name, placed.offer.title, link);
    await messenger.handOver({ key: message.id, way, to: message.toAddress, text });
    return;
  }
  if (isPlanMessage(message.kind)) {
    const text = await shortPlan(business, message, publicUrl, await services().clock.now());
    await messenger.handOver({ key: message.id, way, to: message.toAddress, text });
    return;
  }
  const { linkToken, printed, dueMinor } = found(invoice);
  const { number, currency, locale } = found(printed);
  const words = wordsOf(locale);
  const sum = moneyText({ minor: dueMinor, currency }, locale);
  const say = message.kind === 'reminder' ? words.shortReminder : words.shortText;
  const text = say(business.name, number, sum, `${publicUrl}/i/${linkToken}`);
  await messenger.handOver({ key: message.id, way, to: message.toAddress, text });
}

/** The offer of a request, and the address under which it is opened. */
async function requested(businessId: string, request: Request): Promise<{ placed: PlacedOffer; link: string }> {
  const placed = found(await readBusiness(businessId, (db) => offerById(db, businessId, request.offerId)));
  return { placed, link: requestLink(placed, request.id) };
}

async function written(subject: Subject, publicUrl: string): Promise<Written> {
  const { message, business, invoice, receipt, credit, order, request } = subject;
  const { kind, details } = message;
  if (isPlanMessage(kind))
    return { ...(await writtenPlan(business, message, publicUrl, await services().clock.now())), files: [] };
  const link = order ? `${publicUrl}/o/${order.token}` : invoice ? `${publicUrl}/i/${invoice.linkToken}` : publicUrl;
  const sheet = `${publicUrl}/ask/invoices/${invoice?.id ?? ''}`;
  switch (kind) {
    case 'receipt':
      return {
        ...receiptLetter(found(receipt).printed, link),
        files: [await keptReceiptPdf(business.id, found(receipt))],
      };
    case 'payment-notice':
      return { ...paymentNotice(found(receipt).printed, sheet), files: [] };
    case 'order-notice': {
      const { printed } = found(receipt);
      return {
        ...orderNotice(printed, details.subject ?? '', `${publicUrl}/money/payments/${message.paymentId}`),
        files: [],
      };
    }
    case 'refund':
      return {
        ...refundLetter(found(receipt).printed, details.minor ?? 0, found(receipt).printed.method, link),
        files: [],
      };
    case 'request':
      return writtenRequest(business, found(request));
    case 'credit-note': {
      const { id, printed } = found(credit);
      return { ...creditLetter(printed, { link }), files: [await keptCreditPdf(business.id, id, printed)] };
    }
    case 'gift-letter':
      return writtenGiftLetter(business, message.customerId ?? '', Number(details.from), details.subject ?? '');
    case 'statement':
      return writtenStatement(business, message);
    case 'question':
    case 'notice':
      return {
        ...notice({
          seller: business,
          subject: details.subject ?? 'News of an invoice',
          lead: `Invoice ${invoice?.number ?? ''}, ${invoice?.printed?.payer.name ?? ''}`,
          sum: kind === 'question' ? 'A question' : 'News',
          words: details.text ?? '',
          link: sheet,
          foot: 'Sent to you by Dahlia, because your customer wrote or did this.',
        }),
        files: [],
      };
    default:
      return writtenInvoice(subject, link);
  }
}

async function writtenRequest(business: Business, request: Request): Promise<Written> {
  const { placed, link } = await requested(business.id, request);
  const { title, currency } = placed.offer;
  const locale = business.locale;
  const minor = priceMinor(request.filled.amount, request.filled.currency || currency);
  const sum = minor ? moneyText({ minor, currency: request.filled.currency || currency }, locale) : '';
  return {
    ...requestLetter({
      locale,
      seller: sellerOf(business),
      accent: business.accent,
      title,
      toName: request.toName,
      sum,
      text: request.words,
      link,
    }),
    files: [],
  };
}

async function writtenStatement(business: Business, message: Message): Promise<Written> {
  const { details } = message;
  const statement = await readBusiness(business.id, async (db) => {
    const customer = found(await customerById(db, business.id, message.customerId ?? ''));
    return loadStatement(
      db,
      business,
      customer,
      details.from ?? '',
      details.to ?? '',
      details.subject ?? business.currency,
    );
  });
  const bytes = await statementPdf(statement, await picturesOf(business.id, statement.logoId));
  return {
    ...statementLetter(statement, details.text ?? ''),
    files: [{ name: `statement-${statement.to}.pdf`, bytes, type: 'application/pdf' }],
  };
}

async function writtenInvoice({ message, business, invoice }: Subject, link: string): Promise<Written> {
  const { kind, details } = message;
  const whole = found(invoice);
  const printed =
    whole.printed ?? (await readBusiness(business.id, (db) => draftPrinted(db, business, whole, new Date())));
  const open = whole.stage === 'draft' ? printed.total : whole.stage === 'sent' ? wireMinor(whole.dueMinor) : 0;
  const own = business.mailTexts[printed.locale.slice(0, 2)];
  const logo = printed.logoId && whole.stage !== 'draft' ? `${link}/files/${printed.logoId}` : undefined;
  const given = {
    dueMinor: open,
    link,
    logo,
    text: details.text ?? (kind === 'invoice' || kind === 'trial' ? own : undefined),
  };
  if (kind === 'cancelled') return { ...cancelledLetter(printed, given), files: [] };
  if (kind === 'answer') {
    const answer = { link, logo, question: details.subject ?? '', answer: details.text ?? '' };
    return { ...answerLetter(printed, answer), files: [] };
  }
  const files = whole.printed ? [await keptInvoicePdf(business.id, whole)] : [];
  if (kind === 'reminder') return { ...reminderLetter(printed, { ...given, offset: details.offset ?? 0 }), files };
  return { ...invoiceLetter(printed, given, kind === 'changed'), files };
}

/** A message whose way did not end at the customer is not told on the timeline. */
const UNTOLD = new Set<Message['kind']>(['trial', 'notice', 'question', 'order-notice']);

async function note(
  businessId: string,
  { message, receipt }: Subject,
  result: { state: 'handed-over'; trouble: null } | { state: 'failed'; trouble: string },
  now: Date,
): Promise<void> {
  await inBusiness(businessId, async (tx) => {
    if (!(await updateMessage(tx, businessId, message.id, result, now))) return;
    const about: HappenedTo | null = message.invoiceId
      ? { invoiceId: message.invoiceId }
      : message.orderId
        ? { orderId: message.orderId }
        : message.planId
          ? { planId: message.planId }
          : null;
    if (about && !UNTOLD.has(message.kind)) {
      const told = { what: message.kind, to: message.toAddress };
      const happening =
        result.state === 'handed-over'
          ? {
              kind: 'mail-handed-over' as const,
              ...told,
              ...(message.kind === 'receipt' && receipt ? { receipt: receipt.number } : {}),
            }
          : { kind: 'mail-failed' as const, ...told, trouble: result.trouble };
      await insertHappening(tx, businessId, about, happening, 'Dahlia', now);
    }
    await announce(tx, businessId);
  });
}
