/** Plans and charges for measurements, written straight into the tables. */
import pg from 'pg';
import { planTerms } from '../../tests/support/plans';
import type { House } from '../../tests/support/workshop';

/** So many charges of a plan that runs stand written down ahead; one of them is due. */
const AHEAD = 13;

/**
 * Plans of one business that have run for a while: `due` of them have a charge that is due and twelve written down after it, as in a
 * running business; `more` have one that comes later.
 */
export async function writePlans(
  admin: string,
  house: House,
  { due, more }: { due: number; more: number },
): Promise<void> {
  const client = new pg.Client({ connectionString: admin });
  await client.connect();
  const kept = JSON.stringify(planTerms(house, '2026-01-01', { receipts: false }));
  await client.query(
    `insert into plans (id, business_id, customer_id, number, state, terms, name, kind, pay, currency, link_token, starts_on, next_on,
        created_at, changed_at)
      select gen_random_uuid(), $1, $2, 'B-' || at, 'active', $3, 'Care club ' || at, 'membership', 'card', 'USD', md5(random()::text || at),
        '2026-01-01', '2026-12-01', now(), now() from generate_series(1, $4) as at`,
    [house.business.id, house.customerId, kept, due + more],
  );
  await client.query(
    `insert into charges (id, business_id, plan_id, customer_id, part, nominal, charged_on, amount_minor, currency, state, act_at)
      select gen_random_uuid(), $1, id, $2, 'period', day, day, 2200, 'USD', 'upcoming',
        case when n = 0 and at <= $3 then now() - interval '1 hour' else now() + interval '1 day' * (1 + n * 30 + at % 20) end
      from (select id, row_number() over () as at from plans where business_id = $1) as numbered,
        generate_series(0, $4::int) as n, lateral (select ('2026-01-01'::date + make_interval(months => n))::date as day) as dated
      where n = 0 or at <= $3`,
    [house.business.id, house.customerId, due, AHEAD - 1],
  );
  await client.query('analyze plans; analyze charges');
  await client.end();
}
