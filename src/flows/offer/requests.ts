import { randomUUID } from 'node:crypto';
import { sellerOf, smallestPayment } from '@/core/business/business';
import { MAIL_ADDRESS } from '@/core/customer/mail-address';
import { asFront } from '@/core/front/front';
import { moneyText } from '@/core/money/money-text';
import type { Choice } from '@/core/offer/choice';
import { priceMinor } from '@/core/offer/price';
import { requestProblems } from '@/core/offer/request';
import { problemText } from '@/core/words/offer-wording';
import { businessById } from '@/db/businesses';
import { offerById, type PlacedOffer } from '@/db/offers';
import type { Tx } from '@/db/pool';
import { insertRequest, type Request, requestById, requestsOf, updateRequest } from '@/db/requests';
import { type Letter } from '@/documents/mail/letter';
import { requestLetter } from '@/documents/mail/request-letter';
import { desk } from '@/flows/door/operation';
import { Refusal } from '@/flows/door/refusal';
import { found } from '@/flows/door/rights';
import { isSigned, signatureOf } from '@/flows/door/signing';
import { queueMessage } from '@/flows/message/queue-message';
import { services } from '@/outside/services';

export type { Request };

/** Whoever samples are written to. */
const SAMPLE_NAME = 'Ida Marsh';

/** What stands in a request's address: its id, signed, so that nobody can make one up or turn one into another. */
export const requestSign = (id: string): string => `${id}.${signatureOf('request', id)}`;

/** The address under which somebody opens their request. */
export const requestLink = (placed: Pick<PlacedOffer, 'address' | 'publicId'>, id: string): string =>
  `${services().publicUrl}/c/${placed.address || placed.publicId}?for=${requestSign(id)}`;

/** The id in a request's sign; null for one that is not ours. */
export function requestOf(sign: string): string | null {
  const [id = '', signature = '', ...more] = sign.split('.');
  return more.length === 0 && /^[0-9a-f-]{36}$/.test(id) && isSigned('request', id, signature) ? id : null;
}

/** A payer's choice with what a locked request fixes put over it, whatever was sent. */
export const lockedChoice = (choice: Choice, filled: Partial<Choice>): Choice => ({
  ...choice,
  ...filled,
  // Where it goes and what is said stay the payer's.
  billing: choice.billing,
  delivery: choice.delivery,
  message: choice.message,
  tip: choice.tip,
  acceptsTerms: choice.acceptsTerms,
  agrees: choice.agrees,
  repeat: filled.repeat ?? choice.repeat,
  answers: { ...choice.answers, ...filled.answers },
});

/** A request as a person writes it. */
export type RequestFields = Pick<Request, 'toName' | 'toAddress' | 'filled' | 'locked' | 'way' | 'words'>;

/** What is filled in is looked at before anything goes out. @throws Refusal `offer-not-ready` with the places */
async function requireRight(tx: Tx, placed: PlacedOffer, filled: Partial<Choice>): Promise<void> {
  const business = await businessById(tx);
  const problems = requestProblems(placed.offer, filled, {
    smallest: (currency) => smallestPayment(business, currency),
    homeCurrency: business.currency,
    pricesIncludeTax: business.pricesIncludeTax,
  });
  if (problems.length === 0) return;
  const currency = filled.currency ?? placed.offer.currency;
  throw new Refusal(
    'offer-not-ready',
    problems.map((problem) => ({ field: problem.field, words: problemText(problem, currency, business.deskLocale) })),
  );
}

/** Sends an offer to one person with some of it filled in. Returns the request with its address. */
export const sendRequest = desk('ask').run(
  async (ctx, offerId: string, fields: RequestFields): Promise<{ id: string; sign: string }> => {
    if (fields.way === 'mail' && !MAIL_ADDRESS.test(fields.toAddress)) throw new Refusal('customer-without-email');
    if ((fields.way === 'text' || fields.way === 'chat') && !/\d{5}/.test(fields.toAddress.replace(/\D/g, '')))
      throw new Refusal('customer-without-phone');
    const id = randomUUID();
    await ctx.write(async (tx) => {
      const placed = found(await offerById(tx, offerId));
      if (placed.state !== 'open') throw new Refusal('offer-not-open');
      await requireRight(tx, placed, fields.filled);
      await insertRequest(tx, { id, offerId, ...fields, byName: ctx.name });
      if (fields.way !== 'link')
        await queueMessage(tx, {
          kind: 'request',
          way: fields.way,
          key: `request:${id}`,
          requestId: id,
          toName: fields.toName,
          toAddress: fields.toAddress,
          details: { text: fields.words },
        });
    });
    return { id, sign: requestSign(id) };
  },
);

/** The mail with which somebody would get this offer: a sample for the desk's proof, also of what is not placed yet. */
export const sampleRequest = desk('see').run(async (ctx, id: string): Promise<Letter> => {
  const { publicUrl } = services();
  return ctx.read(async (db) => {
    const placed = found(await offerById(db, id));
    const { offer, placement } = placed;
    const business = asFront(await businessById(db), offer);
    const minor = offer.kind === 'sum' ? priceMinor(offer.prices[offer.currency], offer.currency) : null;
    return requestLetter({
      locale: business.paperLocale,
      seller: sellerOf(business),
      accent: business.accent,
      title: offer.title,
      toName: SAMPLE_NAME,
      sum: minor === null ? '' : moneyText({ minor, currency: offer.currency }, business.paperLocale),
      text: '',
      link: `${publicUrl}/${placement === 'page' ? 'p' : 'c'}/${placed.address || placed.publicId}`,
    });
  });
});

/** An offer's requests with the signs that stand in their addresses. */
export const offerRequests = desk('see').run(
  async (ctx, offerId: string): Promise<(Request & { readonly failed: boolean; readonly sign: string })[]> => {
    const rows = await ctx.read((db) => requestsOf(db, offerId));
    return rows.map((row) => ({ ...row, sign: requestSign(row.id) }));
  },
);

/** Withdraws a request: its address says so from now on. @throws Refusal `request-ended` where it is paid or withdrawn */
export const withdrawRequest = desk('ask').write(async (tx, id: string): Promise<void> => {
  found(await requestById(tx, id));
  if ((await updateRequest(tx, id, 'withdrawn')) === 0) throw new Refusal('request-ended');
});
