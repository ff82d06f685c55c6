/** The bank's lines against many open invoices, read from a file and proposed; and a payout of many payments, beside what the database alone takes. */
import pg from 'pg';
import { matcher } from '@/core/bank/match/match';
import { readStatements } from '@/core/bank/statement/read';
import { addDays } from '@/core/dates/calendar-date';
import { dateInZone } from '@/core/dates/zone';
import { readBusiness } from '@/db/transaction';
import { bankPage } from '@/flows/bank/bank-page';
import { importStatement } from '@/flows/bank/import-statement';
import { openThings } from '@/flows/bank/proposing';
import { programContext } from '@/flows/door/program';
import { makePayouts } from '@/flows/payout/pay-out-due';
import { payoutList } from '@/flows/payout/payout-list';
import { payoutCsv, payoutSheet } from '@/flows/payout/payout-sheet';
import { confirmedAccount } from '../../tests/support/payouts';
import { foundHouse, type House, sentInvoice } from '../../tests/support/workshop';

const INVOICES = 100_000;
const LINES = 10_000;
const PAYMENTS = 100_000;

const say = (result: object): boolean => process.stdout.write(`${JSON.stringify(result)}\n`);

async function timed<T>(work: () => Promise<T>): Promise<{ seconds: number; value: T }> {
  const begun = performance.now();
  const value = await work();
  return { seconds: Number(((performance.now() - begun) / 1000).toFixed(2)), value };
}

async function fillInvoices(admin: pg.Client, { business }: House): Promise<void> {
  await admin.query(
    `insert into customers (id, business_id, name, email, search, name_key, created_at, changed_at)
     select gen_random_uuid(), $1, name, 'c' || n || '@post.example', lower(name), lower(name), now(), now()
     from (select n, (array['Wilhelmina','Odile','Anselm','Petra','Cornelius','Hedda'])[1 + n % 6] || ' ' ||
       (array['Strand','Roke','Monk','Varga','Amsel','Marsh','Vance'])[1 + n % 7] || ' ' || chr(97 + n % 26) || chr(97 + n / 26 % 26) || chr(97 + n / 676 % 26)
       as name from generate_series(1, $2) as n) as one`,
    [business.id, INVOICES / 10],
  );
  await admin.query(
    `insert into invoices (id, business_id, stage, number, customer_id, currency, paper, printed, link_token, issued_on, due_on,
       total_minor, tax_minor, paid_minor, sent_at, created_at, changed_at, reference)
     select gen_random_uuid(), $1, 'sent', (100000 + n)::text, who.id, 'USD', '{}', '{}', $1::text || n, current_date, current_date + 14,
       1000 + (n::bigint * 7919) % 500000, 100, 0, now(), now(), now(), ''
     from generate_series(1, $2) as n
     join (select id, row_number() over (order by name) as place, count(*) over () as people from customers where business_id = $1) as who
       on who.place = 1 + n % who.people`,
    [business.id, INVOICES],
  );
  await admin.query('vacuum analyze');
}

/** A statement in which a third names its invoice, a third only its payer, and a third is anybody's. */
async function statement(admin: pg.Client, { business }: House): Promise<Buffer> {
  const { rows } = await admin.query(
    `select number, name, due_minor::float8 as due from invoices join customers on customers.id = customer_id
     where invoices.business_id = $1 order by number limit $2`,
    [business.id, LINES],
  );
  const entries = rows.map(({ number, name, due }, at) => {
    const text =
      at % 3 === 0 ? `Invoice ${number} thanks` : at % 3 === 1 ? `violin ${at}` : `transfer ${at} of the month`;
    const who = at % 3 === 2 ? 'SOMEBODY UNKNOWN' : String(name).toUpperCase().slice(0, 18);
    return `<Ntry><Amt Ccy="USD">${(Number(due) / 100).toFixed(2)}</Amt><CdtDbtInd>CRDT</CdtDbtInd><Sts>BOOK</Sts><BookgDt><Dt>2027-03-01</Dt></BookgDt><AcctSvcrRef>B${at}</AcctSvcrRef><NtryDtls><TxDtls><RltdPties><Dbtr><Nm>${who}</Nm></Dbtr></RltdPties><RmtInf><Ustrd>${text}</Ustrd></RmtInf></TxDtls></NtryDtls></Ntry>`;
  });
  return Buffer.from(
    `<?xml version="1.0"?><Document xmlns="urn:iso:std:iso:20022:tech:xsd:camt.053.001.08"><BkToCstmrStmt><Stmt><Id>1</Id><Acct><Id><IBAN>DE17560000010004277819</IBAN></Id><Ccy>USD</Ccy></Acct>${entries.join('')}</Stmt></BkToCstmrStmt></Document>`,
  );
}

async function measureMatching(admin: pg.Client): Promise<void> {
  const house = await foundHouse('Bank');
  await fillInvoices(admin, house);
  const file = await statement(admin, house);
  const reading = await timed(async () => readStatements(file.toString()));
  const things = await timed(() => readBusiness(programContext(house.business.id), (db) => openThings(db, 'USD')));
  const lines = (reading.value[0]?.lines ?? []).map((line, at) => ({
    id: String(at),
    day: line.day,
    amount: line.amount,
    text: line.text,
    name: line.name ?? '',
    otherAccount: '',
    reference: '',
    endToEnd: '',
  }));
  const proposing = await timed(async () => {
    const propose = matcher(things.value);
    return lines.map((line) => propose(line));
  });
  const sure = proposing.value.filter(([best]) => best?.sure === 'sure').length;
  say({
    name: 'matching',
    invoices: INVOICES,
    lines: LINES,
    readFileSeconds: reading.seconds,
    readInvoicesSeconds: things.seconds,
    proposeSeconds: proposing.seconds,
    sure,
    withProposal: proposing.value.filter((list) => list.length > 0).length,
    goalSeconds: 10,
  });
  const imported = await timed(() => importStatement(house.owner, 'bank.xml', file, null));
  const page = await timed(() => bankPage(house.owner, '', ''));
  say({ name: 'matching: file imported, page shown', importSeconds: imported.seconds, pageSeconds: page.seconds });
}

async function measurePayout(admin: pg.Client, standIns: string): Promise<void> {
  const house = await foundHouse('Payout');
  const { id, zone } = house.business;
  const { id: invoiceId } = await sentInvoice(house);
  await confirmedAccount({ standIns }, house);
  const today = dateInZone(new Date(), zone);
  await admin.query(
    `insert into payments (id, business_id, invoice_id, customer_id, channel, currency, amount_minor, fee_minor, state, attempt_key,
       sale_id, card_scheme, card_last4, method, started_at, settled_at, exclusive)
     select gen_random_uuid(), $1, $2, $3, (array['invoice','link','page','button','plan','desk'])[1 + n % 6], 'USD',
       1000 + (n::bigint * 7919) % 50000, 59, 'paid', n::text, 'sale-' || n, 'Corvid', lpad((n % 10000)::text, 4, '0'), 'card',
       now() - make_interval(days => 1 + n % 7), now() - make_interval(days => 1 + n % 7), false
     from generate_series(1, $4) as n`,
    [id, invoiceId, house.customerId, PAYMENTS],
  );
  await admin.query(
    `insert into day_batches (business_id, day, sums, differences, checked_at)
     select business_id, day, jsonb_build_array(jsonb_build_object('currency', 'USD', 'sales', sum(count), 'salesMinor', sum(sales), 'backs', 0,
       'backMinor', 0, 'feesMinor', sum(fees), 'netMinor', sum(sales - fees),
       'channels', jsonb_agg(jsonb_build_object('channel', channel, 'sales', count, 'salesMinor', sales)))), '[]', now()
     from (select business_id, (settled_at at time zone $2)::date as day, channel, count(*) as count, sum(amount_minor)::bigint as sales,
         sum(fee_minor)::bigint as fees from payments where business_id = $1 group by 1, 2, 3) as one group by 1, 2`,
    [id, zone],
  );
  await admin.query(
    `update businesses set batches_closed_to = $2, payouts_made_to = $2, payouts = '{"when": {"kind": "daily"}, "smallest": {}}' where business_id = $1`,
    [id, addDays(today, -1)],
  );
  await admin.query('vacuum analyze');
  // A Wednesday at noon: on a weekend nothing would go out.
  const days = (8 - new Date(`${today}T12:00:00Z`).getUTCDay() + 2) % 7;
  const at = new Date(Date.now() + days * 86_400_000);
  await admin.query('update businesses set batches_closed_to = $2 where business_id = $1', [
    id,
    addDays(dateInZone(at, zone), -1),
  ]);
  const making = await timed(() => makePayouts(programContext(id, at)));
  const [payout] = (await payoutList(house.owner)).rows;
  if (!payout) throw new Error('No payout was made');
  const sheet = await timed(() => payoutSheet(house.owner, payout.id));
  const copying = await timed(() =>
    admin.query(`copy (select * from payments where business_id = '${id}' order by settled_at) to '/dev/null' csv`),
  );
  let bytes = 0;
  const csv = await timed(async () => {
    for await (const part of (await payoutCsv(house.owner, payout.id)).parts) bytes += part.length;
  });
  say({
    name: 'payout',
    payments: PAYMENTS,
    makeSeconds: making.seconds,
    sheetSeconds: sheet.seconds,
    csvSeconds: csv.seconds,
    csvRowsPerSecond: Math.round(PAYMENTS / csv.seconds),
    copyRowsPerSecond: Math.round(PAYMENTS / copying.seconds),
    megabytes: Math.round(bytes / 1e6),
  });
}

/** @param adminUrl the superuser's, of a database whose settings this process already has */
export async function measureBank(adminUrl: string, standIns: string): Promise<void> {
  const admin = new pg.Client({ connectionString: adminUrl });
  await admin.connect();
  await measureMatching(admin);
  await measurePayout(admin, standIns);
  await admin.end();
}
