/** What the demo's workshop packs and sends: profiles, rules, sales with delivery, and shipments in every state. */
import { randomUUID } from 'node:crypto';
import sharp from 'sharp';
import { newCustomer } from '@/core/customer/customer';
import { addDays, type CalendarDate } from '@/core/dates/calendar-date';
import { instantInZone } from '@/core/dates/zone';
import type { Item } from '@/core/item/item';
import { completePaper, newLine } from '@/core/paper/paper';
import { nextMailDay } from '@/core/parcel/notice';
import { openRule, type ParcelProfile } from '@/core/parcel/profile';
import type { Address } from '@/core/place/address';
import { invoiceById } from '@/db/invoices';
import { parcelsByIds } from '@/db/parcels';
import type { Actor } from '@/db/people';
import { salesOfParcels } from '@/db/shipments';
import { readBusiness } from '@/db/transaction';
import { counterDesk, handOverAtCounter, tellReady } from '@/flows/counter/collect';
import { keepItemDigital } from '@/flows/digital/grants';
import { programContext } from '@/flows/door/program';
import { storeFile } from '@/flows/file/store-file';
import { saveDraft, startInvoice } from '@/flows/invoice/draft';
import { sendInvoice } from '@/flows/invoice/send-invoice';
import { settleTopUp, topUp } from '@/flows/parcel/balance';
import { buyLabels, settleLabels } from '@/flows/parcel/buy-labels';
import { fetchStatementNow } from '@/flows/parcel/carrier-statements';
import { claimParcel } from '@/flows/parcel/claims';
import { followParcels } from '@/flows/parcel/follow-parcels';
import { changeMailDay, changeProfiles, putOnPaper } from '@/flows/parcel/pack';
import { keepProfile, keepRules } from '@/flows/parcel/profiles';
import { changeNotices, shipmentList } from '@/flows/parcel/shipments';
import { packDesk } from '@/flows/parcel/to-pack';
import { recordReceived } from '@/flows/payment/receive-payment';
import { addCustomer } from '@/flows/records/customers';
import { askBackByInvoice } from '@/flows/returning/returns';

const place = (line: string, city: string, region: string, postalCode: string, country = 'US'): Address => ({
  lines: [line],
  city,
  region: region ? `${country}-${region}` : '',
  postalCode,
  country,
});

/** Who gets parcels: people in other towns, one abroad, and one whose address lacks something. */
const PEOPLE: readonly (readonly [name: string, where: Address])[] = [
  ['Nell Ashgrove', place('31 Fell Street', 'Brant Ferry', 'ID', '83705')],
  ['Orrin Pell', place('5 Heron Row', 'Gull Point', 'OR', '97102')],
  ['Sabine Thackeray', place('18 Pan Lane', 'Saltmarsh', 'OR', '97103')],
  ['Ludo Brandreth', place('2 Light Hill', 'Gull Point', 'OR', '97102')],
  ['Ione Castlereagh', place('44 Mill Rise', 'Lower Wending', 'WA', '98012')],
  ['Dorian Meakin', place('9 Tarn View', 'Tarn Hollow', 'WA', '98014')],
  ['Verity Osgood', place('7 Quay Rise', 'Cresset', 'WA', '98020')],
  ['Hollis Penhale', place('12 Bell Yard', 'Brant Ferry', 'ID', '83705')],
  ['Marisol Quint', place('60 Sorrel Way', 'Saltmarsh', 'OR', '97103')],
  ['Abel Thornquist', place('3 Old Ropewalk', 'Tarn Hollow', 'WA', '98014')],
  ['Cosima Lyle', place('21 Kiln Bank', 'Cresset', 'WA', '98020')],
  ['Mireille Castagnard', place('8 rue des Ormes', 'Saint-Aubry', '', '35990', 'FR')],
  ['Jonas Wetherby', place('Weir Cottage', 'Lower Wending', 'WA', '98012')],
  ['Pascoe Trevanion', place('15 Chandler Street', '', 'OR', '97101')],
];

const box = (
  name: string,
  [lengthMm, widthMm, heightMm]: readonly [number, number, number],
  more: Partial<ParcelProfile>,
) => ({
  name,
  lengthMm,
  widthMm,
  heightMm,
  ownGrams: 30,
  mostGrams: 0,
  packagingMinor: 35,
  service: '',
  insuring: { kind: 'never' } as const,
  signature: false,
  ...more,
});

type Stage = {
  readonly actor: Actor;
  readonly zone: string;
  readonly today: CalendarDate;
  readonly items: readonly Item[];
  readonly standIns: string;
  readonly at: (instant: Date) => Promise<void>;
  readonly mail: () => Promise<void>;
};

/** Something of an item, with what was asked for delivery. */
type Sold = readonly [item: string, option: string, quantity: string, delivery: string];

/** Something to download: a sheet drawn as a picture, as a file of one page. */
const sheetOfTracks = (): Promise<Buffer> =>
  sharp(
    Buffer.from(
      `<svg xmlns="http://www.w3.org/2000/svg" width="900" height="600"><rect width="900" height="600" fill="#fffdf9"/>
      ${[0, 1, 2].map((row) => [0, 1, 2, 3, 4].map((line) => `<path d="M60 ${110 + row * 160 + line * 14}H840" stroke="#241a26"/>`).join('')).join('')}</svg>`,
    ),
  )
    .png()
    .toBuffer();

/** Plays some weeks of parcels, up to a paper full of what goes out next. */
export async function playParcels({ actor, zone, today, items, standIns, at, mail }: Stage): Promise<void> {
  const { businessId } = actor;
  const day = (ago: number, hour: string) => instantInZone(addDays(today, -ago), hour, zone);
  // Late in the month before: the carrier's statement of it is there.
  const before = Number(today.slice(8)) + 7;
  await at(day(Math.max(26, before + 1), '09:00'));
  const letter = await keepProfile(
    actor,
    null,
    box('Padded letter', [300, 210, 20], { mostGrams: 500, service: 'light' }),
  );
  const small = await keepProfile(
    actor,
    null,
    box('Small box', [220, 160, 90], { ownGrams: 90, mostGrams: 2000, packagingMinor: 60 }),
  );
  const rest = await keepProfile(
    actor,
    null,
    box('Flat box', [400, 200, 120], {
      ownGrams: 160,
      mostGrams: 3000,
      packagingMinor: 85,
      insuring: { kind: 'from', minor: 10_000 },
    }),
  );
  const carton = await keepProfile(
    actor,
    null,
    box('Case carton', [880, 320, 220], {
      ownGrams: 900,
      packagingMinor: 320,
      service: 'steady',
      insuring: { kind: 'always' },
      signature: true,
    }),
  );
  await keepRules(actor, [
    { ...openRule(randomUUID(), letter), toGrams: 300, toMinor: 12_000 },
    { ...openRule(randomUUID(), small), toGrams: 900, toMinor: 20_000 },
    { ...openRule(randomUUID(), rest), toGrams: 2500 },
  ]);
  const press = randomUUID();
  await topUp(actor, press, 30_000n);
  await settleTopUp(businessId, `top-up:${press}`);
  const customers = new Map<string, string>();
  for (const [name, billing] of PEOPLE) {
    const [first = '', last = ''] = name.toLowerCase().split(' ');
    const email = `${first}@${last}.example`;
    const more = billing.country === 'FR' ? { language: 'fr', currency: 'EUR' } : {};
    customers.set(name, (await addCustomer(actor, newCustomer(name, { email, billing, ...more }))).id);
  }

  /** An invoice with delivery, paid by transfer. */
  async function sell(
    name: string,
    [item, option, quantity, delivery]: Sold,
    more: { on?: string; paid?: boolean; handed?: 'collected' | 'digital' } = {},
  ) {
    const kept = items.find((one) => one.name === item);
    const way = kept?.options.find((one) => one.name === option);
    if (!kept) throw new Error(`The demo sells no ${item}`);
    const id = await startInvoice(actor);
    const abroad = name === 'Mireille Castagnard';
    const line = newLine(randomUUID(), 'piece', {
      what: way ? `${item}, ${way.name}` : item,
      quantity,
      price: (abroad ? kept.prices.EUR : (way?.prices.USD ?? kept.prices.USD)) ?? '',
      itemId: kept.id,
      optionId: way?.id ?? null,
      taxClass: kept.taxClass,
      ...(more.on ? { on: more.on } : {}),
      ...(more.handed ? { handed: more.handed } : {}),
    });
    const paper = completePaper({
      customerId: customers.get(name) ?? null,
      lines: [line],
      delivery: more.handed ? null : { charged: delivery, postage: '', packaging: '', taxes: null },
      ways: { card: true, transfer: true, parts: false, first: '', tip: null },
    });
    await saveDraft(actor, id, paper, 0);
    await sendInvoice(actor, id, 1, 'mail');
    const invoice = await readBusiness(programContext(businessId), (db) => invoiceById(db, id));
    if (invoice && more.paid !== false)
      await recordReceived(actor, id, {
        amountMinor: invoice.dueMinor,
        method: 'transfer',
        reference: '',
        receivedOn: '',
        requestKey: randomUUID(),
      });
  }
  async function pack(): Promise<string[]> {
    const { ready } = await packDesk(actor, '');
    await putOnPaper(
      actor,
      ready.rows.map(({ id }) => id),
    );
    return (await packDesk(actor, '')).paper.map(({ parcel }) => parcel.id);
  }
  async function buy(ids: readonly string[]): Promise<void> {
    await buyLabels(actor, ids, null);
    await settleLabels(businessId, ids);
  }
  /** From now on the carrier carries it so. */
  async function goes(id: string, how: string): Promise<void> {
    const [parcel] = await readBusiness(programContext(businessId), (db) => parcelsByIds(db, [id]));
    await fetch(`${standIns}/carrier/labels/${parcel?.number}`, {
      method: 'POST',
      body: new URLSearchParams({ goes: how }),
      redirect: 'manual',
    });
  }
  async function follow(from: number, to: number): Promise<void> {
    for (let ago = from; ago >= to; ago--)
      for (const hour of ['08:10', '12:30', '18:30']) {
        if (ago === 0 && hour !== '08:10') continue;
        await at(day(ago, hour));
        await followParcels(programContext(businessId, day(ago, hour)));
        await mail();
      }
  }

  // A month ago: one parcel was heavier than it was declared, and the carrier charged for it.
  await at(day(before, '09:00'));
  await sell('Dorian Meakin', ['Violin strings, Larkspur', 'heavy', '1', '5.50']);
  await sell('Ione Castlereagh', ['Shoulder rest', '', '1', '6.50']);
  const [heavier, ...others] = await pack();
  if (heavier) await buy([heavier, ...others]);
  if (heavier) await goes(heavier, 'heavier');
  for (let ago = before; ago >= before - 5; ago--) {
    await at(day(ago, '23:30'));
    await followParcels(programContext(businessId, day(ago, '23:30')));
  }

  // What has gone its way already: one came on time, one has come back, one was lost, one lies still, one waits at the counter.
  const strings: Sold = ['Violin strings, Larkspur', 'light', '1', '4.50'];
  for (const [name, how, ago] of [
    ['Mireille Castagnard', 'usual', 21],
    ['Verity Osgood', 'usual', 20],
    ['Marisol Quint', 'returned', 19],
    ['Cosima Lyle', 'lost', 18],
    ['Hollis Penhale', 'counter', 7],
    ['Sabine Thackeray', 'damaged', 6],
    ['Orrin Pell', 'late', 5],
  ] as const) {
    await at(day(ago, '07:30'));
    await sell(
      name,
      name === 'Verity Osgood'
        ? ['Violin case, oblong', '', '1', '14.00']
        : name === 'Mireille Castagnard'
          ? ['Violin strings, Larkspur', 'light', '1', '14.00']
          : strings,
    );
    const ids = await pack();
    if (name === 'Verity Osgood') await changeProfiles(actor, ids, carton);
    await changeMailDay(actor, ids, addDays(today, -ago));
    await buy(ids);
    for (const id of ids) await goes(id, how);
    await mail();
  }
  await follow(21, 2);
  // On its way, and bought for later: told on their day, held back, or with the first scan.
  await at(day(1, '09:00'));
  await sell('Ione Castlereagh', ['Shoulder rest', '', '1', '6.50']);
  await sell('Dorian Meakin', ['Rosin, dark', '', '2', '4.50']);
  const moving = await pack();
  await changeMailDay(actor, moving, addDays(today, -1));
  await buy(moving);
  await follow(1, 1);
  await at(day(1, '14:00'));
  await sell('Nell Ashgrove', strings);
  await sell('Ludo Brandreth', ['Rosin, dark', '', '1', '4.50']);
  await sell('Abel Thornquist', ['Cello strings, Larkspur', 'medium', '1', '5.50']);
  const ahead = await pack();
  await changeMailDay(actor, ahead, addDays(today, 2));
  await buy(ahead);
  const [, held, scanned] = ahead;
  if (held) await changeNotices(actor, [held], { deed: 'hold' });
  if (scanned) await changeNotices(actor, [scanned], { deed: 'first-scan' });

  // The carrier is asked for what it lost; what is fetched waits at the counter, and some of it was fetched yesterday.
  await at(day(1, '15:00'));
  const shipments = await shipmentList(actor, { under: 'under-way' });
  for (const { parcel, look } of shipments.looks)
    if (look === 'lost') await claimParcel(actor, parcel.id, parcel.rateMinor ?? 0n);
  const tracks = items.find(({ name }) => name === 'Practice tracks, book one');
  if (tracks) {
    const file = await storeFile(actor, 'Practice tracks, book one.png', 'digital', await sheetOfTracks());
    const words = 'To hear them while you read: the bench’s telephone plays each, ask for its number.';
    await keepItemDigital(actor, tracks.id, { fileId: file.id, words, mostDownloads: 5, days: 60 });
  }
  await sell('Hollis Penhale', ['Violin case, oblong', '', '1', ''], { handed: 'collected' });
  const [fetched] = (await counterDesk(actor, 'hollis')).rows;
  if (fetched)
    await handOverAtCounter(actor, randomUUID(), fetched.id, {
      name: 'Wren Penhale',
      strokes: 'M8 26 L14 10 L20 30 L26 14 L33 27M38 22 L44 18 L50 26 L58 16 L66 27 L76 20 L90 24',
      lines: fetched.lines.map(({ line, left }) => ({ line, quantity: left })),
    });
  await sell('Cosima Lyle', ['Cello strings, Larkspur', 'heavy', '2', ''], { handed: 'collected' });
  await sell('Abel Thornquist', ['Shoulder rest', '', '1', ''], { handed: 'collected' });
  await sell('Nell Ashgrove', ['Practice tracks, book one', '', '1', ''], { handed: 'digital' });
  // What came on time goes back: it does not fit.
  const { rows: arrived } = await shipmentList(actor, { under: 'ended' });
  const sales = await readBusiness(programContext(businessId), (db) =>
    salesOfParcels(
      db,
      arrived
        .filter(({ parcel: { state, lines } }) => state === 'delivered' && lines[0]?.what.startsWith('Violin case'))
        .map(({ parcel }) => parcel.id),
    ),
  );
  const words = 'The case is a finger too short for my scroll. It has not been used.';
  const bought = sales.find(({ invoiceId }) => invoiceId);
  if (bought)
    await askBackByInvoice(bought.linkToken, randomUUID(), {
      ...{ reason: 'does-not-fit', words, fileId: null, lines: [{ line: 0, quantity: '1' }] },
    });
  await mail();

  // What goes out next: a paper with gains and losses, and what could or cannot go beside it.
  await at(day(0, '07:30'));
  await fetchStatementNow(actor, `${addDays(today, -before).slice(0, 7)}-01` as CalendarDate);
  const waiting = (await counterDesk(actor, '')).rows.filter(({ name }) => name.startsWith('Cosima'));
  await tellReady(
    actor,
    waiting.map(({ id }) => id),
  );
  const next: readonly (readonly [string, Sold])[] = [
    ['Nell Ashgrove', ['Violin case, oblong', '', '1', '14.00']],
    ['Orrin Pell', ['Violin case, oblong', '', '1', '12.00']],
    ['Sabine Thackeray', ['Shoulder rest', '', '2', '9.00']],
    ['Ludo Brandreth', ['Shoulder rest', '', '1', '9.00']],
    ['Ione Castlereagh', ['Rosin, dark', '', '6', '8.50']],
    ['Dorian Meakin', ['Rosin, dark', '', '2', '5.50']],
    ['Verity Osgood', ['Violin strings, Larkspur', 'medium', '1', '5.50']],
    ['Hollis Penhale', ['Violin strings, Larkspur', 'light', '2', '5.50']],
    ['Marisol Quint', ['Cello strings, Larkspur', 'heavy', '1', '4.50']],
    ['Abel Thornquist', ['Rosin, dark', '', '1', '4.50']],
    ['Mireille Castagnard', ['Bow hair, one hank', '', '2', '18.00']],
  ];
  for (const [name, sold] of next) await sell(name, sold);
  const paper = await pack();
  const { paper: rows } = await packDesk(actor, '');
  const large = rows.filter(({ what }) => what.startsWith('Violin case')).map(({ parcel }) => parcel.id);
  await changeProfiles(actor, large, carton);
  await changeMailDay(actor, paper, nextMailDay(addDays(today, 1), [1, 2, 3, 4, 5, 6]));
  const waits: readonly (readonly [string, Sold])[] = [
    ['Cosima Lyle', ['Violin strings, Larkspur', 'heavy', '1', '4.50']],
    ['Orrin Pell', ['Rosin, dark', '', '3', '5.50']],
    ['Nell Ashgrove', ['Rosin, dark', '', '1', '4.50']],
    ['Dorian Meakin', ['Shoulder rest', '', '1', '8.00']],
    ['Verity Osgood', ['Shoulder rest', '', '8', '12.50']],
    ['Pascoe Trevanion', ['Violin case, oblong', '', '1', '22.00']],
  ];
  for (const [name, sold] of waits) await sell(name, sold);
  await mail();
}
