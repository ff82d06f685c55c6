/** Across a border, month by month, and what it may cost: customs forms, the carrier's statement, delivery prices from costs; found by its number. */
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { expect, test } from 'vitest';
import { newOfferItem } from '@/core/offer/offer';
import { NO_ADDRESS } from '@/core/place/address';
import { carrierBalance } from '@/db/carrier-moves';
import { ledgerTroubles } from '@/db/ledger';
import { shipmentRows } from '@/db/shipments';
import { readBusiness } from '@/db/transaction';
import { programContext } from '@/flows/door/program';
import { placedOffer } from '../support/offers';
import { sharedOwnerDesk } from '../support/owner-desk';
import { KNOWN_TO_CUSTOMS, livesAt, postedItem, readyToPack, soldToPost } from '../support/parcels';
import { expectAccessible, openFinder, press, shown, type, untilShown, untilTrue, visit } from '../support/person';

const { stack, house, page, errors, signIn } = await sharedOwnerDesk();
const go = (path: string) => visit(page, `${stack.web}${path}`);
const of = <T>(work: Parameters<typeof readBusiness<T>>[1]) => readBusiness(programContext(house.business.id), work);
const OSAKA = { ...NO_ADDRESS, lines: ['北浜 2-4-6'], city: '大阪市', postalCode: '541-0041', country: 'JP' };

test('a parcel abroad says what customs ask, takes it, keeps it for the next, and prints its form', async () => {
  await readyToPack(house);
  const rosin = await postedItem(house, 'Rosin, dark');
  await soldToPost(house, await livesAt(house, 'Hana Beck', { billing: OSAKA }), rosin, { quantity: '2' });
  await go('/deliver/pack');
  await press(page, 'Add all', 'button');
  await untilShown(page, 'Customs ask for more');
  await untilTrue(
    page,
    () => document.querySelector<HTMLButtonElement>('button[disabled].btn-go, .btn-go[disabled]') !== null,
  );
  await press(page, 'Customs ask for more', 'button');
  await untilShown(page, '6 to 10 figures');
  await expectAccessible(page, 'For customs');
  await type(page, 'Customs number', '13');
  await press(page, 'Save for customs', 'button');
  await untilShown(page, 'Write the customs number with 6 to 10 figures');
  // What was typed is there still.
  expect(await page.$eval('[role=dialog] input[placeholder="9209.94"]', (one) => (one as HTMLInputElement).value)).toBe(
    '13',
  );
  await type(page, 'Customs number', '1301.90');
  await type(page, 'Made in', 'pt');
  await type(page, 'Called', 'Rosin for bows, dark');
  await press(page, 'Save for customs', 'button');
  await untilTrue(page, () => !document.body.innerText.includes('Customs ask for more'));
  await press(page, 'Buy 1 label', 'button');
  await untilShown(page, 'One label is bought and not printed yet');
  await press(page, 'Print 1 label', 'button');
  await untilShown(page, 'Customs form');
  const answers = await page.$$eval('[role=dialog] a', (links) =>
    Promise.all(
      links.map(async (link) => {
        const answer = await fetch((link as HTMLAnchorElement).href);
        return `${link.textContent}: ${answer.status} ${answer.headers.get('content-type')}`;
      }),
    ),
  );
  expect(answers).toContain('Customs form: 200 application/pdf');
  await page.keyboard.press('Escape');
  // The next one knows it.
  await soldToPost(house, await livesAt(house, 'Mio Beck', { billing: OSAKA }), rosin);
  await go('/deliver/pack');
  await press(page, 'Add all', 'button');
  await untilShown(page, 'Buy 1 label');
  await page.click('[data-paper-row]');
  await untilShown(page, 'Customs are told what is in it');
  await page.keyboard.press('Escape');
  const [sent] = await of((db) => shipmentRows(db, { under: 'all' }, 1));
  await go(`/deliver/shipments/${sent?.id}`);
  await untilShown(page, 'CN 22');
  await openFinder(page);
  await page.keyboard.type(sent?.number.slice(0, 9) ?? '');
  await untilShown(page, `Shipment ${sent?.number}`);
  await page.keyboard.press('Enter');
  await untilTrue(page, (id) => location.pathname === `/deliver/shipments/${id}`, sent?.id ?? '');
  expect(errors).toEqual([]);
});

test('a statement of the carrier’s is brought, compared, booked or left; one that is none is refused in words', async () => {
  await go('/deliver/profiles');
  await press(page, 'Monthly statements', 'link');
  await untilShown(page, 'to come');
  const month = new Date().toISOString().slice(0, 7);
  const [sent] = await of((db) => shipmentRows(db, { under: 'all' }, 1));
  const write = (name: string, text: string | Buffer): string => {
    const path = join(stack.folder, name);
    writeFileSync(path, text);
    return path;
  };
  const bring = async (path: string) => {
    const input = await page.$('input[type=file]');
    await (input as unknown as { uploadFile: (path: string) => Promise<void> }).uploadFile(path);
  };
  await bring(write('none.csv', 'GIF89a'));
  await untilShown(page, 'This is not a carrier’s statement that can be read');
  const rows = [
    'Datum;Vorgang;Sendungsnummer;Bemerkung;Betrag',
    `${month}-02;Porto;${sent?.number};;-11,55`,
    `${month}-03;Zuschlag;${sent?.number};Überhöhe;-0,90`,
    `${month}-04;Gebühr;;Kontoführung;-2,00`,
  ];
  await bring(write('month.csv', Buffer.from(rows.join('\r\n'), 'latin1')));
  await untilShown(page, 'Überhöhe');
  await expectAccessible(page, 'Statement');
  const before = await of(carrierBalance);
  await press(page, 'Book it: Charged afterwards', 'button');
  await untilShown(page, 'The difference is booked');
  expect((await of(carrierBalance)) - before).toBe(-90n);
  await press(page, 'Leave it: Other entry', 'button');
  await untilShown(page, 'left as it is');
  expect(await of(ledgerTroubles)).toEqual([]);
  await go('/today');
  await untilShown(page, 'The carrier’s statement of');
  expect(errors).toEqual([]);
});

test('an offer’s delivery prices are proposed from what delivery costs, and taken with a press', async () => {
  await signIn();
  const strings = await postedItem(house, 'Strings', {
    going: KNOWN_TO_CUSTOMS,
  });
  const { id } = await placedOffer(house, {
    kind: 'items',
    items: [newOfferItem('a', { name: 'Strings', itemId: strings.id, prices: { USD: '8' } })],
    delivery: {
      zones: [
        { id: 'home', name: '', countries: ['US'], prices: { USD: '1.00' } },
        { id: 'else', name: '', countries: [], prices: { USD: '1.00' } },
      ],
      freeFrom: {},
    },
  });
  await go(`/ask/offer/${id}#delivery`);
  await press(page, 'Propose prices from what it costs', 'button');
  await untilShown(page, 'packing included');
  expect(await shown(page)).toMatch(/It costs \$3\.95, packing included \(Light\)/);
  await press(page, 'Take $4.00', 'button');
  await untilTrue(page, () => [...document.querySelectorAll('input')].some(({ value }) => value === '4.00'));
  expect(errors).toEqual([]);
});
