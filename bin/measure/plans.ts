/** What many plans cost: charging, the list over all charges, composing, refusals. */
import { randomUUID } from 'node:crypto';
import pg from 'pg';
import type { CalendarDate } from '@/core/dates/calendar-date';
import { newLine, wholePaper } from '@/core/invoice/paper';
import { forecast, type PlanTerms } from '@/core/plan/plan';
import { planReading } from '@/core/plan/sums';
import { keepCard } from '@/flows/plans/cards-on-file';
import { chargeDue } from '@/flows/plans/charge-plans';
import { upcomingCharges } from '@/flows/plans/upcoming';
import { cardToken, foundHouse, type House } from '../../tests/support/workshop';
import { report, timedEach } from './report';

/** Charging runs so long for each number of due charges; the rest is cleared away. */
const WINDOW_MS = Number(process.env.BENCH_WINDOW_MS ?? 60_000);

const terms = (house: House, change: Partial<PlanTerms> = {}): PlanTerms => ({
  kind: 'membership',
  name: 'Care club',
  paper: wholePaper({
    customerId: house.customerId,
    lines: [newLine(randomUUID(), 'piece', { what: 'Care club', quantity: '1', price: '20.00', taxes: [house.taxId] })],
  }),
  schedule: { unit: 'month', every: 1, start: '2026-01-01' as CalendarDate, ends: 'never' },
  firstNow: false,
  setUp: '',
  freeFirst: false,
  deposit: '',
  leftover: 'even',
  pay: 'card',
  receipts: false,
  noticeDays: null,
  ...change,
});

/** Plans with one charge that is due, and `more` that come due later, written straight into the tables. */
async function write(admin: string, house: House, due: number, more: number): Promise<void> {
  const client = new pg.Client({ connectionString: admin });
  await client.connect();
  const kept = JSON.stringify(terms(house));
  await client.query(
    `insert into plans (id, business_id, customer_id, number, state, terms, name, kind, pay, currency, link_token, starts_on, next_on,
        created_at, changed_at)
      select gen_random_uuid(), $1, $2, 'B-' || at, 'active', $3, 'Care club ' || at, 'membership', 'card', 'USD', md5(random()::text || at),
        '2026-01-01', '2026-12-01', now(), now() from generate_series(1, $4) as at`,
    [house.business.id, house.customerId, kept, due + more],
  );
  await client.query(
    `insert into charges (id, business_id, plan_id, customer_id, part, nominal, charged_on, amount_minor, currency, state, act_at)
      select gen_random_uuid(), $1, id, $2, 'period', '2026-01-01', case when at <= $3 then current_date - 1 else current_date + 1 + (at % 300)::int end,
        2200, 'USD', 'upcoming', case when at <= $3 then now() - interval '1 hour' else now() + interval '1 day' * (1 + at % 300) end
      from (select id, row_number() over () as at from plans where business_id = $1) as numbered`,
    [house.business.id, house.customerId, due],
  );
  await client.query('analyze plans; analyze charges');
  await client.end();
}

/** How many are charged in a while when so many are due. */
async function charging(admin: string, standIns: string, due: number, more: number, card: string): Promise<House> {
  const house = await foundHouse(`Bench ${due}`);
  await keepCard(house.business.id, house.customerId, await cardToken(standIns, card), randomUUID(), 'Bench');
  await write(admin, house, due, more);
  const begun = performance.now();
  const { done } = await chargeDue(house.business.id, Date.now() + WINDOW_MS);
  const seconds = (performance.now() - begun) / 1000;
  const name = card === 'corvid-good' ? 'charging' : 'dunning';
  report(
    `${name}, ${due} due, ${more + due} plans`,
    Array.from({ length: done }, () => (seconds * 1000) / done),
    seconds,
    {
      charged: done,
      residentMegabytes: Math.round(process.memoryUsage().rss / 1_048_576),
    },
  );
  return house;
}

/** Measures the plans' side. @param all how many plans the largest table has */
export async function measurePlans(admin: string, standIns: string, all: number): Promise<void> {
  await charging(admin, standIns, 10_000, 0, 'corvid-good');
  await charging(admin, standIns, 10_000, 0, 'corvid-poor');
  const large = await charging(admin, standIns, 100_000, Math.max(0, all - 100_000), 'corvid-good');
  const words = { words: '', state: '', from: '', to: '', notCarried: false } as const;
  await upcomingCharges(large.owner, words, null);
  const first = await timedEach(100, () => upcomingCharges(large.owner, words, null));
  report(`upcoming, first page of ${all} charges`, first.times, first.seconds);
  const house = large;
  const setting = {
    taxes: [],
    currency: 'USD',
    pricesIncludeTax: false,
    home: { country: 'US' },
    customer: null,
  };
  const long = terms(house, {
    kind: 'instalments',
    schedule: { unit: 'week', every: 1, start: '2026-01-05' as CalendarDate, ends: { after: 520 }, shift: 'previous' },
    paper: wholePaper({ lines: [newLine(randomUUID(), 'piece', { what: 'Cello', quantity: '1', price: '9999.99' })] }),
  });
  const context = { startsOn: '2026-01-01' as CalendarDate, holidays: [], pauses: [] };
  const composed = await timedEach(200, async () => {
    const { sums } = planReading(long, setting);
    forecast(long, sums, context);
  });
  report('plan composer, 520 dates', composed.times, composed.seconds);
}
