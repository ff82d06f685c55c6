/** What stock is kept of, how much to order, and its log. */
import type { Business } from '@/core/business/business';
import { mayDo } from '@/core/person/rights';
import { available } from '@/core/stock/available';
import { stockWorth } from '@/core/stock/movement';
import { SALES_DAYS, toOrder } from '@/core/stock/order';
import { onShelf } from '@/core/stock/shelf';
import { businessById } from '@/db/businesses';
import type { Db } from '@/db/pool';
import {
  type MovementRow,
  movementRows,
  type StockAsked,
  type StockCursor,
  type StockRow,
  type StockThing,
  stockRows,
} from '@/db/stock';
import { stockCsv } from '@/documents/csv/stock';
import { desk } from '@/flows/door/operation';
import { found } from '@/flows/door/rights';
import { noteExport } from '@/flows/log/log';

const PAGE = 60;
const LOG_PAGE = 60;
const DAY_MS = 86_400_000;
/** So many different things are counted or received at once. */
export const MOST_LINES = 500;

/** A row of the list: with what can still be promised, what a hand finds on the shelf, and how much to order; decimals. */
export type StockLine = Omit<StockRow, 'averageCost' | 'sold'> & {
  readonly onHand: string;
  readonly available: string;
  readonly lies: string;
  readonly order: string;
};

const lineOf = ({ averageCost: _, sold, ...row }: StockRow): StockLine => {
  const onHand = row.onHand ?? '0';
  const free = available(onHand, row.promised);
  return {
    ...row,
    onHand,
    available: free,
    lies: onShelf(onHand, row),
    order: toOrder({ available: free, lowAt: row.lowAt, sold }),
  };
};

const rowsOf = (db: Db, asked: StockAsked, limit: number, after: StockCursor | null = null) =>
  stockRows(db, asked, { soldSince: new Date(db.now.getTime() - SALES_DAYS * DAY_MS), limit, after });

export type StockPage = { readonly rows: readonly StockLine[]; readonly next: StockCursor | null };

/** A page of what stock is kept of, by name. @param asked by words, or only what has to be ordered */
export const stockPage = desk('customers').read(
  async (db, asked: Pick<StockAsked, 'words' | 'lowOnly'>, after: StockCursor | null): Promise<StockPage> => {
    const rows = await rowsOf(db, asked, PAGE + 1, after);
    const shown = rows.slice(0, PAGE);
    const last = shown.at(-1);
    return {
      rows: shown.map(lineOf),
      next:
        rows.length > PAGE && last ? { key: last.name.toLowerCase(), itemId: last.itemId, place: last.place } : null,
    };
  },
);

/** All that is counted, for a count by list; at most `MOST_LINES`. */
export const countList = desk('pack').read(
  async (db, words: string): Promise<StockLine[]> => (await rowsOf(db, { words }, MOST_LINES)).map(lineOf),
);

/** Things by the codes that are written or scanned for them, in any case; a code of nothing that is kept is absent. */
export const stockByCode = desk('pack').read(async (db, codes: readonly string[]): Promise<StockLine[]> => {
  const wanted = codes.map((code) => code.trim().toLowerCase()).filter(Boolean);
  const rows = wanted.length > 0 ? await rowsOf(db, { codes: wanted }, MOST_LINES) : [];
  return rows.filter(({ code }) => wanted.includes(code.toLowerCase())).map(lineOf);
});

/** What has to be ordered, by name. */
export const stockToOrder = (db: Db, limit: number): Promise<StockLine[]> =>
  rowsOf(db, { lowOnly: true }, limit).then((rows) => rows.map(lineOf));

/** What one of a thing cost on average, and what all that lies there is worth in minor units of the business's currency. */
export type StockCost = { readonly average: string; readonly worthMinor: bigint | null };
/** By the id of the option, else of the item. */
export type StockCosts = Readonly<Record<string, StockCost>>;

const costsOf = (rows: readonly StockRow[], { currency }: Business): StockCosts =>
  Object.fromEntries(
    rows.map((row) => [
      row.optionId ?? row.itemId,
      { average: row.averageCost, worthMinor: stockWorth(row, currency) },
    ]),
  );

/** The costs of these, by the id of the option, else of the item. */
export const stockCosts = desk('see').read(
  async (db, things: readonly StockThing[]): Promise<StockCosts> =>
    things.length === 0 ? {} : costsOf(await rowsOf(db, { things }, MOST_LINES), await businessById(db)),
);

/** What all that lies there is worth, and of how many things no cost is known; of at most `MOST_VALUED` things. */
export type StockWorth = { readonly minor: bigint; readonly unknown: number };

const MOST_VALUED = 10_000;

export const allStockWorth = desk('see').read(async (db): Promise<StockWorth> => {
  const { currency } = await businessById(db);
  const worths = (await rowsOf(db, {}, MOST_VALUED)).map((row) => stockWorth(row, currency));
  return {
    minor: worths.reduce<bigint>((sum, worth) => sum + (worth ?? 0n), 0n),
    unknown: worths.filter((worth) => worth === null).length,
  };
});

export type { MovementRow };

export type StockSheet = {
  readonly line: StockLine;
  readonly log: readonly MovementRow[];
  /** The place below which the log goes on; null where that is all. */
  readonly next: number | null;
};

/** A thing with its log, without costs. @throws Refusal `not-found` where no stock is kept of it */
export const stockSheet = desk('customers').read(
  async (db, thing: StockThing, before: number | null = null): Promise<StockSheet> => {
    const row = found((await rowsOf(db, { things: [thing] }, 1))[0]);
    const log = await movementRows(db, thing, LOG_PAGE + 1, before);
    const shown = log.slice(0, LOG_PAGE);
    return {
      line: lineOf(row),
      log: shown.map((one) => ({ ...one, cost: '', averageAfter: '' })),
      next: log.length > LOG_PAGE ? (shown.at(-1)?.n ?? null) : null,
    };
  },
);

/** What things cost as they were received, and on average after that, by the id of the movement. */
export const movementCosts = desk('see').read(
  async (
    db,
    thing: StockThing,
    before: number | null = null,
  ): Promise<Readonly<Record<string, Pick<MovementRow, 'cost' | 'averageAfter'>>>> =>
    Object.fromEntries(
      (await movementRows(db, thing, LOG_PAGE, before)).map(({ id, cost, averageAfter }) => [
        id,
        { cost, averageAfter },
      ]),
    ),
);

/** All that is kept, as CSV in the columns that receiving and counting know; costs and worth come along where they may be seen. */
export const stockFile = desk('pack').run(async (ctx): Promise<{ name: string; text: string }> => {
  const { rows, business } = await ctx.read(async (db) => ({
    rows: await rowsOf(db, {}, MOST_VALUED),
    business: await businessById(db),
  }));
  await ctx.keep((tx) => noteExport(tx, 'The stock', ''));
  const costs = mayDo(ctx.actor, 'see') ? costsOf(rows, business) : null;
  return { name: 'stock.csv', text: stockCsv(rows.map(lineOf), costs, business.currency) };
});
