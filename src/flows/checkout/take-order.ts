import { randomInt, randomUUID } from 'node:crypto';
import { dateInZone } from '@/core/dates/zone';
import { jsonMinor, leastOf, money } from '@/core/money/money';
import type { Choice } from '@/core/offer/choice';
import type { Offer, Placement } from '@/core/offer/offer';
import { whyNotOpen } from '@/core/offer/open';
import type { PrintedAnswer } from '@/core/offer/order';
import type { OfferQuote } from '@/core/offer/quote';
import { voucherEnd } from '@/core/voucher/voucher';
import { problemText } from '@/core/words/offer-wording';
import { wordsOf } from '@/core/words/words';
import { businessById } from '@/db/businesses';
import { fileById } from '@/db/files';
import { countAttempt } from '@/db/limits';
import { newToken } from '@/db/link-tokens';
import { offerById } from '@/db/offers';
import { insertOrder, lockedOrder, noteKept, type Order, orderByCheckout, orderById, takenOrders } from '@/db/orders';
import { insertPayments, type NewPayment, orderPayments, type Payment, paymentById } from '@/db/payments';
import type { Db } from '@/db/pool';
import { requestById } from '@/db/requests';
import { holdStock } from '@/db/stock';
import { termsById } from '@/db/terms';
import { addToTimeline } from '@/db/timeline';
import type { Voucher } from '@/db/vouchers';
import { OFFER_NAME } from '@/flows/door/links';
import { byLink, type Context, type Writing } from '@/flows/door/operation';
import { Refusal } from '@/flows/door/refusal';
import { found } from '@/flows/door/rights';
import { isFreshWork, type Work } from '@/flows/door/work';
import { lockedChoice, requestOf } from '@/flows/offer/requests';
import { recordOrderPaid } from '@/flows/order/record-order';
import { askAboutLater } from '@/flows/payment/ask-later';
import { perHour } from '@/flows/payment/attempt-limits';
import { noteRefusal, requireFewRefusals, whenThere } from '@/flows/payment/card-testing';
import { requireFreshAttempt } from '@/flows/payment/fresh-attempt';
import { afterSale, recordOutcome } from '@/flows/payment/record-outcome';
import { askAbout } from '@/flows/payment/settle-payment';
import { type PaymentStatus, saleKey, statusOf } from '@/flows/payment/take-payment';
import { claimCard, keepClaimed, settleClaim } from '@/flows/plan/claim-card';
import { promise } from '@/flows/stock/move-stock';
import { services } from '@/outside/services';
import { orderOf, quoted, quoteTerms } from './quote-order';

/** One press of the payer's button on a checkout. */
export type OrderAttempt = {
  /** Made once by the page: the same checkout is one order, and is paid once. */
  readonly checkoutKey: string;
  readonly attemptKey: string;
  readonly cardToken: string;
  readonly choice: Choice;
  /** What the payer saw on the button, in minor units. */
  readonly chargedMinor: bigint;
  /** The same of each later payment; null where it is paid once. */
  readonly laterMinor: number | null;
  readonly quote: string;
  readonly request: string;
  readonly locale: string;
  /** Whether it was pressed in a frame on another website. */
  readonly framed?: boolean | undefined;
  /** Done by the payer's computer, so that trying many cards is dear. */
  readonly work: Work;
  /** Campaign, order number and the like that came in with the address. */
  readonly passed: Readonly<Record<string, string>>;
};

/** How a payment stands, and the order's own token. */
export type OrderStatus = PaymentStatus & { readonly order: string };

/** Letters and digits that are not taken for one another. */
const SIGNS = '23456789ABCDEFGHJKMNPQRSTUVWXYZ';
const orderReference = (): string => {
  const signs = Array.from({ length: 8 }, () => SIGNS[randomInt(SIGNS.length)]).join('');
  return `${signs.slice(0, 4)}-${signs.slice(4)}`;
};

const orderStatus = async (ctx: Context, payment: Payment, token: string): Promise<OrderStatus> => ({
  ...(await statusOf(ctx, payment)),
  order: token,
});

/** The answers as they are printed; a file's name in place of its id. */
export const printedAnswers = async (db: Db, offer: Offer, choice: Choice, yes: string): Promise<PrintedAnswer[]> => {
  const answers: PrintedAnswer[] = [];
  for (const field of offer.fields) {
    const typed = (choice.answers[field.id] ?? '').trim();
    if (!typed || (field.kind === 'tick' && typed !== 'yes')) continue;
    const file = field.kind === 'file' ? await fileById(db, typed) : null;
    if (field.kind === 'file' && file?.purpose !== 'answer') continue;
    answers.push({
      label: field.label,
      text: field.kind === 'tick' ? yes : (file?.name ?? typed),
      onReceipt: field.onReceipt,
      ...(file ? { fileId: file.id } : {}),
    });
  }
  return answers;
};

/**
 * Takes a card payment for an offer. The order, what it holds of the stock, and the attempt with the job that will ask about it
 * are written down before the processor hears of it; an attempt or a checkout that came before is answered, never repeated.
 *
 * @param called the offer's public id or short address
 * @throws Refusal `offer-not-open`, `order-not-ready` with the places, `amount-changed`, `too-many-attempts`, `not-a-robot`, `request-ended`
 */
export const takeOrder = byLink(OFFER_NAME).run(
  async (ctx, offerId: string, attempt: OrderAttempt, address: string): Promise<OrderStatus> => {
    const before = await ctx.read((db) => attemptBefore(db, offerId, attempt));
    if (before) return orderStatus(ctx, before.payment, before.order.token);
    const waits = await Promise.all([
      countAttempt(perHour('card-address', 40), address),
      countAttempt(perHour('card-offer', 400), offerId),
    ]);
    if (waits.some((seconds) => seconds > 0)) throw new Refusal('too-many-attempts');
    // Before the work: whoever is turned away anyhow is not waited for.
    await requireFewRefusals(ctx, address, attempt.cardToken);
    if (!(await isFreshWork(offerId, attempt.work))) return twinOf(ctx, offerId, attempt);
    const { cards, publicUrl } = services();
    const claim = await ctx.turn((tx) => claimOrder(tx, offerId, attempt));
    if (!claim.mine) return orderStatus(ctx, claim.payment, claim.order.token);
    const { order } = claim;
    // Kept before it is charged: where the payment is to be repeated, all of it happens or nothing does.
    const payment = attempt.choice.repeat ? await keepForOrder(ctx, claim, attempt, address) : claim.payment;
    if (payment.state === 'paid') return orderStatus(ctx, payment, order.token);
    const outcome = await cards.sale({
      key: saleKey(ctx.businessId, payment.id),
      amount: money(payment.amountMinor + payment.tipMinor, payment.currency),
      token: attempt.cardToken,
      reference: `${order.printed.seller.name}, ${order.printed.title}`.slice(0, 120),
      returnUrl: `${publicUrl}/o/${order.token}/back${attempt.framed ? '?framed=yes' : ''}`,
    });
    const recorded = await afterSale(ctx, payment, outcome);
    if (outcome.kind === 'refused') await settleClaim(await ctx.later(), attempt.attemptKey).catch(() => undefined);
    if (outcome.kind === 'refused') await noteRefusal(ctx, { offerId }, address, attempt.cardToken);
    return orderStatus(ctx, recorded, order.token);
  },
);

/**
 * Lets the processor keep the card of an order that was claimed; what is free with it is done then.
 *
 * @throws Refusal `card-not-kept`, after which another attempt can begin
 */
async function keepForOrder(
  ctx: Context,
  { payment, order }: Claim,
  { attemptKey, cardToken }: OrderAttempt,
  address: string,
): Promise<Payment> {
  const kept = await keepClaimed(ctx, attemptKey, cardToken);
  const later = await ctx.later();
  if (!kept) {
    const outcome = await services().cards.close(saleKey(ctx.businessId, payment.id));
    await recordOutcome(later, payment, outcome);
    await settleClaim(later, attemptKey).catch(() => undefined);
    throw new Refusal('card-not-kept');
  }
  return later.turn(async (tx) => {
    await noteKept(tx, order.id, { ...kept, from: address });
    const current = found(await paymentById(tx, payment.id));
    if (payment.amountMinor + payment.tipMinor === 0n && current.state === 'pending') {
      await recordOrderPaid(tx, found(await lockedOrder(tx, order.id)), current, null);
    }
    return found(await paymentById(tx, payment.id));
  });
}

/** The same press, sent twice at once: its twin is under way, and both get one answer. Work of another press is refused. */
async function twinOf(ctx: Context, offerId: string, attempt: OrderAttempt): Promise<OrderStatus> {
  const twin = await whenThere(() => ctx.read((db) => attemptBefore(db, offerId, attempt)));
  return orderStatus(ctx, twin.payment, twin.order.token);
}

/** What the same press, or another open or paid attempt of the same checkout, came to. */
async function attemptBefore(
  db: Db,
  offerId: string,
  { checkoutKey, attemptKey }: Pick<OrderAttempt, 'checkoutKey' | 'attemptKey'>,
): Promise<{ order: Order; payment: Payment } | null> {
  const order = await orderByCheckout(db, offerId, checkoutKey);
  if (!order) return null;
  const payments = await orderPayments(db, order.id);
  const payment = payments.find((one) => one.state !== 'refused' || one.attemptKey === attemptKey);
  return payment ? { order, payment } : null;
}

type Claim = { mine: true; payment: Payment; order: Order } | { mine: false; payment: Payment; order: Order };

async function claimOrder(tx: Writing, offerId: string, attempt: OrderAttempt): Promise<Claim> {
  const before = await attemptBefore(tx, offerId, attempt);
  if (before) return { mine: false, ...before };
  const placed = found(await offerById(tx, offerId, true));
  found(placed.placedAt);
  const business = await businessById(tx);
  const { locale } = attempt;
  const words = wordsOf(locale).offer;
  const given = attempt.request ? requestOf(attempt.request) : null;
  const request = given ? found(await requestById(tx, given)) : null;
  if (request && (request.offerId !== offerId || request.state === 'withdrawn' || request.state === 'paid'))
    throw new Refusal('request-ended');
  const taken = placed.offer.mostPayments === null ? 0 : await takenOrders(tx, offerId);
  const closed = whyNotOpen(placed.offer, placed.state, taken, dateInZone(tx.now, business.zone));
  if (closed) throw new Refusal('offer-not-open', [{ field: 'offer', words: words.notOpen[closed] }]);

  const terms = await quoteTerms(tx, business, placed, attempt.quote);
  const choice = request?.locked ? lockedChoice(attempt.choice, request.filled) : attempt.choice;
  // Who takes the last one has it: others who want it, by this offer or another, wait here and then see that it is gone.
  await holdStock(
    tx,
    terms.offer.items.flatMap(({ itemId }) => (itemId ? [{ itemId, optionId: null }] : [])),
  );
  const { quote, code, voucher } = await quoted(tx, business, terms, choice);
  if (quote.problems.length > 0) {
    const fields = quote.problems.map((problem) => ({
      field: problem.field,
      words: problemText(problem, quote.currency, locale),
    }));
    throw new Refusal('order-not-ready', fields);
  }
  const laterMinor = quote.later ? jsonMinor(quote.later.eachMinor) : null;
  if (quote.leftMinor !== attempt.chargedMinor || laterMinor !== attempt.laterMinor)
    throw new Refusal('amount-changed');
  const accepted = terms.offer.termsId ? await termsById(tx, terms.offer.termsId) : null;
  const printed = orderOf(
    business,
    terms,
    { choice, quote },
    {
      locale,
      answers: await printedAnswers(tx, terms.offer, choice, words.yes),
      terms: accepted && {
        versionId: accepted.versionId,
        name: accepted.name,
        version: accepted.version,
        text: accepted.text,
      },
      passed: attempt.passed,
    },
    tx.now,
  );
  const known = await orderByCheckout(tx, offerId, attempt.checkoutKey);
  const id = known?.id ?? randomUUID();
  await insertOrder(tx, {
    id,
    offerId,
    checkoutKey: attempt.checkoutKey,
    token: known?.token ?? newToken(tx.businessId, 18),
    reference: known?.reference ?? orderReference(),
    requestId: request?.id ?? null,
    payerEmail: printed.payer.email,
    currency: quote.currency,
    totalMinor: quote.tally.total,
    codeId: printed.code && code ? code.id : null,
    offer: terms.offer,
    choice,
    printed,
    revision: terms.revision,
    kept: null,
  });
  await promise(
    tx,
    quote.lines.flatMap(({ itemId, optionId, quantity }) =>
      itemId ? [{ orderId: id, itemId, optionId, quantity }] : [],
    ),
  );
  await requireFreshAttempt(tx, attempt.attemptKey);
  const paymentId = randomUUID();
  await insertPayments(tx, partsOf(paymentId, { orderId: id, channel: placed.placement, quote, voucher, attempt }));
  if (!known) {
    const event = { kind: 'ordered', offer: placed.name, amount: jsonMinor(quote.chargedMinor) } as const;
    await addToTimeline(tx, { orderId: id }, event, printed.payer.name);
  }
  const written = found(await paymentById(tx, paymentId));
  if (choice.repeat) await claimCard(tx, attempt.attemptKey, paymentId);
  // What a code makes free, or a voucher pays whole, needs no card: it is done with the claim, unless one is to be kept for what
  // comes later.
  if (quote.leftMinor === 0n && !choice.repeat)
    await recordOrderPaid(tx, found(await lockedOrder(tx, id)), written, null);
  else await askAboutLater(tx, [paymentId]);
  return {
    mine: true,
    payment: found(await paymentById(tx, paymentId)),
    order: found(await orderById(tx, id)),
  };
}

/**
 * The payments that pay an order: the card's, and beside it what a voucher pays, held until the card has answered; where the voucher
 * pays all of it, its own alone. A voucher pays the total first, then the tip.
 */
function partsOf(
  id: string,
  {
    orderId,
    channel,
    quote,
    voucher,
    attempt,
  }: {
    readonly orderId: string;
    readonly channel: Placement;
    readonly quote: OfferQuote;
    readonly voucher: Voucher | null;
    readonly attempt: Pick<OrderAttempt, 'attemptKey'>;
  },
): NewPayment[] {
  const { voucherMinor, leftMinor, tipMinor, currency } = quote;
  const about = { invoiceId: null, orderId, customerId: null, channel, currency };
  const ofTotal = leastOf(voucherMinor, quote.tally.total);
  const ofTip = voucherMinor - ofTotal;
  const rest = {
    ...about,
    id,
    amountMinor: quote.tally.total - ofTotal,
    tipMinor: tipMinor - ofTip,
    exclusive: true,
    attemptKey: attempt.attemptKey,
  };
  if (!voucher || voucherMinor === 0n) return [rest];
  const of = {
    ...about,
    amountMinor: ofTotal,
    tipMinor: ofTip,
    method: 'voucher' as const,
    voucherId: voucher.id,
    reference: voucherEnd(voucher.code),
  };
  if (leftMinor === 0n) return [{ ...of, id, exclusive: true, attemptKey: attempt.attemptKey }];
  return [
    rest,
    { ...of, id: randomUUID(), besideId: id, exclusive: false, attemptKey: `voucher:${attempt.attemptKey}` },
  ];
}

/** The payer's page asks how its checkout stands; `none` where nothing was tried yet. */
export const checkoutStatus = byLink(OFFER_NAME).run(
  async (ctx, offerId: string, checkoutKey: string): Promise<OrderStatus | { state: 'none' }> => {
    const latest = await ctx.read(async (db) => {
      const order = await orderByCheckout(db, offerId, checkoutKey);
      const [payment] = order ? await orderPayments(db, order.id) : [];
      return order && payment ? { order, payment } : null;
    });
    if (!latest) return { state: 'none' };
    const payment = latest.payment.state === 'pending' ? await askAbout(ctx, latest.payment) : latest.payment;
    return orderStatus(ctx, payment, latest.order.token);
  },
);

/** The payer does not want to wait for the bank's approval: the attempt is closed at the processor, then another can begin. */
export const withdrawOrder = byLink(OFFER_NAME).run(
  async (ctx, offerId: string, checkoutKey: string): Promise<OrderStatus | { state: 'none' }> => {
    const open = await ctx.read(async (db) => {
      const order = await orderByCheckout(db, offerId, checkoutKey);
      const payments = order ? await orderPayments(db, order.id) : [];
      const payment = payments.find(({ state }) => state === 'pending');
      return order && payment ? { order, payment } : null;
    });
    if (!open) return { state: 'none' };
    if (!open.payment.approvalUrl) return orderStatus(ctx, open.payment, open.order.token);
    const outcome = await services().cards.close(saleKey(ctx.businessId, open.payment.id));
    const payment = await recordOutcome(await ctx.later(), open.payment, outcome);
    return orderStatus(ctx, payment, open.order.token);
  },
);
