import { type AnswerCell, answerTable } from '@/core/offer/answers';
import { packingOf } from '@/core/offer/packing';
import { type Business, businessById } from '@/db/businesses';
import { offerById, type PlacedOffer } from '@/db/offers';
import { type AnsweredRow, answeredOrders } from '@/db/orders';
import { csvText, momentCell, sumCell } from '@/documents/csv/write';
import { desk } from '@/flows/door/operation';
import { found } from '@/flows/door/rights';
import { noteExport } from '@/flows/log/log';

const SHOWN = 300;
const MOST_EXPORTED = 100_000;

/** What payers of an offer answered to its questions: a column a question, a row a payment, latest first. */
export type OfferAnswers = {
  readonly business: Business;
  readonly placed: PlacedOffer;
  readonly questions: readonly string[];
  readonly rows: readonly (Pick<AnsweredRow, 'paymentId' | 'at'> & {
    readonly payer: string;
    readonly cells: readonly AnswerCell[];
  })[];
  /** Whether there are more than are shown; the file has all. */
  readonly more: boolean;
};

/** The table of what was answered. @throws Refusal `not-found` */
export const offerAnswers = desk('see').read(async (db, offerId: string): Promise<OfferAnswers> => {
  const placed = found(await offerById(db, offerId));
  const orders = await answeredOrders(db, offerId, SHOWN + 1);
  const shown = orders.slice(0, SHOWN);
  const { questions, cells } = answerTable(shown.map(({ printed }) => printed));
  return {
    business: await businessById(db),
    placed,
    questions,
    rows: shown.map(({ paymentId, at, printed }, row) => ({
      paymentId,
      at,
      payer: printed.payer.name,
      cells: cells[row] ?? [],
    })),
    more: orders.length > SHOWN,
  };
});

/** The same as CSV, with what was bought and all that packing needs. @throws Refusal `not-found` */
export const offerAnswersCsv = desk('see').run(async (ctx, offerId: string): Promise<string> => {
  const { zone, orders } = await ctx.read(async (db) => {
    found(await offerById(db, offerId));
    return { zone: (await businessById(db)).zone, orders: await answeredOrders(db, offerId, MOST_EXPORTED) };
  });
  await ctx.keep((tx) => noteExport(tx, 'Answers of payers', ''));
  const { questions, cells } = answerTable(orders.map(({ printed }) => printed));
  return csvText(
    [
      'at',
      'reference',
      'payer',
      'email',
      'phone',
      'deliver to',
      'bought',
      'message',
      'paid',
      'currency',
      'state',
      ...questions,
    ],
    orders.map(({ at, reference, printed, totalMinor, refundedMinor, currency }, row) => [
      momentCell(at, zone),
      reference,
      printed.payer.name,
      printed.payer.email,
      printed.phone,
      packingOf(printed).find(({ label }) => label === 'Deliver to')?.text ?? '',
      printed.lines
        .map(({ quantity, what, note }) => `${quantity} × ${[what, note].filter(Boolean).join(', ')}`)
        .join('; '),
      printed.message,
      sumCell(totalMinor - refundedMinor, currency),
      currency,
      refundedMinor === 0n ? 'paid' : refundedMinor < totalMinor ? 'part-refunded' : 'refunded',
      ...(cells[row] ?? []).map(({ text }) => text),
    ]),
  );
});
