import { randomUUID } from 'node:crypto';
import { PLAIN_RECEIPT } from '@/core/business/business';
import { dateInZone } from '@/core/dates/zone';
import { money } from '@/core/money/money';
import { blankChoice } from '@/core/offer/choice';
import { completeOffer } from '@/core/offer/offer';
import { orderReceipt, type PrintedOrder } from '@/core/offer/order';
import type { ShownQuote } from '@/core/offer/shown';
import { cardText, REFUSAL_WORDS } from '@/core/payment/outcome';
import { problemText } from '@/core/words/offer-wording';
import { wordsOf } from '@/core/words/words';
import { businessById } from '@/db/businesses';
import { offerById } from '@/db/offers';
import { termsById } from '@/db/terms';
import { type Letter } from '@/documents/mail/letter';
import { receiptLetter } from '@/documents/mail/receipt-letters';
import { receiptPdf } from '@/documents/pdf/draw';
import { desk } from '@/flows/door/operation';
import { Refusal } from '@/flows/door/refusal';
import { found } from '@/flows/door/rights';
import { sealed, unsealed } from '@/flows/door/signing';
import { type File, picturesOf } from '@/flows/file/kept-files';
import { checkoutWork } from '@/flows/payment/card-testing';
import { services } from '@/outside/services';
import { type CheckoutView, offerView, quoteOf, type Reader } from './checkout-page';
import { orderOf, quoted, quoteTerms } from './quote-order';
import { type OrderAttempt, type OrderStatus, printedAnswers } from './take-order';

/** The checkout of an offer as its payer would see it, placed or not: the proof, and the stage of the rehearsal. */
export const offerProof = desk('see').read(
  async (db, id: string, reader: Omit<Reader, 'request'>): Promise<CheckoutView> => {
    const placed = found(await offerById(db, id));
    const business = await businessById(db);
    const view = await offerView(db, business, placed, { request: null, reader: { ...reader, request: '' } });
    return { ...view, called: placed.id, notOpen: null };
  },
);

type Asked = Pick<OrderAttempt, 'choice' | 'quote' | 'locale'>;

/** Works out the sum of a rehearsal. */
export const rehearsedQuote = desk('see').read(async (db, id: string, asked: Asked): Promise<ShownQuote> => {
  const placed = found(await offerById(db, id));
  const business = await businessById(db);
  return quoteOf(db, business, placed, { ...asked, request: '' });
});

type Rehearsed = { readonly order: PrintedOrder; readonly card: string; readonly thanks: string };

/**
 * Goes through a payment as the payer would, with a pretend card: the processor says what it would say and keeps nothing, and
 * nothing is written here either. What was ordered travels along, sealed.
 *
 * @throws Refusal `order-not-ready` with the places, `amount-changed`
 */
export const rehearseOrder = desk('see').run(
  async (ctx, id: string, attempt: Omit<OrderAttempt, 'work'>): Promise<OrderStatus> => {
    const { cards, publicUrl } = services();
    const { now } = ctx;
    const { printed, quote, thanks } = await ctx.read(async (db) => {
      const placed = found(await offerById(db, id));
      const business = await businessById(db);
      const terms = await quoteTerms(db, business, placed, attempt.quote);
      const all = await quoted(db, business, terms, attempt.choice);
      const accepted = terms.offer.termsId ? await termsById(db, terms.offer.termsId) : null;
      const { locale, passed } = attempt;
      const answers = await printedAnswers(db, terms.offer, attempt.choice, wordsOf(locale).offer.yes);
      const more = { locale, answers, terms: accepted, passed };
      return {
        quote: all.quote,
        printed: orderOf(business, terms, { choice: attempt.choice, quote: all.quote }, more, now),
        thanks: terms.offer.thanks,
      };
    });
    if (quote.problems.length > 0)
      throw new Refusal(
        'order-not-ready',
        quote.problems.map((problem) => ({
          field: problem.field,
          words: problemText(problem, quote.currency, attempt.locale),
        })),
      );
    if (quote.leftMinor !== attempt.chargedMinor) throw new Refusal('amount-changed');
    const order = (card: string) => sealed('rehearsal', { order: printed, card, thanks } satisfies Rehearsed);
    const words = wordsOf(attempt.locale);
    if (quote.leftMinor === 0n)
      return {
        state: 'paid',
        receipt: '0',
        order: order(quote.voucherMinor > 0n ? words.voucher.title : words.offer.byCode),
      };
    const outcome = await cards.rehearse({
      token: attempt.cardToken,
      amount: money(quote.leftMinor, quote.currency),
      returnUrl: `${publicUrl}/proof/offer/${id}/done`,
    });
    if (outcome.kind === 'accepted') return { state: 'paid', receipt: '0', order: order(cardText(outcome.card)) };
    if (outcome.kind === 'approval') {
      const back = new URL(outcome.approvalUrl);
      back.searchParams.set('return', `${publicUrl}/proof/offer/${id}/done?of=${order(cardText(outcome.card))}`);
      return { state: 'approval', url: back.toString(), order: '' };
    }
    if (outcome.kind === 'refused')
      return { state: 'refused', words: REFUSAL_WORDS[outcome.reason], reason: outcome.reason, order: '' };
    return { state: 'checking', order: '' };
  },
);

/** What a rehearsal came to, with the mail that would have gone out; null for a text that is not ours. */
export const rehearsalEnd = desk('see').run(
  async (_ctx, given: string): Promise<(Rehearsed & { readonly letter: Letter }) | null> => {
    const end = unsealed<Rehearsed>('rehearsal', given);
    if (!end) return null;
    const paidOn = dateInZone(new Date(`${end.order.orderedOn}T12:00:00Z`), 'UTC');
    const receipt = orderReceipt(end.order, {
      number: '0',
      paidOn,
      method: end.card,
      reference: randomUUID().slice(0, 8),
      style: PLAIN_RECEIPT,
    });
    return { ...end, letter: receiptLetter(receipt, services().publicUrl) };
  },
);

/** The piece of work that a payer's computer would be set: a rehearsal takes as long as the real thing. */
export const rehearsedWork = desk('see').run(
  async (ctx, id: string): Promise<Awaited<ReturnType<typeof checkoutWork>>> => {
    const { publicId } = found(await ctx.read((db) => offerById(db, id)));
    return checkoutWork(publicId);
  },
);

/** A receipt as the next payer of a donation would get it: the sample in the settings, always current. */
export const sampleReceipt = desk('see').run(async (ctx): Promise<File> => {
  const business = await ctx.read((db) => businessById(db));
  const { currency, paperLocale: locale } = business;
  const words = wordsOf(locale).offer;
  const offer = completeOffer({ kind: 'donation', title: words.donation, currency });
  const choice = { ...blankChoice(currency), amount: '50', name: 'Ida Marsh', email: 'ida@marsh.example' };
  const terms = { offer, revision: 1, rates: {}, token: '' };
  const all = await ctx.read((db) => quoted(db, business, terms, choice));
  const more = { locale, answers: [], terms: null, passed: {} };
  const order = orderOf(business, terms, { choice, quote: all.quote }, more, ctx.now);
  const receipt = orderReceipt(order, {
    number: '0',
    paidOn: dateInZone(ctx.now, business.zone),
    method: 'Corvid ·0819',
    reference: 'SAMP-LE23',
    style: business.receiptStyle,
  });
  const bytes = await receiptPdf(receipt, await picturesOf(ctx, business.logoId, business.receiptStyle));
  return { name: 'receipt-sample.pdf', bytes, type: 'application/pdf' };
});
