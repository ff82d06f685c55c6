import { randomUUID } from 'node:crypto';
import { nameKey } from '@/core/customer/customer';
import { type ImportedRow, importedRow, type Mapping } from '@/core/customer/import-rows';
import { businessById } from '@/db/businesses';
import { type Customer, insertCustomers, knownAmong } from '@/db/customers';
import type { Db } from '@/db/pool';
import { desk } from '@/flows/door/operation';
import { countryCode, regionCode } from '@/outside/places';

/** What became of the rows of a part: how many are (or would be) written, and why the others are not, by their position. */
export type ImportResult = {
  readonly written: number;
  readonly refused: readonly { readonly at: number; readonly reasons: readonly string[] }[];
};

type Checked = { readonly good: readonly Omit<Customer, 'id'>[]; readonly refused: ImportResult['refused'] };

const KNOWN_EMAIL = 'A customer with this e-mail address is on file';
const KNOWN_NAME = 'A customer with this name and no e-mail address is on file';

async function checked(db: Db, rows: readonly (readonly string[])[], mapping: Mapping): Promise<Checked> {
  const { country } = await businessById(db);
  const places = { home: country, countryCode, regionCode };
  const read: ImportedRow[] = rows.map((cells) => importedRow(cells, mapping, places));
  const customers = read.flatMap((row) => (row.ok ? [row.customer] : []));
  const emails = customers.map(({ email }) => email.toLowerCase()).filter(Boolean);
  const keys = customers.filter(({ email }) => !email).map(({ name }) => nameKey(name));
  const known = await knownAmong(db, emails, keys);
  const seenEmails = new Set(known.map(({ email }) => email));
  const seenNames = new Set(known.map(({ nameKey: key }) => key));
  const good: Omit<Customer, 'id'>[] = [];
  const refused: { at: number; reasons: readonly string[] }[] = [];
  for (const [at, row] of read.entries()) {
    if (!row.ok) {
      refused.push({ at, reasons: row.reasons });
      continue;
    }
    const email = row.customer.email.toLowerCase();
    const key = nameKey(row.customer.name);
    if (email ? seenEmails.has(email) : seenNames.has(key)) {
      refused.push({ at, reasons: [email ? KNOWN_EMAIL : KNOWN_NAME] });
      continue;
    }
    if (email) seenEmails.add(email);
    else seenNames.add(key);
    good.push(row.customer);
  }
  return { good, refused };
}

/** Reads every row and says which would be refused and why; writes nothing. */
export const checkCustomers = desk('records').run(
  async (ctx, rows: readonly (readonly string[])[], mapping: Mapping): Promise<ImportResult> => {
    const { good, refused } = await ctx.read((db) => checked(db, rows, mapping));
    return { written: good.length, refused };
  },
);

/** Writes the rows that are good, all of a part or none. A part sent twice finds its customers on file the second time. */
export const importCustomers = desk('records').write(
  async (tx, rows: readonly (readonly string[])[], mapping: Mapping): Promise<ImportResult> => {
    const { good, refused } = await checked(tx, rows, mapping);
    await insertCustomers(
      tx,
      good.map((customer) => ({ id: randomUUID(), ...customer })),
    );
    return { written: good.length, refused };
  },
);
