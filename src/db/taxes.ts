import type { BusinessTax } from '@/core/tax/business-tax';
import type { Db, Tx } from './pool';
import { many, run, sql } from './sql';

type Kept = Omit<BusinessTax, 'regions' | 'postalCodes'> & { regions: string[] | null; postalCodes: string[] | null };

/** The business's taxes in its order, those taken off the list too (papers may name them); rates as decimal strings. */
export async function taxesOf(db: Db): Promise<BusinessTax[]> {
  const rows = await many<Kept>(
    db,
    sql`select id, name, trim_scale(rate)::text as rate, on_delivery as "onDelivery", class, country, regions,
          postal_codes as "postalCodes", additional, retired
        from taxes where business_id = ${db.businessId} order by position, id`,
  );
  return rows.map(({ regions, postalCodes, ...tax }) => ({
    ...tax,
    ...(regions ? { regions } : {}),
    ...(postalCodes ? { postalCodes } : {}),
  }));
}

export const insertTax = (tx: Tx, tax: BusinessTax, position: number): Promise<number> =>
  run(
    tx,
    sql`insert into taxes (id, business_id, name, rate, on_delivery, position, class, country, regions, postal_codes, additional)
        values (${tax.id}, ${tx.businessId}, ${tax.name}, ${tax.rate}, ${tax.onDelivery}, ${position}, ${tax.class}, ${tax.country},
          ${tax.regions ? [...tax.regions] : null}, ${tax.postalCodes ? [...tax.postalCodes] : null}, ${tax.additional ?? false})`,
  );

export const updateTax = (tx: Tx, tax: BusinessTax, position: number): Promise<number> =>
  run(
    tx,
    sql`update taxes set name = ${tax.name}, rate = ${tax.rate}, on_delivery = ${tax.onDelivery}, position = ${position},
          class = ${tax.class}, country = ${tax.country}, regions = ${tax.regions ? [...tax.regions] : null},
          postal_codes = ${tax.postalCodes ? [...tax.postalCodes] : null}, additional = ${tax.additional ?? false},
          retired = false
        where business_id = ${tx.businessId} and id = ${tax.id}`,
  );

/** Takes every tax off the list but these; papers that name the others still find them. */
export const retireTaxesBut = (tx: Tx, ids: readonly string[]): Promise<number> =>
  run(
    tx,
    sql`update taxes set retired = true where business_id = ${tx.businessId} and id <> all (${[...ids]}::uuid[]) and not retired`,
  );
