/** After the blows: our book and the processor's, the ledger, numbers, mails, jobs and kept cards, compared. */
import { checkBooks } from '@/flows/house/check-books';
import { asSuperuser } from '../../support/database';
import type { Stack } from '../../support/stack';

type Sale = {
  readonly key: string;
  readonly status: string;
  readonly amount: number;
  readonly refunds: readonly { readonly key: string; readonly amount: number }[];
};

/** What is wrong, a sentence each, and what was counted. */
export type Compared = { readonly troubles: readonly string[]; readonly counted: Readonly<Record<string, number>> };

const rowsOf =
  (admin: string) =>
  <Row>(text: string): Promise<Row[]> =>
    asSuperuser<Row>(admin, text);

/** What is not finished yet: the blows are over when it is nothing. */
export async function unfinished(admin: string): Promise<string[]> {
  const counts = await asSuperuser<{ what: string; n: number }>(
    admin,
    `select 'payments pending' as what, count(*)::int as n from payments where state = 'pending'
     union all select 'refunds pending', count(*)::int from refunds where state = 'pending'
     union all select 'messages queued', count(*)::int from messages where state = 'queued'
     union all select 'cards claimed', count(*)::int from card_claims
     union all select 'charges under way', count(*)::int from charges where state = 'charging'
     union all select 'jobs', count(*)::int from graphile_worker._private_jobs j join graphile_worker._private_tasks t on t.id = j.task_id
       where t.identifier not in ('minute', 'check-books', 'due-work', 'due-charges')
     union all select 'failures noted', count(*)::int from stuck_jobs where not given_up and key not like 'due:%'`,
  );
  return counts.filter(({ n }) => n > 0).map(({ what, n }) => `${what}: ${n}`);
}

const minus = (one: readonly string[], other: readonly string[]): string[] => {
  const there = new Set(other);
  return one.filter((line) => !there.has(line));
};
const twice = (lines: readonly string[]): string[] => [
  ...new Set(lines.filter((line, at) => lines.indexOf(line) !== at)),
];

async function booksDiffer(stack: Stack): Promise<string[]> {
  const rows = rowsOf(stack.admin);
  const answer = await fetch(`${stack.standIns}/cards/api/book`, { headers: { authorization: 'Bearer stand-in-key' } });
  const { sales } = (await answer.json()) as { sales: Sale[] };
  const theirs = sales.filter(({ status }) => status === 'accepted').map(({ key, amount }) => `${key} ${amount}`);
  const ours = await rows<{ line: string }>(
    `select business_id || '.' || id || ' ' || (amount_minor + tip_minor) as line from payments
     where sale_id is not null and state = 'paid'`,
  );
  const ourLines = ours.map(({ line }) => line);
  const theirVoids = sales.filter(({ status }) => status === 'voided').map(({ key }) => key);
  const ourVoids = (
    await rows<{ line: string }>(`select business_id || '.' || id as line from payments where state = 'voided'`)
  ).map(({ line }) => line);
  const theirBacks = sales.flatMap(({ key, refunds }) => refunds.map((back) => `${key} ${back.key} ${back.amount}`));
  const ourBacks = (
    await rows<{ line: string }>(
      `select r.business_id || '.' || r.payment_id || ' ' || r.id || ' ' || r.amount_minor as line from refunds r
       where r.kind = 'refund' and r.state = 'done' and r.method = 'card'`,
    )
  ).map(({ line }) => line);
  const told = (what: string, lines: readonly string[]) => lines.map((line) => `${what}: ${line}`);
  return [
    ...told('charged there, not paid here', minus(theirs, ourLines)),
    ...told('paid here, not charged there', minus(ourLines, theirs)),
    ...told('voided there only', minus(theirVoids, ourVoids)),
    ...told('voided here only', minus(ourVoids, theirVoids)),
    ...told('given back there only', minus(theirBacks, ourBacks)),
    ...told('given back here only', minus(ourBacks, theirBacks)),
    ...told('given back twice there', twice(theirBacks)),
  ];
}

/** Statements that find nothing when all is well. */
const NEVER: Readonly<Record<string, string>> = {
  'an invoice is paid twice': `select number as line from invoices where due_minor < 0`,
  'an order is paid twice': `select order_id::text as line from payments where state in ('paid', 'voided') and order_id is not null
    group by order_id having count(*) > 1`,
  'a charge is paid twice': `select charge_id::text as line from payments where state = 'paid' and charge_id is not null
    group by charge_id having count(*) > 1`,
  'more was given back than was paid': `select id::text as line from payments where refunded_minor > amount_minor + tip_minor`,
  'a paid payment without its receipt': `select p.id::text as line from payments p where p.state = 'paid' and p.charge_id is null
    and not exists (select from receipts r where r.business_id = p.business_id and r.payment_id = p.id)`,
  'a gap or a double among the numbers of invoices': `select business_id::text as line from invoices where number is not null
    group by business_id having count(*) <> max(number::int) or count(distinct number) <> count(*)`,
  'a gap or a double among the numbers of receipts': `select business_id::text as line from receipts
    group by business_id having count(*) <> max(number::int) or count(distinct number) <> count(*)`,
  'a receipt that nobody was told of': `select r.number as line from receipts r join payments p on p.business_id = r.business_id and p.id = r.payment_id
    where p.order_id is not null and not exists (select from messages m where m.business_id = r.business_id and m.kind = 'receipt' and m.payment_id = r.payment_id)`,
  'a receipt that was told of twice': `select payment_id::text as line from messages where kind = 'receipt' and payment_id is not null
    group by payment_id having count(*) > 1`,
  'a message that did not get out': `select kind || ' ' || coalesce(trouble, '') as line from messages where state not in ('handed-over', 'delivered')`,
  'a job that was given up': `select t.identifier || ' ' || coalesce(last_error, '') as line from graphile_worker._private_jobs j
    join graphile_worker._private_tasks t on t.id = j.task_id where attempts >= max_attempts`,
  'something is stuck': `select task || ' ' || key as line from stuck_jobs`,
  'a plan of an order without its card, or without what was agreed': `select p.number as line from plans p where p.order_id is not null
    and not exists (select from authorisations a where a.business_id = p.business_id and a.plan_id = p.id)`,
  'a repeated order that was paid and has no plan': `select o.reference as line from orders o join payments p on p.business_id = o.business_id and p.order_id = o.id
    where p.state = 'paid' and coalesce(o.choice ->> 'repeat', '') <> '' and not exists (select from plans where plans.business_id = o.business_id and plans.order_id = o.id)`,
};

async function mailDiffers(stack: Stack): Promise<{ troubles: string[]; again: number }> {
  const messages = await asSuperuser<{ id: string }>(
    stack.admin,
    `select id || '.' || business_id as id from messages where way = 'mail' and state in ('handed-over', 'delivered')`,
  );
  const answer = await fetch(`${stack.standIns}/mail/api/ids`);
  const { ids } = (await answer.json()) as { ids: string[] };
  const arrived = ids.map((id) => id.replace(/^<|@.*$/g, ''));
  const ours = messages.map(({ id }) => id);
  return {
    troubles: [
      ...minus(ours, arrived).map((id) => `a message said to be handed over is in no mailbox: ${id}`),
      ...minus(arrived, ours).map((id) => `a mail that we do not know of: ${id}`),
    ],
    again: arrived.length - new Set(arrived).size,
  };
}

/** Compares everything that can be compared. */
export async function compared(stack: Stack): Promise<Compared> {
  const rows = rowsOf(stack.admin);
  const never: string[] = [];
  for (const [what, text] of Object.entries(NEVER)) {
    const found = await rows<{ line: string }>(text);
    never.push(...found.slice(0, 20).map(({ line }) => `${what}: ${line}`));
  }
  const mail = await mailDiffers(stack);
  const books = (await checkBooks()).map(({ businessId, what, subject }) => `${businessId}: ${what}, ${subject}`);
  const [counts] = await rows<Record<string, number>>(
    `select (select count(*)::int from payments where state in ('paid', 'voided')) as payments,
       (select count(*)::int from payments where charge_id is not null and state = 'paid') as "charges of plans",
       (select count(*)::int from refunds where state = 'done') as "given back",
       (select count(*)::int from cards where state <> 'removed') as "cards on file",
       (select count(*)::int from messages) as messages,
       (select count(*)::int from ledger_entries) as "entries of the ledger"`,
  );
  return {
    troubles: [...(await booksDiffer(stack)), ...never, ...mail.troubles, ...books],
    counted: { ...counts, 'mails handed over again under the same Message-ID': mail.again },
  };
}
