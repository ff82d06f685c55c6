import type { CodeUses, DiscountCode } from '@/core/offer/code';
import { TAKEN_STATES } from '@/core/offer/order';
import type { Db, Tx } from './pool';
import { many, maybeOne, one, oneOf, run, sql } from './sql';

const CODE = sql`id, code, note, trim_scale(percent)::text as percent, amount_minor as "amountMinor", currency,
  coalesce(valid_from::text, '') as from, coalesce(valid_to::text, '') as to, least_minor as "leastMinor",
  most_uses as "mostUses", most_each as "mostEach", item_ids as "itemIds"`;

/** A discount code with a note of the business's own. */
export type KeptCode = DiscountCode & { readonly note: string };

export const codeByKey = (db: Db, key: string): Promise<KeptCode | null> =>
  maybeOne(
    db,
    sql`select ${CODE} from discount_codes where business_id = ${db.businessId} and code_key = ${key} and not archived`,
  );

/** How often a code was used: what went through, and what is just being paid. */
export async function codeUses(db: Db, codeId: string, email: string): Promise<CodeUses> {
  return one(
    db,
    sql`select count(*)::int as all, count(*) filter (where lower(payer_email) = ${email.trim().toLowerCase()})::int as own
        from orders where business_id = ${db.businessId} and code_id = ${codeId} and state in ${oneOf(TAKEN_STATES)}`,
  );
}

/** Counts a use that went through. */
export async function addCodeUse(
  tx: Tx,
  codeId: string,
  use: { currency: string; discountMinor: bigint; paidMinor: bigint },
): Promise<void> {
  await run(tx, sql`update discount_codes set uses = uses + 1 where business_id = ${tx.businessId} and id = ${codeId}`);
  await run(
    tx,
    sql`insert into code_sums as kept (business_id, code_id, currency, uses, discount_minor, paid_minor)
        values (${tx.businessId}, ${codeId}, ${use.currency}, 1, ${use.discountMinor}, ${use.paidMinor})
        on conflict (business_id, code_id, currency) do update
        set uses = kept.uses + 1, discount_minor = kept.discount_minor + excluded.discount_minor,
          paid_minor = kept.paid_minor + excluded.paid_minor`,
  );
}

/** What a code came to, in one currency; minor units. */
export type CodeSum = {
  readonly currency: string;
  readonly uses: number;
  readonly discountMinor: number;
  readonly paidMinor: number;
};

export type CodeRow = KeptCode & { readonly uses: number; readonly sums: readonly CodeSum[] };

/** The business's codes, latest first. */
export const codeRows = (db: Db): Promise<CodeRow[]> =>
  many(
    db,
    sql`select ${CODE}, uses,
        coalesce((select jsonb_agg(jsonb_build_object('currency', s.currency, 'uses', s.uses, 'discountMinor', s.discount_minor,
            'paidMinor', s.paid_minor) order by s.paid_minor desc)
          from code_sums s where s.business_id = discount_codes.business_id and s.code_id = discount_codes.id), '[]') as sums
      from discount_codes where business_id = ${db.businessId} and not archived order by created_at desc, id desc limit 500`,
  );

/** Keeps a code, new or changed. One that is taken breaks `discount_codes_key_unique`. */
export const keepCode = (tx: Tx, code: KeptCode, key: string): Promise<number> =>
  run(
    tx,
    sql`insert into discount_codes (id, business_id, code, code_key, note, percent, amount_minor, currency, valid_from, valid_to,
          least_minor, most_uses, most_each, item_ids, created_at)
        values (${code.id}, ${tx.businessId}, ${code.code}, ${key}, ${code.note}, ${code.percent}, ${code.amountMinor}, ${code.currency},
          ${code.from || null}, ${code.to || null}, ${code.leastMinor}, ${code.mostUses}, ${code.mostEach}, ${[...code.itemIds]}, ${tx.now})
        on conflict (business_id, id) do update set code = excluded.code, code_key = excluded.code_key, note = excluded.note,
          percent = excluded.percent, amount_minor = excluded.amount_minor, currency = excluded.currency,
          valid_from = excluded.valid_from, valid_to = excluded.valid_to, least_minor = excluded.least_minor,
          most_uses = excluded.most_uses, most_each = excluded.most_each, item_ids = excluded.item_ids
        where discount_codes.business_id = ${tx.businessId}`,
  );

export const archiveCode = (tx: Tx, id: string): Promise<number> =>
  run(
    tx,
    sql`update discount_codes set archived = true where business_id = ${tx.businessId} and id = ${id} and not archived`,
  );

/** A payment that a code was used for; minor units. */
export type CodeUse = {
  readonly paymentId: string;
  readonly code: string;
  readonly payer: string;
  readonly at: Date;
  readonly currency: string;
  readonly paidMinor: bigint;
};

/** The latest uses of codes that went through. */
export const latestUses = (db: Db, limit: number): Promise<CodeUse[]> =>
  many(
    db,
    sql`select p.id as "paymentId", d.code, coalesce(o.printed->'payer'->>'name', '') as payer, p.settled_at as at, p.currency,
          p.amount_minor as "paidMinor"
        from orders o join discount_codes d on d.business_id = o.business_id and d.id = o.code_id
          join payments p on p.business_id = o.business_id and p.order_id = o.id and p.state = 'paid'
        where o.business_id = ${db.businessId} and o.code_id is not null and o.state = 'paid'
        order by p.settled_at desc, p.id limit ${limit}`,
  );
