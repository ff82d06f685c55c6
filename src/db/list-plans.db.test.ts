import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { calendarDate } from '@/core/dates/calendar-date';
import { EVERYTHING } from '@/core/invoice/ask';
import { WHOLE_REGISTER } from '@/core/register/ask';
import { asSuperuser } from '../../tests/support/database';
import { foundHouse, type House, openWorkshop, type Workshop } from '../../tests/support/workshop';
import { invoicePage, type ListPart } from './invoice-lists';
import { searchPage } from './invoice-search';
import { offerPage } from './offers';
import { registerPage } from './register';
import type { Statement } from './sql';

let workshop: Workshop;
let house: House;
beforeAll(async () => {
  workshop = await openWorkshop();
  house = await foundHouse();
  // Enough rows that a plan without the index would be chosen if it were cheaper.
  await asSuperuser(
    workshop.admin,
    `insert into invoices (id, business_id, stage, number, customer_id, currency, paper, printed, link_token, issued_on, due_on,
       total_minor, paid_minor, sent_at, settled_at, created_at, changed_at)
     select gen_random_uuid(), $1, case when n % 10 = 0 then 'draft' else 'sent' end, n::text, $2, 'USD', '{}', '{}', 'link-' || n,
       '2026-01-01', date '2026-01-01' + (n % 300), 1000, case when n % 3 = 0 then 1000 else 0 end, now(),
       case when n % 3 = 0 then now() - make_interval(mins => n) end, now(), now() - make_interval(mins => n)
     from generate_series(1, 20000) as n`,
    [house.business.id, house.customerId],
  );
  await asSuperuser(
    workshop.admin,
    `insert into payments (id, business_id, invoice_id, customer_id, channel, currency, amount_minor, state, attempt_key, started_at)
     select gen_random_uuid(), business_id, id, customer_id, 'invoice', 'USD', 1000, 'refused', id::text, changed_at
     from invoices where stage = 'sent'`,
  );
  await asSuperuser(
    workshop.admin,
    `insert into offers (id, business_id, placement, name, public_id, definition, created_at, changed_at)
     select gen_random_uuid(), $1, case when n % 3 = 0 then 'page' else 'link' end, 'Offer ' || n, 'plan' || n, '{}', now(),
       now() - make_interval(mins => n)
     from generate_series(1, 8000) as n`,
    [house.business.id],
  );
  await asSuperuser(workshop.admin, 'analyze');
});
afterAll(() => workshop.close());

type Plan = { 'Node Type': string; 'Index Name'?: string; 'Relation Name'?: string; Plans?: Plan[] };
const nodes = (plan: Plan): Plan[] => [plan, ...(plan.Plans ?? []).flatMap(nodes)];
async function planOf({ text, values }: Statement): Promise<Plan[]> {
  const [row] = await asSuperuser<{ 'QUERY PLAN': { Plan: Plan }[] }>(workshop.admin, `explain (format json) ${text}`, [
    ...values,
  ]);
  return nodes(row?.['QUERY PLAN'][0]?.Plan as Plan);
}

const KEYS: Record<ListPart, [string, string]> = {
  open: ['invoices_open', '2026-05-01'],
  drafts: ['invoices_drafts', '2026-05-01T00:00:00Z'],
  settled: ['invoices_settled', '2026-05-01T00:00:00Z'],
};

test.each(Object.entries(KEYS) as [ListPart, [string, string]][])(
  'a page of %s is read from its index, in order, first or later',
  async (part, [index, key]) => {
    for (const after of [null, { key, id: randomUUID() }]) {
      const plan = await planOf(invoicePage(house.business.id, part, 41, after));
      expect(plan.map((node) => node['Index Name'])).toContain(index);
      expect(plan.map((node) => node['Node Type'])).not.toContain('Sort');
      expect(plan.filter((node) => node['Node Type'] === 'Seq Scan' && node['Relation Name'] === 'invoices')).toEqual(
        [],
      );
    }
  },
);

test.each([
  ['invoices_open', { state: 'overdue', descending: false }, '2026-05-01'],
  ['invoices_by_issue', { sort: 'issued' }, '2026-01-01'],
  ['invoices_by_due', { sort: 'due' }, '2026-05-01'],
  ['invoices_by_total', { sort: 'total' }, '1000'],
] as const)('a page of the searched list is read from %s, in order, first or later', async (index, asked, key) => {
  for (const after of [null, { key, id: randomUUID() }]) {
    const ask = { ...EVERYTHING, ...asked };
    const none = { least: null, most: null, today: calendarDate('2026-07-01'), sign: '.' as const };
    const plan = await planOf(searchPage(house.business.id, ask, none, 41, after));
    expect(plan.map((node) => node['Index Name'])).toContain(index);
    expect(plan.map((node) => node['Node Type'])).not.toContain('Sort');
  }
});

test('a page of the register is read from its indexes, in order, first or later', async () => {
  for (const after of [null, { key: '2026-05-01T00:00:00Z', id: randomUUID() }]) {
    const plan = await planOf(registerPage(house.business.id, WHOLE_REGISTER, { from: null, to: null }, 41, after));
    const names = plan.map((node) => node['Index Name']);
    expect(names).toContain('payments_in_register');
    expect(plan.filter((node) => node['Node Type'] === 'Seq Scan' && node['Relation Name'] === 'payments')).toEqual([]);
  }
});

test('a page of offers is read from its index, in order, first or later', async () => {
  for (const after of [null, { key: '2026-05-01T00:00:00Z', id: randomUUID() }]) {
    const plan = await planOf(offerPage(house.business.id, 'link', '', 51, after));
    expect(plan.map((node) => node['Index Name'])).toContain('offers_by_change');
  }
});
