import { randomUUID } from 'node:crypto';
import { deflateRawSync } from 'node:zlib';
import sharp from 'sharp';
import { describe, expect, test } from 'vitest';
import { newCustomer } from '@/core/customer/customer';
import { GOES_AS_USUAL, type Item } from '@/core/item/item';
import { newLine } from '@/core/paper/paper';
import { NO_ADDRESS } from '@/core/place/address';
import { deskFilePath, servedFile } from '@/flows/file/served-file';
import { storeFile } from '@/flows/file/store-file';
import { cancelInvoice } from '@/flows/invoice/cancel-invoice';
import { saveDraft, startInvoice } from '@/flows/invoice/draft';
import { invoiceSheet, printedOf } from '@/flows/invoice/invoice-sheet';
import { sendInvoice } from '@/flows/invoice/send-invoice';
import { keepAsTemplate, templateNames } from '@/flows/invoice/templates';
import { recordReceived } from '@/flows/payment/receive-payment';
import { vcardTable } from '@/ui/import/vcard-table';
import { asSuperuser } from '../../../tests/support/database';
import { foundHouse, keptDraft, plainPaper, sentInvoice, sharedWorkshop } from '../../../tests/support/workshop';
import {
  addCustomer,
  alikeCustomers,
  changeCustomer,
  customerSheet,
  customersPage,
  findCustomers,
  mergeCustomers,
} from './customers';
import { exportCustomers } from './export-customers';
import { checkCustomers, importCustomers } from './import-customers';
import { availableStock, findItems, keepItem, removeItem } from './items';
import { businessProfile, keepProfile, keepTerms } from './profile';
import { exportTaxRules, keepTaxRules, taxRules } from './taxes';

const workshop = await sharedWorkshop();
const house = await foundHouse();

describe('customers', () => {
  test('are found by anything on file, each word somewhere; % and _ are no wildcards', async () => {
    const billing = { ...NO_ADDRESS, city: 'Neuenfelde', postalCode: '21799', country: 'DE' };
    const { id } = await addCustomer(
      house.owner,
      newCustomer('Ödön Calloway', { phone: '(206) 555-0188', billing, copies: ['desk@calloway.example'] }),
    );
    for (const words of ['odon', 'ÖDÖN call', '5550188', 'neuen 21799', 'desk@calloway']) {
      expect(
        (await findCustomers(house.owner, words)).map((found) => found.id),
        words,
      ).toContain(id);
    }
    for (const words of ['%', '_dön', 'calloway nobody'])
      expect((await findCustomers(house.owner, words)).map((found) => found.id)).not.toContain(id);
  });

  test('the same address or nearly the same name is noticed', async () => {
    await addCustomer(house.owner, newCustomer('Marguerite Öystad', { email: 'm@oystad.example' }));
    expect((await alikeCustomers(house.owner, 'Somebody Else', 'M@Oystad.example')).length).toBe(1);
    expect((await alikeCustomers(house.owner, 'Oystad, Margueritte', '')).length).toBe(1);
    expect(await alikeCustomers(house.owner, 'Bartholomew', '')).toEqual([]);
  });

  test('merged, the invoices and what is open move; twice is refused, and a merged one is found no more', async () => {
    const [kept, other] = [
      await addCustomer(house.owner, newCustomer('Kept Person', { email: 'kept@x.example' })),
      await addCustomer(house.owner, newCustomer('Other Person', { phone: '123 456' })),
    ];
    const draft = await keptDraft(house, plainPaper(house, { customerId: other.id }));
    await sendInvoice(house.owner, draft, 1, 'link');
    await mergeCustomers(house.owner, kept.id, other.id);
    const sheet = await customerSheet(house.owner, kept.id);
    expect(sheet).toMatchObject({
      customer: { phone: '123 456' },
      sums: [{ dueMinor: 11_000n }],
      invoices: [{ id: draft }],
    });
    await expect(mergeCustomers(house.owner, kept.id, other.id)).rejects.toMatchObject({ code: 'not-found' });
    expect(await findCustomers(house.owner, 'Other Person')).toEqual([]);
  });

  test('a file is checked before anything is written; what is on file or twice in it is refused; a second time nothing is added', async () => {
    const own = await foundHouse('Importing');
    const mapping = ['name', 'email', 'country'] as const;
    const rows = [
      ['Ada', 'ada@x.example', ''],
      ['Ada again', 'ADA@x.example', ''],
      ['No Address', '', 'Germany'],
      ['No  address', '', ''],
      ['Perpetua', 'perpetua@vane.example', ''],
      ['', 'x', 'Atlantis'],
    ];
    const before = (await customersPage(own.owner, { words: '', group: '' })).rows.length;
    const checked = await checkCustomers(own.owner, rows, mapping, 'refuse');
    expect(checked.written).toBe(2);
    expect(checked.refused.map(({ at }) => at)).toEqual([1, 3, 4, 5]);
    expect((await customersPage(own.owner, { words: '', group: '' })).rows.length).toBe(before);
    expect(await importCustomers(own.owner, rows, mapping, 'refuse')).toEqual(checked);
    expect((await importCustomers(own.owner, rows, mapping, 'refuse')).written).toBe(0);
  });

  test('rows on file can update: what the file says takes the place of what was there, what it leaves open stays', async () => {
    const own = await foundHouse('Updating');
    const kept = await addCustomer(
      own.owner,
      newCustomer('Ada Okafor', {
        email: 'ada@okafor.example',
        phone: '1',
        note: 'Plays',
        language: 'fr',
        groups: ['Choir'],
      }),
    );
    const mapping = ['name', 'email', 'phone', 'language', 'groups', 'note', 'city', 'country'] as const;
    const rows = [
      ['Ada Okafor-Lind', 'ADA@okafor.example', '', 'Deutsch', 'Board', 'Moved', 'Oslo', 'Norway'],
      ['Ada twice', 'ada@okafor.example', '2', '', '', '', '', ''],
      ['Somebody New', 'new@okafor.example', '3', 'Italian', '', '', '', ''],
    ];
    expect(await checkCustomers(own.owner, rows, mapping, 'update')).toMatchObject({ written: 1, updated: 1 });
    const done = await importCustomers(own.owner, rows, mapping, 'update');
    expect(done).toMatchObject({ written: 1, updated: 1, refused: [{ at: 1 }] });
    const [after] = await findCustomers(own.owner, 'ada okafor');
    expect(after).toMatchObject({
      id: kept.id,
      name: 'Ada Okafor-Lind',
      phone: '1',
      language: 'de',
      groups: ['Choir', 'Board'],
      note: 'Plays\nMoved',
      billing: { city: 'Oslo', country: 'NO' },
    });
    const [fresh] = await findCustomers(own.owner, 'somebody new');
    expect(fresh).toMatchObject({ language: '', note: 'Language: Italian' });
    // The same file once more changes nothing and adds nobody.
    expect(await importCustomers(own.owner, rows, mapping, 'update')).toMatchObject({ written: 0, updated: 2 });
    expect((await findCustomers(own.owner, 'ada okafor'))[0]).toEqual(after);
  });

  test('handed out they can be brought in again, as CSV without formulas and as vCards', async () => {
    const own = await foundHouse('Exporting');
    await addCustomer(own.owner, newCustomer('=HYPERLINK("x")', { email: 'f@x.example', note: 'a, b; c\nd' }));
    const csv = await exportCustomers(own.owner, 'csv');
    expect(csv.text).not.toMatch(/(^|,)"?=/m);
    const { headings, rows } = vcardTable((await exportCustomers(own.owner, 'vcf')).text);
    expect(rows.map((row) => row[headings.indexOf('Name')])).toEqual(['=HYPERLINK("x")', 'Perpetua Vane']);
    expect(rows[0]?.[headings.indexOf('Private note')]).toBe('a, b; c\nd');
  });
});

const item = (more: Partial<Item> = {}): Omit<Item, 'id'> => ({
  code: '',
  name: 'Strings',
  description: '',
  kind: 'goods',
  unit: 'piece',
  prices: { USD: '10' },
  cost: '',
  taxClass: 'standard',
  onHand: '5',
  lowAt: null,
  pictureId: null,
  going: GOES_AS_USUAL,
  options: [],
  ...more,
});

describe('items', () => {
  test('one code, one item; faults are named by their place; off the list they are found no more', async () => {
    const kept = await keepItem(house.owner, null, item({ code: 'S-1' }));
    await expect(keepItem(house.owner, null, item({ code: 's-1' }))).rejects.toMatchObject({ code: 'code-taken' });
    await expect(keepItem(house.owner, null, item({ prices: { USD: 'ten', XXX: '1' } }))).rejects.toMatchObject({
      fields: [{ field: 'prices.USD' }, { field: 'prices.XXX' }],
    });
    await removeItem(house.owner, kept.id);
    expect(await findItems(house.owner, 's-1')).toEqual([]);
    await keepItem(house.owner, null, item({ code: 'S-1' }));
  });

  test('stock is promised by sending, free again by cancelling, and gone once it is paid', async () => {
    const option = { id: randomUUID(), name: 'light', code: '', prices: {}, onHand: '4', lowAt: null };
    const kept = await keepItem(house.owner, null, item({ onHand: null, options: [option] }));
    const key = `${kept.id}/${option.id}`;
    const lines = [
      newLine(randomUUID(), 'piece', { what: 'x', price: '1', quantity: '3', itemId: kept.id, optionId: option.id }),
    ];
    const left = async () => (await availableStock(house.owner, [kept.id]))[key];
    const first = await sentInvoice(house, plainPaper(house, { lines }));
    expect(await left()).toBe('1');
    await cancelInvoice(house.owner, first.id, 'x', false);
    expect(await left()).toBe('4');
    const second = await sentInvoice(house, plainPaper(house, { lines }));
    const received = {
      amountMinor: 330n,
      method: 'cash',
      reference: '',
      receivedOn: '',
      requestKey: randomUUID(),
    } as const;
    await recordReceived(house.owner, second.id, received);
    expect(await left()).toBe('1');
    expect((await findItems(house.owner, 'strings')).find(({ id }) => id === kept.id)?.options[0]?.onHand).toBe('1');
  });
});

describe('taxes, profile, terms, templates', () => {
  test('a rule off the list stays for papers that name it, and the file holds the list', async () => {
    const own = await foundHouse('Taxing');
    const [first] = await taxRules(own.owner);
    if (!first) throw new Error('no tax');
    const draft = await keptDraft(own);
    await keepTaxRules(own.owner, [{ ...first, id: randomUUID(), name: 'New tax', rate: '20' }]);
    expect((await taxRules(own.owner)).map(({ name }) => name)).toEqual(['New tax']);
    expect(printedOf(await invoiceSheet(own.owner, draft)).taxes).toMatchObject([{ name: 'Sales tax', amount: 1000 }]);
    expect(await exportTaxRules(own.owner)).toContain('New tax,20,standard,US');
    await expect(keepTaxRules(own.owner, [{ ...first, rate: '200' }])).rejects.toMatchObject({
      fields: [{ field: `${first.id}.rate` }],
    });
  });

  test('the profile is what the next invoice shows; numbers follow the series, again from 1 in a new year', async () => {
    const own = await foundHouse('Profiled');
    const { business } = await businessProfile(own.owner);
    const { id: _, address: _a, zone: _z, paperLocale: _l, deskLocale: _d, currency: _c, ...fields } = business;
    const series = [{ name: '', pattern: 'A{year}-{n:3}' }];
    await keepProfile(own.owner, {
      ...fields,
      name: 'Renamed',
      place: { ...NO_ADDRESS, lines: ['1 New Road'], city: 'X', country: 'US' },
      series,
    });
    const year = new Date().getUTCFullYear();
    const first = await sentInvoice(own);
    expect(first.number).toBe(`A${year}-001`);
    expect(printedOf(await invoiceSheet(own.owner, first.id)).seller).toMatchObject({
      name: 'Renamed',
      address: ['1 New Road', 'X'],
    });
    await expect(
      keepProfile(own.owner, { ...fields, series: [{ name: '', pattern: '{year}' }] }),
    ).rejects.toMatchObject({
      fields: [{ field: 'series.0.pattern' }],
    });
  });

  test('a number typed by a person is kept, passed over by the series, and never given twice', async () => {
    const own = await foundHouse('Numbered');
    const typed = await keptDraft(own, plainPaper(own, { number: '2' }));
    expect(await sendInvoice(own.owner, typed, 1, 'link')).toBe('2');
    expect([(await sentInvoice(own)).number, (await sentInvoice(own)).number]).toEqual(['1', '3']);
    const again = await keptDraft(own, plainPaper(own, { number: '3' }));
    await expect(sendInvoice(own.owner, again, 1, 'link')).rejects.toMatchObject({ fields: [{ field: 'number' }] });
  });

  test('terms keep their versions; a sent invoice keeps the one that it was sent with', async () => {
    const id = await keepTerms(house.owner, null, 'Bench', 'first');
    const { id: sent } = await sentInvoice(house, plainPaper(house, { termsId: id }));
    await keepTerms(house.owner, id, 'Bench', 'second');
    await keepTerms(house.owner, id, 'Bench terms', 'second');
    expect(printedOf(await invoiceSheet(house.owner, sent)).terms).toMatchObject({ version: 1, text: 'first' });
    expect((await businessProfile(house.owner)).terms).toMatchObject([
      { name: 'Bench terms', version: 2, text: 'second' },
    ]);
  });

  test('a template fills in its month; same as last time takes the lines of the last sent', async () => {
    await keepAsTemplate(house.owner, 'Rent', plainPaper(house, { title: 'Rent {year}' }));
    const [template] = await templateNames(house.owner);
    const id = await startInvoice(house.owner, { templateId: template?.id, customerId: house.customerId });
    const { paper } = (await invoiceSheet(house.owner, id)).invoice;
    expect(paper).toMatchObject({ title: `Rent ${new Date().getUTCFullYear()}`, customerId: house.customerId });
    await sentInvoice(house, plainPaper(house, { note: 'The last one' }));
    const last = await startInvoice(house.owner, { customerId: house.customerId, asLast: true });
    expect((await invoiceSheet(house.owner, last)).invoice.paper.note).toBe('The last one');
    await saveDraft(house.owner, last, paper, 1);
  });
});

/** A zip with one entry whose directory tells these sizes. */
function zipOf(name: string, bytes: Buffer, tell = bytes.length): Buffer {
  const packed = deflateRawSync(bytes);
  const head = (signature: number, central: boolean): Buffer => {
    const out = Buffer.alloc((central ? 46 : 30) + name.length);
    out.writeUInt32LE(signature, 0);
    const at = central ? 10 : 8;
    out.writeUInt16LE(20, central ? 6 : 4);
    out.writeUInt16LE(8, at);
    out.writeUInt32LE(packed.length, at + 10);
    out.writeUInt32LE(tell, at + 14);
    out.writeUInt16LE(name.length, at + 18);
    out.write(name, central ? 46 : 30);
    return out;
  };
  const [local, central] = [head(0x04034b50, false), head(0x02014b50, true)];
  const end = Buffer.alloc(22);
  end.writeUInt32LE(0x06054b50, 0);
  end.writeUInt16LE(1, 8);
  end.writeUInt16LE(1, 10);
  end.writeUInt32LE(central.length, 12);
  end.writeUInt32LE(local.length + packed.length, 16);
  return Buffer.concat([local, packed, central, end]);
}

describe('files from people', () => {
  const png = () =>
    sharp({ create: { width: 40, height: 20, channels: 3, background: '#6b2451' } })
      .png()
      .toBuffer();
  const store = (name: string, bytes: Buffer) => storeFile(house.owner, name, 'attachment', bytes);

  test('are what their content says, under a name that leads nowhere', async () => {
    const stored = await store('../../etc/passwd\u202Egnp.exe', await png());
    expect(stored).toMatchObject({ type: 'image/png' });
    expect(stored.name).toMatch(/^passwd[a-z]*\.png$/);
    expect(await store('table.pdf', Buffer.from('a;b\n1;2'))).toMatchObject({ name: 'table.csv', type: 'text/csv' });
  });

  test('a picture is drawn anew: nothing that hid in it is kept', async () => {
    const dirty = Buffer.concat([await png(), Buffer.from('<script>alert(1)</script>')]);
    const { id } = await store('x.png', dirty);
    const [row] = await asSuperuser<{ bytes: Buffer }>(workshop.admin, 'select bytes from files where id = $1', [id]);
    expect(row?.bytes.includes('script')).toBe(false);
  });

  test.each<[string, () => Buffer | Promise<Buffer>, string]>([
    ['a page', () => Buffer.from('<html><script>1</script>, </html>'), 'file-not-taken'],
    [
      'a drawing with scripts',
      () => Buffer.from('<svg xmlns="http://www.w3.org/2000/svg"><script/></svg>'),
      'file-not-taken',
    ],
    ['a program named as a picture', () => Buffer.from('7f454c46020101000000', 'hex'), 'file-not-taken'],
    ['a broken picture', async () => (await png()).subarray(0, 60), 'file-not-taken'],
    ['nothing', () => Buffer.alloc(0), 'file-not-taken'],
    ['a document that would swell', () => zipOf('word/document.xml', Buffer.alloc(6_000_000)), 'file-not-taken'],
    ['more than 10 MB', () => Buffer.alloc(10 * 1024 * 1024 + 1, 'a,b\n'), 'file-too-large'],
  ])('%s is refused', async (_, bytes, code) => {
    await expect(store('x.docx', await bytes())).rejects.toMatchObject({ code });
  });

  test('are fetched by a signed address only, and by nobody else’s', async () => {
    const { id } = await store('x.png', await png());
    const address = (await deskFilePath(house.owner, id)).replace('/served/', '');
    expect((await servedFile(address)).type).toBe('image/png');
    await expect(servedFile(`${address}x`)).rejects.toMatchObject({ code: 'not-found' });
    const other = await foundHouse('Elsewhere');
    await expect(deskFilePath(other.owner, id)).rejects.toMatchObject({ code: 'not-found' });
  });
});

test('a tax number with a check digit that does not fit is refused where it is typed, said in a file, and left as it was where it is old', async () => {
  const wrong = { ...newCustomer('Numbered'), taxNumber: 'DE136695977' };
  const refusal = { code: 'tax-number-wrong', fields: [{ field: 'taxNumber' }] };
  await expect(addCustomer(house.owner, wrong)).rejects.toMatchObject(refusal);
  const { id, ...kept } = await addCustomer(house.owner, { ...wrong, taxNumber: 'DE 136 695 976' });
  await expect(changeCustomer(house.owner, id, { ...kept, taxNumber: 'DE1' })).rejects.toMatchObject(refusal);
  // As it was written before this was looked at.
  await asSuperuser(workshop.admin, `update customers set tax_number = 'DE136695977' where id = $1`, [id]);
  await changeCustomer(house.owner, id, { ...kept, taxNumber: 'DE136695977', phone: '555' });
  const rows = [
    ['Right', 'ATU13585627'],
    ['Wrong', 'ATU13585628'],
  ];
  const read = await checkCustomers(house.owner, rows, ['name', 'taxNumber'], 'refuse');
  expect(read).toMatchObject({ written: 1, refused: [{ at: 1, reasons: [expect.stringContaining('check digit')] }] });
});
