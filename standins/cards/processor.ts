import { roundedQuotient } from '@/core/money/decimal';
import type { Journal } from '../journal';
import type { Seeded } from '../seeded';
import {
  collected,
  type Debit,
  debitAsOf,
  debitFee,
  debitFrom,
  isOpenDebit,
  type Returned,
  returnedBy,
} from './debits';
import { type Dispute, decided, disputeAsOf, isTaken, opened } from './disputes';
import { PRETEND_ACCOUNTS } from './pretend-accounts';
import { type Behaviour, type PretendCard, cardByName as paperCardByName } from './pretend-cards';

/** A sale in the processor's book. Amounts are minor units of `currency`. */
export type Sale = {
  readonly id: string;
  readonly key: string;
  readonly amount: number;
  readonly currency: string;
  readonly reference: string;
  readonly returnUrl: string;
  /** `expires` is the last month in which it is good, `YYYY-MM`. */
  readonly card: { readonly scheme: string; readonly last4: string; readonly expires: string } | null;
  /** What the holder asked their bank to get back; null while they have not. */
  readonly dispute: Dispute | null;
  /** Whether the holder will. */
  readonly disputes: boolean;
  readonly at: string;
  /** When its outcome may be told, milliseconds since the epoch: before it, asking gets `processing`. */
  readonly knownAt: number;
  readonly status: 'accepted' | 'refused' | 'approval' | 'collecting' | 'voided';
  /** Of a bank debit; none for a card's sale. */
  readonly debit?: Debit | null;
  readonly returned?: Returned | null;
  readonly reason: string | null;
  readonly fee: number;
  readonly refunds: readonly { readonly key: string; readonly amount: number; readonly at: string }[];
};

/** A card kept for charging again, in the processor's vault. */
export type KeptCard = {
  readonly id: string;
  readonly key: string;
  /** The pretend card's name. */
  readonly card: string;
  readonly keptAt: string;
  /** How often it was charged so far. */
  readonly charges: number;
  readonly dropped: boolean;
};

/** What a merchant may know of a kept card; `expires` is `YYYY-MM`, the last month in which it is good. */
export type KeptCardSeen = {
  readonly id: string;
  readonly scheme: string;
  readonly last4: string;
  readonly expires: string;
  readonly fingerprint: string;
};

/** `token` from the card fields, or `cardId` of a kept card: then nobody is there to approve anything. */
export type SaleRequest = {
  readonly key: string;
  readonly amount: number;
  readonly currency: string;
  readonly reference: string;
  readonly returnUrl: string;
  readonly token?: string;
  readonly cardId?: string;
  /** What a token may stand for: a card only, where nothing is said. */
  readonly take?: 'card' | 'account' | 'both';
};

/** A line of the journal: a token made, a card kept, or a sale as it stands from now on. */
export type CardEvent =
  | { readonly kind: 'token'; readonly token: string; readonly card: string }
  | { readonly kind: 'sale'; readonly sale: Sale }
  | { readonly kind: 'kept'; readonly kept: KeptCard }
  | { readonly kind: 'told'; readonly key: string; readonly status: string };

const APPROVAL_LASTS_MS = 15 * 60_000;
const REPLACED_AFTER_MS = 30 * 86_400_000;

/** What the other side is told of a sale: changes of it are new news. */
const news = ({ status, dispute, returned }: Sale): string =>
  [status, returned && 'returned', dispute && 'disputed', dispute?.decided && (dispute.decided.won ? 'won' : 'lost')]
    .filter(Boolean)
    .join(' ');

const REFUSED: readonly Behaviour[] = [
  'not-enough-money',
  'over-limit',
  'card-blocked',
  'wrong-security-number',
  'refused',
];

type Begun = 'approval' | 'refused' | 'accepted' | 'collecting';

const accountByName = (name: string | undefined) => PRETEND_ACCOUNTS.find((known) => known.name === name);

/** The pretend card or account that a token stands for. */
const cardByName = (name: string | undefined): PretendCard | undefined => accountByName(name) ?? paperCardByName(name);

const statusFor = (behaviour: Behaviour): Begun =>
  behaviour === 'debit'
    ? 'collecting'
    : behaviour === 'approval' || behaviour === 'approval-at-first'
      ? 'approval'
      : REFUSED.includes(behaviour) || behaviour === 'late-refused'
        ? 'refused'
        : 'accepted';

const reasonFor = (behaviour: Behaviour): string => (behaviour === 'late-refused' ? 'not-enough-money' : behaviour);

/** Whether whoever sells takes that kind of thing. */
const isTakable = ({ behaviour }: PretendCard, take: SaleRequest['take'] = 'card'): boolean =>
  take === 'both' || take === (behaviour === 'debit' ? 'account' : 'card');

/** A bank account is good without end. */
const NO_END = '9999-12';

/** 2.9 percent, rounded half up, and 30 minor units; never more than the sale. */
const feeOf = (amount: number): number => Math.min(amount, Number(roundedQuotient(BigInt(amount) * 29n, 1000n)) + 30);

/** The card processor's book: one sale a key, whatever is repeated, and every answer on the disk before it is given. */
export class Processor {
  private readonly tokens = new Map<string, string>();
  private readonly sales = new Map<string, Sale>();
  private readonly keysById = new Map<string, string>();
  private readonly kept = new Map<string, KeptCard>();
  private readonly told = new Map<string, string>();
  /** The keys of sales that time may still dispute or decide. */
  private readonly watched = new Set<string>();

  constructor(
    private readonly journal: Journal<CardEvent>,
    private readonly seeded: Seeded,
    private readonly now: () => number,
    private readonly changed: (sale: Sale) => void,
    /** How long after a sale with a late card its outcome is known. */
    private readonly lateMs = 3_000,
  ) {
    for (const event of journal.past) {
      if (event.kind === 'token') this.tokens.set(event.token, event.card);
      else if (event.kind === 'sale') this.file(event.sale);
      else if (event.kind === 'kept') this.kept.set(event.kept.id, event.kept);
      else this.told.set(event.key, event.status);
    }
  }

  /** A token for a pretend card; the number itself is not kept. */
  tokenFor(cardName: string): string {
    const token = `tok_${this.seeded.hex(`token ${this.tokens.size} ${cardName}`, 24)}`;
    this.tokens.set(token, cardName);
    this.journal.append({ kind: 'token', token, card: cardName });
    return token;
  }

  /** The card behind a token, as far as the merchant may know it: its fingerprint is the same for all tokens of one card. */
  cardOf(token: string): { scheme: string; last4: string; fingerprint: string } | null {
    const card = cardByName(this.tokens.get(token));
    if (!card) return null;
    const fingerprint = this.seeded.hex(`fingerprint ${card.number}`, 24);
    return { scheme: card.scheme, last4: card.number.slice(-4), fingerprint };
  }

  /** Makes a sale, or answers what the same key made before. @returns null for a token that it never gave */
  sell(request: SaleRequest): { sale: Sale; late: boolean } | null {
    const before = this.ask(request.key);
    if (before) return { sale: before, late: false };
    if (request.cardId !== undefined) return this.chargeKept(request, request.cardId);
    const card = cardByName(this.tokens.get(request.token ?? ''));
    if (!card || !isTakable(card, request.take)) return null;
    const seen = { scheme: card.scheme, last4: card.number.slice(-4), expires: this.lastMonth(card) };
    return this.sellWith(request, card, seen, statusFor(card.behaviour), reasonFor(card.behaviour));
  }

  /** Keeps the card behind a token for charging again; the same key keeps it once. @returns null for a token that it never gave */
  keepCard(token: string, key: string): KeptCardSeen | null {
    const id = this.keptIdOf(key);
    if (this.kept.has(id)) return this.keptCard(id);
    const card = cardByName(this.tokens.get(token));
    if (!card) return null;
    this.noteKept({ id, key, card: card.name, keptAt: new Date(this.now()).toISOString(), charges: 0, dropped: false });
    return this.keptCard(id);
  }

  /** A kept card as it is now: schemes replace numbers without asking anybody. Null for one that is not (any more) kept. */
  keptCard(id: string): KeptCardSeen | null {
    const kept = this.kept.get(id);
    const card = cardByName(kept?.card);
    if (!kept || !card || kept.dropped) return null;
    const replaced = card.behaviour === 'replaced' && this.now() - Date.parse(kept.keptAt) >= REPLACED_AFTER_MS;
    return {
      id,
      scheme: card.scheme,
      last4: replaced
        ? String((Number(card.number.slice(-4)) + 1111) % 10_000).padStart(4, '0')
        : card.number.slice(-4),
      expires: this.lastMonth(card, new Date(Date.parse(kept.keptAt) + (replaced ? REPLACED_AFTER_MS : 0))),
      fingerprint: this.seeded.hex(`fingerprint ${card.number}${replaced ? ' replaced' : ''}`, 24),
    };
  }

  /** The card that was kept under a key and still is. */
  keptUnder(key: string): KeptCardSeen | null {
    return this.keptCard(this.keptIdOf(key));
  }

  /** Nothing is kept under a key any more, now or later. */
  closeCardKey(key: string): void {
    const id = this.keptIdOf(key);
    const kept = this.kept.get(id) ?? { id, key, card: '', keptAt: new Date(this.now()).toISOString(), charges: 0 };
    this.noteKept({ ...kept, dropped: true });
  }

  /** Every card that is kept under keys that begin so. */
  keptCards(prefix: string): Pick<KeptCard, 'id' | 'key' | 'keptAt'>[] {
    return [...this.kept.values()]
      .filter(({ key, dropped }) => !dropped && key.startsWith(prefix))
      .map(({ id, key, keptAt }) => ({ id, key, keptAt }));
  }

  private keptIdOf(key: string): string {
    return `card_${this.seeded.hex(`kept ${key}`, 20)}`;
  }

  /** Forgets a kept card: nothing is charged to it any more. */
  dropCard(id: string): boolean {
    const kept = this.kept.get(id);
    if (!kept) return false;
    if (!kept.dropped) this.noteKept({ ...kept, dropped: true });
    return true;
  }

  private chargeKept(request: SaleRequest, id: string): { sale: Sale; late: boolean } | null {
    const [kept, seen] = [this.kept.get(id), this.keptCard(id)];
    const card = cardByName(kept?.card);
    if (!kept || !seen || !card) return null;
    this.noteKept({ ...kept, charges: kept.charges + 1 });
    const { behaviour } = card;
    const { scheme, last4, expires } = seen;
    const over = new Date(this.now()).toISOString().slice(0, 7) > expires;
    const reason = over
      ? 'card-expired'
      : behaviour === 'approval'
        ? 'approval-needed'
        : behaviour === 'poor-at-first' && kept.charges % 2 === 0
          ? 'not-enough-money'
          : reasonFor(behaviour);
    const begun = statusFor(behaviour);
    const refused = over || reason !== behaviour || begun === 'refused';
    const status = refused ? 'refused' : begun === 'collecting' ? begun : 'accepted';
    return this.sellWith(request, card, { scheme, last4, expires }, status, reason);
  }

  private noteKept(kept: KeptCard): void {
    this.kept.set(kept.id, kept);
    this.journal.append({ kind: 'kept', kept });
  }

  private sellWith(
    request: SaleRequest,
    card: PretendCard,
    seen: NonNullable<Sale['card']>,
    status: Begun,
    reason: string,
  ): { sale: Sale; late: boolean } {
    const account = accountByName(card.name);
    const late = card.behaviour === 'late-accepted' || card.behaviour === 'late-refused';
    const refused = status === 'refused';
    const sale = this.keep({
      id: `sale_${this.seeded.hex(`sale ${request.key}`, 20)}`,
      key: request.key,
      amount: request.amount,
      currency: request.currency,
      reference: request.reference,
      returnUrl: request.returnUrl,
      card: seen,
      disputes: card.behaviour === 'disputed-later',
      dispute: null,
      at: new Date(this.now()).toISOString(),
      knownAt: Date.now() + (late ? this.lateMs : 0),
      status,
      reason: refused ? reason : null,
      fee: refused ? 0 : account ? debitFee(request.amount) : feeOf(request.amount),
      refunds: [],
      ...(account ? { debit: debitFrom(account.collected, this.now()) } : {}),
    });
    return { sale, late };
  }

  /** What a sale would come to, without keeping it; null for a token that it never gave. */
  rehearse(
    request: Pick<SaleRequest, 'token' | 'amount'>,
  ): Pick<Sale, 'id' | 'status' | 'reason' | 'fee' | 'card'> | null {
    const card = cardByName(this.tokens.get(request.token ?? ''));
    if (!card) return null;
    const status = statusFor(card.behaviour);
    return {
      id: 'rehearsal',
      status,
      reason: status === 'refused' ? reasonFor(card.behaviour) : null,
      fee: status === 'refused' ? 0 : feeOf(request.amount),
      card: { scheme: card.scheme, last4: card.number.slice(-4), expires: this.lastMonth(card) },
    };
  }

  /** What became of the sale with this key; an approval left undone for too long is refused. */
  ask(key: string): Sale | undefined {
    const sale = this.sales.get(key);
    if (sale?.status === 'approval' && this.now() - Date.parse(sale.at) > APPROVAL_LASTS_MS) {
      return this.keep({ ...sale, status: 'refused', reason: 'approval-lapsed', fee: 0 });
    }
    return sale && this.movedOn(sale);
  }

  /** A sale as time leaves it. */
  private movedOn(sale: Sale): Sale {
    const debit = debitAsOf(sale, this.now(), this.seeded);
    if (debit !== sale) return this.keep(debit);
    const dispute = disputeAsOf(sale, this.now(), this.seeded);
    return dispute === sale.dispute ? sale : this.keep({ ...sale, dispute });
  }

  /** The bank debits whose keys begin so. */
  debits(prefix: string): Sale[] {
    this.look();
    return this.book().filter(({ key, debit }) => debit && key.startsWith(prefix));
  }

  /**
   * The payer's bank decides now: a debit that is under way is paid, or with a code is not; one that is paid goes back. Null for what
   * cannot be decided (any more).
   */
  decideDebit(id: string, code: string): Sale | null {
    const sale = this.saleById(id);
    const now = this.now();
    if (sale?.status === 'collecting')
      return this.keep(collected(sale, new Date(now).toISOString(), code || undefined));
    const returned = sale && code ? returnedBy(sale, code, now, this.seeded) : null;
    return sale && returned ? this.keep({ ...sale, returned }) : null;
  }

  /** The holder asks for all that is left of a sale; null where that is nothing, or was asked for before. */
  openDispute(id: string, reason: string): Sale | null {
    const sale = this.saleById(id);
    const dispute = sale && !sale.debit && opened(sale, reason, this.now(), this.seeded);
    return dispute ? this.keep({ ...sale, dispute }) : null;
  }

  /** Time moves on for every sale that may still be disputed or decided. */
  look(): void {
    for (const key of [...this.watched]) this.ask(key);
  }

  /** The disputed sales whose keys begin so. */
  disputed(prefix: string): (Sale & { readonly dispute: Dispute })[] {
    this.look();
    return this.book().filter(
      (sale): sale is Sale & { readonly dispute: Dispute } => sale.dispute !== null && sale.key.startsWith(prefix),
    );
  }

  /** The merchant's answer, once; the sale as it stands then. Null for a dispute that never was, `late` where none is taken any more. */
  answerDispute(disputeId: string, kind: 'file' | 'accept', bytes: number): Sale | 'late' | null {
    this.look();
    const sale = this.book().find(({ dispute }) => dispute?.id === disputeId);
    if (!sale?.dispute) return null;
    const { answer } = sale.dispute;
    if (answer) return answer.kind === kind ? sale : 'late';
    if (sale.dispute.decided) return 'late';
    const at = new Date(this.now()).toISOString();
    return this.movedOn(this.keep({ ...sale, dispute: { ...sale.dispute, answer: { kind, at, bytes } } }));
  }

  /** The bank decides now. */
  decideDispute(disputeId: string, won: boolean): Sale | null {
    const sale = this.book().find(({ dispute }) => dispute?.id === disputeId);
    if (!sale?.dispute || sale.dispute.decided) return null;
    return this.keep({ ...sale, dispute: decided(sale.dispute, { won, by: 'decision', at: this.now() }) });
  }

  /** Makes sure that nothing comes of this key any more: what is not accepted yet never will be. */
  close(key: string): Sale {
    const sale = this.ask(key);
    if (sale && sale.status !== 'approval') return sale;
    return this.keep({
      id: `sale_${this.seeded.hex(`sale ${key}`, 20)}`,
      amount: 0,
      currency: '',
      reference: '',
      returnUrl: '',
      card: null,
      disputes: false,
      dispute: null,
      at: new Date(this.now()).toISOString(),
      ...sale,
      key,
      knownAt: Date.now(),
      status: 'refused',
      reason: sale ? 'approval-lapsed' : 'never-charged',
      fee: 0,
      refunds: [],
    });
  }

  saleById(id: string): Sale | undefined {
    return this.sales.get(this.keysById.get(id) ?? '');
  }

  /** The holder's answer at the bank. */
  approve(id: string, yes: boolean): Sale | undefined {
    const found = this.saleById(id);
    const sale = found && this.ask(found.key);
    if (sale?.status !== 'approval') return sale;
    return this.keep(
      yes ? { ...sale, status: 'accepted' } : { ...sale, status: 'refused', reason: 'approval-declined', fee: 0 },
    );
  }

  /** Takes back a whole sale before it is settled; null where it was not accepted or has refunds. */
  void(id: string): Sale | null {
    const sale = this.saleById(id);
    if (sale?.status === 'voided') return sale;
    if (sale?.status !== 'accepted' || sale.refunds.length > 0 || isTaken(sale) || sale.debit) return null;
    return this.keep({ ...sale, status: 'voided', fee: 0 });
  }

  /** Gives back part or all; the same refund key gives back once. Null where there is not that much left. */
  refund(id: string, key: string, amount: number): Sale | null {
    const sale = this.saleById(id);
    if (sale?.status !== 'accepted') return null;
    if (sale.refunds.some((refund) => refund.key === key)) return sale;
    if (isTaken(sale) || sale.returned) return null;
    const left = sale.amount - sale.refunds.reduce((sum, refund) => sum + refund.amount, 0);
    if (!Number.isSafeInteger(amount) || amount <= 0 || amount > left) return null;
    return this.keep({ ...sale, refunds: [...sale.refunds, { key, amount, at: new Date(this.now()).toISOString() }] });
  }

  /** Every sale, for reconciling. */
  book(): Sale[] {
    return [...this.sales.values()];
  }

  /** The sales of one merchant that were made or given back in a span (ISO instants, its end not included), and those with these keys. */
  bookOf(ask: { prefix: string; from: string; to: string; keys: readonly string[] }): Sale[] {
    const keys = new Set(ask.keys);
    const within = ({ at }: { at: string }) => at >= ask.from && at < ask.to;
    this.look();
    const moved = ({ dispute, returned }: Sale) =>
      [dispute, dispute?.decided, returned].some((one) => one && within(one));
    return this.book().filter(
      (sale) =>
        sale.key.startsWith(ask.prefix) &&
        (keys.has(sale.key) || within(sale) || sale.refunds.some(within) || moved(sale)),
    );
  }

  /** Sales whose last word the other side has not confirmed to have heard. */
  untold(): Sale[] {
    return this.book().filter((sale) => this.told.get(sale.key) !== news(sale));
  }

  /** The other side confirmed this sale's status. */
  markTold(sale: Sale): void {
    this.told.set(sale.key, news(sale));
    this.journal.append({ kind: 'told', key: sale.key, status: news(sale) });
  }

  private lastMonth(card: PretendCard, from = new Date(this.now())): string {
    if (card.behaviour === 'debit') return NO_END;
    const month = new Date(from);
    month.setUTCDate(1);
    if (card.behaviour !== 'ending') month.setUTCFullYear(month.getUTCFullYear() + 3);
    return month.toISOString().slice(0, 7);
  }

  private file(sale: Sale): void {
    this.sales.set(sale.key, sale);
    this.keysById.set(sale.id, sale.key);
    const isWatched =
      isOpenDebit(sale) || (sale.status === 'accepted' && (sale.dispute ? !sale.dispute.decided : sale.disputes));
    if (isWatched) this.watched.add(sale.key);
    else this.watched.delete(sale.key);
  }

  private keep(sale: Sale): Sale {
    this.file(sale);
    this.journal.append({ kind: 'sale', sale });
    this.changed(sale);
    return sale;
  }
}
