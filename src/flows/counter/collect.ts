/** What is fetched at the counter: what waits there, and handing it over against a name and a hand. */
import { isNameGiven } from '@/core/parcel/collect';
import { unpackedQuantity } from '@/core/parcel/handover';
import { STROKES } from '@/core/parcel/signature';
import { countText, scaledCount } from '@/core/stock/available';
import {
  atCounter,
  type CollectedLine,
  type Collection,
  collectionsOf,
  fetchedLately,
  insertCollection,
} from '@/db/collections';
import { addPacked, type Handover, handoversByIds, updateCounter } from '@/db/handovers';
import { whenQueued } from '@/db/messages';
import type { Db } from '@/db/pool';
import { addToTimeline } from '@/db/timeline';
import { idFor } from '@/flows/door/id-for';
import { desk } from '@/flows/door/operation';
import { Refusal } from '@/flows/door/refusal';
import { found } from '@/flows/door/rights';
import { queueMessages } from '@/flows/message/queue-message';

const MOST = 100;
const LATELY = 20;

/** A line that waits at the counter; `left` a decimal. */
export type CounterLine = { readonly line: number; readonly what: string; readonly left: string };

/** A sale of which something waits at the counter. */
export type CounterRow = Pick<Handover, 'id' | 'number' | 'invoiceId' | 'orderId' | 'wish' | 'readyAt'> & {
  readonly name: string;
  readonly phone: string;
  readonly lines: readonly CounterLine[];
  readonly email: string;
  /** When they were told that it is ready, as it lies there now; null where they were not. */
  readonly toldAt: Date | null;
};

/** What of a sale lies at the counter still. */
export const leftAtCounter = ({ lines }: Handover): CounterLine[] =>
  lines.flatMap((line) => {
    const left = unpackedQuantity(line);
    return line.handed === 'collected' && left > 0n
      ? [{ line: line.line, what: line.what, left: countText(left) }]
      : [];
  });

export type CounterDesk = {
  readonly rows: readonly CounterRow[];
  readonly lately: Awaited<ReturnType<typeof fetchedLately>>;
};

/** What waits to be fetched, the oldest first, and what was fetched lately. @param words of names and numbers */
export const counterDesk = desk('customers').read(async (db, words: string): Promise<CounterDesk> => {
  const ids = await atCounter(db, words.trim().toLowerCase(), MOST);
  const sales = new Map((await handoversByIds(db, ids)).map((sale) => [sale.id, sale]));
  const keys = await readyKeys(db, ids);
  const told = await whenQueued(db, [...keys.values()]);
  return {
    rows: ids.flatMap((id) => {
      const sale = sales.get(id);
      if (!sale) return [];
      const { number, invoiceId, orderId, wish, readyAt, recipient } = sale;
      const { name, phone, email } = recipient;
      const toldAt = told.get(keys.get(id) ?? '') ?? null;
      return [
        { id, number, invoiceId, orderId, wish, readyAt, name, phone, email, toldAt, lines: leftAtCounter(sale) },
      ];
    }),
    lately: await fetchedLately(db, LATELY),
  };
});

/** The key under which somebody is told that it is ready: once for what lies there until some of it is fetched. */
async function readyKeys(db: Db, handoverIds: readonly string[]): Promise<Map<string, string>> {
  const fetched = await collectionsOf(db, handoverIds);
  return new Map(
    handoverIds.map((id) => [id, `counter:${id}:${fetched.filter(({ handoverId }) => handoverId === id).length}`]),
  );
}

/** Tells whoever waits that it can be fetched; who has no address, or was told, is left out. Returns how many were told. */
export const tellReady = desk('pack').turn(async (tx, handoverIds: readonly string[]): Promise<number> => {
  const sales = (await handoversByIds(tx, handoverIds)).filter(
    (sale) => sale.counter === 'open' && sale.recipient.email && leftAtCounter(sale).length > 0,
  );
  const keys = await readyKeys(
    tx,
    sales.map(({ id }) => id),
  );
  return queueMessages(
    tx,
    sales.map(({ id, recipient, customerId, invoiceId, orderId }) => ({
      ...{ kind: 'counter-ready' as const, key: keys.get(id) ?? id, customerId, invoiceId, orderId },
      toName: recipient.name,
      toAddress: recipient.email,
    })),
  );
});

/** Who fetches what: their name, their hand as a path (empty where nobody signs), and how much of which lines. */
export type Fetched = {
  readonly name: string;
  readonly strokes: string;
  readonly lines: readonly CollectedLine[];
};

/**
 * Hands something over. The press has a key: pressed twice it is handed over once.
 *
 * @throws Refusal `nothing-to-fetch` for more than waits there, `name-missing`, `not-found`
 */
export const handOverAtCounter = desk('pack').turn(
  async (tx, pressKey: string, handoverId: string, { name, strokes, lines }: Fetched): Promise<void> => {
    if (!isNameGiven(name)) throw new Refusal('name-missing');
    const sale = found((await handoversByIds(tx, [handoverId], true))[0]);
    const id = idFor(`collection ${pressKey}`);
    if ((await collectionsOf(tx, [handoverId])).some((one) => one.id === id)) return;
    const left = new Map(leftAtCounter(sale).map((line) => [line.line, scaledCount(line.left)]));
    const asked = lines.filter(({ quantity }) => scaledCount(quantity) > 0n);
    const isThere = asked.every(({ line, quantity }) => scaledCount(quantity) <= (left.get(line) ?? 0n));
    if (
      sale.counter !== 'open' ||
      asked.length === 0 ||
      !isThere ||
      new Set(asked.map(({ line }) => line)).size < asked.length
    )
      throw new Refusal('nothing-to-fetch');
    await insertCollection(tx, {
      ...{ id, handoverId, byName: tx.name, name: name.trim(), lines: asked },
      strokes: STROKES.test(strokes) ? strokes : '',
    });
    await addPacked(
      tx,
      asked.map(({ line, quantity }) => ({ handoverId, line, quantity })),
    );
    const after = found((await handoversByIds(tx, [handoverId]))[0]);
    if (leftAtCounter(after).length === 0) await updateCounter(tx, [handoverId], 'done');
    const of = sale.invoiceId ? sale.invoiceId : { orderId: found(sale.orderId) };
    await addToTimeline(tx, of, { kind: 'collected', name: name.trim() }, tx.name);
  },
);

/** What of a sale was fetched, by whom and when. */
export const fetchedOf = (
  db: Parameters<typeof collectionsOf>[0],
  handovers: readonly Handover[],
): Promise<Collection[]> =>
  collectionsOf(
    db,
    handovers.map(({ id }) => id),
  );
