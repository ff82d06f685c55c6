/** Open invoices of before Dahlia, from a spreadsheet: what is still owed on them is asked for here, under the number that they have. */
import { randomUUID } from 'node:crypto';
import { type Business, usualWays } from '@/core/business/business';
import { type Customer, nameKey, newCustomer } from '@/core/customer/customer';
import { dateInZone } from '@/core/dates/zone';
import type { ColumnsAs, ImportResult } from '@/core/import/columns';
import { importedInvoice, type OpenInvoice, type OpenInvoiceField } from '@/core/invoice/import-rows';
import { plainSum } from '@/core/money/money-text';
import { decimalSignOf } from '@/core/money/typed';
import { completePaper, newLine, type Paper } from '@/core/paper/paper';
import { wordsOf } from '@/core/words/words';
import { businessById } from '@/db/businesses';
import { insertCustomers, knownAmong } from '@/db/customers';
import { numbersTaken } from '@/db/invoices';
import { newToken } from '@/db/link-tokens';
import type { Db } from '@/db/pool';
import { desk } from '@/flows/door/operation';
import { Refusal } from '@/flows/door/refusal';
import { issueBroughtIn } from './issue-invoices';
import { localeOf } from './paper-setting';

type Rows = readonly (readonly string[])[];
type Good = { readonly open: OpenInvoice; readonly customer: Customer; readonly isNew: boolean };

async function checked(
  db: Db,
  rows: Rows,
  mapping: ColumnsAs<OpenInvoiceField>,
): Promise<{ good: Good[]; refused: ImportResult['refused'] }> {
  const { currency, deskLocale: locale, zone } = await businessById(db);
  const setting = { currency, locale, sign: decimalSignOf(locale), today: dateInZone(db.now, zone) };
  const read = rows.map((cells) => importedInvoice(cells, mapping, setting));
  const open = read.flatMap((row) => (row.ok ? [row.value] : []));
  const taken = await numbersTaken(
    db,
    open.map(({ number }) => number),
  );
  const known = await knownAmong(
    db,
    open.flatMap(({ email }) => (email ? [email.toLowerCase()] : [])),
    open.flatMap(({ customer }) => (customer ? [nameKey(customer)] : [])),
  );
  const byEmail = new Map(known.filter(({ email }) => email).map((one) => [one.email.toLowerCase(), one as Customer]));
  const byName = new Map(known.map((one) => [one.nameKey, one as Customer]));
  const good: Good[] = [];
  const refused: { at: number; reasons: readonly string[] }[] = [];
  for (const [at, row] of read.entries()) {
    if (!row.ok) {
      refused.push({ at, reasons: row.reasons });
      continue;
    }
    const { number, email, customer: name } = row.value;
    if (taken.has(number)) {
      refused.push({ at, reasons: [`There is an invoice ${number} already`] });
      continue;
    }
    const found = (email && byEmail.get(email.toLowerCase())) || (name && byName.get(nameKey(name))) || null;
    if (!found && !name) {
      refused.push({ at, reasons: ['Nobody has this address yet: a name is needed too'] });
      continue;
    }
    taken.add(number);
    const customer = found || { id: randomUUID(), ...newCustomer(name, { email }) };
    if (!found) {
      if (email) byEmail.set(email.toLowerCase(), customer);
      byName.set(nameKey(name), customer);
    }
    good.push({ open: row.value, customer, isNew: !found });
  }
  return { good, refused };
}

/** What is still owed, as a paper: one line without tax, which was owed where the invoice was written. */
function paperFor(business: Business, { open, customer }: Good): Paper {
  const { number, currency, totalMinor, paidMinor } = open;
  const words = wordsOf(localeOf(business, customer));
  const sum = (minor: bigint) => plainSum(minor, currency);
  return completePaper({
    customerId: customer.id,
    number,
    currency,
    reference: open.reference,
    issuedOn: open.issuedOn,
    due: { kind: 'date', date: open.dueOn },
    reminders: [],
    ways: usualWays(business),
    lines: [
      newLine(randomUUID(), 'flat', {
        what: open.what || `${words.invoice} ${number}`,
        price: sum(totalMinor - paidMinor),
        taxesBy: 'person',
        ...(paidMinor > 0n ? { note: `${sum(totalMinor)} − ${sum(paidMinor)} ${currency}` } : {}),
      }),
    ],
  });
}

/** Reads every row and says which would be refused and why; writes nothing. */
export const checkInvoices = desk('ask').read(
  async (db, rows: Rows, mapping: ColumnsAs<OpenInvoiceField>): Promise<ImportResult> => {
    const { good, refused } = await checked(db, rows, mapping);
    return { written: good.length, updated: 0, refused };
  },
);

/**
 * Brings the rows that are good in, all of a part or none: nothing is sent, and nobody is reminded but by hand. Sent twice, their numbers
 * are there the second time. Customers who are not there yet are added.
 *
 * @throws Refusal `mail-not-confirmed`
 */
export const importInvoices = desk('ask').turn(
  async (tx, rows: Rows, mapping: ColumnsAs<OpenInvoiceField>): Promise<ImportResult> => {
    const business = await businessById(tx);
    const { good, refused } = await checked(tx, rows, mapping);
    const fresh = new Map(good.filter(({ isNew }) => isNew).map(({ customer }) => [customer.id, customer]));
    await insertCustomers(tx, [...fresh.values()]);
    const issued = await issueBroughtIn(
      tx,
      business,
      good.map((one) => ({
        id: randomUUID(),
        paper: paperFor(business, one),
        customer: one.customer,
        byName: tx.name,
        linkToken: newToken(tx.businessId),
      })),
    );
    if (issued !== good.length) throw new Refusal('paper-not-ready');
    return { written: good.length, updated: 0, refused };
  },
);
