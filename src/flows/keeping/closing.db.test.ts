import { beforeEach, expect, test } from 'vitest';
import { addDays, type CalendarDate } from '@/core/dates/calendar-date';
import { dateInZone } from '@/core/dates/zone';
import { LEFT_BEHIND } from '@/db/all-data';
import { programContext } from '@/flows/door/program';
import { deskInvoicePdf } from '@/flows/file/kept-files';
import { actorOf } from '@/flows/house/sign-in';
import { refundPayment } from '@/flows/payment/refund-payment';
import { keepPayoutPolicy } from '@/flows/payout/policy';
import { addCustomer, customerSheet } from '@/flows/records/customers';
import { playMinute } from '../../../tests/support/minute';
import { clockAt, confirmedAccount, playDays } from '../../../tests/support/payouts';
import { backOf } from '../../../tests/support/refunds';
import { DAY, lives, quill, unpacked } from '../../../tests/support/whole-life';
import { foundHouse, type House, sentInvoice, sharedWorkshop } from '../../../tests/support/workshop';
import { closeBusiness, closingView, reopenBusiness } from './closing';
import { forgetWhatIsOver } from './forget-over';
import { takeAlong } from './take-along';

const workshop = await sharedWorkshop({ HOOKS_LOCAL: 'yes', CARD_ATTEMPTS_PER_ADDRESS: '500' });
let house: House;
beforeEach(async () => {
  house = await foundHouse();
  await clockAt(workshop, house, DAY, '10:00');
});
const { of, rows, tables, wholeLife } = lives(workshop, () => house);

/** Everything that is not the business's own any more: through every table, also those of sign-in. */
const leftOf = async (id: string): Promise<string[]> => {
  const found: string[] = [];
  for (const { name } of await tables())
    if ((await rows(`select from ${name} where business_id = $1 limit 1`, [id])).length > 0) found.push(name);
  return found;
};

test('a business is closed when nothing is open and all is taken along, looked at while it is kept, and then gone whole', async () => {
  const life = await wholeLife();
  await confirmedAccount(workshop, house);
  await keepPayoutPolicy(house.owner, { when: { kind: 'daily' }, smallest: {} } as never);
  const name = house.business.name;
  await expect(closeBusiness(house.owner, 'Something else')).rejects.toMatchObject({ code: 'name-differs' });
  const open = await closingView(house.owner);
  expect(open.open.map(({ kind }) => kind)).toEqual(['vouchersOwed', 'notPaidOut']);
  await expect(closeBusiness(house.owner, name)).rejects.toMatchObject({ code: 'still-open' });
  const [sale] = await rows<{ id: string }>('select payment_id as id from vouchers where business_id = $1');
  await refundPayment(house.owner, sale?.id ?? '', backOf(5000n));
  await playDays(
    workshop,
    house,
    Array.from({ length: 10 }, (_, at) => addDays(DAY, at)),
  );
  expect((await closingView(house.owner)).open).toEqual([]);
  await expect(closeBusiness(house.owner, name)).rejects.toMatchObject({ code: 'take-along-first' });

  const all = await unpacked(await takeAlong(house.owner));
  const kept = (await tables()).map((one) => one.name).filter((one) => LEFT_BEHIND[one] !== 'all');
  expect([...all.keys()].filter((path) => path.startsWith('data/')).sort()).toEqual(
    kept.map((one) => `data/${one.replaceAll('_', '-')}.json`).sort(),
  );
  for (const table of kept) {
    const taken = JSON.parse(all.get(`data/${table.replaceAll('_', '-')}.json`) ?? '');
    const [{ count = -1 } = {}] = await rows<{ count: number }>(
      `select count(*)::int as count from ${table} where business_id = $1`,
    );
    // What it notes of being taken along comes after it was read.
    if (table !== 'log_entries') expect(taken.length, table).toBe(count);
  }
  expect([...all.values()].join('\n')).not.toMatch(/password_hash|signing_secret|kept_id|"secret"|link_token/);
  expect(all.get('read-me.txt')).toContain(name);

  await closeBusiness(house.owner, ` ${name.toUpperCase()} `);
  expect(await rows(`select state, count(*)::int from offers where business_id = $1 group by 1`)).toMatchObject([
    { state: 'closed' },
  ]);
  const closed = { ...house.owner, closed: true };
  await expect(addCustomer(closed, quill('late@quill.example'))).rejects.toMatchObject({ code: 'business-closed' });
  expect((await customerSheet(closed, life.id)).customer.name).toBe('Zephyrine Quillfeather');
  expect((await deskInvoicePdf(closed, life.paidId)).bytes.length).toBeGreaterThan(1000);
  expect((await unpacked(await takeAlong(closed))).size).toBe(all.size);
  await reopenBusiness(closed);
  await addCustomer(house.owner, quill('late@quill.example'));
  await closeBusiness(house.owner, name);
  expect(
    await rows(
      `select kind from log_entries where business_id = $1 and kind in ('closed', 'reopened') order by noted_at, id`,
    ),
  ).toHaveLength(3);
  const told = await rows<{ to_address: string }>(
    `select to_address from messages where business_id = $1 and kind = 'business-closed'`,
  );
  expect(told).toHaveLength(15);

  const neighbour = await foundHouse('Neighbour');
  await sentInvoice(neighbour);
  const theirs = await leftOf(neighbour.business.id);
  const [{ day = DAY } = {}] = await rows<{ day: CalendarDate }>(
    'select erase_on::text as day from businesses where business_id = $1',
  );
  expect(day).toBe('2035-01-01');
  const before = await clockAt(workshop, house, '2034-12-31' as CalendarDate, '12:00');
  await forgetWhatIsOver(programContext(house.business.id).at(before));
  expect(await leftOf(house.business.id)).toContain('ledger_entries');
  const on = await clockAt(workshop, house, day, '00:30');
  expect(dateInZone(on, house.business.zone)).toBe(day);
  await forgetWhatIsOver(programContext(house.business.id).at(on));
  expect(await leftOf(house.business.id)).toEqual([]);
  expect(await leftOf(neighbour.business.id)).toEqual(theirs);
  expect(await actorOf('nobody')).toBeNull();
  expect(await playMinute()).toEqual([]);
});

test('nothing of a business that is open, or whose day has not come, is erased by anybody; the books and the log refuse', async () => {
  await sentInvoice(house);
  const erase = (day: string) => of(async (tx) => (await tx.query('select erase_business($1)', [day])).rows[0]);
  expect(await erase('2099-01-01')).toEqual({ erase_business: false });
  for (const table of ['ledger_entries', 'ledger_postings', 'log_entries'])
    await expect(
      of((tx) =>
        tx
          .query(`select set_config('dahlia.erasing', 'a closed business', true)`)
          .then(() => tx.query(`delete from ${table}`)),
      ),
    ).rejects.toMatchObject({ code: '42501' });
  expect(await leftOf(house.business.id)).toContain('ledger_entries');
});
