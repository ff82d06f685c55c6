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
import { type InvoiceRow, invoicesOfCustomer } from '@/db/invoices';
import { announce } from '@/db/jobs';
import type { Actor } from '@/db/people';
import { inBusiness, readBusiness } from '@/db/transaction';
import { services } from '@/outside/services';
import { found, requireRight } from './access';
import { Refusal } from './refusal';

export type { Customer };

const PAGE = 60;

/** Customers found as one types; none given finds the first by name. */
export function findCustomers(actor: Actor, words: string): Promise<Customer[]> {
  requireRight(actor, 'read');
  return readBusiness(actor.businessId, (db) => customersFound(db, actor.businessId, words.trim()));
}

export type CustomerPage = { readonly rows: readonly Customer[]; readonly next: CustomerCursor | null };

/** A page of customers by name. @param asked words that all have to be found, and a group; both may be empty */
export async function customersPage(
  actor: Actor,
  asked: { words: string; group: string },
  after: CustomerCursor | null = null,
): Promise<CustomerPage> {
  requireRight(actor, 'read');
  const rows = await readBusiness(actor.businessId, (db) =>
    customerRows(db, actor.businessId, { ...asked, words: asked.words.trim() }, PAGE + 1, after),
  );
  const shown = rows.slice(0, PAGE);
  const last = shown.at(-1);
  return { rows: shown, next: rows.length > PAGE && last ? { key: last.name.toLowerCase(), id: last.id } : null };
}

/** All groups with their sizes, and how many customers there are. */
export function customerOverview(actor: Actor): Promise<{ groups: { name: string; count: number }[]; count: number }> {
  requireRight(actor, 'read');
  return readBusiness(actor.businessId, async (db) => ({
    groups: await customerGroups(db, actor.businessId),
    count: await customerCount(db, actor.businessId),
  }));
}

export type CustomerSheet = {
  readonly customer: Customer;
  /** Others who are likely the same. */
  readonly alike: readonly Customer[];
  readonly sums: Awaited<ReturnType<typeof customerSums>>;
  readonly invoices: readonly InvoiceRow[];
};

/** A customer's sheet. @throws Refusal `not-found` */
export function customerSheet(actor: Actor, id: string): Promise<CustomerSheet> {
  requireRight(actor, 'read');
  return readBusiness(actor.businessId, async (db) => {
    const customer = found(await customerById(db, actor.businessId, id));
    return {
      customer,
      alike: await customersAlike(db, actor.businessId, customer),
      sums: await customerSums(db, actor.businessId, id),
      invoices: await invoicesOfCustomer(db, actor.businessId, id, 30),
    };
  });
}

/** Customers that somebody about to be added may already be. */
export function alikeCustomers(actor: Actor, name: string, email: string): Promise<Customer[]> {
  requireRight(actor, 'read');
  const id = '00000000-0000-4000-8000-000000000000';
  return readBusiness(actor.businessId, (db) => customersAlike(db, actor.businessId, { id, name, email }));
}

/** Adds a customer. */
export async function addCustomer(actor: Actor, fields: Omit<Customer, 'id'>): Promise<Customer> {
  requireRight(actor, 'ask');
  const now = await services().clock.now();
  const customer: Customer = { id: randomUUID(), ...fields };
  await inBusiness(actor.businessId, async (tx) => {
    await insertCustomer(tx, actor.businessId, customer, now);
    await announce(tx, actor.businessId);
  });
  return customer;
}

/** Changes what is on file; documents already sent stay as they were. @throws Refusal `not-found` */
export async function changeCustomer(actor: Actor, id: string, fields: Omit<Customer, 'id'>): Promise<Customer> {
  requireRight(actor, 'ask');
  const now = await services().clock.now();
  const customer: Customer = { id, ...fields };
  await inBusiness(actor.businessId, async (tx) => {
    if ((await updateCustomer(tx, actor.businessId, customer, now)) === 0) throw new Refusal('not-found');
    await announce(tx, actor.businessId);
  });
  return customer;
}

/**
 * Makes two customers one: what `keptId` says holds, the other fills what is open, and its invoices and payments move.
 *
 * @throws Refusal `not-found` where one of them is not there (any more)
 */
export async function mergeCustomers(actor: Actor, keptId: string, otherId: string): Promise<void> {
  requireRight(actor, 'ask');
  if (keptId === otherId) throw new Refusal('not-found');
  const now = await services().clock.now();
  const { businessId } = actor;
  await inBusiness(businessId, async (tx) => {
    // In one order, whoever merges which into which.
    const locked = new Map<string, Customer>();
    for (const id of [keptId, otherId].sort()) locked.set(id, found(await lockedCustomer(tx, businessId, id)));
    await mergeCustomer(tx, businessId, otherId, keptId);
    await updateCustomer(tx, businessId, merged(found(locked.get(keptId)), found(locked.get(otherId))), now);
    await announce(tx, businessId);
  });
}
