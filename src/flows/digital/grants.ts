/** What is given as a file or a text once it is paid: on the page of the sale and by mail, within its limits. */
import { randomUUID } from 'node:crypto';
import { type DigitalGoods, type GrantState, grantState, limitsOf } from '@/core/digital/grant';
import { type GivenShown, shownGiven } from '@/core/digital/shown';
import { businessById } from '@/db/businesses';
import {
  countDownload,
  digitalGoods,
  type Grant,
  grantsOfSale,
  insertGrants,
  keepDigitalGoods,
  renewGrant,
} from '@/db/digital';
import { fileById, fileBytes } from '@/db/files';
import { handoversOfSales } from '@/db/handovers';
import { itemsById } from '@/db/items';
import type { Db, Tx } from '@/db/pool';
import { addToTimeline } from '@/db/timeline';
import { INVOICE_LINK, ORDER_LINK } from '@/flows/door/links';
import { byLink, type Context, desk } from '@/flows/door/operation';
import { Refusal } from '@/flows/door/refusal';
import { found } from '@/flows/door/rights';
import type { File } from '@/flows/file/kept-files';
import { queueMessage } from '@/flows/message/queue-message';

/** What an item gives once it is paid; null where it gives nothing. `fileName` is empty without a file. */
export type ItemDigital = DigitalGoods & { readonly fileName: string };

export const itemDigital = desk('see').read(async (db, itemId: string): Promise<ItemDigital | null> => {
  const [goods] = await digitalGoods(db, [itemId]);
  if (!goods) return null;
  const file = goods.fileId ? await fileById(db, goods.fileId) : null;
  return { ...goods, fileName: file?.name ?? '' };
});

/** Keeps what an item gives. What was given already stays as it was. @throws Refusal `not-found` */
export const keepItemDigital = desk('records').write(async (tx, itemId: string, goods: DigitalGoods): Promise<void> => {
  found((await itemsById(tx, [itemId]))[0]);
  if (goods.fileId && found(await fileById(tx, goods.fileId)).purpose !== 'digital') throw new Refusal('not-found');
  await keepDigitalGoods(tx, itemId, goods);
});

/**
 * Gives what paid sales hold that is digital, each line once, and tells whoever bought it. Given again where it had ended, since it is
 * paid after all.
 *
 * @param saleIds of invoices or orders
 */
export async function grantDigital(tx: Tx, saleIds: readonly string[]): Promise<void> {
  const sales = (await handoversOfSales(tx, saleIds)).filter(({ lines }) =>
    lines.some(({ handed }) => handed === 'digital'),
  );
  if (sales.length === 0) return;
  const lines = sales.flatMap((sale) =>
    sale.lines
      .filter(({ handed, quantity, dropped }) => handed === 'digital' && dropped !== quantity)
      .map((line) => ({ sale, line })),
  );
  const goods = new Map(
    (await digitalGoods(tx, [...new Set(lines.flatMap(({ line }) => line.itemId ?? []))])).map((one) => [
      one.itemId,
      one,
    ]),
  );
  for (const sale of sales) {
    const own = lines.filter((one) => one.sale === sale);
    const fresh = await insertGrants(
      tx,
      own.flatMap(({ line: { line, what, itemId, quantity } }) => {
        const gives = goods.get(itemId ?? '');
        return gives
          ? [
              {
                ...{ id: randomUUID(), handoverId: sale.id, line, what, fileId: gives.fileId, words: gives.words },
                ...limitsOf(gives, quantity, tx.now),
              },
            ]
          : [];
      }),
    );
    if (fresh > 0 && sale.recipient.email)
      await queueMessage(tx, {
        kind: 'digital-ready',
        key: `digital:${sale.id}`,
        toName: sale.recipient.name,
        toAddress: sale.recipient.email,
        customerId: sale.customerId,
        invoiceId: sale.invoiceId,
        orderId: sale.orderId,
      });
  }
}

/** Something that was given, as its page shows it; `file` is its name, empty without one. */
export type GivenThing = Pick<Grant, 'id' | 'what' | 'words' | 'downloads' | 'mostDownloads' | 'expiresAt'> & {
  readonly state: GrantState;
  readonly file: string;
};

/** What was given for a sale, as it stands now; what ended with its sale is left out. */
export async function givenThings(db: Db, saleId: string): Promise<GivenThing[]> {
  const grants = (await grantsOfSale(db, saleId)).filter(({ endedAt }) => endedAt === null);
  const things: GivenThing[] = [];
  for (const grant of grants)
    things.push({
      ...grant,
      state: grantState(grant, db.now),
      // A text is read while it is given; what is over is over for both.
      words: grantState(grant, db.now) === 'over' ? '' : grant.words,
      file: grant.fileId ? ((await fileById(db, grant.fileId))?.name ?? '') : '',
    });
  return things;
}

async function shownThings(db: Db, saleId: string, locale: string): Promise<GivenShown[]> {
  const things = await givenThings(db, saleId);
  if (things.length === 0) return [];
  const { zone } = await businessById(db);
  return things.map((thing) => shownGiven(thing, locale, zone));
}

/** The things of an invoice, by its link. @param locale the reader's */
export const thingsByInvoice = byLink(INVOICE_LINK).read((db, invoiceId: string, locale: string) =>
  shownThings(db, invoiceId, locale),
);
/** The things of an order, by its link. @param locale the reader's */
export const thingsByOrder = byLink(ORDER_LINK).read((db, orderId: string, locale: string) =>
  shownThings(db, orderId, locale),
);
/** The same at the desk. */
export const thingsOfSale = desk('see').read((db, saleId: string, locale: string) => shownThings(db, saleId, locale));

/** Counts a download and hands the file out. @throws Refusal `download-over` */
async function download(
  ctx: Context,
  sale: { readonly invoiceId: string } | { readonly orderId: string },
  grantId: string,
): Promise<File> {
  const saleId = 'invoiceId' in sale ? sale.invoiceId : sale.orderId;
  const fileId = await ctx.write(async (tx) => {
    const counted = await countDownload(tx, saleId, grantId);
    const grant = counted && (await grantsOfSale(tx, saleId)).find(({ id }) => id === grantId);
    const of = 'invoiceId' in sale ? sale.invoiceId : sale;
    if (grant) await addToTimeline(tx, of, { kind: 'downloaded', thing: grant.what }, tx.name);
    return counted;
  });
  const file = fileId ? await ctx.read((db) => fileBytes(db, fileId)) : null;
  if (!file) throw new Refusal('download-over');
  return { name: file.name, type: file.type, bytes: file.bytes };
}

/** Fetches something of an invoice, by its link. */
export const fetchByInvoice = byLink(INVOICE_LINK).run((ctx, invoiceId: string, grantId: string) =>
  download(ctx, { invoiceId }, grantId),
);
/** Fetches something of an order, by its link. */
export const fetchByOrder = byLink(ORDER_LINK).run((ctx, orderId: string, grantId: string) =>
  download(ctx, { orderId }, grantId),
);

/** Gives something once more: its downloads count from nought, and its days from now. @throws Refusal `not-found` */
export const giveAgain = desk('ask').write(async (tx, saleId: string, grantId: string): Promise<void> => {
  const grant = found((await grantsOfSale(tx, saleId)).find(({ id, endedAt }) => id === grantId && endedAt === null));
  const [sale] = (await handoversOfSales(tx, [saleId])).filter(({ id }) => id === grant.handoverId);
  const itemId = sale?.lines.find(({ line }) => line === grant.line)?.itemId ?? '';
  const [goods] = itemId ? await digitalGoods(tx, [itemId]) : [];
  const { expiresAt } = limitsOf({ mostDownloads: null, days: goods?.days ?? null }, '1', tx.now);
  await renewGrant(tx, grantId, expiresAt);
});
