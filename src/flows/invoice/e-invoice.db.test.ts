import { randomUUID } from 'node:crypto';
import { expect, test } from 'vitest';
import { fromBuffer } from 'yauzl';
import { newCustomer } from '@/core/customer/customer';
import { brokenRules } from '@/core/einvoice/rules';
import { newLine } from '@/core/paper/paper';
import { creditsOf } from '@/db/credit-notes';
import { readBusiness } from '@/db/transaction';
import { readHybrid } from '@/documents/pdf/embedded';
import { eInvoiceXml } from '@/documents/ubl/write';
import { readInvoiceXml } from '@/documents/xml/read-invoice';
import { programContext } from '@/flows/door/program';
import { deskCreditXml, deskInvoicePdf, deskInvoiceXml } from '@/flows/file/kept-files';
import { recordReceived } from '@/flows/payment/receive-payment';
import { addCustomer, findCustomers } from '@/flows/records/customers';
import { crossIndustryXml, wholeEInvoice } from '../../../tests/support/e-invoices';
import { foundHouse, plainPaper, sentInvoice, sharedWorkshop } from '../../../tests/support/workshop';
import { bringInPdf, readEInvoice } from './bring-in-invoice';
import { creditInvoice } from './credit-invoice';
import { invoiceSheet, printedOf } from './invoice-sheet';
import { exportMany } from './many-invoices';

await sharedWorkshop();
const house = await foundHouse();
const GERMAN = { lines: ['Am Wehr 4'], city: 'Weilheim', region: 'DE-BY', postalCode: '82362', country: 'DE' };
const buyer = await addCustomer(
  house.owner,
  newCustomer('Orchester am Wehr', {
    currency: 'EUR',
    billing: GERMAN,
    email: 'o@wehr.example',
    taxNumber: 'DE 136 695 976',
  }),
);
const paper = () =>
  plainPaper(house, {
    customerId: buyer.id,
    lines: [
      newLine(randomUUID(), 'hour', {
        what: 'Geige neu besaitet',
        quantity: '3.5',
        price: '72',
        discount: '10%',
        code: 'GB-1',
        taxesBy: 'person',
        taxes: [house.taxId],
      }),
    ],
    fees: [{ id: randomUUID(), name: 'Abholung', amount: '12.5', taxes: [] }],
  });
const xmlOf = async (id: string) => readInvoiceXml((await deskInvoiceXml(house.owner, id)).bytes.toString());
const sheetOf = (id: string) => invoiceSheet(house.owner, id);

test('what goes out has the whole address, keeps all rules, and says what was paid; a credit note names its invoice', async () => {
  const { id, number } = await sentInvoice(house, paper());
  await recordReceived(house.owner, id, {
    amountMinor: 10_000n,
    method: 'transfer',
    reference: '',
    receivedOn: '',
    requestKey: randomUUID(),
  });
  // 252.00 − 25.20 = 226.80, tax 22.68, and 12.50 without tax: 261.98, of which 100.00 are paid.
  const of = await xmlOf(id);
  expect(brokenRules(of)).toEqual([]);
  expect(of).toMatchObject({
    buyer: { city: 'Weilheim', postalCode: '82362', region: 'DE-BY', country: 'DE', vatId: 'DE136695976' },
    lines: [{ code: 'GB-1', allowance: 2520n }],
    withTax: 26_198n,
    paid: 10_000n,
    due: 16_198n,
  });
  expect(of.groups.map(({ category }) => category)).toEqual(['S', 'E']);
  await creditInvoice(house.owner, id, {
    amountMinor: 5000n,
    reason: 'A string broke',
    tell: false,
    requestKey: randomUUID(),
  });
  const [credit] = await readBusiness(programContext(house.business.id), (db) => creditsOf(db, id));
  const note = readInvoiceXml((await deskCreditXml(house.owner, credit?.id ?? '')).bytes.toString());
  expect(brokenRules(note)).toEqual([]);
  expect(note).toMatchObject({ kind: 'credit-note', preceding: number, due: 5000n, buyer: { name: buyer.name } });
  await expect(
    readEInvoice(house.owner, (await deskCreditXml(house.owner, credit?.id ?? '')).bytes),
  ).rejects.toMatchObject({
    code: 'is-credit-note',
  });
});

test('without the customer’s address there is no e-invoice, in words; the PDF goes out all the same, without one inside', async () => {
  const { id: customerId } = await addCustomer(house.owner, newCustomer('Nowhere', { email: 'n@nowhere.example' }));
  const { id, number } = await sentInvoice(house, plainPaper(house, { customerId }));
  const whole = await sentInvoice(house, paper());
  await expect(deskInvoiceXml(house.owner, id)).rejects.toMatchObject({
    code: 'e-invoice-not-whole',
    fields: [{ field: 'e-invoice', words: 'Write the customer’s billing address.' }],
  });
  expect(await readHybrid((await deskInvoicePdf(house.owner, id)).bytes)).toBeNull();
  const zip = await exportMany(house.owner, [id, whole.id], 'ubl');
  const files = await new Promise<string[]>((resolve, reject) =>
    fromBuffer(zip.bytes, {}, (error, opened) => {
      if (error) return reject(error);
      const names: string[] = [];
      opened.on('entry', ({ fileName }: { fileName: string }) => names.push(fileName));
      opened.on('end', () => resolve(names));
    }),
  );
  expect(files).toEqual([`${whole.number}.xml`, 'left-out.txt']);
  expect(number).not.toBe(whole.number);
});

test('its own hybrid PDF comes to the same sum, for the same customer', async () => {
  const { id, number } = await sentInvoice(house, paper());
  const pdf = await deskInvoicePdf(house.owner, id);
  const again = await bringInPdf(house.owner, pdf.name, pdf.bytes);
  expect(printedOf(await sheetOf(again.id))).toMatchObject({
    total: printedOf(await sheetOf(id)).total,
    payer: { name: buyer.name },
    lines: [{ code: 'GB-1' }],
  });
  expect(again.notKept).toContain(`You have an invoice ${number} already: this one gets the next number.`);
});

test.each([
  ['UBL', (of: ReturnType<typeof wholeEInvoice>) => eInvoiceXml(of)],
  ['a Cross Industry Invoice', (of: ReturnType<typeof wholeEInvoice>) => crossIndustryXml(of)],
])(
  'one made elsewhere, as %s: its buyer is added once, and what is not kept is told and stays in the memo',
  async (_, write) => {
    const name = `Ορχήστρα ${randomUUID()}`;
    const of = wholeEInvoice();
    const read = {
      ...of,
      buyer: { ...of.buyer, name, taxNumber: randomUUID(), email: `${randomUUID()}@orchestra.example` },
    };
    const first = await readEInvoice(house.owner, Buffer.from(write(read)));
    const { invoice, customer } = await sheetOf(first.id);
    expect(customer).toMatchObject({
      name,
      kind: 'company',
      email: read.buyer.email,
      taxNumber: read.buyer.taxNumber,
      billing: { city: 'Gdańsk', postalCode: '80-001', region: 'PL-22', country: 'PL' },
    });
    expect(invoice.paper).toMatchObject({ number: '2026/77', issuedOn: '2026-05-04', currency: 'EUR' });
    const words = first.notKept.join('\n');
    for (const one of ['was not on file', 'A tax of 23 %', 'not from you', 'were paid before', 'look at the lines'])
      expect(words).toContain(one);
    for (const one of first.notKept) expect(invoice.paper.memo).toContain(one);
    // In another name, but with the same number: the same customer.
    const renamed = { ...read, buyer: { ...read.buyer, name: 'Orchestra', email: '' } };
    const second = await readEInvoice(house.owner, Buffer.from(write(renamed)));
    expect((await sheetOf(second.id)).customer?.id).toBe(customer?.id);
    expect(await findCustomers(house.owner, name)).toHaveLength(1);
  },
);

test('in old letters, and in two bytes a letter', async () => {
  const xml = eInvoiceXml(
    wholeEInvoice({ buyer: { ...wholeEInvoice().buyer, name: 'Müller & Söhne', taxNumber: randomUUID() } }),
  );
  const latin = Buffer.from(xml.replace('UTF-8', 'ISO-8859-1').replace(/[^\t-\u00ff]/g, '?'), 'latin1');
  const wide = Buffer.concat([Buffer.from([0xff, 0xfe]), Buffer.from(xml.replace('UTF-8', 'UTF-16'), 'utf16le')]);
  for (const file of [latin, wide]) {
    const { id } = await readEInvoice(house.owner, file);
    expect((await sheetOf(id)).customer?.name).toBe('Müller & Söhne');
  }
});

test.each([
  ['no XML', 'hello'],
  ['another document', '<a/>'],
  ['definitions of its own', '<!DOCTYPE a [<!ENTITY b "c">]><Invoice/>'],
  ['sums that do not add up', eInvoiceXml(wholeEInvoice({ withTax: 1n }))],
])('a file with %s is not read as an e-invoice', async (_, xml) => {
  await expect(readEInvoice(house.owner, Buffer.from(xml))).rejects.toMatchObject({ code: 'not-well-formed' });
});
