import { type Customer, nameKey, searchText } from '@/core/customer/customer';
import type { Db, Tx } from './pool';
import { likePattern, many, maybeOne, one, run, type Statement, sql } from './sql';

export type { Customer };

const COLUMNS = `id, kind, name, email, copies, phone, language, currency, billing, delivery, tax_number as "taxNumber",
  note, due, groups`;

/** Where a page of customers ended: the last name in lower case, and its id. */
export type CustomerCursor = { readonly key: string; readonly id: string };

/** Customers by id; those that there are not are left out. `hold`: nobody changes or merges them until the transaction ends. */
export const customersByIds = (db: Db, ids: readonly string[], hold = false): Promise<Customer[]> =>
  many(db, {
    text: `select ${COLUMNS} from customers where business_id = $1 and id = any($2)${hold ? ' order by id for share' : ''}`,
    values: [db.businessId, [...ids]],
  });

export const customerById = async (db: Db, id: string): Promise<Customer | null> =>
  id ? ((await customersByIds(db, [id]))[0] ?? null) : null;

/** The same, locked until the transaction ends. */
export const lockedCustomer = (tx: Tx, id: string): Promise<Customer | null> =>
  maybeOne(tx, {
    text: `select ${COLUMNS} from customers where business_id = $1 and id = $2 and merged_into is null for update`,
    values: [tx.businessId, id],
  });

/** The customer with this e-mail address, the one on file for longest; null where there is none. */
export const customerByEmail = (db: Db, email: string): Promise<Customer | null> =>
  maybeOne(db, {
    text: `select ${COLUMNS} from customers
      where business_id = $1 and email <> '' and lower(email) = $2 and merged_into is null order by created_at, id limit 1`,
    values: [db.businessId, email.trim().toLowerCase()],
  });

/** A search finds this many at most; whoever looks for more types on. */
const MOST_FOUND = 1000;

/** The first three typed words, each somewhere in what a customer is found by. */
export function wordPatterns(words: string): [string, string, string] {
  const [first = '%', second = '%', third = '%'] = words.split(/\s+/).filter(Boolean).map(likePattern);
  return [first, second, third];
}

/** Customers found by any of their names, addresses and numbers, names that begin with the words first; at most 8. */
export const customersFound = (db: Db, words: string): Promise<Customer[]> =>
  many(db, {
    text: `select ${COLUMNS} from customers
      where business_id = $1 and merged_into is null
        ${words.trim() ? `and id in (select customers_matching($3, $4, $5, ${MOST_FOUND}))` : ''}
      order by starts_with(lower(name), $2) desc, lower(name), id limit 8`,
    values: [db.businessId, words.toLowerCase(), ...(words.trim() ? wordPatterns(words) : [])],
  });

/** The statement of one page of customers by name, so that a test can read its plan. */
export function customerPage(
  businessId: string,
  asked: { words: string; group: string },
  limit: number,
  after: CustomerCursor | null,
): Statement {
  const values: unknown[] = [businessId, limit];
  const place = (value: unknown): string => `$${values.push(value)}`;
  const words = asked.words.trim() ? wordPatterns(asked.words).map(place).join(', ') : '';
  return {
    text: `select ${COLUMNS} from customers where business_id = $1 and merged_into is null
      ${words ? `and id in (select customers_matching(${words}, ${MOST_FOUND}))` : ''}
      ${asked.group ? `and groups @> array[${place(asked.group)}]` : ''}
      ${after ? `and (lower(name), id) > (${place(after.key)}, ${place(after.id)}::uuid)` : ''}
      order by lower(name), id limit $2`,
    values,
  };
}

export const customerRows = (
  db: Db,
  asked: { words: string; group: string },
  limit: number,
  after: CustomerCursor | null = null,
): Promise<Customer[]> => many(db, customerPage(db.businessId, asked, limit, after));

const written = (customer: Customer): unknown[] => [
  customer.kind,
  customer.name,
  customer.email,
  [...customer.copies],
  customer.phone,
  customer.language,
  customer.currency,
  JSON.stringify(customer.billing),
  customer.delivery ? JSON.stringify(customer.delivery) : null,
  customer.taxNumber,
  customer.note,
  customer.due ? JSON.stringify(customer.due) : null,
  [...customer.groups],
  searchText(customer),
  nameKey(customer.name),
];

export const insertCustomer = (tx: Tx, customer: Customer): Promise<number> =>
  run(tx, {
    text: `insert into customers (kind, name, email, copies, phone, language, currency, billing, delivery, tax_number, note,
        due, groups, search, name_key, id, business_id, created_at, changed_at)
      values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12, $13, $14, $15, $16, $17, $18, $18)`,
    values: [...written(customer), customer.id, tx.businessId, tx.now],
  });

export const updateCustomer = (tx: Tx, customer: Customer): Promise<number> =>
  run(tx, {
    text: `update customers set kind = $1, name = $2, email = $3, copies = $4, phone = $5, language = $6, currency = $7,
        billing = $8, delivery = $9, tax_number = $10, note = $11, due = $12, groups = $13, search = $14, name_key = $15,
        changed_at = $18
      where business_id = $17 and id = $16 and merged_into is null`,
    values: [...written(customer), customer.id, tx.businessId, tx.now],
  });

/** Adds many at once, in one statement. */
export const insertCustomers = (tx: Tx, customers: readonly Customer[]): Promise<number> =>
  run(tx, {
    text: `insert into customers (id, business_id, kind, name, email, copies, phone, language, currency, billing, delivery,
        tax_number, note, due, groups, search, name_key, created_at, changed_at)
      select id, $1, kind, name, email, copies, phone, language, currency, billing, delivery, tax_number, note, due, groups,
        search, name_key, $3, $3
      from jsonb_to_recordset($2::jsonb) as one (id uuid, kind text, name text, email text, copies text[], phone text,
        language text, currency text, billing jsonb, delivery jsonb, tax_number text, note text, due jsonb, groups text[],
        search text, name_key text)`,
    values: [
      tx.businessId,
      JSON.stringify(
        customers.map(({ taxNumber, ...customer }) => ({
          ...customer,
          tax_number: taxNumber,
          search: searchText({ ...customer, taxNumber }),
          name_key: nameKey(customer.name),
        })),
      ),
      tx.now,
    ],
  });

/** Moves everything of one customer to another and sets the emptied row aside. */
export async function mergeCustomer(tx: Tx, fromId: string, intoId: string): Promise<void> {
  await run(
    tx,
    sql`update invoices set customer_id = ${intoId}, paper = jsonb_set(paper, '{customerId}', to_jsonb(${intoId}::text))
        where business_id = ${tx.businessId} and customer_id = ${fromId}`,
  );
  for (const statement of [
    sql`update payments set customer_id = ${intoId} where business_id = ${tx.businessId} and customer_id = ${fromId}`,
    sql`update cards set customer_id = ${intoId} where business_id = ${tx.businessId} and customer_id = ${fromId}`,
    sql`update authorisations set customer_id = ${intoId} where business_id = ${tx.businessId} and customer_id = ${fromId}`,
    sql`update charges set customer_id = ${intoId} where business_id = ${tx.businessId} and customer_id = ${fromId}`,
    sql`update plans set customer_id = ${intoId}, terms = jsonb_set(terms, '{paper,customerId}', to_jsonb(${intoId}::text))
        where business_id = ${tx.businessId} and customer_id = ${fromId}`,
  ])
    await run(tx, statement);
  await run(
    tx,
    sql`update customers set merged_into = ${intoId} where business_id = ${tx.businessId} and (id = ${fromId} or merged_into = ${fromId})`,
  );
}

/** Others that are likely the same customer: the same e-mail address, or a name that is nearly the same; at most 5. */
export const customersAlike = (db: Db, customer: Pick<Customer, 'id' | 'name' | 'email'>): Promise<Customer[]> =>
  many(db, {
    text: `select ${COLUMNS} from customers
      where business_id = $1 and id <> $2 and merged_into is null
        and ((lower(email) = lower($3) and email <> '') or id in (select customers_like_name($4)))
      order by lower(email) = lower($3) desc, similarity(name_key, $4) desc, lower(name), id limit 5`,
    values: [db.businessId, customer.id, customer.email, nameKey(customer.name)],
  });

/** Which of these addresses and names (by `nameKey`) a customer has already. */
export const knownAmong = (
  db: Db,
  emails: readonly string[],
  keys: readonly string[],
): Promise<{ email: string; nameKey: string }[]> =>
  many(
    db,
    sql`select lower(email) as email, name_key as "nameKey" from customers
        where business_id = ${db.businessId} and merged_into is null
          and (lower(email) = any(${[...emails]}::text[]) or name_key = any(${[...keys]}::text[]))`,
  );

/** The names of all groups, with how many are in each. */
export const customerGroups = (db: Db): Promise<{ name: string; count: number }[]> =>
  many(
    db,
    sql`select one as name, count(*)::int as count from customers, unnest(groups) as one
        where business_id = ${db.businessId} and merged_into is null group by one order by lower(one)`,
  );

/** How many customers there are on file. */
export async function customerCount(db: Db): Promise<number> {
  const row = await one<{ count: number }>(
    db,
    sql`select count(*)::int as count from customers where business_id = ${db.businessId} and merged_into is null`,
  );
  return row.count;
}

/** What a customer owes and has paid, over all sent invoices, by currency; minor units. */
export const customerSums = (
  db: Db,
  id: string,
): Promise<{ currency: string; dueMinor: bigint; paidMinor: bigint; invoices: number }[]> =>
  many(
    db,
    sql`select currency, sum(due_minor)::bigint as "dueMinor", sum(paid_minor - refunded_minor)::bigint as "paidMinor",
          count(*)::int as invoices
        from invoices where business_id = ${db.businessId} and customer_id = ${id} and stage = 'sent'
        group by currency order by currency`,
  );

/** Everybody in a group, by name. */
export const customersOfGroup = (db: Db, group: string, limit: number): Promise<Customer[]> =>
  customerRows(db, { words: '', group }, limit);

/** Customers by how a file names them: an e-mail address or a whole name, in lower case. A name that two share finds neither. */
export async function customersByWriting(db: Db, written: readonly string[]): Promise<Map<string, Customer>> {
  const keys = [...new Set(written.map((one) => one.toLowerCase()))];
  if (keys.length === 0) return new Map();
  const rows = await many<Customer>(db, {
    text: `select ${COLUMNS} from customers where business_id = $1 and merged_into is null
      and (lower(email) = any($2::text[]) or lower(name) = any($2::text[]))`,
    values: [db.businessId, keys],
  });
  const names = new Map<string, number>();
  for (const { name } of rows) names.set(name.toLowerCase(), (names.get(name.toLowerCase()) ?? 0) + 1);
  const found = new Map<string, Customer>();
  for (const row of rows) if (names.get(row.name.toLowerCase()) === 1) found.set(row.name.toLowerCase(), row);
  for (const row of rows) if (row.email) found.set(row.email.toLowerCase(), row);
  return found;
}
