/** What people at the desk hear of: one row for each person and each line of a timeline that they want to hear of. */
import { NEWS_DAYS, newsKindOf, newsMailedFrom, type QuietHours, type WantedNews } from '@/core/news/news';
import { type Holds, mayDo } from '@/core/person/rights';
import type { TimelineEvent } from '@/core/timeline/timeline';
import { businessById } from './businesses';
import type { Db, Tx } from './pool';
import { many, maybeOne, one, records, run, sql } from './sql';

/** Of what somebody wants to hear, and when not. */
export type NewsSettings = QuietHours & { readonly wanted: WantedNews };

type Listener = NewsSettings & Holds & { readonly id: string };

/** News name customers and sums: whoever does not see both hears of nothing. */
const mayHear = (holds: Holds): boolean => mayDo(holds, 'see');

const LISTENER = sql`id, role, extra, notices as wanted, to_char(quiet_from, 'HH24:MI') as "quietFrom", to_char(quiet_to, 'HH24:MI') as "quietTo"`;

/** Null for nobody who works here, or may not see what news tell of. */
export async function newsSettings(db: Db, personId: string): Promise<NewsSettings | null> {
  const row = await maybeOne<Listener>(
    db,
    sql`select ${LISTENER} from people where business_id = ${db.businessId} and id = ${personId} and left_at is null`,
  );
  return row && mayHear(row) ? { wanted: row.wanted, quietFrom: row.quietFrom, quietTo: row.quietTo } : null;
}

export const updateNewsSettings = (tx: Tx, personId: string, settings: NewsSettings): Promise<number> =>
  run(
    tx,
    sql`update people set notices = ${JSON.stringify(settings.wanted)}, quiet_from = ${settings.quietFrom}, quiet_to = ${settings.quietTo}
        where business_id = ${tx.businessId} and id = ${personId}`,
  );

/** Writes down who hears of lines that were just added; whoever did it themselves does not. With nobody who wants to, nothing is written. */
export async function tellPeople(
  tx: Tx,
  lines: readonly { readonly lineId: bigint; readonly event: Pick<TimelineEvent, 'kind'> }[],
): Promise<void> {
  const told = lines.flatMap(({ lineId, event }) => {
    const kind = newsKindOf(event);
    return kind ? [{ lineId, kind }] : [];
  });
  if (told.length === 0) return;
  const wanting = await many<Listener>(
    tx,
    sql`select ${LISTENER} from people
        where business_id = ${tx.businessId} and notices <> '{}' and left_at is null and id::text <> ${tx.personId ?? ''}`,
  );
  const listeners = wanting.filter(mayHear);
  if (listeners.length === 0) return;
  const { zone } = await businessById(tx);
  const rows = listeners.flatMap(({ id, wanted, ...quiet }) =>
    told.flatMap(({ lineId, kind }) => {
      const ways = wanted[kind] ?? [];
      const mailAt = ways.includes('mail') ? newsMailedFrom(tx.now, quiet, zone) : null;
      return ways.length === 0 ? [] : [{ personId: id, lineId, mailAt, inBrowser: ways.includes('browser') }];
    }),
  );
  if (rows.length === 0) return;
  await run(
    tx,
    sql`insert into news (business_id, person_id, line_id, at, mail_at, in_browser)
        select ${tx.businessId}, "personId", "lineId", ${tx.now}, "mailAt", "inBrowser"
        from jsonb_to_recordset(${records(rows.map((row) => ({ ...row, lineId: String(row.lineId) })))}::jsonb)
          as given ("personId" uuid, "lineId" bigint, "mailAt" timestamptz, "inBrowser" boolean)`,
  );
}

/** One thing that somebody hears of, with what its line is about. */
export type News = {
  readonly id: bigint;
  readonly at: Date;
  readonly event: TimelineEvent;
  readonly byName: string;
  readonly currency: string;
  /** The number of the invoice or plan, the name of the offer. */
  readonly about: string;
  readonly customer: string;
  readonly invoiceId: string | null;
  readonly planId: string | null;
  readonly offerId: string | null;
  readonly placement: string | null;
  readonly seen: boolean;
};

const NEWS = sql`n.id, n.at, jsonb_build_object('kind', t.kind) || t.details as event, t.by_name as "byName", coalesce(i.currency, p.currency, o.currency) as currency,
  coalesce(i.number, p.number, f.name, '') as about, coalesce(ic.name, pc.name, oc.name, o.payer_email, '') as customer,
  t.invoice_id as "invoiceId", t.plan_id as "planId", o.offer_id as "offerId", f.placement, n.seen_at is not null as seen`;
const FROM = sql`from news n
  join timeline t on t.business_id = n.business_id and t.id = n.line_id
  left join invoices i on i.business_id = t.business_id and i.id = t.invoice_id
  left join customers ic on ic.business_id = i.business_id and ic.id = i.customer_id
  left join plans p on p.business_id = t.business_id and p.id = t.plan_id
  left join customers pc on pc.business_id = p.business_id and pc.id = p.customer_id
  left join orders o on o.business_id = t.business_id and o.id = t.order_id
  left join customers oc on oc.business_id = o.business_id and oc.id = o.customer_id
  left join offers f on f.business_id = o.business_id and f.id = o.offer_id`;

/** The latest that somebody hears of in the browser, newest first. */
export const latestNews = (db: Db, personId: string, most: number): Promise<News[]> =>
  many(
    db,
    sql`select ${NEWS} ${FROM} where n.business_id = ${db.businessId} and n.person_id = ${personId} and n.in_browser
        order by n.id desc limit ${most}`,
  );

export async function unseenNews(db: Db, personId: string): Promise<number> {
  const row = await one<{ count: number }>(
    db,
    sql`select count(*)::int as count from news
        where business_id = ${db.businessId} and person_id = ${personId} and in_browser and seen_at is null`,
  );
  return row.count;
}

/** Notes that somebody has seen what there was up to one. */
export const seeNews = (tx: Tx, personId: string, upTo: bigint): Promise<number> =>
  run(
    tx,
    sql`update news set seen_at = ${tx.now}
        where business_id = ${tx.businessId} and person_id = ${personId} and id <= ${upTo} and seen_at is null`,
  );

/** Who is to be mailed by now. */
export const peopleToMail = async (db: Db): Promise<string[]> =>
  (
    await many<{ id: string }>(
      db,
      sql`select distinct person_id as id from news where business_id = ${db.businessId} and mail_at <= ${db.now} order by 1`,
    )
  ).map(({ id }) => id);

/** Puts everything that waits to be mailed to somebody into one mail; returns how much that is. */
export const takeForMail = (tx: Tx, personId: string, messageId: string): Promise<number> =>
  run(
    tx,
    sql`update news set mail_at = null, message_id = ${messageId}
        where business_id = ${tx.businessId} and person_id = ${personId} and mail_at is not null`,
  );

/** Moves what waits to be mailed to somebody, or lets it be. @param at null: it is not mailed */
export const moveMail = (tx: Tx, personId: string, at: Date | null): Promise<number> =>
  run(
    tx,
    sql`update news set mail_at = ${at}
        where business_id = ${tx.businessId} and person_id = ${personId} and mail_at is not null`,
  );

/** What a mail tells of, oldest first. */
export const newsOfMail = (db: Db, messageId: string): Promise<News[]> =>
  many(
    db,
    sql`select ${NEWS} ${FROM} where n.business_id = ${db.businessId} and n.message_id = ${messageId} order by n.id`,
  );

/** Forgets what is old, and what is of nobody here any more. */
export const forgetNews = (tx: Tx): Promise<number> =>
  run(
    tx,
    sql`delete from news n where n.business_id = ${tx.businessId} and (n.at < ${new Date(tx.now.getTime() - NEWS_DAYS * 86_400_000)}
          or exists (select from people p where p.business_id = n.business_id and p.id = n.person_id and p.left_at is not null))`,
  );
