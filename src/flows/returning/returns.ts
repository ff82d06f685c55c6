/** Goods that come back: asked for by the customer, allowed or refused, received and looked at, exchanged or given back. */

import { dateInZone } from '@/core/dates/zone';
import { unpackedQuantity } from '@/core/parcel/handover';
import {
  type HandedLine,
  isLookedAt,
  type LookedAt,
  type ReturnableLine,
  type ReturnReason,
  type ReturnState,
  returnable,
} from '@/core/parcel/returning';
import { countText, scaledCount } from '@/core/stock/available';
import { businessById } from '@/db/businesses';
import { collectionsOf } from '@/db/collections';
import { fileById } from '@/db/files';
import {
  addPacked,
  type Handover,
  handoversByIds,
  handoversOfSale,
  updateCounter,
  updateHandoverState,
} from '@/db/handovers';
import { deliverSettings } from '@/db/parcel-profiles';
import type { Db, Tx } from '@/db/pool';
import {
  insertReturn,
  openReturns,
  type Return,
  returnById,
  returnsOf,
  updateAnswered,
  updateClosed,
  updateReceived,
} from '@/db/returns';
import { parcelsOfSale, paymentOfSale } from '@/db/shipments';
import { holdStock } from '@/db/stock';
import { addToTimeline } from '@/db/timeline';
import { idFor } from '@/flows/door/id-for';
import { INVOICE_LINK, ORDER_LINK } from '@/flows/door/links';
import { byLink, desk, type Writing } from '@/flows/door/operation';
import { Refusal } from '@/flows/door/refusal';
import { found } from '@/flows/door/rights';
import { queueMessage } from '@/flows/message/queue-message';
import { bringBack, moveStock, noteSentAgain } from '@/flows/stock/move-stock';
import { reviseWaiting } from '@/flows/stock/wait-for-stock';
import { labelFor } from './return-label';

const MOST_OPEN = 100;
/** So many returns of one sale are open at once at most. */
const MOST_OF_SALE = 5;

/** What of sales came to the customer and when: parcels that were delivered, and what was fetched. */
async function cameOf(db: Db, handovers: readonly Handover[], saleId: string, zone: string): Promise<HandedLine[]> {
  const delivered = (await parcelsOfSale(db, saleId)).filter(({ state, endedAt }) => state === 'delivered' && endedAt);
  const fetched = await collectionsOf(
    db,
    handovers.map(({ id }) => id),
  );
  return handovers.flatMap(({ id, lines }) =>
    lines.map(({ line, what }) => ({
      line,
      what,
      came: [
        ...delivered.flatMap(({ lines: own, endedAt }) =>
          own
            .filter((one) => one.handoverId === id && one.line === line)
            .map(({ quantity }) => ({ on: dateInZone(endedAt ?? new Date(0), zone), quantity })),
        ),
        ...fetched.flatMap(({ handoverId, lines: own, at }) =>
          own
            .filter((one) => handoverId === id && one.line === line)
            .map(({ quantity }) => ({ on: dateInZone(at, zone), quantity })),
        ),
      ],
    })),
  );
}

/** What can be sent back of a sale, and what was asked back before. */
export type ReturnPage = {
  readonly lines: readonly ReturnableLine[];
  readonly returns: readonly {
    readonly id: string;
    readonly state: ReturnState;
    readonly answer: string;
    /** What they print: `form` is the label and what customs want to read of it. */
    readonly papers: 'none' | 'label' | 'form';
    readonly lines: readonly { readonly what: string; readonly quantity: string }[];
  }[];
};

async function pageOf(db: Db, saleId: string): Promise<ReturnPage> {
  const handovers = await handoversOfSale(db, saleId);
  if (handovers.length === 0) return { lines: [], returns: [] };
  const { zone } = await businessById(db);
  const { returnDays } = await deliverSettings(db);
  const before = await returnsOf(
    db,
    handovers.map(({ id }) => id),
  );
  const whats = new Map(handovers.flatMap(({ lines }) => lines.map(({ line, what }) => [line, what])));
  const came = await cameOf(db, handovers, saleId, zone);
  const isFull = before.filter(({ state }) => state === 'asked').length >= MOST_OF_SALE;
  return {
    lines: isFull ? [] : returnable(came, before, { days: returnDays, today: dateInZone(db.now, zone) }),
    returns: before.map(({ id, state, answer, label, lines }) => ({
      ...{ id, state, answer },
      papers: !label || state !== 'allowed' ? 'none' : label.customsForm ? 'form' : 'label',
      lines: lines.map(({ line, quantity }) => ({ what: whats.get(line) ?? '', quantity })),
    })),
  };
}

export const returnsByInvoice = byLink(INVOICE_LINK).read((db, invoiceId: string) => pageOf(db, invoiceId));
export const returnsByOrder = byLink(ORDER_LINK).read((db, orderId: string) => pageOf(db, orderId));

/** What a customer asks to send back. */
export type AskedBack = {
  readonly reason: ReturnReason;
  readonly words: string;
  readonly fileId: string | null;
  readonly lines: readonly { readonly line: number; readonly quantity: string }[];
};

const saleOf = ({ invoiceId, orderId }: Handover) => (invoiceId ? invoiceId : { orderId: found(orderId) });

async function ask(
  tx: Writing,
  saleId: string,
  pressKey: string,
  { reason, words, fileId, lines }: AskedBack,
): Promise<void> {
  const [sale] = await handoversOfSale(tx, saleId);
  if (!sale) throw new Refusal('nothing-to-return');
  await handoversByIds(tx, [sale.id], true);
  const id = idFor(`return ${saleId} ${pressKey}`);
  if (await returnById(tx, id)) return;
  const most = new Map((await pageOf(tx, saleId)).lines.map((one) => [one.line, scaledCount(one.most)]));
  const asked = lines.filter(({ quantity }) => scaledCount(quantity) > 0n);
  const isThere = asked.every(({ line, quantity }) => scaledCount(quantity) <= (most.get(line) ?? 0n));
  if (asked.length === 0 || !isThere || new Set(asked.map(({ line }) => line)).size < asked.length)
    throw new Refusal('nothing-to-return');
  if (fileId && found(await fileById(tx, fileId)).purpose !== 'answer') throw new Refusal('not-found');
  await insertReturn(tx, { id, handoverId: sale.id, reason, words, fileId, lines: asked });
  await addToTimeline(tx, saleOf(sale), { kind: 'return-asked', reason }, sale.recipient.name);
}

/** Asks to send goods of an invoice back. The press has a key: pressed twice it is asked once. @throws Refusal `nothing-to-return` */
export const askBackByInvoice = byLink(INVOICE_LINK).turn((tx, invoiceId: string, pressKey: string, asked: AskedBack) =>
  ask(tx, invoiceId, pressKey, asked),
);
/** The same of an order. @throws Refusal `nothing-to-return` */
export const askBackByOrder = byLink(ORDER_LINK).turn((tx, orderId: string, pressKey: string, asked: AskedBack) =>
  ask(tx, orderId, pressKey, asked),
);

/** A return as the desk has it. */
export type ReturnRow = Return & {
  readonly sale: Pick<Handover, 'number' | 'invoiceId' | 'orderId'>;
  readonly name: string;
  readonly whats: readonly string[];
  /** Whether it left in a parcel, so that a label can bring it back. */
  readonly wasPosted: boolean;
  readonly paymentId: string | null;
};

/** What is to be done about goods that come back, the oldest first. */
export const returnsDesk = desk('customers').read(
  async (db): Promise<readonly ReturnRow[]> => rowsOf(db, await openReturns(db, MOST_OPEN)),
);

/** Those that nobody has answered. */
export const returnsToAnswer = async (db: Db): Promise<ReturnRow[]> =>
  rowsOf(
    db,
    (await openReturns(db, MOST_OPEN)).filter(({ state }) => state === 'asked'),
  );

async function rowsOf(db: Db, returns: readonly Return[]): Promise<ReturnRow[]> {
  const sales = new Map(
    (await handoversByIds(db, [...new Set(returns.map(({ handoverId }) => handoverId))])).map((one) => [one.id, one]),
  );
  const rows: ReturnRow[] = [];
  for (const one of returns) {
    const sale = sales.get(one.handoverId);
    if (!sale) continue;
    const whats = new Map(sale.lines.map(({ line, what }) => [line, what]));
    rows.push({
      ...one,
      sale,
      name: sale.recipient.name,
      whats: one.lines.map(({ line }) => whats.get(line) ?? ''),
      wasPosted: one.lines.some(({ line }) => sale.lines.some((of) => of.line === line && of.handed === 'posted')),
      paymentId: await paymentOfSale(db, sale.invoiceId ?? sale.orderId ?? ''),
    });
  }
  return rows;
}

async function tellAnswer(tx: Tx, sale: Handover, id: string): Promise<void> {
  if (!sale.recipient.email) return;
  await queueMessage(tx, {
    kind: 'return-answered',
    key: `return:${id}`,
    toName: sale.recipient.name,
    toAddress: sale.recipient.email,
    customerId: sale.customerId,
    invoiceId: sale.invoiceId,
    orderId: sale.orderId,
  });
}

async function heldReturn(tx: Tx, id: string, state: ReturnState): Promise<{ one: Return; sale: Handover }> {
  const one = found(await returnById(tx, id, true));
  if (one.state !== state) throw new Refusal('return-moved-on');
  return { one, sale: found((await handoversByIds(tx, [one.handoverId]))[0]) };
}

/** Refuses a return, in words that the customer reads. @throws Refusal `return-moved-on`, `not-found` */
export const refuseReturn = desk('ask').turn(async (tx, id: string, answer: string): Promise<void> => {
  const { sale } = await heldReturn(tx, id, 'asked');
  await updateAnswered(tx, id, 'refused', answer, tx.name);
  await addToTimeline(tx, saleOf(sale), { kind: 'return-refused' }, tx.name);
  await tellAnswer(tx, sale, id);
});

/**
 * Allows a return, and buys the label that brings it back where one is wanted: first the label, so that the mail has it. Pressed again
 * after a lost answer, the same label is asked about under its key.
 *
 * @throws Refusal `return-moved-on`, `carrier-silent`, `no-return-label`, `balance-short`, `not-found`
 */
export const allowReturn = desk('ask').run(
  async (ctx, id: string, answer: string, withLabel: boolean): Promise<void> => {
    if (withLabel) await labelFor(ctx, id);
    const later = await ctx.later();
    await later.turn(async (tx) => {
      const { sale } = await heldReturn(tx, id, 'asked');
      await updateAnswered(tx, id, 'allowed', answer, tx.name);
      await addToTimeline(tx, saleOf(sale), { kind: 'return-allowed' }, tx.name);
      await tellAnswer(tx, sale, id);
    });
  },
);

const goodsOf = ({ lines }: Handover, looked: readonly { readonly line: number; readonly quantity: string }[]) =>
  looked.flatMap(({ line, quantity }) => {
    const of = lines.find((one) => one.line === line);
    return of?.itemId && scaledCount(quantity) > 0n ? [{ itemId: of.itemId, optionId: of.optionId, quantity }] : [];
  });

/** How much of each line came back, good or not. */
const cameBack = (looked: readonly LookedAt[]) =>
  looked.map(({ line, toStock, thrown }) => ({
    line,
    quantity: countText(scaledCount(toStock) + scaledCount(thrown)),
  }));

/** Holds the goods of a return before anything of it is held. @throws Refusal `not-found` */
async function holdGoods(tx: Writing, id: string): Promise<void> {
  const awaited = found(await returnById(tx, id));
  const [sale] = await handoversByIds(tx, [awaited.handoverId]);
  await holdStock(tx, sale ? goodsOf(sale, awaited.lines) : []);
}

/**
 * Takes in what came back: what is good lies in stock again, the rest is thrown away, which the log says too.
 *
 * @throws Refusal `return-moved-on`, `nothing-to-return` for more than was awaited, `not-found`
 */
export const receiveReturn = desk('pack').turn(async (tx, id: string, looked: readonly LookedAt[]): Promise<void> => {
  await holdGoods(tx, id);
  const { one, sale } = await heldReturn(tx, id, 'allowed');
  if (!isLookedAt(one.lines, looked)) throw new Refusal('nothing-to-return');
  await updateReceived(tx, id, looked, tx.name);
  const about = { invoiceId: sale.invoiceId, orderId: sale.orderId };
  const all = cameBack(looked);
  await bringBack(tx, goodsOf(sale, all), { why: 'Came back from the customer', ...about }, 'seen');
  await moveStock(
    tx,
    goodsOf(
      sale,
      looked.map(({ line, thrown }) => ({ line, quantity: thrown })),
    ).map((goods) => ({ ...goods, ...about, kind: 'thrown-away', why: 'Came back, and cannot be sold again' })),
  );
  await addToTimeline(tx, saleOf(sale), { kind: 'return-received' }, tx.name);
});

/** Sends the same goods again for what came back: they are taken from the stock and packed, or fetched, anew. @throws Refusal `return-moved-on`, `sale-dropped` */
export const exchangeReturn = desk('pack').turn(async (tx, id: string): Promise<void> => {
  await holdGoods(tx, id);
  const { one, sale } = await heldReturn(tx, id, 'received');
  if (sale.state === 'dropped') throw new Refusal('sale-dropped');
  const again = cameBack(one.lines);
  await moveStock(
    tx,
    goodsOf(sale, again).map((goods) => ({
      ...goods,
      kind: 'thrown-away',
      why: 'Sent again for what came back',
      invoiceId: sale.invoiceId,
      orderId: sale.orderId,
    })),
  );
  await noteSentAgain(tx, goodsOf(sale, again), sale);
  await addPacked(
    tx,
    again
      .filter(({ quantity }) => scaledCount(quantity) > 0n)
      .map(({ line, quantity }) => ({ handoverId: sale.id, line, quantity: `-${quantity}` })),
  );
  const after = found((await handoversByIds(tx, [sale.id], true))[0]);
  const isLeft = (handed: 'posted' | 'collected') =>
    after.lines.some((line) => line.handed === handed && unpackedQuantity(line) > 0n);
  if (isLeft('posted')) await updateHandoverState(tx, [sale.id], 'open');
  if (isLeft('collected')) await updateCounter(tx, [sale.id], 'open');
  await updateClosed(tx, id);
  await addToTimeline(tx, saleOf(sale), { kind: 'return-exchanged' }, tx.name);
  await reviseWaiting(tx, [...new Set(goodsOf(sale, again).map(({ itemId }) => itemId))]);
});

/** Nothing more is to be done about a return: the money was given back, or it never came. @throws Refusal `return-moved-on` */
export const closeReturn = desk('pack').turn(async (tx, id: string): Promise<void> => {
  found(await returnById(tx, id, true));
  if ((await updateClosed(tx, id)) === 0) throw new Refusal('return-moved-on');
});
