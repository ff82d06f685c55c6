import { type Customer, nameKey, searchText } from '@/core/customer/customer';
import type { Db, Tx } from './pool';
import { joined, likePattern, many, maybeOne, NONE, one, run, type Statement, sql } from './sql';

export type { Customer };

const COLUMNS = sql`id, kind, name, email, copies, phone, language, currency, billing, delivery, tax_number as "taxNumber",
  note, due, groups, ships_first as "shipsFirst"`;

/** Where a page of customers ended: the last name in lower case, and its id. */
export type CustomerCursor = { readonly key: string; readonly id: string };

/** Customers by id; those that there are not are left out. `hold`: nobody changes or merges them until the transaction ends. */
export const customersByIds = (db: Db, ids: readonly string[], hold = false): Promise<Customer[]> =>
  many(
    db,
    sql`select ${COLUMNS} from customers where business_id = ${db.businessId} and id = any(${[...ids]})${hold ? sql` order by id for share` : NONE}`,
  );

export const customerById = async (db: Db, id: string): Promise<Customer | null> =>
  id ? ((await customersByIds(db, [id]))[0] ?? null) : null;

/** The same, locked until the transaction ends. */
export const lockedCustomer = (tx: Tx, id: string): Promise<Customer | null> =>
  maybeOne(
    tx,
    sql`select ${COLUMNS} from customers where business_id = ${tx.businessId} and id = ${id} and merged_into is null and erased_at is null for update`,
  );

/** The customer with this e-mail address, the one on file for longest; null where there is none. */
export const customerByEmail = (db: Db, email: string): Promise<Customer | null> =>
  maybeOne(
    db,
    sql`select ${COLUMNS} from customers
      where business_id = ${db.businessId} and email <> '' and lower(email) = ${email.trim().toLowerCase()} and merged_into is null order by created_at, id limit 1`,
  );

/** The customer with this tax number, however it is spaced; the one on file for longest. */
export const customerByTaxNumber = (db: Db, number: string): Promise<Customer | null> =>
  maybeOne(
    db,
    sql`select ${COLUMNS} from customers where business_id = ${db.businessId} and merged_into is null and tax_number <> ''
      and upper(regexp_replace(tax_number, '[^[:alnum:]]', '', 'g')) = ${number.replace(/[^\p{L}\p{N}]/gu, '').toUpperCase()}
      order by created_at, id limit 1`,
  );

/** A search finds this many at most; whoever looks for more types on. */
const MOST_FOUND = 1000;

/** The ids of customers in whose names, addresses and numbers the first three typed words are, each somewhere; at most so many. */
export function customersMatching(words: string, most: number): Statement {
  const [first = '%', second = '%', third = '%'] = words.split(/\s+/).filter(Boolean).map(likePattern);
  return sql`customers_matching(${first}, ${second}, ${third}, ${most})`;
}

const foundBy = (words: string): Statement => sql`and id in (select ${customersMatching(words, MOST_FOUND)})`;

/** Customers found by any of their names, addresses and numbers, names that begin with the words first; at most 8. */
export const customersFound = (db: Db, words: string): Promise<Customer[]> =>
  many(
    db,
    sql`select ${COLUMNS} from customers
        where business_id = ${db.businessId} and merged_into is null and erased_at is null ${words.trim() ? foundBy(words) : NONE}
        order by starts_with(lower(name), ${words.toLowerCase()}) desc, lower(name), id limit 8`,
  );

/** The statement of one page of customers by name, so that a test can read its plan. */
export function customerPage(
  businessId: string,
  asked: { words: string; group: string },
  limit: number,
  after: CustomerCursor | null,
): Statement {
  return sql`select ${COLUMNS} from customers where business_id = ${businessId} and merged_into is null and erased_at is null
      ${asked.words.trim() ? foundBy(asked.words) : NONE}
      ${asked.group ? sql`and groups @> array[${asked.group}]` : NONE}
      ${after ? sql`and (lower(name), id) > (${after.key}, ${after.id}::uuid)` : NONE}
      order by lower(name), id limit ${limit}`;
}

export const customerRows = (
  db: Db,
  asked: { words: string; group: string },
  limit: number,
  after: CustomerCursor | null = null,
): Promise<Customer[]> => many(db, customerPage(db.businessId, asked, limit, after));

/** What is written of a customer, column by column. */
const written = (customer: Customer): readonly (readonly [column: Statement, value: unknown])[] => [
  [sql`kind`, customer.kind],
  [sql`name`, customer.name],
  [sql`email`, customer.email],
  [sql`copies`, [...customer.copies]],
  [sql`phone`, customer.phone],
  [sql`language`, customer.language],
  [sql`currency`, customer.currency],
  [sql`billing`, JSON.stringify(customer.billing)],
  [sql`delivery`, customer.delivery ? JSON.stringify(customer.delivery) : null],
  [sql`tax_number`, customer.taxNumber],
  [sql`note`, customer.note],
  [sql`due`, customer.due ? JSON.stringify(customer.due) : null],
  [sql`groups`, [...customer.groups]],
  [sql`ships_first`, customer.shipsFirst],
  [sql`search`, searchText(customer)],
  [sql`name_key`, nameKey(customer.name)],
];

const COMMA = sql`, `;

export const insertCustomer = (tx: Tx, customer: Customer): Promise<number> => {
  const all = written(customer);
  return run(
    tx,
    sql`insert into customers (id, business_id, created_at, changed_at, ${joined(
      all.map(([column]) => column),
      COMMA,
    )})
        values (${customer.id}, ${tx.businessId}, ${tx.now}, ${tx.now}, ${joined(
          all.map(([, value]) => sql`${value}`),
          COMMA,
        )})`,
  );
};

export const updateCustomer = (tx: Tx, customer: Customer): Promise<number> =>
  run(
    tx,
    sql`update customers set changed_at = ${tx.now},
          ${joined(
            written(customer).map(([column, value]) => sql`${column} = ${value}`),
            COMMA,
          )}
        where business_id = ${tx.businessId} and id = ${customer.id} and merged_into is null and erased_at is null`,
  );

/** Adds many at once, in one statement. */
export const insertCustomers = (tx: Tx, customers: readonly Customer[]): Promise<number> =>
  run(
    tx,
    sql`insert into customers (id, business_id, kind, name, email, copies, phone, language, currency, billing, delivery,
        tax_number, note, due, groups, search, name_key, created_at, changed_at)
      select id, ${tx.businessId}, kind, name, email, copies, phone, language, currency, billing, delivery, tax_number, note, due, groups,
        search, name_key, ${tx.now}, ${tx.now}
      from jsonb_to_recordset(${JSON.stringify(
        customers.map(({ taxNumber, ...customer }) => ({
          ...customer,
          tax_number: taxNumber,
          search: searchText({ ...customer, taxNumber }),
          name_key: nameKey(customer.name),
        })),
      )}::jsonb) as one (id uuid, kind text, name text, email text, copies text[], phone text,
        language text, currency text, billing jsonb, delivery jsonb, tax_number text, note text, due jsonb, groups text[],
        search text, name_key text)`,
  );

/** Moves everything of one customer to another and sets the emptied row aside. */
export async function mergeCustomer(tx: Tx, fromId: string, intoId: string): Promise<void> {
  await run(
    tx,
    sql`update invoices set customer_id = ${intoId}, paper = jsonb_set(paper, '{customerId}', to_jsonb(${intoId}::text))
        where business_id = ${tx.businessId} and customer_id = ${fromId}`,
  );
  for (const statement of [
    sql`update payments set customer_id = ${intoId} where business_id = ${tx.businessId} and customer_id = ${fromId}`,
    sql`update handovers set customer_id = ${intoId} where business_id = ${tx.businessId} and customer_id = ${fromId}`,
    sql`update parcels set customer_id = ${intoId} where business_id = ${tx.businessId} and customer_id = ${fromId}`,
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
  many(
    db,
    sql`select ${COLUMNS} from customers
      where business_id = ${db.businessId} and id <> ${customer.id} and merged_into is null
        and ((lower(email) = lower(${customer.email}) and email <> '') or id in (select customers_like_name(${nameKey(customer.name)})))
      order by lower(email) = lower(${customer.email}) desc, similarity(name_key, ${nameKey(customer.name)}) desc, lower(name), id limit 5`,
  );

/** Which of these addresses and names (by `nameKey`) a customer has already. */
export const knownAmong = (
  db: Db,
  emails: readonly string[],
  keys: readonly string[],
): Promise<(Customer & { readonly nameKey: string })[]> =>
  many(
    db,
    sql`select ${COLUMNS}, name_key as "nameKey" from customers
        where business_id = ${db.businessId} and merged_into is null
          and (lower(email) = any(${[...emails]}::text[]) or name_key = any(${[...keys]}::text[]))
        order by created_at, id`,
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
    sql`select count(*)::int as count from customers where business_id = ${db.businessId} and merged_into is null and erased_at is null`,
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
  const rows = await many<Customer>(
    db,
    sql`select ${COLUMNS} from customers where business_id = ${db.businessId} and merged_into is null
      and (lower(email) = any(${keys}::text[]) or lower(name) = any(${keys}::text[]))`,
  );
  const names = new Map<string, number>();
  for (const { name } of rows) names.set(name.toLowerCase(), (names.get(name.toLowerCase()) ?? 0) + 1);
  const found = new Map<string, Customer>();
  for (const row of rows) if (names.get(row.name.toLowerCase()) === 1) found.set(row.name.toLowerCase(), row);
  for (const row of rows) if (row.email) found.set(row.email.toLowerCase(), row);
  return found;
}
