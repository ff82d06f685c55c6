import { randomUUID } from 'node:crypto';
import { nameKey } from '@/core/customer/customer';
import { type ImportedRow, importedRow, type Mapping, type OnFile, overlaid } from '@/core/customer/import-rows';
import type { ImportResult } from '@/core/import/columns';
import { businessById } from '@/db/businesses';
import { type Customer, insertCustomers, knownAmong, updateCustomer } from '@/db/customers';
import type { Db } from '@/db/pool';
import { desk } from '@/flows/door/operation';
import { countryCode, regionCode } from '@/outside/places';
import { taxNumberProblem } from '@/outside/tax-number';

type Checked = {
  readonly fresh: readonly Omit<Customer, 'id'>[];
  readonly changed: readonly Customer[];
  readonly refused: ImportResult['refused'];
};

const KNOWN_EMAIL = 'A customer with this e-mail address is on file';
const KNOWN_NAME = 'A customer with this name and no e-mail address is on file';
const TWICE = 'An earlier row of this file is the same customer';

async function checked(
  db: Db,
  rows: readonly (readonly string[])[],
  mapping: Mapping,
  onFile: OnFile,
): Promise<Checked> {
  const { country } = await businessById(db);
  const places = { home: country, countryCode, regionCode };
  const read: ImportedRow[] = rows.map((cells) => {
    const row = importedRow(cells, mapping, places);
    const wrong = row.ok ? taxNumberProblem(row.customer.taxNumber) : null;
    return wrong ? { ok: false, reasons: [wrong] } : row;
  });
  const customers = read.flatMap((row) => (row.ok ? [row.customer] : []));
  const emails = customers.map(({ email }) => email.toLowerCase()).filter(Boolean);
  const keys = customers.filter(({ email }) => !email).map(({ name }) => nameKey(name));
  const known = await knownAmong(db, emails, keys);
  const byEmail = new Map(known.map((one) => [one.email.toLowerCase(), one]));
  const byName = new Map(known.map((one) => [one.nameKey, one]));
  const seen = new Set<string>();
  const fresh: Omit<Customer, 'id'>[] = [];
  const changed: Customer[] = [];
  const refused: { at: number; reasons: readonly string[] }[] = [];
  for (const [at, row] of read.entries()) {
    if (!row.ok) {
      refused.push({ at, reasons: row.reasons });
      continue;
    }
    const email = row.customer.email.toLowerCase();
    const key = nameKey(row.customer.name);
    const same = email ? byEmail.get(email) : byName.get(key);
    const who = same?.id ?? (email || key);
    if (seen.has(who)) refused.push({ at, reasons: [TWICE] });
    else if (!same) fresh.push(row.customer);
    else if (onFile === 'refuse') refused.push({ at, reasons: [email ? KNOWN_EMAIL : KNOWN_NAME] });
    else {
      const { nameKey: _, ...before } = same;
      changed.push(overlaid(before, row.customer));
    }
    seen.add(who);
  }
  return { fresh, changed, refused };
}

const resultOf = ({ fresh, changed, refused }: Checked): ImportResult => ({
  written: fresh.length,
  updated: changed.length,
  refused,
});

/** Reads every row and says which would be refused and why; writes nothing. */
export const checkCustomers = desk('records').run(
  async (ctx, rows: readonly (readonly string[])[], mapping: Mapping, onFile: OnFile): Promise<ImportResult> =>
    resultOf(await ctx.read((db) => checked(db, rows, mapping, onFile))),
);

/** Writes the rows that are good, all of a part or none. A part sent twice finds its customers on file the second time. */
export const importCustomers = desk('records').write(
  async (tx, rows: readonly (readonly string[])[], mapping: Mapping, onFile: OnFile): Promise<ImportResult> => {
    const read = await checked(tx, rows, mapping, onFile);
    await insertCustomers(
      tx,
      read.fresh.map((customer) => ({ id: randomUUID(), ...customer })),
    );
    for (const customer of read.changed) await updateCustomer(tx, customer);
    return resultOf(read);
  },
);
