import { randomUUID } from 'node:crypto';
import { expect, test } from 'vitest';
import { calendarDate } from '@/core/dates/calendar-date';
import type { Entry } from '@/core/ledger/entry';
import { money } from '@/core/money/money';
import { programContext } from '@/flows/door/program';
import { checkBooks } from '@/flows/house/check-books';
import { asSuperuser } from '../../tests/support/database';
import { foundHouse, sentInvoice, sharedWorkshop } from '../../tests/support/workshop';
import { insertEntry } from './ledger';
import { isTaken } from './sql';
import { inBusiness } from './transaction';

const workshop = await sharedWorkshop();
const house = await foundHouse();

const posted = (amounts: readonly [bigint, string][]): Entry => ({
  on: calendarDate('2026-05-04'),
  words: 'by hand',
  postings: amounts.map(([minor, currency]) => ({ account: 'revenue', amount: money(minor, currency) })),
});
const book = (entry: Entry, cause: string = randomUUID()) =>
  inBusiness(programContext(house.business.id), (tx) =>
    insertEntry(tx, entry, { id: randomUUID(), cause, invoiceId: null, paymentId: null }),
  );

test('the database refuses an entry that does not balance, in each currency by itself', async () => {
  await expect(
    book(
      posted([
        [100n, 'USD'],
        [-99n, 'USD'],
      ]),
    ),
  ).rejects.toMatchObject({ constraint: 'ledger_entries_balance' });
  // The sum over both currencies is zero, which means nothing.
  await expect(
    book(
      posted([
        [100n, 'USD'],
        [-100n, 'EUR'],
      ]),
    ),
  ).rejects.toMatchObject({ constraint: 'ledger_entries_balance' });
  await expect(book(posted([]))).rejects.toMatchObject({ constraint: 'ledger_entries_whole' });
  await book(
    posted([
      [100n, 'USD'],
      [-100n, 'USD'],
      [7n, 'EUR'],
      [-7n, 'EUR'],
    ]),
  );
});

test('nothing is added to an entry later, though it balances, and no account is invented', async () => {
  const cause = randomUUID();
  const both = posted([
    [9n, 'USD'],
    [-9n, 'USD'],
  ]);
  await book(both, cause);
  const add = (entryId: string, from: number, account: string) =>
    inBusiness(programContext(house.business.id), (tx) =>
      tx.query(
        `insert into ledger_postings (business_id, entry_id, position, account, currency, amount_minor)
         values ($1, $2, $3, $4, 'USD', 3), ($1, $2, $3 + 1, 'bank', 'USD', -3)`,
        [house.business.id, entryId, from, account],
      ),
    );
  const [entry] = await asSuperuser<{ id: string }>(workshop.admin, 'select id from ledger_entries where cause = $1', [
    cause,
  ]);
  await expect(add(entry?.id ?? '', 2, 'cash')).rejects.toMatchObject({ constraint: 'ledger_entries_whole' });
  await expect(add(entry?.id ?? '', 0, 'cash')).rejects.toMatchObject({ code: '23505' });
  await expect(add(entry?.id ?? '', 2, 'petty-cash-of-mine')).rejects.toMatchObject({
    constraint: 'ledger_postings_account_known',
  });
  const lonely = inBusiness(programContext(house.business.id), (tx) =>
    tx.query(
      `insert into ledger_entries (id, business_id, booked_on, words, cause, booked_at, posting_count)
       values (gen_random_uuid(), $1, '2026-05-04', 'x', gen_random_uuid()::text, now(), 2)`,
      [house.business.id],
    ),
  );
  await expect(lonely).rejects.toMatchObject({ constraint: 'ledger_entries_not_empty' });
});

test('one cause is booked once', async () => {
  const entry = posted([
    [5n, 'USD'],
    [-5n, 'USD'],
  ]);
  await book(entry, 'payment:one');
  await expect(book(entry, 'payment:one')).rejects.toSatisfy((error) => isTaken(error, 'ledger_entries'));
});

test('nobody changes what is booked, not even the owner of the tables', async () => {
  for (const move of [
    'update ledger_postings set amount_minor = 1',
    'delete from ledger_entries',
    'truncate ledger_postings',
  ]) {
    await expect(asSuperuser(workshop.admin, move), move).rejects.toMatchObject({ code: '42501' });
  }
});

test('the nightly proof is silent while all agree and names what was tampered with', async () => {
  const { number } = await sentInvoice(house);
  expect(await checkBooks()).toEqual([]);
  await asSuperuser(workshop.admin, 'update invoice_sums set due_minor = due_minor + 1');
  await asSuperuser(workshop.admin, 'update invoices set total_minor = total_minor + 1 where number = $1', [number]);
  expect((await checkBooks()).map(({ what }) => what).sort()).toEqual([
    'due by day differs',
    'invoice and receivable differ',
  ]);
});
