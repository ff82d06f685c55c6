import type { Business, NewBusiness } from '@/core/business/business';
import type { NumberSeries } from '@/core/invoice/numbering';
import { USUAL_POLICY } from '@/core/plan/dunning';
import { AS_BUSINESS, deskLocale } from '@/core/writing/writing';
import { linkKey } from './link-tokens';
import type { Connection, Db, Tx } from './pool';
import { many, maybeOne, one, run, sql } from './sql';

export type { Business };

/** The business of the current transaction. */
export async function businessById(db: Db): Promise<Business> {
  const row = await one<NewBusiness>(
    db,
    sql`select business_id as id, name, address, phone, email, website, tax_number as "taxNumber", country, zone, locale as "paperLocale",
          currency, prices_include_tax as "pricesIncludeTax", smallest_payments as "smallestPayments", place,
          logo_id as "logoId", accent, bank, reminders, to_char(quiet_from, 'HH24:MI') as "quietFrom",
          to_char(quiet_to, 'HH24:MI') as "quietTo", mail_texts as "mailTexts", ways, terms_id as "termsId",
          signing_secret as "signingSecret",
          jsonb_build_object('registration', '', 'statement', '', 'signer', '', 'signature', null, 'seal', null) || receipt_style as "receiptStyle", charging, tariff,
          signed_up_at as "signedUpAt", mail_confirmed_at as "mailConfirmedAt", business_kind as kind, statement_name as "statementName",
          description, trading_names as "tradingNames", locations, cards_since as "cardsSince", verified_at as "verifiedAt"
        from businesses where business_id = ${db.businessId}`,
  );
  const { charging, paperLocale } = row;
  return {
    ...row,
    charging: { ...USUAL_POLICY, ...charging },
    deskLocale: deskLocale(paperLocale, db.writing ?? AS_BUSINESS),
  };
}

/** Whether there is such a business (any more). */
export const isHere = async (db: Db): Promise<boolean> =>
  (await maybeOne(db, sql`select business_id from businesses where business_id = ${db.businessId}`)) !== null;

/** Notes that it is known who stands behind the business: it can be paid out. */
export const openPayouts = (tx: Tx): Promise<number> =>
  run(
    tx,
    sql`update businesses set verified_at = ${tx.now} where business_id = ${tx.businessId} and verified_at is null`,
  );

/** Founds a business, with the key that its links begin with. */
export async function insertBusiness(tx: Tx, business: NewBusiness): Promise<void> {
  await run(tx, sql`insert into link_keys (key, business_id) values (${linkKey(business.id)}, ${business.id})`);
  await run(
    tx,
    sql`insert into businesses (business_id, name, address, phone, email, website, tax_number, country, zone, locale,
          currency, prices_include_tax, smallest_payments, place, logo_id, accent, bank, reminders, quiet_from, quiet_to,
          mail_texts, ways, terms_id, tariff, created_at, signed_up_at, mail_confirmed_at, business_kind, statement_name, cards_since, verified_at,
          description, trading_names, locations)
        values (${business.id}, ${business.name}, ${[...business.address]}, ${business.phone}, ${business.email},
          ${business.website}, ${business.taxNumber}, ${business.country}, ${business.zone}, ${business.paperLocale},
          ${business.currency}, ${business.pricesIncludeTax}, ${JSON.stringify(business.smallestPayments)},
          ${JSON.stringify(business.place)}, ${business.logoId}, ${business.accent}, ${JSON.stringify(business.bank)},
          ${[...business.reminders]}, ${business.quietFrom}, ${business.quietTo}, ${JSON.stringify(business.mailTexts)},
          ${business.ways ? JSON.stringify(business.ways) : null}, ${business.termsId}, ${JSON.stringify(business.tariff)}, ${tx.now},
          ${business.signedUpAt}, ${business.mailConfirmedAt}, ${business.kind}, ${business.statementName}, ${business.cardsSince},
          ${business.verifiedAt}, ${business.description}, ${JSON.stringify(business.tradingNames)}, ${JSON.stringify(business.locations)})`,
  );
}

/** Writes the profile as a whole; zone, locale and currency stay, since what was counted was counted in them. */
export const updateBusiness = (tx: Tx, business: NewBusiness): Promise<number> =>
  run(
    tx,
    sql`update businesses set name = ${business.name}, address = ${[...business.address]}, phone = ${business.phone},
          email = ${business.email}, website = ${business.website}, tax_number = ${business.taxNumber},
          country = ${business.country}, prices_include_tax = ${business.pricesIncludeTax},
          smallest_payments = ${JSON.stringify(business.smallestPayments)},
          place = ${JSON.stringify(business.place)}, logo_id = ${business.logoId}, accent = ${business.accent},
          bank = ${JSON.stringify(business.bank)}, reminders = ${[...business.reminders]},
          quiet_from = ${business.quietFrom}, quiet_to = ${business.quietTo},
          mail_texts = ${JSON.stringify(business.mailTexts)},
          ways = ${business.ways ? JSON.stringify(business.ways) : null}, terms_id = ${business.termsId},
          receipt_style = ${JSON.stringify(business.receiptStyle)}, charging = ${JSON.stringify(business.charging)},
          tariff = ${JSON.stringify(business.tariff)}, description = ${business.description},
          trading_names = ${JSON.stringify(business.tradingNames)}, locations = ${JSON.stringify(business.locations)}
        where business_id = ${business.id}`,
  );

/** Notes that it may send from now on; nothing where it may already. */
export const openSending = (tx: Tx): Promise<number> =>
  run(
    tx,
    sql`update businesses set mail_confirmed_at = ${tx.now} where business_id = ${tx.businessId} and mail_confirmed_at is null`,
  );

/** Writes the answers that open card payments; since when they are open stays. */
export const openCards = (tx: Tx, given: Pick<Business, 'kind' | 'statementName'>): Promise<number> =>
  run(
    tx,
    sql`update businesses set business_kind = ${given.kind}, statement_name = ${given.statementName}, cards_since = coalesce(cards_since, ${tx.now})
        where business_id = ${tx.businessId}`,
  );

/** Whether anything of it ever asked anybody for money. */
export async function hasAsked(db: Db): Promise<boolean> {
  const row = await one<{ asked: boolean }>(
    db,
    sql`select exists (select from invoices where business_id = ${db.businessId} and stage <> 'draft')
          or exists (select from offers where business_id = ${db.businessId} and placed_at is not null)
          or exists (select from plans where business_id = ${db.businessId} and state <> 'draft') as asked`,
  );
  return row.asked;
}

/**
 * Takes the next numbers of a series; a series begins at 1. Returns the first of them. The row stays locked until the transaction
 * ends, and a rollback gives the numbers back: that is what keeps the series without gaps.
 */
export async function takeNumbers(tx: Tx, series: string, count: number): Promise<bigint> {
  const row = await one<{ first: bigint }>(
    tx,
    sql`insert into counters as kept (business_id, series, next_number) values (${tx.businessId}, ${series}, ${count} + 1)
        on conflict (business_id, series) do update set next_number = kept.next_number + ${count}
        returning next_number - ${count} as first`,
  );
  return row.first;
}

/** Takes the next number of a series. */
export const takeNumber = (tx: Tx, series: string): Promise<bigint> => takeNumbers(tx, series, 1);

/** The number that the next document of the series would get; another may take it first. */
export async function nextNumber(db: Db, series: string): Promise<bigint> {
  const row = await maybeOne<{ next: bigint }>(
    db,
    sql`select next_number as next from counters where business_id = ${db.businessId} and series = ${series}`,
  );
  return row?.next ?? 1n;
}

/** The business's series of invoice numbers, in its order. */
export const numberSeries = (db: Db): Promise<NumberSeries[]> =>
  many(db, sql`select name, pattern from number_series where business_id = ${db.businessId} order by position, name`);

/** Puts these series in place of the ones there are; counters stay, so that a series taken up again goes on. */
export async function replaceSeries(tx: Tx, series: readonly NumberSeries[]): Promise<void> {
  await run(tx, sql`delete from number_series where business_id = ${tx.businessId}`);
  for (const [position, { name, pattern }] of series.entries()) {
    await run(
      tx,
      sql`insert into number_series (business_id, name, pattern, position)
          values (${tx.businessId}, ${name}, ${pattern}, ${position})`,
    );
  }
}

export const insertCounter = (tx: Tx, series: string, first: bigint): Promise<number> =>
  run(tx, sql`insert into counters (business_id, series, next_number) values (${tx.businessId}, ${series}, ${first})`);

/** Which addresses of the private calendar are good. */
export async function feedVersion(db: Db): Promise<number> {
  const row = await one<{ version: number }>(
    db,
    sql`select feed_version as version from businesses where business_id = ${db.businessId}`,
  );
  return row.version;
}

export const raiseFeedVersion = (tx: Tx): Promise<number> =>
  run(tx, sql`update businesses set feed_version = feed_version + 1 where business_id = ${tx.businessId}`);

/** Every business's id and nothing else of it, for work that goes through all of them. Outside any business. */
/** Whose a link is, by its beginning alone; null for what begins like nobody's. It may open nothing (any more). */
export async function businessOfLink(db: Connection, token: string): Promise<string | null> {
  const row = await one<{ id: string | null }>(db, sql`select business_of(${token}) as id`);
  return row.id;
}

export async function businessIds(db: Connection): Promise<string[]> {
  const rows = await many<{ id: string }>(db, sql`select id from business_ids() as id`);
  return rows.map(({ id }) => id);
}
