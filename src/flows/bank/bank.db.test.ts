/** The bank's statements: each line once, each matched with what it was for, and taken back; the books agree throughout. */
import { randomUUID } from 'node:crypto';
import { beforeEach, expect, test } from 'vitest';
import { referenceOfNumber } from '@/core/bank/reference';
import { addDays, type CalendarDate } from '@/core/dates/calendar-date';
import { invoiceById } from '@/db/invoices';
import { accountBalances, ledgerTroubles } from '@/db/ledger';
import { inBusiness } from '@/db/transaction';
import { programContext } from '@/flows/door/program';
import { recordReceived } from '@/flows/payment/receive-payment';
import { takeBackReceived } from '@/flows/payment/take-back-received';
import { takePayment } from '@/flows/payment/take-payment';
import { keepPayoutPolicy } from '@/flows/payout/policy';
import { bookOf, clockAt, confirmedAccount, playDays } from '../../../tests/support/payouts';
import { seeded } from '../../../tests/support/seeded';
import { cardToken, foundHouse, type House, sentInvoice, sharedWorkshop } from '../../../tests/support/workshop';
import { bankPage, findInvoices, MATCHED_FIRST } from './bank-page';
import { fetchStatementsNow, importStatement } from './import-statement';
import { leaveLine, type Take, takeMatch, undoMatch } from './take-match';
import { takeSure } from './take-sure';

const DAY = '2027-03-01' as CalendarDate;
const workshop = await sharedWorkshop();
let house: House;
beforeEach(async () => {
  house = await foundHouse();
  await clockAt(workshop, house, DAY, '10:00');
});

const of = <T>(work: Parameters<typeof inBusiness<T>>[1]) => inBusiness(programContext(house.business.id), work);
const balance = async (account: Parameters<typeof accountBalances>[1]): Promise<bigint> =>
  (await of((tx) => accountBalances(tx, account)))[0]?.minor ?? 0n;
const invoice = async (): Promise<{ id: string; number: string }> => {
  const { id } = await sentInvoice(house);
  return { id, number: (await of((tx) => invoiceById(tx, id)))?.number ?? '' };
};
const due = async (id: string): Promise<bigint> => (await of((tx) => invoiceById(tx, id)))?.dueMinor ?? -1n;

type Row = { sum: string; text?: string; name?: string; reference?: string; account?: string; ref?: string };
/** A statement in the words of a bank, from 0 to what the rows come to. */
function camt(
  rows: readonly Row[],
  more: { opening?: string; closing?: string; day?: string; iban?: string } = {},
): Buffer {
  const { opening = '0.00', day = DAY, iban = 'DE17560000010004277819' } = more;
  const total = rows.reduce((all, { sum }) => all + Math.round(Number(sum) * 100), Math.round(Number(opening) * 100));
  const sumOf = (cents: number) =>
    `<Amt Ccy="USD">${(Math.abs(cents) / 100).toFixed(2)}</Amt><CdtDbtInd>${cents < 0 ? 'DBIT' : 'CRDT'}</CdtDbtInd>`;
  const balanceOf = (code: string, text: string) =>
    `<Bal><Tp><CdOrPrtry><Cd>${code}</Cd></CdOrPrtry></Tp>${sumOf(Math.round(Number(text) * 100))}<Dt><Dt>${day}</Dt></Dt></Bal>`;
  const entries = rows.map(({ sum, text = '', name = '', reference = '', account = '', ref }, at) => {
    const cents = Math.round(Number(sum) * 100);
    const side = cents > 0 ? 'Dbtr' : 'Cdtr';
    return `<Ntry>${sumOf(cents)}<Sts>BOOK</Sts><BookgDt><Dt>${day}</Dt></BookgDt><AcctSvcrRef>${ref ?? `${day}-${at}`}</AcctSvcrRef><NtryDtls><TxDtls><RltdPties>${
      name ? `<${side}><Nm>${name}</Nm></${side}>` : ''
    }${account ? `<${side}Acct><Id><Othr><Id>${account}</Id></Othr></Id></${side}Acct>` : ''}</RltdPties><RmtInf><Ustrd>${text}</Ustrd>${
      reference ? `<Strd><CdtrRefInf><Ref>${reference}</Ref></CdtrRefInf></Strd>` : ''
    }</RmtInf></TxDtls></NtryDtls></Ntry>`;
  });
  return Buffer.from(
    `<?xml version="1.0"?><Document xmlns="urn:iso:std:iso:20022:tech:xsd:camt.053.001.02"><BkToCstmrStmt><Stmt><Id>${day}</Id><Acct><Id><IBAN>${iban}</IBAN></Id><Ccy>USD</Ccy></Acct>${balanceOf('OPBD', opening)}${balanceOf('CLBD', more.closing ?? String(total / 100))}${entries.join('')}</Stmt></BkToCstmrStmt></Document>`,
  );
}

const read = (rows: readonly Row[], more: Parameters<typeof camt>[1] = {}) =>
  importStatement(house.owner, 'statement.xml', camt(rows, more), null);
const page = () => bankPage(house.reader, '', '');
const lineOf = async (amount: bigint) => {
  const found = (await page()).lines.find((line) => line.amount === amount);
  if (!found) throw new Error(`No line of ${amount}`);
  return found;
};
const take = (parts: Take['parts'], more: Partial<Take> = {}): Take => ({
  parts,
  rest: 'open',
  note: '',
  always: false,
  press: randomUUID(),
  ...more,
});

test('what names itself is matched when it is read, the same file brings nothing twice, and what differs is said', async () => {
  const [first, second] = [await invoice(), await invoice()];
  const rows = [
    { sum: '110.00', reference: referenceOfNumber(first.number), name: 'Whoever' },
    { sum: '110.00', text: `Invoice ${second.number}` },
    { sum: '-19.00', text: 'TERMINAL RENT' },
  ];
  const imported = await read(rows);
  expect(imported).toMatchObject({
    kind: 'read',
    matched: 1,
    statements: [{ lines: 3, newLines: 3, balances: 'agree' }],
  });
  expect([await due(first.id), await due(second.id)]).toEqual([0n, 11_000n]);
  expect(await read(rows)).toMatchObject({ matched: 0, statements: [{ lines: 3, newLines: 0 }] });
  // A line more on the same day, and a closing that is not right.
  expect(await read([...rows, { sum: '5.00' }], { closing: '1.00' })).toMatchObject({
    statements: [{ newLines: 1, balances: 'differ', off: 20_500n }],
  });
  expect((await page()).differing).toHaveLength(1);
  expect((await page()).lines.map(({ state, amount }) => [state, amount])).toEqual([
    ['open', 11_000n],
    ['open', -1_900n],
    ['open', 500n],
    ['matched', 11_000n],
  ]);
  // The other sure one is taken with one press, by whoever may.
  await expect(takeSure(house.reader, 'DE17560000010004277819', 'USD')).rejects.toMatchObject({ code: 'not-allowed' });
  expect(await takeSure(house.clerk, 'DE17560000010004277819', 'USD')).toBe(1);
  expect(await due(second.id)).toBe(0n);
  expect(await of(ledgerTroubles)).toEqual([]);
});

test('a missing statement between two is said', async () => {
  await read([{ sum: '10.00' }]);
  await read([{ sum: '1.00' }], { day: addDays(DAY, 1), opening: '10.00' });
  expect((await page()).gaps).toEqual([]);
  await read([{ sum: '1.00' }], { day: addDays(DAY, 4), opening: '31.00' });
  expect((await page()).gaps).toMatchObject([{ from: addDays(DAY, 2), to: addDays(DAY, 3), minor: 2_000n }]);
});

test('one line for two invoices with a rest that is kept, a part, too much, twice the same press, and all of it back', async () => {
  const [first, second] = [await invoice(), await invoice()];
  await read([
    { sum: '230.00', text: `Invoice ${first.number}, invoice ${second.number}` },
    { sum: '60.00', text: 'part' },
  ]);
  const line = await lineOf(23_000n);
  expect(line.proposals[0]).toMatchObject({ title: '2 invoices', rest: 1_000n, sure: 'likely' });
  const parts = [first, second].map(({ id }) => ({ kind: 'invoice' as const, id, minor: 11_000n }));
  await expect(
    takeMatch(house.owner, line.id, take([{ kind: 'invoice', id: first.id, minor: 24_000n }])),
  ).rejects.toMatchObject({
    code: 'match-too-much',
  });
  const press = take(parts, { rest: 'credit' });
  await Promise.allSettled(Array.from({ length: 20 }, () => takeMatch(house.owner, line.id, press)));
  expect([await due(first.id), await due(second.id)]).toEqual([0n, 0n]);
  expect((await lineOf(23_000n)).matches.map(({ amount }) => amount).sort()).toEqual([11_000n, 12_000n]);
  expect(await of(ledgerTroubles)).toEqual([]);
  await expect(takeMatch(house.owner, line.id, take(parts))).rejects.toMatchObject({ code: 'line-matched' });
  const paymentId = (await lineOf(23_000n)).matches[0]?.paymentId ?? '';
  await expect(takeBackReceived(house.owner, paymentId, { reason: 'x', tell: false })).rejects.toMatchObject({
    code: 'on-statement',
  });
  await undoMatch(house.owner, line.id);
  expect([await due(first.id), await due(second.id)]).toEqual([11_000n, 11_000n]);
  expect(await balance('bank')).toBe(0n);
  // A press that was taken back does nothing again.
  await takeMatch(house.owner, line.id, press);
  expect(await due(first.id)).toBe(11_000n);
  const part = await lineOf(6_000n);
  await takeMatch(house.owner, part.id, take([{ kind: 'invoice', id: first.id, minor: 4_000n }]));
  expect([await due(first.id), (await lineOf(6_000n)).state]).toEqual([7_000n, 'open']);
  await takeMatch(house.owner, part.id, take([{ kind: 'invoice', id: second.id, minor: 2_000n }]));
  expect((await lineOf(6_000n)).state).toBe('matched');
  await undoMatch(house.owner, part.id);
  expect([await due(first.id), await due(second.id), (await lineOf(6_000n)).state]).toEqual([7_000n, 11_000n, 'open']);
  expect(await of(ledgerTroubles)).toEqual([]);
});

test('cheques, cash, what was written down before, charges and costs; always so counts for the next; left for later', async () => {
  const [one, two, three] = [await invoice(), await invoice(), await invoice()];
  const received = (id: string, method: 'cheque' | 'transfer' | 'cash', amountMinor = 11_000n) =>
    recordReceived(house.owner, id, { amountMinor, method, reference: '', receivedOn: DAY, requestKey: randomUUID() });
  await received(one.id, 'cheque');
  await received(two.id, 'cheque', 5_000n);
  await received(three.id, 'transfer');
  expect([await balance('bank'), await balance('cheques')]).toEqual([11_000n, 16_000n]);
  await read([
    { sum: '160.00', text: 'CHEQUES' },
    { sum: '110.00', text: `inv ${three.number}` },
    { sum: '-4.50', text: 'Account fee' },
    { sum: '-412.60', name: 'Larkspur Wkshp', account: 'DE99' },
  ]);
  const cheques = await lineOf(16_000n);
  expect(cheques.proposals[0]).toMatchObject({ title: '2 cheques' });
  await takeMatch(house.owner, cheques.id, take(cheques.proposals[0]?.parts ?? []));
  expect(await takeSure(house.owner, 'DE17560000010004277819', 'USD')).toBe(1);
  expect([await balance('bank'), await balance('cheques')]).toEqual([27_000n, 0n]);
  const [fee, cost] = [await lineOf(-450n), await lineOf(-41_260n)];
  await takeMatch(house.owner, fee.id, take(fee.proposals[0]?.parts ?? []));
  const aside = [{ kind: 'aside' as const, id: 'other', minor: -41_260n }];
  await leaveLine(house.owner, cost.id, true);
  expect((await lineOf(-41_260n)).state).toBe('later');
  await takeMatch(house.owner, cost.id, take(aside, { always: true, note: 'Strings' }));
  expect([await balance('bank-charges'), await balance('outside')]).toEqual([450n, 41_260n]);
  expect(
    await read([{ sum: '-80.00', name: 'LARKSPUR', account: 'DE99' }], { day: addDays(DAY, 1), opening: '-146.10' }),
  ).toMatchObject({
    matched: 1,
  });
  await undoMatch(house.owner, cheques.id);
  await undoMatch(house.owner, cost.id);
  expect([await balance('cheques'), await balance('outside')]).toEqual([16_000n, 8_000n]);
  expect(await of(ledgerTroubles)).toEqual([]);
});

test('what the bank kept for itself of what came in is its charge, and the invoice is paid whole; a rest goes no other way', async () => {
  const one = await invoice();
  await read([{ sum: '108.50', text: `invoice ${one.number}`, name: 'Abroad' }]);
  const line = await lineOf(10_850n);
  const whole = { kind: 'invoice' as const, id: one.id, minor: 11_000n };
  const kept = { kind: 'aside' as const, id: 'charge', minor: -150n };
  for (const parts of [[whole, { ...kept, id: 'other' }], [kept], [whole]])
    await expect(takeMatch(house.owner, line.id, take(parts))).rejects.toMatchObject({
      code: expect.stringMatching(/^match-/),
    });
  await takeMatch(house.owner, line.id, take([whole, kept]));
  expect([await due(one.id), await balance('bank'), await balance('bank-charges')]).toEqual([0n, 10_850n, 150n]);
  expect((await lineOf(10_850n)).state).toBe('matched');
  await undoMatch(house.owner, line.id);
  expect([await due(one.id), await balance('bank'), await balance('bank-charges')]).toEqual([11_000n, 0n, 0n]);
  expect(await of(ledgerTroubles)).toEqual([]);
});

test('the bank’s own statements are fetched: a payout stands on its line, and a customer who pays in under the reference is matched', async () => {
  await clockAt(workshop, house, addDays(DAY, -3), '10:00');
  const own = await confirmedAccount(workshop, house);
  await keepPayoutPolicy(house.owner, { when: { kind: 'daily' }, smallest: {} });
  await clockAt(workshop, house, DAY, '10:00');
  const paid = await sentInvoice(house);
  const token = await cardToken(workshop.standIns, 'corvid-good');
  await takePayment(paid.link, { attemptKey: randomUUID(), cardToken: token, amountMinor: 11_000n }, randomUUID());
  const open = await invoice();
  await playDays(workshop, house, [addDays(DAY, 1), addDays(DAY, 2)]);
  const form = {
    other: 'A. Customer',
    amount: '110',
    currency: 'USD',
    words: 'thanks',
    reference: referenceOfNumber(open.number),
  };
  await fetch(`${workshop.standIns}/bank/accounts/${own}`, {
    method: 'POST',
    body: new URLSearchParams(form),
    redirect: 'manual',
  });
  await clockAt(workshop, house, addDays(DAY, 4), '10:00');
  await fetchStatementsNow(house.owner);
  await fetchStatementsNow(house.owner);
  const { lines, differing, gaps } = await bankPage(house.reader, own, 'USD');
  expect(lines.map(({ state }) => state)).toEqual(lines.map(() => 'matched'));
  expect(lines.flatMap(({ matches }) => matches.map(({ words }) => words)).sort()).toEqual([
    `Invoice ${open.number}`,
    'Payout 1',
  ]);
  expect([differing, gaps]).toEqual([[], []]);
  expect(await due(open.id)).toBe(0n);
  const sum = (await bookOf(workshop, own)).reduce((all, { minor }) => all + BigInt(minor), 0n);
  expect(await balance('bank')).toBe(sum);
  expect(await of(ledgerTroubles)).toEqual([]);
});

test('a CSV is read once its columns are told, and the next of that bank by itself; what is no statement is said in words', async () => {
  const csv = (rows: string) => Buffer.from(`Some bank\r\n\r\nTag;Wer;Wofür;Summe\r\n${rows}`, 'latin1');
  const first = await importStatement(house.owner, 'a.csv', csv('24.11.2026;Müller;Re;5,00\r\n'), null);
  if (first.kind !== 'columns') throw new Error('The columns are known?');
  expect(first).toMatchObject({ headings: ['Tag', 'Wer', 'Wofür', 'Summe'] });
  const mapping = {
    ...first.mapping,
    columns: ['day', 'name', 'text', 'amount'] as const,
    account: '77 1',
    currency: 'EUR',
  };
  expect(await importStatement(house.owner, 'a.csv', csv('24.11.2026;Müller;Re;5,00\r\n'), mapping)).toMatchObject({
    statements: [{ account: '771', currency: 'EUR', newLines: 1, balances: 'unknown' }],
  });
  expect(
    await importStatement(house.owner, 'b.csv', csv('24.11.2026;Müller;Re;5,00\r\n25.11.2026;Özil;;7,00\r\n'), null),
  ).toMatchObject({
    statements: [{ lines: 2, newLines: 1 }],
  });
  expect((await bankPage(house.reader, '771', 'EUR')).lines.map(({ name }) => name)).toEqual(['Özil', 'Müller']);
  for (const broken of [
    '<?xml version="1.0"?><!DOCTYPE x [<!ENTITY a "b">]><Document/>',
    ':20:1\r\n:25:x\r\n',
    'nothing',
    '{1:F01}',
  ])
    await expect(importStatement(house.owner, 'x', Buffer.from(broken), null)).rejects.toMatchObject({
      code: 'statement-not-read',
      fields: [{ words: expect.stringMatching(/cannot be read/) }],
    });
});

test('older matched lines are a press away, and none is left out', async () => {
  const sums = Array.from({ length: 4 }, (_, at) => `-${at + 1}.00`);
  await read(sums.map((sum) => ({ sum, text: `charge ${sum}` })));
  for (const { id, amount } of (await page()).lines)
    await takeMatch(house.owner, id, take([{ kind: 'aside', id: 'charge', minor: amount }]));
  const shown = async (matched: number) => {
    const { lines, olderMatched } = await bankPage(house.reader, '', '', matched);
    return [lines.length, olderMatched];
  };
  expect(await shown(3)).toEqual([3, 3 + MATCHED_FIRST]);
  expect(await shown(3 + MATCHED_FIRST)).toEqual([4, null]);
  expect(await shown(4)).toEqual([4, null]);
});

test('another business finds, reads and takes nothing of it', async () => {
  const one = await invoice();
  await read([{ sum: '110.00', text: 'who' }]);
  const line = await lineOf(11_000n);
  const other = await foundHouse('Elsewhere');
  expect((await bankPage(other.reader, 'DE17560000010004277819', 'USD')).lines).toEqual([]);
  expect(await findInvoices(other.owner, 'USD', one.number)).toEqual([]);
  expect((await findInvoices(house.owner, 'USD', one.number)).map(({ id }) => id)).toEqual([one.id]);
  const part = [{ kind: 'invoice' as const, id: one.id, minor: 11_000n }];
  await expect(takeMatch(other.owner, line.id, take(part))).rejects.toMatchObject({ code: 'not-found' });
  await expect(undoMatch(other.owner, line.id)).rejects.toMatchObject({ code: 'not-found' });
});

test('whatever is matched and taken back in whatever order, the books agree', async () => {
  const chance = seeded(7);
  const invoices = [await invoice(), await invoice(), await invoice()];
  await read([{ sum: '110.00' }, { sum: '300.00' }, { sum: '45.00' }, { sum: '-9.00' }]);
  const { lines } = await page();
  for (let step = 0; step < 40; step++) {
    const line = lines[Math.floor(chance() * lines.length)];
    const about = invoices[Math.floor(chance() * invoices.length)];
    if (!line || !about) continue;
    const minor = BigInt(1 + Math.floor(chance() * 15_000));
    const tries = [
      () =>
        takeMatch(
          house.owner,
          line.id,
          take([{ kind: 'invoice', id: about.id, minor }], { rest: chance() < 0.3 ? 'credit' : 'open' }),
        ),
      () => undoMatch(house.owner, line.id),
      () => takeMatch(house.owner, line.id, take([{ kind: 'aside', id: 'other', minor: line.amount }])),
      () => leaveLine(house.owner, line.id, chance() < 0.5),
    ];
    await tries[Math.floor(chance() * tries.length)]?.().catch((error: { code?: string }) => {
      if (!error.code || !/^[a-z-]+$/.test(error.code)) throw error;
    });
    expect(await of(ledgerTroubles)).toEqual([]);
  }
  const kept = await page();
  const matched = kept.lines.flatMap((line) => line.matches).reduce((all, { amount }) => all + amount, 0n);
  expect(await balance('bank')).toBe(matched);
});
