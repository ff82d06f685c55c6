import { randomUUID } from 'node:crypto';
import { merged } from '@/core/customer/customer';
import {
  type Customer,
  type CustomerCursor,
  customerById,
  customerCount,
  customerGroups,
  customerRows,
  customerSums,
  customersAlike,
  customersFound,
  insertCustomer,
  lockedCustomer,
  mergeCustomer,
  updateCustomer,
} from '@/db/customers';
import { type InvoiceRow, invoicesOfCustomer } from '@/db/invoice-lists';
import { erasedAt } from '@/db/keeping';
import { desk } from '@/flows/door/operation';
import { Refusal } from '@/flows/door/refusal';
import { found } from '@/flows/door/rights';
import { taxNumberProblem } from '@/outside/tax-number';

export type { Customer };

const PAGE = 60;

/** Customers found as one types; none given finds the first by name. */
export const findCustomers = desk('see').read(async (db, words: string): Promise<Customer[]> => {
  return customersFound(db, words.trim());
});

export type CustomerPage = { readonly rows: readonly Customer[]; readonly next: CustomerCursor | null };

/** A page of customers by name. @param asked words that all have to be found, and a group; both may be empty */
export const customersPage = desk('see').run(
  async (ctx, asked: { words: string; group: string }, after: CustomerCursor | null = null): Promise<CustomerPage> => {
    const rows = await ctx.read((db) => customerRows(db, { ...asked, words: asked.words.trim() }, PAGE + 1, after));
    const shown = rows.slice(0, PAGE);
    const last = shown.at(-1);
    return { rows: shown, next: rows.length > PAGE && last ? { key: last.name.toLowerCase(), id: last.id } : null };
  },
);

/** All groups with their sizes, and how many customers there are. */
export const customerOverview = desk('see').read(
  async (db): Promise<{ groups: { name: string; count: number }[]; count: number }> => {
    return {
      groups: await customerGroups(db),
      count: await customerCount(db),
    };
  },
);

export type CustomerSheet = {
  readonly customer: Customer;
  /** Others who are likely the same. */
  readonly alike: readonly Customer[];
  readonly sums: Awaited<ReturnType<typeof customerSums>>;
  readonly invoices: readonly InvoiceRow[];
  /** When they were erased; null for who was not. */
  readonly erasedAt: Date | null;
};

/** A customer's sheet. @throws Refusal `not-found` */
export const customerSheet = desk('see').read(async (db, id: string): Promise<CustomerSheet> => {
  const customer = found(await customerById(db, id));
  return {
    customer,
    alike: await customersAlike(db, customer),
    sums: await customerSums(db, id),
    invoices: await invoicesOfCustomer(db, id, 30),
    erasedAt: await erasedAt(db, id),
  };
});

/** Customers that somebody about to be added may already be. */
export const alikeCustomers = desk('see').run(async (ctx, name: string, email: string): Promise<Customer[]> => {
  const id = '00000000-0000-4000-8000-000000000000';
  return ctx.read((db) => customersAlike(db, { id, name, email }));
});

/** @throws Refusal `tax-number-wrong` at its place; one that is on file already stays as it is */
function requireTaxNumber(typed: string, before = ''): void {
  const words = typed === before ? null : taxNumberProblem(typed);
  if (words) throw new Refusal('tax-number-wrong', [{ field: 'taxNumber', words }]);
}

/** Adds a customer. @throws Refusal `tax-number-wrong` */
export const addCustomer = desk('records').run(async (ctx, fields: Omit<Customer, 'id'>): Promise<Customer> => {
  requireTaxNumber(fields.taxNumber);
  const customer: Customer = { id: randomUUID(), ...fields };
  await ctx.write(async (tx) => {
    await insertCustomer(tx, customer);
  });
  return customer;
});

/** Changes what is on file; documents already sent stay as they were. @throws Refusal `not-found`, `tax-number-wrong` */
export const changeCustomer = desk('records').run(
  async (ctx, id: string, fields: Omit<Customer, 'id'>): Promise<Customer> => {
    const customer: Customer = { id, ...fields };
    await ctx.write(async (tx) => {
      requireTaxNumber(fields.taxNumber, (await customerById(tx, id))?.taxNumber);
      if ((await updateCustomer(tx, customer)) === 0) throw new Refusal('not-found');
    });
    return customer;
  },
);

/**
 * Makes two customers one: what `keptId` says holds, the other fills what is open, and its invoices and payments move.
 *
 * @throws Refusal `not-found` where one of them is not there (any more)
 */
export const mergeCustomers = desk('records').run(async (ctx, keptId: string, otherId: string): Promise<void> => {
  if (keptId === otherId) throw new Refusal('not-found');
  // In turn: a set that writes invoices for one of them is either seen whole, or begins with the other.
  await ctx.turn(async (tx) => {
    // In one order, whoever merges which into which.
    const locked = new Map<string, Customer>();
    for (const id of [keptId, otherId].sort()) locked.set(id, found(await lockedCustomer(tx, id)));
    await mergeCustomer(tx, otherId, keptId);
    await updateCustomer(tx, merged(found(locked.get(keptId)), found(locked.get(otherId))));
  });
});
