import type { Challenge } from 'altcha-lib';
import { businessById } from '@/db/businesses';
import { invoiceById } from '@/db/invoices';
import { countAttempt, isSpent, type Limit } from '@/db/limits';
import { offerById } from '@/db/offers';
import { refusedSince } from '@/db/orders';
import { refusedOfInvoice } from '@/db/payments';
import { INVOICE_LINK, OFFER_NAME } from '@/flows/door/links';
import { byLink, type Context } from '@/flows/door/operation';
import { Refusal } from '@/flows/door/refusal';
import { found } from '@/flows/door/rights';
import { setWork } from '@/flows/door/work';
import { queueMessage } from '@/flows/message/queue-message';
import { services } from '@/outside/services';
import { perHour } from './attempt-limits';

const HOUR_SECONDS = 3600;
/** Refused cards within the hour, and how the work begins from then on: each further digit is sixteen times as long. */
const STEPS: readonly (readonly [refused: number, prefix: string])[] = [
  [60, '0000'],
  [20, '000'],
  [0, '00'],
];
/** From so many on, the business is told. */
const TELL_FROM = 20;

/** Refused cards in an hour: from one address, and of one card. Who has a card that works never comes near. */
const refusedByAddress = (): Limit => perHour('refused-address', 10);
const refusedByCard = (): Limit => perHour('refused-card', 5);

/** What somebody pays at: an offer or an invoice. */
type Till = { readonly offerId: string } | { readonly invoiceId: string };
const tillId = (till: Till): string => ('offerId' in till ? till.offerId : till.invoiceId);

const refusedLately = async (ctx: Context, till: Till): Promise<number> => {
  const since = new Date(ctx.now.getTime() - HOUR_SECONDS * 1000);
  return ctx.read((db) =>
    'offerId' in till ? refusedSince(db, till.offerId, since) : refusedOfInvoice(db, till.invoiceId, since),
  );
};

/** A piece of work for a payer's computer: a blink for one payment, dear for whoever tries many cards. */
async function workFor(ctx: Context, till: Till): Promise<Challenge> {
  const refused = await refusedLately(ctx, till);
  const [, keyPrefix = '00'] = STEPS.find(([from]) => refused >= from) ?? [];
  return setWork(tillId(till), keyPrefix);
}

/** The work before a checkout is paid. @param called the offer's public id or short address */
export const checkoutWork = byLink(OFFER_NAME).run(async (ctx, offerId: string): Promise<Challenge> => {
  return workFor(ctx, { offerId });
});

/** The work before an invoice is paid through its link. */
export const invoiceWork = byLink(INVOICE_LINK).run(async (ctx, invoiceId: string): Promise<Challenge> => {
  return workFor(ctx, { invoiceId });
});

const TWIN_TRIES = 30;

/** Waits for what the twin of a press writes down. @throws Refusal `not-a-robot` where nothing comes: the work was another's */
export async function whenThere<T>(look: () => Promise<T | null>): Promise<T> {
  for (let tries = 0; tries < TWIN_TRIES; tries++) {
    const there = await look();
    if (there !== null) return there;
    await new Promise((resolve) => setTimeout(resolve, 100));
  }
  throw new Refusal('not-a-robot');
}

/** One card whatever its token; without an answer from the processor, the token stands for itself. */
const cardKey = async (ctx: Context, token: string): Promise<string> =>
  `${ctx.businessId} ${(await services().cards.cardOf(token))?.fingerprint ?? token}`;

/** @throws Refusal `too-many-attempts` where this address, or this card, was refused too often within the hour */
export async function requireFewRefusals(ctx: Context, address: string, token: string): Promise<void> {
  if (await isSpent(refusedByAddress(), address)) throw new Refusal('too-many-attempts');
  if (token && (await isSpent(refusedByCard(), await cardKey(ctx, token)))) throw new Refusal('too-many-attempts');
}

/** Counts a refused card, and tells the business once an hour when they become many. */
export async function noteRefusal(ctx: Context, till: Till, address: string, token: string): Promise<void> {
  await countAttempt(refusedByAddress(), address);
  await countAttempt(refusedByCard(), await cardKey(ctx, token));
  const refused = await refusedLately(ctx, till);
  if (refused < TELL_FROM) return;
  await ctx.write(async (tx) => {
    const { name, email } = await businessById(tx);
    const at =
      'offerId' in till
        ? found(await offerById(tx, till.offerId)).name
        : `Invoice ${found(await invoiceById(tx, till.invoiceId)).number}`;
    const hour = ctx.now.toISOString().slice(0, 13);
    const text = `${refused} cards were refused within an hour at “${at}”. Somebody may be trying out stolen cards there. Nothing was charged by them, and further tries are slowed down.${'offerId' in till ? ' You can pause it if you like.' : ''}`;
    await queueMessage(tx, {
      kind: 'notice',
      key: `card-testing:${tillId(till)}:${hour}`,
      toName: name,
      toAddress: email,
      details: { subject: `Many refused cards: ${at}`, text },
    });
  });
}
