import type { PrintedReceipt } from '@/core/receipt/receipt';
import { type GiftLetter, giftSum } from '@/core/statement/gifts';
import { laterText } from '@/core/words/plan-wording';
import { receiptRows } from '@/core/words/receipt-wording';
import { type Words, wordsOf } from '@/core/words/words';
import {
  dayOf,
  facts,
  figureOf,
  leadingSums,
  letterhead,
  linesTable,
  numbered,
  passage,
  payerLines,
  signed,
  sumOf,
  total,
  wideRows,
} from './parts';
import { isolated } from './runs';
import { MARGIN, type Measure, type PictureSizes, paperOf, type SetDocument, Setter } from './setter';

/** What was bought or given, with the answers that the business wants on the receipt. */
function orderedPart(
  set: Setter,
  receipt: PrintedReceipt,
  order: NonNullable<PrintedReceipt['order']>,
  words: Words,
): void {
  linesTable(set, order.sums, words);
  leadingSums(set, order.sums, words);
  if (receipt.tip)
    wideRows(set, [
      [words.total, figureOf(order.sums.total, receipt)],
      [words.tip, figureOf(receipt.tip, receipt)],
    ]);
  if (order.sums.exempt) passage(set, '', words.exempt(order.sums.exempt));
  for (const { label, text } of order.answers) passage(set, '', `${label}: ${text}`);
  if (receipt.stillDue > 0) wideRows(set, [[words.stillDue, figureOf(receipt.stillDue, receipt)]]);
  if (order.later) passage(set, '', laterText(order.later, receipt));
  set.y += 8;
}

/** Sets a receipt on a page. */
export function receiptPages(receipt: PrintedReceipt, measure: Measure, pictures: PictureSizes = {}): SetDocument {
  const words = wordsOf(receipt.locale);
  const paper = paperOf(receipt.locale);
  const set = new Setter(measure, paper, () => undefined);
  letterhead(set, {
    seller: receipt.seller,
    ...(receipt.accent ? { accent: receipt.accent } : {}),
    logo: pictures.logo,
  });
  const name = `${words.receipt} ${receipt.number}`;
  facts(
    set,
    name,
    [
      `${words.paidOn} ${dayOf(receipt.paidOn, receipt.locale)}`,
      words.paidWith(receipt.method),
      ...(receipt.order ? [words.offer.orderOf(receipt.order.reference)] : []),
      ...(receipt.order && receipt.invoiceNumber ? [`${words.invoice} ${receipt.invoiceNumber}`] : []),
      ...(receipt.ownReference ? [`${words.offer.ourReference}: ${receipt.ownReference}`] : []),
      ...(receipt.seller.taxNumber ? [words.taxNumber(receipt.seller.taxNumber)] : []),
      ...(receipt.style?.registration ? receipt.style.registration.split('\n') : []),
    ],
    words.from,
    payerLines(receipt.payer),
  );
  if (receipt.order) orderedPart(set, receipt, receipt.order, words);
  else
    wideRows(
      set,
      receiptRows(receipt, words).map(({ label, minor }) => [label, figureOf(minor, receipt)] as const),
    );
  total(set, MARGIN, words.paidSum, sumOf(receipt.amount + (receipt.tip ?? 0), receipt));
  set.text(MARGIN, words.thanks, 'serif-italic', 11.5);
  set.y += 20;
  if (receipt.order?.donation && receipt.style?.statement) passage(set, '', receipt.style.statement);
  if (receipt.style) signed(set, receipt.style, pictures, receipt.seller.name);
  return {
    title: `${name}, ${receipt.seller.name}`,
    language: receipt.locale,
    ...paper,
    pages: numbered(set, `${isolated(receipt.seller.name)}, ${name}`, words),
  };
}

/** Sets the letter over a year's gifts on pages. */
export function giftPages(letter: GiftLetter, measure: Measure, pictures: PictureSizes = {}): SetDocument {
  const { locale, seller, style } = letter;
  const words = wordsOf(locale);
  const paper = paperOf(locale);
  const set = new Setter(measure, paper, () => undefined);
  letterhead(set, { seller, accent: letter.accent, logo: pictures.logo });
  const name = words.offer.yearLetter(String(letter.year));
  facts(
    set,
    name,
    [
      ...(seller.taxNumber ? [words.taxNumber(seller.taxNumber)] : []),
      ...(style.registration ? style.registration.split('\n') : []),
    ],
    words.from,
    payerLines(letter.payer),
  );
  wideRows(
    set,
    letter.gifts.map(
      (gift) =>
        [
          `${dayOf(gift.on, locale)}, ${gift.what}, ${words.receipt.toLowerCase()} ${gift.receipt}`,
          figureOf(gift.minor, letter),
        ] as const,
    ),
  );
  total(set, MARGIN, words.total, sumOf(giftSum(letter), letter));
  if (style.statement) passage(set, '', style.statement);
  signed(set, style, pictures, seller.name);
  return {
    title: `${name}, ${seller.name}`,
    language: locale,
    ...paper,
    pages: numbered(set, `${isolated(seller.name)}, ${name}`, words),
  };
}
