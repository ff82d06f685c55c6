import { DISPUTE_REASONS, type LostBy, type ToldDispute } from '@/core/dispute/dispute';
import type { Money } from '@/core/money/money';
import { jsonMinor } from '@/core/money/money';
import type { BookDispute, BookSale } from '@/core/payment/day-batch';
import { debitReason, type ToldReturn } from '@/core/payment/debit';
import { ACCOUNT_SCHEME, type CardSeen, cardText, type RefusalReason, type SaleOutcome } from '@/core/payment/outcome';
import type { ProcessorTerms } from '@/core/payout/policy';
import type { KeptCard } from '@/core/plan/shown-card';
import { isUuid } from '@/core/uuid';
import { call } from './http';

/** What a payer's own fields take: a card, a bank account, or either. */
export type Takes = 'card' | 'account' | 'both';

/** A sale to be made. `key` makes it one sale however often it is sent. */
export type SaleRequest = {
  readonly key: string;
  readonly amount: Money;
  /** From the processor's own card fields, never a number; or a card that the processor keeps, when nobody is there. */
  readonly token: string | { readonly cardId: string };
  /** What a token may stand for: a card only, where nothing is said. */
  readonly take?: Takes;
  /** What the holder reads at the bank. */
  readonly reference: string;
  /** Where the bank sends the holder back to. */
  readonly returnUrl: string;
};

/** How the processor's fields stand on a page. */
export type FieldsHow = {
  /** That page stands in a frame itself. */
  readonly framed?: boolean;
  readonly take?: Takes;
  /** Who reads them, BCP 47. */
  readonly locale?: string;
};

/** The card processor in our words. No method throws for an outage: not knowing is an outcome. */
export interface CardProcessor {
  /** The page with the processor's fields, for a frame on a page of `origin`. */
  fieldsUrl(origin: string, how?: FieldsHow): string;
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
  /** Under which id a card is kept that was sent with this key; `none` where nothing is, null where no answer came. */
  keptUnder(key: string): Promise<string | null>;
  /** Makes sure that nothing is kept under this key any more, now or later; false where no answer came. */
  closeCardKey(key: string): Promise<boolean>;
  /** Every card that is kept under keys that begin so; null where no answer came. */
  keptCards(prefix: string): Promise<{ readonly id: string; readonly key: string; readonly keptAt: Date }[] | null>;
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
  /** Every dispute of payments whose keys begin so; null where no answer came. */
  disputes(prefix: string): Promise<ToldDispute[] | null>;
  /** Every debit of these keys that came back; null where no answer came. */
  returns(prefix: string): Promise<ToldReturn[] | null>;
  /** Answers a dispute, once: with a file (PDF), or by accepting the loss; false where none is taken any more, null where no answer came. */
  answerDispute(disputeKey: string, file: Buffer | 'accept'): Promise<boolean | null>;
  /** What the processor agrees with a business about paying out; null where no answer came. */
  payoutTerms(businessId: string): Promise<ProcessorTerms | null>;
  /** The time at the processor, where it is well; null where it is not, or something else answers in its place. */
  clock(): Promise<Date | null>;
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
  debit?: { collectsAt?: unknown } | null;
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
  dispute?: JsonDispute | null;
  returned?: JsonReturn | null;
};

type JsonReturn = { id: string; code: string; amount: number; fee: number; at: string };

const toldReturn = (said: JsonReturn & { key: string; currency: string }): ToldReturn => {
  if (!isUuid(said.id) || !/^[A-Z]{2}\d{2}$/.test(said.code)) throw new Error('No return');
  return {
    id: said.id,
    paymentId: paymentOf(said.key),
    currency: said.currency,
    amountMinor: minor(said.amount),
    feeMinor: minor(said.fee),
    code: said.code,
  };
};

type JsonDispute = {
  id: string;
  amount: number;
  fee: number;
  reason: string;
  at: string;
  answerBy: string;
  answer: object | null;
  decided: { at: string; won: boolean; by: string; feeBack: number } | null;
};

const bookDispute = ({ id, amount, fee, at, decided }: JsonDispute): BookDispute => ({
  disputeId: id,
  amountMinor: minor(amount),
  feeMinor: minor(fee),
  at: new Date(at),
  won: decided?.won ? { at: new Date(decided.at), feeBackMinor: minor(decided.feeBack) } : null,
});

const LOST_BY: readonly LostBy[] = ['silence', 'accepted', 'decision'];

const toldDispute = (said: JsonDispute & { key: string; currency: string }): ToldDispute => ({
  key: text(said.id),
  paymentId: paymentOf(said.key),
  currency: said.currency,
  amountMinor: minor(said.amount),
  feeMinor: minor(said.fee),
  reason: DISPUTE_REASONS.find((known) => known === said.reason) ?? 'other',
  openedAt: instant(said.at),
  answerBy: instant(said.answerBy),
  isAnswered: said.answer !== null,
  decided: said.decided && {
    lostBy: said.decided.won ? null : (LOST_BY.find((known) => known === said.decided?.by) ?? 'decision'),
    feeBackMinor: minor(said.decided.feeBack),
  },
});

function instant(value: unknown): Date {
  const at = new Date(typeof value === 'string' ? value : Number.NaN);
  if (Number.isNaN(at.getTime())) throw new Error('No instant');
  return at;
}

/** The payment under whose key a sale was made. */
const paymentOf = (key: string): string => key.slice(key.lastIndexOf('.') + 1);

const bookSale = (sale: JsonBookSale): BookSale => ({
  paymentId: paymentOf(sale.key),
  words: [sale.reference, sale.card && cardText(sale.card)].filter(Boolean).join(', '),
  status: sale.status,
  currency: sale.currency,
  amountMinor: BigInt(sale.amount),
  feeMinor: BigInt(sale.fee),
  at: new Date(sale.at),
  backs: [
    ...sale.refunds.map(({ key, amount, at }) => ({ refundId: key, amount, fee: 0, at })),
    ...(sale.returned ? [{ ...sale.returned, refundId: sale.returned.id }] : []),
  ].map(({ refundId, amount, fee, at }) => ({
    refundId,
    amountMinor: BigInt(amount),
    feeMinor: BigInt(fee),
    at: new Date(at),
  })),
  dispute: sale.dispute ? bookDispute(sale.dispute) : null,
});

function seen({ scheme, last4 }: CardSeen): CardSeen {
  if (typeof scheme !== 'string' || !/^\d{4}$/.test(last4)) throw new Error('No card that anybody knows');
  return { scheme: scheme.slice(0, 40), last4 };
}

/** What an answer says, or `otherwise` where it says nothing that can be read. */
function readable<T, Other>(read: () => T, otherwise: Other): T | Other {
  try {
    return read();
  } catch {
    return otherwise;
  }
}

const outcome = (sale: JsonSale): SaleOutcome => readable(() => outcomeOf(sale), { kind: 'unknown' });

function text(value: unknown): string {
  if (typeof value !== 'string' || value === '' || value.length > 200) throw new Error('No text');
  return value;
}

function minor(value: unknown): bigint {
  if (!Number.isSafeInteger(value) || Number(value) < 0) throw new Error('No sum');
  return BigInt(Number(value));
}

/** An address that a payer can be sent to: of the web, and nothing that runs. */
function webAddress(value: string): string {
  const { protocol } = new URL(value);
  if (protocol !== 'https:' && protocol !== 'http:') throw new Error('No address of the web');
  return value;
}

function outcomeOf(sale: JsonSale): SaleOutcome {
  if (sale.status === 'accepted' && sale.card) {
    return { kind: 'accepted', saleId: text(sale.id), feeMinor: minor(sale.fee), card: seen(sale.card) };
  }
  if (sale.status === 'approval' && sale.card && sale.approvalUrl) {
    return {
      kind: 'approval',
      saleId: text(sale.id),
      approvalUrl: webAddress(sale.approvalUrl),
      card: seen(sale.card),
    };
  }
  if (sale.status === 'collecting' && sale.card) {
    const expectedAt = instant(sale.debit?.collectsAt);
    return { kind: 'collecting', saleId: text(sale.id), expectedAt, card: seen(sale.card) };
  }
  if (sale.status === 'refused') {
    const reason =
      REASONS.find((known) => known === sale.reason) ??
      (sale.card?.scheme === ACCOUNT_SCHEME ? debitReason(sale.reason ?? '') : 'refused');
    return { kind: 'refused', reason, card: sale.card && seen(sale.card) };
  }
  return { kind: 'unknown' };
}

const keptOf = (card: JsonSale['card']): KeptCard | null =>
  card?.id && /^\d{4}-\d{2}$/.test(card.expires ?? '')
    ? readable(
        () => ({
          ...seen(card),
          id: String(card.id),
          expires: card.expires ?? '',
          fingerprint: card.fingerprint ?? '',
        }),
        null,
      )
    : null;

/** Whether a sale was changed as asked: said so by its own id and status, or refused; anything else is not knowing. */
const taken = (answer: { status: number; sale: JsonSale } | null, id: string, status: string): boolean | null => {
  if (answer?.status === 409) return false;
  return answer?.status === 200 && answer.sale.id === id && answer.sale.status === status ? true : null;
};

/** @param timeoutMs how long an answer may take before the outcome counts as unknown */
export function cardProcessor(options: { url: string; apiKey: string; timeoutMs: number }): CardProcessor {
  const ask = async (
    path: string,
    body?: object,
    method: 'GET' | 'POST' | 'DELETE' = body ? 'POST' : 'GET',
  ): Promise<{ status: number; sale: JsonSale } | null> => {
    try {
      const { status, json } = await call(`${options.url}/api${path}`, {
        method,
        headers: { authorization: `Bearer ${options.apiKey}` },
        body,
        timeoutMs: options.timeoutMs,
      });
      return typeof json === 'object' && json !== null ? { status, sale: json as JsonSale } : null;
    } catch {
      return null;
    }
  };
  const byKey = (key: string) => `/sales/by-key/${encodeURIComponent(key)}`;
  return {
    fieldsUrl: (origin, { framed = false, take = 'card', locale = 'en' } = {}) => {
      const lang = locale.slice(0, 2);
      const asked = { origin, ...(framed ? { framed: 'yes' } : {}), ...(take === 'card' ? {} : { take }) };
      return `${options.url}/fields?${new URLSearchParams({ ...asked, ...(lang === 'en' ? {} : { lang }) })}`;
    },
    sale: async ({ key, amount, token, take = 'card', reference, returnUrl }) => {
      const how = typeof token === 'string' ? { token, take } : token;
      const body = { key, amount: jsonMinor(amount.minor), currency: amount.currency, reference, returnUrl, ...how };
      const answer = await ask('/sales', body);
      // A token that the processor never gave, or whose time is over: nothing was charged.
      if (answer?.status === 422) return { kind: 'refused', reason: 'never-charged', card: null };
      return answer?.status === 200 ? outcome(answer.sale) : { kind: 'unknown' };
    },
    ask: async (key) => {
      const answer = await ask(byKey(key));
      if (answer?.status === 404) return { kind: 'never-seen' };
      return answer?.status === 200 ? outcome(answer.sale) : { kind: 'unknown' };
    },
    close: async (key) => {
      const answer = await ask(`${byKey(key)}/close`, {});
      return answer?.status === 200 ? outcome(answer.sale) : { kind: 'unknown' };
    },
    cardOf: async (token) => {
      const answer = await ask(`/tokens/${encodeURIComponent(token)}`);
      const card = answer?.status === 200 ? answer.sale.card : null;
      return card ? readable(() => ({ ...seen(card), fingerprint: card.fingerprint ?? '' }), null) : null;
    },
    keepCard: async (token, key) => {
      const answer = await ask('/cards', { token, key });
      return answer?.status === 200 ? keptOf(answer.sale.card) : null;
    },
    keptCard: async (cardId) => {
      const answer = await ask(`/cards/${encodeURIComponent(cardId)}`);
      if (answer?.status === 404) return 'gone';
      return answer?.status === 200 ? keptOf(answer.sale.card) : null;
    },
    keptUnder: async (key) => {
      const answer = await ask(`/cards/by-key/${encodeURIComponent(key)}`);
      if (answer?.status === 404) return 'none';
      return answer?.status === 200 ? (answer.sale.card?.id ?? null) : null;
    },
    closeCardKey: async (key) => (await ask(`/cards/by-key/${encodeURIComponent(key)}/close`, {}))?.status === 200,
    keptCards: async (prefix) => {
      const answer = await ask(`/cards?prefix=${encodeURIComponent(prefix)}`);
      const { cards } = (answer?.sale ?? {}) as { cards?: { id: string; key: string; keptAt: string }[] };
      return answer?.status === 200 && cards ? cards.map((card) => ({ ...card, keptAt: new Date(card.keptAt) })) : null;
    },
    dropCard: async (cardId) => {
      const answer = await ask(`/cards/${encodeURIComponent(cardId)}`, undefined, 'DELETE');
      return answer?.status === 200 || answer?.status === 404;
    },
    rehearse: async ({ token, amount, returnUrl }) => {
      const body = { token, amount: jsonMinor(amount.minor), currency: amount.currency, returnUrl };
      const answer = await ask('/rehearsals', body);
      if (answer?.status === 422) return { kind: 'refused', reason: 'never-charged', card: null };
      return answer?.status === 200 ? outcome(answer.sale) : { kind: 'unknown' };
    },
    void: async (saleId) => taken(await ask(`/sales/${encodeURIComponent(saleId)}/void`, {}), saleId, 'voided'),
    refund: async (saleId, key, amount) =>
      taken(
        await ask(`/sales/${encodeURIComponent(saleId)}/refund`, { key, amount: jsonMinor(amount.minor) }),
        saleId,
        'accepted',
      ),
    book: async ({ prefix, from, to, keys }) => {
      const asked = { prefix, from: from.toISOString(), to: to.toISOString(), keys };
      const answer = await ask('/book', asked);
      const { sales } = (answer?.sale ?? {}) as { sales?: JsonBookSale[] };
      return answer?.status === 200 && sales ? readable(() => sales.map(bookSale), null) : null;
    },
    disputes: async (prefix) => {
      const answer = await ask(`/disputes?prefix=${encodeURIComponent(prefix)}`);
      const { disputes } = (answer?.sale ?? {}) as { disputes?: (JsonDispute & { key: string; currency: string })[] };
      // One that cannot be read is left out, and shows when the two books are compared; the others are heard of.
      return answer?.status === 200 && Array.isArray(disputes)
        ? disputes.flatMap((one) => readable(() => [toldDispute(one)], []))
        : null;
    },
    returns: async (prefix) => {
      const answer = await ask(`/returns?prefix=${encodeURIComponent(prefix)}`);
      const { returns } = (answer?.sale ?? {}) as { returns?: (JsonReturn & { key: string; currency: string })[] };
      return answer?.status === 200 && Array.isArray(returns)
        ? returns.flatMap((one) => readable(() => [toldReturn(one)], []))
        : null;
    },
    answerDispute: async (disputeKey, file) => {
      const body = file === 'accept' ? { kind: 'accept' } : { kind: 'file', file: file.toString('base64') };
      const answer = await ask(`/disputes/${encodeURIComponent(disputeKey)}/answer`, body);
      if (answer?.status === 409) return false;
      const { id, answered } = (answer?.sale ?? {}) as { id?: unknown; answered?: unknown };
      return answer?.status === 200 && id === disputeKey && answered === true ? true : null;
    },
    payoutTerms: async (businessId) => {
      const answer = await ask(`/terms/${businessId}`);
      const { lag, reserve } = (answer?.sale ?? {}) as Partial<ProcessorTerms>;
      if (answer?.status !== 200 || typeof lag !== 'number') return null;
      return { lag, reserve: reserve ? { percent: String(reserve.percent), days: Number(reserve.days) } : null };
    },
    clock: async () => {
      const answer = await ask('/health');
      const { ok, now } = (answer?.sale ?? {}) as { ok?: unknown; now?: unknown };
      const at = answer?.status === 200 && ok === true && typeof now === 'string' ? new Date(now) : null;
      return at && !Number.isNaN(at.getTime()) ? at : null;
    },
  };
}
