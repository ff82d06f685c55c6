import { jsonMinor } from '@/core/money/money';
import { OFFER_STATES } from '@/core/offer/offer';
import type { Actor } from '@/flows/door/rights';
import { offerLink, offerSheet, offersPage, setOfferState } from '@/flows/offer/offers';
import { writeLink } from '@/flows/offer/write-link';
import { LinkStateWritten, LinksAsked, LinkWritten, NothingWritten } from '@/input/program-input';
import { act, BY_MOMENT, create, cursorOf, cursorText, type Endpoint, get } from '../endpoint';
import { ID, list, MINOR, object, oneOfWords, page, TEXT, TEXTS_BY_WORD, WHOLE, YES_NO } from '../schema';

const LINK = object({
  id: ID,
  title: TEXT,
  description: TEXT,
  state: oneOfWords(OFFER_STATES),
  placed: YES_NO,
  kind: TEXT,
  currency: TEXT,
  prices: TEXTS_BY_WORD,
  link: TEXT,
  visits: WHOLE,
  paid: list(object({ currency: TEXT, orders: WHOLE, paidMinor: MINOR, refundedMinor: MINOR })),
});

type Row = Awaited<ReturnType<typeof offerSheet>>['placed'];

const shown = (row: Row): object => ({
  id: row.id,
  title: row.offer.title || row.name,
  description: row.offer.description,
  state: row.state,
  placed: row.placedAt !== null,
  kind: row.offer.kind,
  currency: row.offer.currency,
  prices: row.offer.prices,
  link: offerLink(row),
  visits: row.visits,
  paid: row.sums.map(({ currency, orders, paidMinor, refundedMinor }) => ({
    currency,
    orders,
    paidMinor: jsonMinor(BigInt(paidMinor)),
    refundedMinor: jsonMinor(BigInt(refundedMinor)),
  })),
});

const one = async (actor: Actor, id: string): Promise<object> => shown((await offerSheet(actor, id)).placed);

export const LINKS: readonly Endpoint[] = [
  get('/links', {
    what: 'Payment links, last changed first',
    right: 'see',
    input: LinksAsked,
    answers: page(LINK),
    run: async (actor, { input: { words = '', after } }) => {
      const { rows, next } = await offersPage(actor, 'link', words, cursorOf(after, BY_MOMENT));
      return { data: rows.map(shown), next: cursorText(next) };
    },
  }),
  create('/links', {
    what: 'Make a payment link over a fixed sum, open at once',
    right: 'ask',
    input: LinkWritten,
    answers: LINK,
    run: async (actor, { input }) => one(actor, await writeLink(actor, input)),
  }),
  get('/links/{id}', {
    what: 'A payment link',
    right: 'see',
    input: NothingWritten,
    answers: LINK,
    run: (actor, { ids: [id = ''] }) => one(actor, id),
  }),
  act('/links/{id}/state', {
    what: 'Pause a payment link, close it, or open it again',
    right: 'ask',
    input: LinkStateWritten,
    answers: LINK,
    run: async (actor, { input: { state }, ids: [id = ''] }) => {
      await setOfferState(actor, id, state);
      return one(actor, id);
    },
  }),
];
