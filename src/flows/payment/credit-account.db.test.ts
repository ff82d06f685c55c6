/** What a customer paid too much: kept to their credit, used for another invoice, given back by a file for the bank. */
import { randomUUID } from 'node:crypto';
import { XMLParser } from 'fast-xml-parser';
import { beforeEach, expect, test } from 'vitest';
import { businessById, updateBusiness } from '@/db/businesses';
import { invoiceById } from '@/db/invoices';
import { accountBalances, ledgerTroubles } from '@/db/ledger';
import type { Db } from '@/db/pool';
import { inBusiness, readBusiness } from '@/db/transaction';
import { programContext } from '@/flows/door/program';
import { invoiceSheet } from '@/flows/invoice/invoice-sheet';
import { customerStatement } from '@/flows/records/statement';
import { back, backOf } from '../../../tests/support/refunds';
import { foundHouse, type House, sentInvoice, sharedWorkshop } from '../../../tests/support/workshop';
import { payFromCredit } from './pay-from-credit';
import { recordReceived } from './receive-payment';
import { refundPayment } from './refund-payment';
import { takeBackReceived } from './take-back-received';
import { makeTransferFile, transferFile, transfersWaiting } from './transfer-file';

await sharedWorkshop();
let house: House;
beforeEach(async () => {
  house = await foundHouse();
});
const of = <T>(work: (db: Db) => Promise<T>) => readBusiness(programContext(house.business.id), work);
const invoiceOf = (id: string) => of((db) => invoiceById(db, id));
const cash = (amountMinor: bigint, more = false) =>
  ({ amountMinor, method: 'cash', reference: '', receivedOn: '', requestKey: randomUUID(), more }) as const;
const statement = () => customerStatement(house.owner, house.customerId, { currency: 'USD', from: '', to: '' });
const ACCOUNT = { holder: 'Perpetua Vane', iban: 'DE02120300000000202051' };

test('more than is due is taken only where that is said, stays to the customer’s credit, and stands on the statement', async () => {
  const { id } = await sentInvoice(house);
  await expect(recordReceived(house.clerk, id, cash(15_000n))).rejects.toMatchObject({ code: 'payment-too-large' });
  await recordReceived(house.clerk, id, cash(15_000n, true));
  expect(await invoiceOf(id)).toMatchObject({ dueMinor: 0n, paidMinor: 15_000n });
  expect((await statement()).closingMinor).toBe(-4000);
  expect(await of(ledgerTroubles)).toEqual([]);
});

test('credit pays the next invoice, the oldest first, once, as far as it reaches; the books move it from one to the other', async () => {
  const first = await sentInvoice(house);
  const second = await sentInvoice(house);
  const third = await sentInvoice(house);
  await recordReceived(house.owner, first.id, cash(14_000n, true));
  await recordReceived(house.owner, second.id, cash(13_000n, true));
  expect((await invoiceSheet(house.owner, third.id)).creditElsewhereMinor).toBe(5000n);
  const press = randomUUID();
  await Promise.all([1, 2, 3].map(() => payFromCredit(house.clerk, third.id, press)));
  expect(await invoiceOf(third.id)).toMatchObject({ paidMinor: 5000n, dueMinor: 6000n });
  for (const { id } of [first, second]) expect(await invoiceOf(id)).toMatchObject({ dueMinor: 0n, creditedMinor: 0n });
  expect((await statement()).closingMinor).toBe(6000);
  expect((await of((db) => accountBalances(db, 'customer-credit')))[0]?.minor).toBe(0n);
  expect(await of(ledgerTroubles)).toEqual([]);
  await expect(payFromCredit(house.clerk, third.id, randomUUID())).rejects.toMatchObject({ code: 'no-credit' });
  // What came from the account is neither voided nor given back to it: it goes back as money.
  const [used] = (await invoiceSheet(house.owner, third.id)).payments;
  await expect(takeBackReceived(house.owner, used?.id ?? '', { reason: 'x', tell: false })).rejects.toMatchObject({
    code: 'payment-not-by-hand',
  });
  await expect(refundPayment(house.owner, used?.id ?? '', backOf(100n, { method: 'account' }))).rejects.toMatchObject({
    code: 'not-by-card',
  });
});

test('refunds by transfer go to the bank in one file, each once, however often it is made or fetched', async () => {
  const paid = [];
  for (const _ of [1, 2]) {
    const { id } = await sentInvoice(house);
    await recordReceived(house.owner, id, cash(15_000n, true));
    paid.push((await invoiceSheet(house.owner, id)).payments[0]?.id ?? '');
  }
  const [one = '', two = ''] = paid;
  await refundPayment(
    house.owner,
    one,
    backOf(4000n, { method: 'transfer', reason: 'Paid too much', aside: { account: ACCOUNT } }),
  );
  await refundPayment(house.owner, two, backOf(1000n, { method: 'transfer', aside: { account: ACCOUNT } }));
  await refundPayment(house.owner, two, back({ by: 'sum', amountMinor: 500n }, { method: 'transfer' }));
  expect((await transfersWaiting(house.owner)).waiting.map(({ amountMinor }) => amountMinor)).toEqual([4000n, 1000n]);
  await expect(makeTransferFile(house.reader, randomUUID())).rejects.toMatchObject({ code: 'not-allowed' });
  const press = randomUUID();
  await expect(makeTransferFile(house.owner, press)).rejects.toMatchObject({ code: 'own-account-missing' });
  await inBusiness(programContext(house.business.id), async (tx) => {
    const business = await businessById(tx);
    await updateBusiness(tx, { ...business, bank: { ...business.bank, account: 'DE02100100100006820101' } });
  });
  const ids = await Promise.all([1, 2, 3].map(() => makeTransferFile(house.owner, press)));
  expect(new Set(ids)).toEqual(new Set([press]));
  const { text } = await transferFile(house.owner, press);
  expect((await transferFile(house.owner, press)).text).toBe(text);
  const { PmtInf } = new XMLParser({ parseTagValue: false }).parse(text).Document.CstmrCdtTrfInitn;
  expect(PmtInf).toMatchObject({ NbOfTxs: '2', CtrlSum: '50.00' });
  expect(PmtInf.CdtTrfTxInf[0]).toMatchObject({ CdtrAcct: { Id: { IBAN: ACCOUNT.iban } } });
  expect(PmtInf.CdtTrfTxInf[0].RmtInf.Ustrd).toContain('Paid too much');
  await expect(makeTransferFile(house.owner, randomUUID())).rejects.toMatchObject({ code: 'nothing-to-transfer' });
  await expect(transferFile((await foundHouse('Other')).owner, press)).rejects.toMatchObject({ code: 'not-found' });
});
