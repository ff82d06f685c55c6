import { randomUUID } from 'node:crypto';
import { ruleWords } from '@/core/bank/match/match';
import { ASIDE_TITLES, ASIDES, type Aside, type PartKind } from '@/core/bank/match/things';
import { dateInZone } from '@/core/dates/zone';
import { movedAtBank } from '@/core/ledger/movements';
import { money } from '@/core/money/money';
import { isUuid } from '@/core/uuid';
import {
  type BankLine,
  type BankMatch,
  insertMatches,
  isPressDone,
  keepRule,
  lockedLine,
  matchesOf,
  statementDayOf,
  undoMatches,
  updateLineState,
} from '@/db/bank-lines';
import { businessById } from '@/db/businesses';
import { invoiceById } from '@/db/invoices';
import { insertEntry } from '@/db/ledger';
import { paymentByAttempt, paymentById } from '@/db/payments';
import { payoutById } from '@/db/payouts';
import { refundById } from '@/db/refunds';
import { desk, type Writing } from '@/flows/door/operation';
import { Refusal } from '@/flows/door/refusal';
import { found } from '@/flows/door/rights';
import { receiveNow } from '@/flows/payment/receive-payment';
import { takeBackNow } from '@/flows/payment/take-back-received';

/** A part of a line for one thing, in minor units with the line's sign; the id of an aside says what it is. */
export type TakenPart = { readonly kind: PartKind; readonly id: string; readonly minor: bigint };

/** What a line is for. */
export type Take = {
  readonly parts: readonly TakenPart[];
  /** What becomes of what is left: the last invoice's customer keeps it as credit, or the line stays open with it. */
  readonly rest: 'credit' | 'open';
  /** What an aside was, in words. */
  readonly note: string;
  /** From now on always so. */
  readonly always: boolean;
  /** Made by the screen: the same press is one match. */
  readonly press: string;
};

type Made = Omit<BankMatch, 'byName' | 'madeAt'>;

/** Takes a match within a transaction. @throws Refusal `line-matched`, `match-too-much`, `match-nothing`, `match-taken`, and what receiving refuses */
export async function takeNow(tx: Writing, lineId: string, take: Take): Promise<void> {
  if (await isPressDone(tx, take.press)) return;
  const line = found(await lockedLine(tx, lineId));
  if (line.state === 'matched') throw new Refusal('line-matched');
  const before = (await matchesOf(tx, [lineId])).reduce((sum, { amount }) => sum + amount, 0n);
  const open = line.amount - before;
  const sign = line.amount < 0n ? -1n : 1n;
  const sum = take.parts.reduce((all, { minor }) => all + minor, 0n);
  if (take.parts.length === 0) throw new Refusal('match-nothing');
  // What the bank kept for itself of what came in goes the other way.
  const isKept = ({ kind, id, minor }: TakenPart): boolean => kind === 'aside' && id === 'charge' && minor < 0n;
  if (take.parts.some((part) => part.minor * sign <= 0n && !(sign > 0n && isKept(part))))
    throw new Refusal('match-nothing');
  if (sum * sign <= 0n) throw new Refusal('match-nothing');
  if (take.parts.some(({ kind, id }) => kind !== 'aside' && !isUuid(id))) throw new Refusal('match-nothing');
  if (sum * sign > open * sign) throw new Refusal('match-too-much');
  const rest = open - sum;
  const lastInvoice = take.parts.findLastIndex(({ kind }) => kind === 'invoice');
  const keepsRest = take.rest === 'credit' && rest > 0n && lastInvoice >= 0;
  const made: Made[] = [];
  for (const [at, part] of take.parts.entries()) {
    const over = keepsRest && at === lastInvoice ? rest : 0n;
    made.push(await takePart(tx, line, { ...part, minor: part.minor + over }, take, over > 0n));
  }
  await insertMatches(tx, made, tx.name);
  const left = keepsRest ? 0n : rest;
  await updateLineState(tx, lineId, left === 0n ? 'matched' : 'open');
  if (take.always) await always(tx, line, take);
}

async function takePart(
  tx: Writing,
  line: BankLine,
  part: TakenPart,
  { press, note }: Take,
  more: boolean,
): Promise<Made> {
  const match = {
    id: randomUUID(),
    lineId: line.id,
    kind: part.kind,
    aside: null,
    words: '',
    amount: part.minor,
    invoiceId: null,
    paymentId: null,
    payoutId: null,
    refundId: null,
    press,
  };
  switch (part.kind) {
    case 'invoice': {
      const key = randomUUID();
      const invoice = found(await invoiceById(tx, part.id));
      if (invoice.currency !== line.currency) throw new Refusal('match-taken');
      await receiveNow(tx, part.id, {
        amountMinor: part.minor,
        method: 'transfer',
        reference: line.reference || line.endToEnd,
        receivedOn: line.day,
        requestKey: key,
        more,
      });
      const payment = found(await paymentByAttempt(tx, part.id, key));
      return { ...match, words: `Invoice ${invoice.number}`, invoiceId: part.id, paymentId: payment.id };
    }
    case 'payment': {
      const payment = found(await paymentById(tx, part.id));
      const { method, state, currency } = payment;
      const isOpen =
        state === 'paid' && currency === line.currency && (await statementDayOf(tx, { paymentId: part.id })) === null;
      if (!isOpen || (method !== 'transfer' && method !== 'cheque' && method !== 'cash'))
        throw new Refusal('match-taken');
      // A transfer was booked at the bank when it was written down; a cheque and cash come there now.
      if (method !== 'transfer') await book(tx, line, match.id, part.minor, method);
      const invoice = payment.invoiceId ? await invoiceById(tx, payment.invoiceId) : null;
      return { ...match, words: `Payment of invoice ${invoice?.number ?? ''}`, paymentId: part.id };
    }
    case 'payout': {
      const payout = found(await payoutById(tx, part.id));
      const isOpen = payout.partnerId === null && (await statementDayOf(tx, { payoutId: part.id })) === null;
      if (!isOpen || payout.amountMinor !== part.minor || payout.currency !== line.currency)
        throw new Refusal('match-taken');
      return { ...match, words: `Payout ${payout.number}`, payoutId: part.id };
    }
    case 'refund': {
      const refund = found(await refundById(tx, part.id));
      if (refund.method !== 'transfer' || refund.state !== 'done' || refund.amountMinor !== -part.minor)
        throw new Refusal('match-taken');
      return { ...match, words: 'Refund', refundId: part.id };
    }
    case 'aside': {
      const aside = asideOf(part.id);
      await book(tx, line, match.id, part.minor, aside);
      return { ...match, aside, words: note || ASIDE_TITLES[aside] };
    }
  }
}

function asideOf(id: string): Aside {
  const aside = ASIDES.find((one) => one === id);
  if (!aside) throw new Refusal('match-nothing');
  return aside;
}

/** Books what was not at the bank in the books yet. */
async function book(
  tx: Writing,
  line: BankLine,
  matchId: string,
  minor: bigint,
  what: Aside | 'cheque',
): Promise<void> {
  await insertEntry(
    tx,
    movedAtBank(line.day, line.name || line.text || 'At the bank', money(minor, line.currency), what),
    { id: randomUUID(), cause: `bank:${matchId}`, invoiceId: null, paymentId: null },
  );
}

async function always(tx: Writing, line: BankLine, { parts, note }: Take): Promise<void> {
  const [first] = parts;
  const invoice = first?.kind === 'invoice' ? await invoiceById(tx, first.id) : null;
  const aside = first?.kind === 'aside' ? asideOf(first.id) : null;
  const words = line.otherAccount ? '' : ruleWords(line);
  if ((!invoice?.customerId && !aside) || (!words && !line.otherAccount)) return;
  await keepRule(
    tx,
    {
      id: randomUUID(),
      words,
      account: line.otherAccount,
      isIn: line.amount > 0n,
      customerId: aside ? null : (invoice?.customerId ?? null),
      aside,
      note: aside ? note || ASIDE_TITLES[aside] : (invoice?.printed?.payer.name ?? ''),
    },
    tx.name,
  );
}

/** Says what a line is for: of one thing or several, in part, with more than is due. The same press twice is one. */
export const takeMatch = desk('take').turn(takeNow);

/**
 * Takes back the last match of a line: invoices owe again, what was booked is booked back, and the line waits again.
 *
 * @throws Refusal `match-nothing` where nothing is matched, `payment-not-by-hand` where it was refunded since
 */
export const undoMatch = desk('take').turn(async (tx, lineId: string): Promise<void> => {
  const line = found(await lockedLine(tx, lineId));
  const matches = await matchesOf(tx, [lineId]);
  const press = matches.at(-1)?.press;
  const own = matches.filter((one) => one.press === press);
  if (own.length === 0) throw new Refusal('match-nothing');
  await undoMatches(
    tx,
    own.map(({ id }) => id),
  );
  const { zone } = await businessById(tx);
  for (const { id, kind, aside, amount, paymentId } of own) {
    if (kind === 'invoice' && paymentId)
      await takeBackNow(tx, paymentId, { reason: 'Matched with another line of the bank', tell: false });
    const payment = kind === 'payment' && paymentId ? await paymentById(tx, paymentId) : null;
    const what = aside ?? (payment?.method === 'cheque' || payment?.method === 'cash' ? payment.method : null);
    if (what)
      await insertEntry(
        tx,
        movedAtBank(dateInZone(tx.now, zone), 'Match taken back', money(-amount, line.currency), what),
        { id: randomUUID(), cause: `bank-undone:${id}`, invoiceId: null, paymentId: null },
      );
  }
  await updateLineState(tx, lineId, 'open');
});

/** Leaves a line for later, or takes it up again. @throws Refusal `line-matched`, `not-found` */
export const leaveLine = desk('take').turn(async (tx, lineId: string, later: boolean): Promise<void> => {
  const line = found(await lockedLine(tx, lineId));
  if (line.state === 'matched') throw new Refusal('line-matched');
  await updateLineState(tx, lineId, later ? 'later' : 'open');
});
