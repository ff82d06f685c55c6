/** Names and addresses that nobody writes who means well go through every paper of a parcel, and stay text on each. */
import { execFileSync } from 'node:child_process';
import { beforeEach, expect, test } from 'vitest';
import { parcelsByIds } from '@/db/parcels';
import { readBusiness } from '@/db/transaction';
import { programContext } from '@/flows/door/program';
import { stockFile } from '@/flows/stock/stock-desk';
import {
  buyAll,
  GULL_POINT,
  livesAt,
  packAll,
  postedItem,
  readyToPack,
  soldToPost,
} from '../../../tests/support/parcels';
import { foundHouse, type House, sharedWorkshop } from '../../../tests/support/workshop';
import { customsFile } from './customs';
import { labelFile, pickingFile, slipFile } from './parcel-papers';
import { handoverFile } from './pick-up';
import { shipmentList } from './shipments';

await sharedWorkshop();
let house: House;
beforeEach(async () => {
  house = await foundHouse();
});

const NASTY = [
  '^XA^FO0,0^GB800,1200,800^FS^XZ',
  '~JA ^FD ^FS _5EXZ',
  '=HYPERLINK("http://evil.example";"x")',
  '<script>alert(1)</script>',
  '\u202Eexe.fdp مرحبا',
  'Ἂδωνις 👩‍👩‍👧 大阪市 ß',
  `${'long'.repeat(38)}`,
  'x%_%_\\',
  "'; drop table parcels; --",
];

test.each(NASTY)('%s', async (nasty) => {
  await readyToPack(house);
  const item = await postedItem(house, nasty, {
    code: `N${NASTY.indexOf(nasty)}`,
    onHand: '9',
    going: {
      handed: 'posted',
      grams: 40,
      lengthMm: 0,
      widthMm: 0,
      heightMm: 0,
      shelf: nasty.slice(0, 40),
      origin: 'DK',
      hsCode: '9209.94',
    },
  });
  const abroad = {
    ...GULL_POINT,
    lines: [nasty, `9 ${nasty}`.slice(0, 120)],
    city: nasty.slice(0, 80),
    country: 'JP',
    region: '',
    postalCode: '541-0041',
  };
  const buyer = await livesAt(house, nasty, { billing: abroad });
  await soldToPost(house, buyer, item, { quantity: '2' });
  await packAll(house);
  const picking = await pickingFile(house.packer);
  const [id = ''] = await buyAll(house);
  const [parcel] = await readBusiness(programContext(house.business.id), (db) => parcelsByIds(db, [id]));
  expect(parcel?.state).toBe('bought');
  const zpl = (await labelFile(house.packer, [id], { as: 'zpl', sheet: 'own', begin: 0 })).bytes.toString();
  // One label begins and ends, and what it commands is ours alone.
  expect([zpl.match(/\^XA/g)?.length, zpl.match(/\^XZ/g)?.length, /~/.test(zpl.replace(/\^FD[^^]*\^FS/g, ''))]).toEqual(
    [1, 1, false],
  );
  const pdfs = [
    picking,
    await labelFile(house.packer, [id], { as: 'pdf', sheet: 'a6', begin: 0 }),
    await slipFile(house.packer, [id]),
    await handoverFile(house.packer),
    await customsFile(house.packer, [id]),
  ];
  for (const { bytes } of pdfs) {
    const text = execFileSync('pdftotext', ['-layout', '-', '-'], { input: bytes, encoding: 'utf8' });
    expect(text.trim().length).toBeGreaterThan(10);
    expect(execFileSync('pdfinfo', ['-'], { input: bytes, encoding: 'utf8' })).toMatch(/JavaScript:\s+no/);
  }
  const stock = (await stockFile(house.packer)).text;
  // A spreadsheet takes none of it for a formula.
  expect(stock.split(/\r?\n/).some((line) => /(^|[,;])"?[=+@]/.test(line))).toBe(false);
  for (const words of [nasty.slice(0, 20), parcel?.number ?? ''])
    await shipmentList(house.packer, { under: 'all', words: words.toLowerCase() });
});
