/** A set of charges beside what else happens in its business, and beside the sets of others. */
import { expect, test } from 'vitest';
import { newCustomer } from '@/core/customer/customer';
import type { CalendarDate } from '@/core/dates/calendar-date';
import { instantInZone } from '@/core/dates/zone';
import { ledgerTroubles } from '@/db/ledger';
import { programContext } from '@/flows/door/program';
import { addCustomer, mergeCustomers } from '@/flows/records/customers';
import { asSuperuser } from '../../../tests/support/database';
import { planTerms, runningPlan, setClock } from '../../../tests/support/plans';
import { foundHouse, sharedWorkshop } from '../../../tests/support/workshop';
import { chargeDue } from './charge-due';
import { claimDue } from './claim-charges';

const workshop = await sharedWorkshop();

const at = (day: string) => instantInZone(day as CalendarDate, '12:00', 'America/Los_Angeles');

test('a customer is merged before a set or after it: its invoices are the kept customer’s', async () => {
  const house = await foundHouse();
  await setClock(workshop.standIns, at('2027-01-04'));
  const { customerId } = await runningPlan(house, workshop.standIns, planTerms(house, '2027-02-01'));
  const kept = await addCustomer(house.owner, newCustomer('Otto Reed, once more'));
  await setClock(workshop.standIns, at('2027-02-01'));
  let merging: Promise<void> = Promise.resolve();
  await programContext(house.business.id, at('2027-02-01')).sets(async (tx) => {
    expect((await claimDue(tx, 10)).claimed).toBe(1);
    merging = mergeCustomers(house.owner, kept.id, customerId);
    // However long it takes until it waits for its turn.
    for (let waiting = 0; waiting === 0; ) {
      const [row] = await asSuperuser<{ n: number }>(
        workshop.admin,
        `select count(*)::int as n from pg_stat_activity where datname = current_database() and wait_event = 'advisory'`,
      );
      waiting = row?.n ?? 0;
    }
  });
  await merging;
  const owners = await asSuperuser(
    workshop.admin,
    'select distinct customer_id from invoices where business_id = $1 and stage = $2',
    [house.business.id, 'sent'],
  );
  expect(owners).toEqual([{ customer_id: kept.id }]);
});

test('four businesses charge side by side: each charge once, numbers without gaps, balanced books', async () => {
  await setClock(workshop.standIns, at('2027-01-04'));
  const houses = await Promise.all(['Ash', 'Birch', 'Cedar', 'Dogwood'].map((name) => foundHouse(name)));
  for (const house of houses)
    for (let plan = 0; plan < 8; plan++)
      await runningPlan(house, workshop.standIns, planTerms(house, '2027-02-01', { schedule: { unit: 'day' } }));
  await setClock(workshop.standIns, at('2027-02-06'));
  await Promise.all(houses.map(({ business }) => chargeDue(business.id, { runMs: 60_000, atOnce: 12 })));
  for (const { business } of houses) {
    const [row] = await asSuperuser(
      workshop.admin,
      `select (select count(*)::int from charges where business_id = $1 and state = 'charged') as charged,
         (select count(*)::int from payments where business_id = $1 and state = 'paid') as paid,
         (select max(number::int) from invoices where business_id = $1 and number is not null) as last,
         (select max(number::int) from receipts where business_id = $1) as receipt`,
      [business.id],
    );
    expect(row).toEqual({ charged: 48, paid: 48, last: 48, receipt: 48 });
    expect(await programContext(business.id).read((db) => ledgerTroubles(db))).toEqual([]);
  }
});
