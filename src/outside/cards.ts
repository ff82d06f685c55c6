import { request } from 'undici';
import type { Money } from '@/core/money/money';
import { jsonMinor } from '@/core/money/money';
import type { BookSale } from '@/core/payment/day-batch';
import { type CardSeen, cardText, type RefusalReason, type SaleOutcome } from '@/core/payment/outcome';
import type { KeptCard } from '@/core/plan/shown-card';

/** A sale to be made. `key` makes it one sale however often it is sent. */
export type SaleRequest = {
  readonly key: string;
  readonly amount: Money;
  /** From the processor's own card fields, never a number; or a card that the processor keeps, when nobody is there. */
  readonly token: string | { readonly cardId: string };
  /** What the holder reads at the bank. */
  readonly reference: string;
  /** Where the bank sends the holder back to. */
  readonly returnUrl: string;
};

/** The card processor in our words. No method throws for an outage: not knowing is an outcome. */
export interface CardProcessor {
  /** The page with the processor's card fields, for a frame on a page of `origin`; `framed` where that page stands in a frame itself. */
  fieldsUrl(origin: string, framed?: boolean): string;
  /** Charges; `unknown` where no answer came in time. The same key again answers the same sale. */
  sale(request: SaleRequest): Promise<SaleOutcome>;
  /** What became of a key; `never-seen` where the processor has no sale under it (yet: it may be on its way). */
  ask(key: string): Promise<SaleOutcome | { readonly kind: 'never-seen' }>;
  /** Makes sure that nothing more comes of a key, and tells what it came to: accepted stays accepted, all else is refused. */
  close(key: string): Promise<SaleOutcome>;
  /** The card behind a token, as far as anybody may know it; its fingerprint is one for all tokens of a card. Null for an unknown token or where no answer came. */
  cardOf(token: string): Promise<(CardSeen & { readonly fingerprint: string }) | null>;
  /** Lets the processor keep a card for charging again, once a key; null for an unknown token or where no answer came. */
  keepCard(token: string, key: string): Promise<KeptCard | null>;
  /** A kept card as it is now: its number and expiry may have been replaced. Null where no answer came; `gone` where it is not kept any more. */
  keptCard(cardId: string): Promise<KeptCard | 'gone' | null>;
  /** Nothing is charged to a kept card any more; false where no answer came. */
  dropCard(cardId: string): Promise<boolean>;
  /** What a sale would come to, without one: for going through a payment without any trace. */
  rehearse(request: Pick<SaleRequest, 'amount' | 'returnUrl'> & { readonly token: string }): Promise<SaleOutcome>;
  /** Takes back a whole sale before it is settled; false where it cannot be any more, null where no answer came. */
  void(saleId: string): Promise<boolean | null>;
  /** Gives back part or all of a sale, once a key; false where that is not there to be given back, null where no answer came. */
  refund(saleId: string, key: string, amount: Money): Promise<boolean | null>;
  /**
   * The processor's own book, for reconciling: the sales whose keys begin so and that were made or given back in a span (its end
   * not included), and those with these keys. Null where no answer came.
   */
  book(ask: {
    readonly prefix: string;
    readonly from: Date;
    readonly to: Date;
    readonly keys: readonly string[];
  }): Promise<BookSale[] | null>;
  /** Whether the processor answers at all. */
  answers(): Promise<boolean>;
}

const REASONS: readonly RefusalReason[] = [
  'not-enough-money',
  'over-limit',
  'card-blocked',
  'card-expired',
  'wrong-security-number',
  'approval-needed',
  'approval-declined',
  'approval-lapsed',
  'never-charged',
];

type JsonSale = {
  status: string;
  id: string;
  fee: number;
  reason: string | null;
  approvalUrl?: string;
  card: { scheme: string; last4: string; fingerprint?: string; id?: string; expires?: string } | null;
};

type JsonBookSale = {
  key: string;
  status: string;
  reference: string;
  card: { scheme: string; last4: string } | null;
  currency: string;
  amount: number;
  fee: number;
  at: string;
  refunds: { key: string; amount: number; at: string }[];
};

const bookSale = (sale: JsonBookSale): BookSale => ({
  paymentId: sale.key.slice(sale.key.lastIndexOf('.') + 1),
  words: [sale.reference, sale.card && cardText(sale.card)].filter(Boolean).join(', '),
  status: sale.status,
  currency: sale.currency,
  amountMinor: BigInt(sale.amount),
  feeMinor: BigInt(sale.fee),
  at: new Date(sale.at),
  backs: sale.refunds.map(({ key, amount, at }) => ({ refundId: key, amountMinor: BigInt(amount), at: new Date(at) })),
});

const seen = ({ scheme, last4 }: CardSeen): CardSeen => ({ scheme, last4 });

function outcome(sale: JsonSale): SaleOutcome {
  if (sale.status === 'accepted' && sale.card) {
    return { kind: 'accepted', saleId: sale.id, feeMinor: BigInt(sale.fee), card: seen(sale.card) };
  }
  if (sale.status === 'approval' && sale.card && sale.approvalUrl) {
    return { kind: 'approval', saleId: sale.id, approvalUrl: sale.approvalUrl, card: seen(sale.card) };
  }
  if (sale.status === 'refused') {
    const reason = REASONS.find((known) => known === sale.reason) ?? 'refused';
    return { kind: 'refused', reason, card: sale.card && seen(sale.card) };
  }
  return { kind: 'unknown' };
}

const keptOf = (card: JsonSale['card']): KeptCard | null =>
  card?.id && card.expires
    ? { ...seen(card), id: card.id, expires: card.expires, fingerprint: card.fingerprint ?? '' }
    : null;

const taken = (answer: { status: number } | null): boolean | null =>
  answer?.status === 200 ? true : answer?.status === 409 ? false : null;

/** @param timeoutMs how long an answer may take before the outcome counts as unknown */
export function cardProcessor(options: { url: string; apiKey: string; timeoutMs: number }): CardProcessor {
  const call = async (
    path: string,
    body?: object,
    method: 'GET' | 'POST' | 'DELETE' = body ? 'POST' : 'GET',
  ): Promise<{ status: number; sale: JsonSale } | null> => {
    try {
      // Not `fetch`, which costs much more for each call: hundreds of sales are sent in a second.
      const answer = await request(`${options.url}/api${path}`, {
        method,
        headers: { authorization: `Bearer ${options.apiKey}`, 'content-type': 'application/json' },
        ...(body ? { body: JSON.stringify(body) } : {}),
        signal: AbortSignal.timeout(options.timeoutMs),
      });
      return { status: answer.statusCode, sale: (await answer.body.json()) as JsonSale };
    } catch {
      return null;
    }
  };
  const byKey = (key: string) => `/sales/by-key/${encodeURIComponent(key)}`;
  return {
    fieldsUrl: (origin, framed = false) =>
      `${options.url}/fields?origin=${encodeURIComponent(origin)}${framed ? '&framed=yes' : ''}`,
    sale: async ({ key, amount, token, reference, returnUrl }) => {
      const how = typeof token === 'string' ? { token } : token;
      const body = { key, amount: jsonMinor(amount.minor), currency: amount.currency, reference, returnUrl, ...how };
      const answer = await call('/sales', body);
      // A token that the processor never gave, or whose time is over: nothing was charged.
      if (answer?.status === 422) return { kind: 'refused', reason: 'never-charged', card: null };
      return answer?.status === 200 ? outcome(answer.sale) : { kind: 'unknown' };
    },
    ask: async (key) => {
      const answer = await call(byKey(key));
      if (answer?.status === 404) return { kind: 'never-seen' };
      return answer?.status === 200 ? outcome(answer.sale) : { kind: 'unknown' };
    },
    close: async (key) => {
      const answer = await call(`${byKey(key)}/close`, {});
      return answer?.status === 200 ? outcome(answer.sale) : { kind: 'unknown' };
    },
    cardOf: async (token) => {
      const answer = await call(`/tokens/${encodeURIComponent(token)}`);
      return answer?.status === 200 && answer.sale.card
        ? { ...seen(answer.sale.card), fingerprint: answer.sale.card.fingerprint ?? '' }
        : null;
    },
    keepCard: async (token, key) => {
      const answer = await call('/cards', { token, key });
      return answer?.status === 200 ? keptOf(answer.sale.card) : null;
    },
    keptCard: async (cardId) => {
      const answer = await call(`/cards/${encodeURIComponent(cardId)}`);
      if (answer?.status === 404) return 'gone';
      return answer?.status === 200 ? keptOf(answer.sale.card) : null;
    },
    dropCard: async (cardId) => {
      const answer = await call(`/cards/${encodeURIComponent(cardId)}`, undefined, 'DELETE');
      return answer?.status === 200 || answer?.status === 404;
    },
    rehearse: async ({ token, amount, returnUrl }) => {
      const body = { token, amount: jsonMinor(amount.minor), currency: amount.currency, returnUrl };
      const answer = await call('/rehearsals', body);
      if (answer?.status === 422) return { kind: 'refused', reason: 'never-charged', card: null };
      return answer?.status === 200 ? outcome(answer.sale) : { kind: 'unknown' };
    },
    void: async (saleId) => taken(await call(`/sales/${encodeURIComponent(saleId)}/void`, {})),
    refund: async (saleId, key, amount) =>
      taken(await call(`/sales/${encodeURIComponent(saleId)}/refund`, { key, amount: jsonMinor(amount.minor) })),
    book: async ({ prefix, from, to, keys }) => {
      const asked = { prefix, from: from.toISOString(), to: to.toISOString(), keys };
      const answer = await call('/book', asked);
      const { sales } = (answer?.sale ?? {}) as { sales?: JsonBookSale[] };
      return answer?.status === 200 && sales ? sales.map(bookSale) : null;
    },
    answers: async () => (await call(byKey('health'))) !== null,
  };
}
