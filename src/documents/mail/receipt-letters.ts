import type { PrintedInvoice } from '@/core/invoice/printed';
import type { PrintedOrder } from '@/core/offer/order';
import { packingOf } from '@/core/offer/packing';
import type { PaymentMethod } from '@/core/payment/methods';
import type { PrintedReceipt } from '@/core/receipt/receipt';
import { sumRows } from '@/core/words/invoice-wording';
import { laterText } from '@/core/words/plan-wording';
import { receiptRows } from '@/core/words/receipt-wording';
import { wordsOf } from '@/core/words/words';
import { day, figure, type Letter, letter, lineLabel, notice, sumText } from './letter';

/** The letter with which a receipt arrives. */
export function receiptLetter(receipt: PrintedReceipt, link: string): Letter {
  const words = wordsOf(receipt.locale);
  const paid = sumText(receipt.amount + (receipt.tip ?? 0), receipt);
  const orderEnd = [
    { label: words.tip, minor: receipt.tip ?? 0 },
    { label: words.stillDue, minor: receipt.stillDue },
  ].filter(({ minor }) => minor > 0);
  return letter({
    locale: receipt.locale,
    seller: receipt.seller,
    accent: receipt.accent ?? '#6B2451',
    subject: words.receiptSubject(receipt.number, receipt.seller.name, paid),
    lead: words.receiptFor(receipt.number, receipt.payer.name),
    sum: paid,
    under: words.paidWithThanks,
    words: receipt.order?.later ? [laterText(receipt.order.later, receipt)] : [],
    rows: [
      { label: words.paidOn, value: day(receipt.paidOn, receipt.locale) },
      { label: words.with, value: receipt.method },
      ...(receipt.order ? [{ label: words.offer.order, value: receipt.order.reference }] : []),
      ...(receipt.order && receipt.invoiceNumber ? [{ label: words.invoice, value: receipt.invoiceNumber }] : []),
      ...(receipt.ownReference ? [{ label: words.offer.ourReference, value: receipt.ownReference }] : []),
      ...(receipt.order?.sums.lines ?? []).map((line) => ({
        label: lineLabel(line, receipt, line.quantity === '1' ? line.what : `${line.quantity} × ${line.what}`),
        value: figure(line.net, receipt),
      })),
      ...(receipt.order ? sumRows(receipt.order.sums, words).slice(1) : [])
        .filter(({ minor }) => minor !== 0)
        .map(({ label, minor }) => ({ label, value: figure(minor, receipt) })),
      ...(receipt.order?.answers ?? []).map(({ label, text }) => ({ label, value: text })),
      ...(receipt.order ? orderEnd : receiptRows(receipt, words)).map(({ label, minor }) => ({
        label,
        value: figure(minor, receipt),
      })),
    ],
    total: { label: words.paidSum, value: paid },
    button: { words: receipt.invoiceNumber ? words.see : words.offer.order, link },
    last: words.attached,
  });
}

/** The letter that a receipt does not count: the payment was written down by mistake. */
export function takenBackLetter(receipt: PrintedReceipt, reason: string, dueMinor: number, link: string): Letter {
  const words = wordsOf(receipt.locale);
  const paid = sumText(receipt.amount, receipt);
  const due = sumText(dueMinor, receipt);
  return letter({
    locale: receipt.locale,
    seller: receipt.seller,
    accent: receipt.accent ?? '#6B2451',
    subject: words.takenBackSubject(receipt.number, receipt.seller.name),
    lead: words.receiptFor(receipt.number, receipt.payer.name),
    sum: '',
    under: '',
    words: [words.takenBackText(paid, day(receipt.paidOn, receipt.locale), receipt.invoiceNumber), reason],
    rows: [],
    total: { label: words.stillDue, value: due },
    button: { words: words.seeAndPay(due), link },
    last: words.answerThis(receipt.seller.name),
  });
}

/** The letter that tells a payer that their bank took a debit back, and what is due again. @param why in their language */
export function debitBackLetter(
  invoice: PrintedInvoice,
  { minor, why, dueMinor }: { readonly minor: number; readonly why: string; readonly dueMinor: number },
  link: string,
): Letter {
  const words = wordsOf(invoice.locale);
  const due = sumText(dueMinor, invoice);
  return letter({
    locale: invoice.locale,
    seller: invoice.seller,
    accent: invoice.accent,
    subject: words.debitBackSubject(invoice.number, invoice.seller.name),
    lead: `${words.invoice} ${invoice.number}, ${invoice.payer.name}`,
    sum: '',
    under: '',
    words: [words.debitBackText(sumText(minor, invoice)), why],
    rows: [],
    total: { label: words.stillDue, value: due },
    button: { words: words.seeAndPay(due), link },
    last: words.answerThis(invoice.seller.name),
  });
}

/** Money that went back, as its letter tells it: minor units, how where not to the card, why, and the credit note that came with it. */
export type ToldRefund = {
  readonly minor: number;
  readonly byHand: Exclude<PaymentMethod, 'card' | 'debit'> | null;
  readonly reason: string;
  readonly credit: string | null;
};

/** The letter with which money that is given back is told. */
export function refundLetter(
  receipt: PrintedReceipt,
  { minor, byHand, reason, credit }: ToldRefund,
  link: string,
): Letter {
  const words = wordsOf(receipt.locale);
  const sum = sumText(minor, receipt);
  const told = byHand
    ? words.offer.refundByHand(sum, words.methods[byHand])
    : words.offer.refundText(sum, receipt.method);
  return letter({
    locale: receipt.locale,
    seller: receipt.seller,
    accent: receipt.accent ?? '#6B2451',
    subject: words.offer.refundSubject(receipt.seller.name, sum),
    lead: words.receiptFor(receipt.number, receipt.payer.name),
    sum,
    under: '',
    words: [told, reason, credit ? `${words.creditNote} ${credit}. ${words.attached}` : ''].filter(Boolean),
    rows: [],
    button: { words: receipt.invoiceNumber ? words.see : words.offer.order, link },
    last: words.answerThis(receipt.seller.name),
  });
}

/** The note with which the business learns that an order was paid, with all that packing needs. @param link the payment's sheet */
export function orderNotice(
  receipt: PrintedReceipt,
  { offer, order }: { readonly offer: string; readonly order: PrintedOrder },
  link: string,
): Letter {
  const house = { currency: receipt.currency, locale: 'en-US' };
  const paid = sumText(receipt.amount + (receipt.tip ?? 0), house);
  const reference = receipt.order?.reference ?? '';
  return notice({
    seller: receipt.seller,
    subject: `${receipt.payer.name} paid ${paid}, ${offer}`,
    lead: `${offer}, order ${reference}, ${receipt.payer.name}`,
    sum: `${paid} came in`,
    words: [
      ...order.lines.map(({ quantity, what, note }) => `${quantity} × ${[what, note].filter(Boolean).join(', ')}`),
      ...packingOf(order).map(({ label, text }) => `${label}: ${text}`),
      `With ${receipt.method}, receipt ${receipt.number}.`,
    ].join('\n'),
    link,
    open: 'Open it',
    foot: 'Sent to you by Dahlia, because somebody paid.',
  });
}

/** The note with which the business learns that an invoice was paid. @param link the invoice's sheet */
export function paymentNotice(receipt: PrintedReceipt, link: string): Letter {
  const house = { currency: receipt.currency, locale: 'en-US' };
  const paid = sumText(receipt.amount, house);
  const still = receipt.stillDue > 0 ? `${sumText(receipt.stillDue, house)} is still due.` : 'Nothing is due any more.';
  const tip = receipt.tip ? ` The tip is ${sumText(receipt.tip, house)}.` : '';
  return notice({
    seller: receipt.seller,
    subject: `${receipt.payer.name} paid ${paid}, invoice ${receipt.invoiceNumber}`,
    lead: `Invoice ${receipt.invoiceNumber}, ${receipt.payer.name}`,
    sum: `${paid} came in`,
    words: `With ${receipt.method}, receipt ${receipt.number}. ${still}${tip}`,
    link,
    foot: 'Sent to you by Dahlia, because your customer paid.',
  });
}
