/** The carrier's month beside ours: fetched by itself, brought as a file, decided on entry by entry, and in the books once. */
import { beforeEach, expect, test } from 'vitest';
import type { CalendarDate } from '@/core/dates/calendar-date';
import { carrierBalance } from '@/db/carrier-moves';
import { accountBalances, ledgerTroubles } from '@/db/ledger';
import type { Db } from '@/db/pool';
import { readBusiness } from '@/db/transaction';
import { todayView } from '@/flows/day/today';
import { programContext } from '@/flows/door/program';
import { services } from '@/outside/services';
import { playMinute } from '../../../tests/support/minute';
import { buyAll, livesAt, packAll, postedItem, readyToPack, soldToPost } from '../../../tests/support/parcels';
import { setClock } from '../../../tests/support/plans';
import { foundHouse, type House, sharedWorkshop } from '../../../tests/support/workshop';
import { bringStatement, decideEntry, fetchStatementNow, statementDesk } from './carrier-statements';
import { giveLabelBack } from './shipments';

const workshop = await sharedWorkshop();
let house: House;
const MONTH = '2027-03-01' as CalendarDate;
const at = (day: string) => setClock(workshop.standIns, new Date(`${day}T15:00:00Z`));
beforeEach(async () => {
  await at('2027-03-03');
  house = await foundHouse();
});

const of = <T>(work: (db: Db) => Promise<T>) => readBusiness(programContext(house.business.id), work);
const differing = async (month: CalendarDate = MONTH) =>
  ((await statementDesk(house.owner, month)).comparison?.entries ?? []).filter(({ verdict }) => verdict !== 'agrees');
const told = async () => (await todayView(house.owner)).queue.filter(({ kind }) => kind === 'carrier').length;
const balances = async () => {
  const { minor } = (await services().carrier.balance(house.business.id)) ?? { minor: Number.NaN };
  return of(async (db) => [
    minor,
    Number(await carrierBalance(db)),
    Number((await accountBalances(db, 'carrier-balance'))[0]?.minor),
    await ledgerTroubles(db),
  ]);
};

/** A month with a label, one given back, and one whose parcel is weighed again. */
async function marchOf(): Promise<void> {
  await readyToPack(house);
  const rosin = await postedItem(house, 'Rosin');
  for (const name of ['Ida Marsh', 'Heavier Larkin', 'Given Back'])
    await soldToPost(house, await livesAt(house, name), rosin);
  await packAll(house);
  const ids = await buyAll(house);
  const rows = await of((db) => import('@/db/parcels').then(({ parcelsByIds }) => parcelsByIds(db, ids)));
  const back = rows.find(({ recipient }) => recipient.name === 'Given Back');
  await giveLabelBack(house.owner, back?.id ?? '');
}

test('after the month’s end it is fetched by itself; what the carrier charged afterwards is booked once', async () => {
  await marchOf();
  await at('2027-03-20');
  await playMinute();
  expect((await statementDesk(house.owner, MONTH)).comparison).toBe(null);
  await expect(fetchStatementNow(house.owner, MONTH)).rejects.toMatchObject({ code: 'no-statement-yet' });
  await at('2027-04-02');
  await playMinute();
  const [entry, ...more] = await differing();
  // Light at 3.60: a quarter of it, for having been heavier.
  expect([entry?.verdict, entry?.theirs?.kind, entry?.leftMinor, more]).toEqual(['not-ours', 'surcharge', -90, []]);
  expect(await told()).toBe(1);
  await expect(decideEntry(house.packer, MONTH, entry?.key ?? '', 'book')).rejects.toMatchObject({
    code: 'not-allowed',
  });
  const [theirs, ours] = await balances();
  expect([theirs, ours]).toEqual([Number(ours) - 90, ours]);
  await Promise.all([1, 2, 3].map(() => decideEntry(house.owner, MONTH, entry?.key ?? '', 'book')));
  expect(await balances()).toEqual([theirs, theirs, theirs, []]);
  expect([await told(), (await differing())[0]?.leftMinor]).toEqual([0, 0]);
  // April begins where March ended for both.
  await at('2027-05-02');
  await playMinute();
  await fetchStatementNow(house.owner, MONTH);
  expect((await statementDesk(house.owner, MONTH)).comparison).toMatchObject({ openingMinor: 0, sumMinor: 0 });
});

test('left as it is it is asked about no more, and can be booked later', async () => {
  await marchOf();
  await at('2027-04-02');
  await playMinute();
  const key = (await differing())[0]?.key ?? '';
  await decideEntry(house.owner, MONTH, key, 'leave');
  expect([await told(), (await statementDesk(house.owner, MONTH)).shown]).toMatchObject([0, { left: [key], open: 0 }]);
  await at('2027-04-03');
  await playMinute();
  expect(await told()).toBe(0);
  await decideEntry(house.owner, MONTH, key, 'book');
  const [theirs, ours] = await balances();
  expect(theirs).toBe(ours);
});

test('a file is read whoever wrote it; one that is none is refused in words, and what was read stays', async () => {
  await marchOf();
  const { comparison, shown } = await statementDesk(house.owner, MONTH);
  expect([comparison, shown?.statement]).toEqual([null, null]);
  const rows = [
    'Datum;Vorgang;Sendungsnummer;Referenz;Bemerkung;Betrag;Saldo',
    '01.03.2027;Anfangssaldo;;;;;0,00',
    '03.03.2027;Aufladung;;;Überweisung;500,00;500,00',
    '03.03.2027;Porto;TW 999 US;;;-3,60;496,40',
  ];
  const month = await bringStatement(house.owner, Buffer.from(rows.join('\r\n'), 'latin1'));
  expect(month).toBe(MONTH);
  // A label that is nobody's; the top-up without a reference; three labels and one given back that are ours alone, and the top-up.
  expect((await differing()).map(({ verdict }) => verdict).sort()).toEqual([
    'not-ours',
    'not-ours',
    ...Array.from({ length: 5 }, () => 'not-theirs'),
  ]);
  for (const bytes of [
    Buffer.from('GIF89a'),
    Buffer.alloc(0),
    Buffer.from(rows.slice(0, 2).join('\n')),
    Buffer.from(`${rows[0]}\n03.03.2027;Porto;X;;;"-3,60;\n`),
    Buffer.from(`${rows[0]}\n03.03.2027;Porto;X;;;9${'9'.repeat(30)},00;\n`),
    Buffer.from(JSON.stringify({ rows: [] })),
  ])
    await expect(bringStatement(house.owner, bytes)).rejects.toMatchObject({ code: 'statement-unreadable' });
  expect((await statementDesk(house.owner, MONTH)).shown?.statement?.entries.length).toBe(2);
  // Fetched, the whole one takes its place.
  await at('2027-04-01');
  await fetchStatementNow(house.owner, MONTH);
  expect((await differing()).map(({ verdict }) => verdict)).toEqual(['not-ours']);
});

test('a carrier that is silent or sends what is no statement is asked again the next day', async () => {
  await marchOf();
  const { carrier } = services();
  const answer = carrier.statement;
  try {
    for (const [day, file] of [
      ['2027-04-02', null],
      ['2027-04-03', Buffer.from('<html>Sign in</html>')],
    ] as const) {
      await at(day);
      carrier.statement = () => Promise.resolve(file);
      await playMinute();
      expect((await statementDesk(house.owner, MONTH)).comparison).toBe(null);
    }
  } finally {
    carrier.statement = answer;
  }
  await at('2027-04-04');
  await playMinute();
  expect((await differing()).length).toBe(1);
});
