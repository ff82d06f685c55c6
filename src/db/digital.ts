import type { DigitalGoods, DigitalGrant } from '@/core/digital/grant';
import type { Db, Tx } from './pool';
import { many, records, run, sql } from './sql';

/** What items give once they are paid; an item without anything is left out. */
export const digitalGoods = (db: Db, itemIds: readonly string[]): Promise<(DigitalGoods & { itemId: string })[]> =>
  many(
    db,
    sql`select item_id as "itemId", file_id as "fileId", words, most_downloads as "mostDownloads", days from digital_goods
        where business_id = ${db.businessId} and item_id = any(${[...itemIds]}::uuid[])`,
  );

/** Keeps what an item gives; nothing where there is neither a file nor a text. */
export const keepDigitalGoods = (
  tx: Tx,
  itemId: string,
  { fileId, words, mostDownloads, days }: DigitalGoods,
): Promise<number> =>
  fileId || words
    ? run(
        tx,
        sql`insert into digital_goods (business_id, item_id, file_id, words, most_downloads, days)
            values (${tx.businessId}, ${itemId}, ${fileId}, ${words}, ${mostDownloads}, ${days})
            on conflict (business_id, item_id) do update set file_id = excluded.file_id, words = excluded.words,
              most_downloads = excluded.most_downloads, days = excluded.days`,
      )
    : run(tx, sql`delete from digital_goods where business_id = ${tx.businessId} and item_id = ${itemId}`);

/** Something that was given for a line of a sale. */
export type Grant = DigitalGrant & {
  readonly id: string;
  readonly handoverId: string;
  readonly line: number;
  readonly what: string;
  readonly fileId: string | null;
  readonly words: string;
};

/** Notes what was given, each line once; one that had ended is given again, with its limits anew. Returns how many are new or again. */
export const insertGrants = (tx: Tx, grants: readonly Omit<Grant, 'downloads' | 'endedAt'>[]): Promise<number> =>
  run(
    tx,
    sql`insert into digital_grants (business_id, id, handover_id, line, what, file_id, words, most_downloads, expires_at, made_at)
        select ${tx.businessId}, id, "handoverId", line, what, "fileId", words, "mostDownloads", "expiresAt", ${tx.now}
        from jsonb_to_recordset(${records(grants)}::jsonb) as given (id uuid, "handoverId" uuid, line smallint, what text, "fileId" uuid,
          words text, "mostDownloads" int, "expiresAt" timestamptz)
        on conflict (business_id, handover_id, line) do update set ended_at = null, expires_at = excluded.expires_at
        where digital_grants.ended_at is not null`,
  );

const COLUMNS = sql`g.id, g.handover_id as "handoverId", g.line, g.what, g.file_id as "fileId", g.words, g.downloads,
  g.most_downloads as "mostDownloads", g.expires_at as "expiresAt", g.ended_at as "endedAt"`;

/** What was given for a sale. @param saleId an invoice's or an order's */
export const grantsOfSale = (db: Db, saleId: string): Promise<Grant[]> =>
  many(
    db,
    sql`select ${COLUMNS} from digital_grants g join handovers h on h.business_id = g.business_id and h.id = g.handover_id
        where g.business_id = ${db.businessId} and (h.invoice_id = ${saleId} or h.order_id = ${saleId}) order by g.line`,
  );

/** Counts a download of something of a sale, if it can still be fetched; its file, or null where it cannot. */
export const countDownload = async (tx: Tx, saleId: string, id: string): Promise<string | null> =>
  (
    await many<{ fileId: string }>(
      tx,
      sql`update digital_grants g set downloads = g.downloads + 1 from handovers h
          where g.business_id = ${tx.businessId} and g.id = ${id} and h.business_id = g.business_id and h.id = g.handover_id
            and (h.invoice_id = ${saleId} or h.order_id = ${saleId}) and g.file_id is not null and g.ended_at is null
            and (g.expires_at is null or g.expires_at > ${tx.now}) and (g.most_downloads is null or g.downloads < g.most_downloads)
          returning g.file_id as "fileId"`,
    )
  )[0]?.fileId ?? null;

/** What was given for these lines, or for all of sales, can be fetched no more. @param lines null for all */
export const endGrants = (
  tx: Tx,
  handoverIds: readonly string[],
  lines: readonly number[] | null = null,
): Promise<number> =>
  run(
    tx,
    sql`update digital_grants set ended_at = ${tx.now} where business_id = ${tx.businessId} and ended_at is null
        and handover_id = any(${[...handoverIds]}::uuid[]) and (${lines === null} or line = any(${[...(lines ?? [])]}::int[]))`,
  );

/** Gives something once more: its downloads count from nought, until an instant. */
export const renewGrant = (tx: Tx, id: string, expiresAt: Date | null): Promise<number> =>
  run(
    tx,
    sql`update digital_grants set downloads = 0, expires_at = ${expiresAt}
        where business_id = ${tx.businessId} and id = ${id} and ended_at is null`,
  );
