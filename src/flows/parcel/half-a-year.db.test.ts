/** Half a year of parcels played by the clock: what the customer, the desk and the books say is what the carrier's own scans say, each day. */
import { beforeAll, expect, test } from 'vitest';
import { addDays, type CalendarDate, weekday } from '@/core/dates/calendar-date';
import { dateInZone } from '@/core/dates/zone';
import { lookAt } from '@/core/parcel/shipment';
import { NO_ADDRESS } from '@/core/place/address';
import { carrierBalance } from '@/db/carrier-moves';
import { accountBalances, ledgerTroubles } from '@/db/ledger';
import { type Parcel, parcelsByIds } from '@/db/parcels';
import type { Db } from '@/db/pool';
import { stockTroubles } from '@/db/stock';
import { readBusiness } from '@/db/transaction';
import { programContext } from '@/flows/door/program';
import { allowReturn, askBackByInvoice, closeReturn, receiveReturn, returnsDesk } from '@/flows/returning/returns';
import { services } from '@/outside/services';
import { asSuperuser } from '../../../tests/support/database';
import { playMinute } from '../../../tests/support/minute';
import {
  GULL_POINT,
  KNOWN_TO_CUSTOMS,
  livesAt,
  packAll,
  postedItem,
  readyToPack,
  soldToPost,
} from '../../../tests/support/parcels';
import { setClock } from '../../../tests/support/plans';
import { seeded } from '../../../tests/support/seeded';
import { foundHouse, type House, sharedWorkshop } from '../../../tests/support/workshop';
import { settleTopUp, topUp } from './balance';
import { buyLabels, settleLabels } from './buy-labels';
import { decideEntry, statementDesk } from './carrier-statements';
import { claimParcel } from './claims';
import { changeMailDay } from './pack';
import { sendAgain, takeIntoStock } from './settle-parcel';
import { changeNotices, giveLabelBack, shipmentList, shipmentSheet } from './shipments';
import { packDesk } from './to-pack';

const FIRST = '2027-01-04' as CalendarDate;
const DAYS = 182;
const SEED = 5;
/** How it goes with parcels by a word in the name; most arrive as they should. */
const NAMES = [
  '',
  '',
  '',
  '',
  '',
  'Late',
  'Lost',
  'Damaged',
  'Returned',
  'Counter',
  'Missed',
  'Heavier',
  'Silent',
  'Never',
];
const TOWNS = [
  GULL_POINT,
  GULL_POINT,
  { ...NO_ADDRESS, lines: ['5 Tarn View'], city: 'Lower Wending', region: 'US-WA', postalCode: '98012', country: 'US' },
  { ...NO_ADDRESS, lines: ['北浜 2-4-6'], city: '大阪市', postalCode: '541-0041', country: 'JP' },
  { ...NO_ADDRESS, lines: ['8 rue des Ormes'], city: 'Saint-Aubry', postalCode: '35990', country: 'FR' },
];

const workshop = await sharedWorkshop();
let house: House;
const of = <T>(work: (db: Db) => Promise<T>) => readBusiness(programContext(house.business.id), work);
const at = (day: CalendarDate, hour: string) => setClock(workshop.standIns, new Date(`${day}T${hour}:00Z`));

beforeAll(async () => {
  await at(FIRST, '15:00');
  house = await foundHouse();
  await readyToPack(house, { service: 'steady', mostGrams: 2000, insuring: { kind: 'always' } }, 300_000n);
});

type Scanned = { readonly at: string; readonly scan: string };
/** What the carrier itself says of all parcels, by number: a second reading, past our own client. */
async function carriersBook(numbers: readonly string[]): Promise<Map<string, readonly Scanned[]>> {
  const answer = await fetch(`${process.env.CARRIER_URL}/api/scans`, {
    method: 'POST',
    headers: { authorization: `Bearer ${process.env.CARRIER_API_KEY}`, 'content-type': 'application/json' },
    body: JSON.stringify({ account: house.business.id, numbers }),
  });
  const { parcels } = (await answer.json()) as { parcels: { scans: Scanned[] }[] };
  return new Map(numbers.map((number, nth) => [number, parcels[nth]?.scans ?? []]));
}

/** Labels for all that lies on the paper; where an answer gets lost the job runs once more, as the worker lets it. */
async function bought(): Promise<string[]> {
  await buyLabels(house.owner, null, null);
  const ids = (await packDesk(house.owner, '')).paper.flatMap(({ parcel }) =>
    parcel.state === 'buying' ? [parcel.id] : [],
  );
  const { id } = house.business;
  await settleLabels(id, ids).catch(() => settleLabels(id, ids));
  return ids;
}

/** How a parcel stands by its last telling scan, worked out apart from ours. */
function standsAs(scans: readonly Scanned[]): string {
  const names = scans.map(({ scan }) => scan);
  const last = names.at(-1);
  if (last === undefined) return 'bought';
  if (names.includes('returned')) return 'returned';
  if (names.includes('turned-back')) return 'back';
  const map: Record<string, string> = {
    'at-door': 'door',
    waiting: 'waiting',
    delivered: 'delivered',
    damaged: 'damaged',
    lost: 'lost',
  };
  return map[last] ?? 'moving';
}

/** All that was told of parcels, with when. */
const told = () =>
  asSuperuser<{ parcel: string; kind: string; at: Date }>(
    workshop.admin,
    `select parcel_id as parcel, kind, created_at as at from messages where business_id = $1 and parcel_id is not null order by created_at`,
    [house.business.id],
  );

/** What somebody does about what needs a look, as the seed has it. */
async function tidied(parcel: Parcel, today: CalendarDate, chance: () => number): Promise<void> {
  const look = lookAt(parcel, today);
  if (!look || chance() < 0.5) return;
  if (look === 'returned') await (chance() < 0.5 ? takeIntoStock : sendAgain)(house.owner, parcel.id);
  else if (look === 'lost' || look === 'damaged') {
    await claimParcel(house.owner, parcel.id, 300n).catch((error) =>
      expect(error).toMatchObject({ code: 'claimed-already' }),
    );
    await sendAgain(house.owner, parcel.id);
  }
}

test('half a year: nobody is told what is not true, nothing is told twice, nothing is forgotten, and all books agree', async () => {
  const chance = seeded(SEED);
  const strings = await postedItem(house, 'Strings', {
    onHand: '500',
    going: KNOWN_TO_CUSTOMS,
  });
  const all: string[] = [];
  const away = new Set<string>();
  const links = new Map<string, string>();
  const askedBack = new Set<string>();
  for (let nth = 0; nth < DAYS; nth++) {
    const day = addDays(FIRST, nth);
    await at(day, '17:00');
    if (nth % 60 === 59) {
      await topUp(house.owner, `half-${nth}`, 100_000n);
      await settleTopUp(house.business.id, `top-up:half-${nth}`);
    }
    const sold = weekday(day) === 7 || nth > DAYS - 30 ? 0 : Math.floor(chance() * 3);
    for (let each = 0; each < sold; each++) {
      const word = NAMES[Math.floor(chance() * NAMES.length)] ?? '';
      const billing = TOWNS[Math.floor(chance() * TOWNS.length)] ?? GULL_POINT;
      const buyer = await livesAt(house, `${word} Larkin ${nth}-${each}`.trim(), { billing });
      const { link } = await soldToPost(house, buyer, strings, { quantity: String(1 + Math.floor(chance() * 3)) });
      links.set(buyer.name, link);
    }
    const packed = await packAll(house);
    if (packed.length > 0 && chance() < 0.3)
      await changeMailDay(house.owner, null, addDays(day, 1 + Math.floor(chance() * 3)));
    const fresh = packed.length > 0 ? await bought() : [];
    for (const id of fresh) {
      if (chance() < 0.08) {
        await giveLabelBack(house.owner, id);
        away.add(id);
      } else if (chance() < 0.2)
        await changeNotices(house.owner, [id], { deed: chance() < 0.5 ? 'hold' : 'first-scan' });
    }
    all.push(...fresh);
    expect(await playMinute()).toEqual([]);
    await at(day, '23:30');
    expect(await playMinute()).toEqual([]);

    // Each evening: ours is what the carrier's own book says, and what needs a look stands in the list of what does.
    const parcels = await of((db) => parcelsByIds(db, all));
    const live = parcels.filter(({ id }) => !away.has(id));
    const book = await carriersBook(live.map(({ number }) => number).slice(-200));
    const today = dateInZone(new Date(`${day}T23:30:00Z`), house.business.zone);
    for (const parcel of live) {
      const scans = book.get(parcel.number);
      // A day without news is allowed for: the carrier is asked every two hours.
      if (scans?.every(({ at: when }) => Date.parse(when) < Date.parse(`${day}T21:00:00Z`)))
        expect(parcel.state, `${day} ${parcel.recipient.name}`).toBe(standsAs(scans));
    }
    const due = live.filter((parcel) => lookAt(parcel, today)).map(({ id }) => id);
    const { looks } = await shipmentList(house.owner, { under: 'under-way' });
    expect(looks.map(({ parcel }) => parcel.id).every((id) => due.includes(id))).toBe(true);
    expect(looks.length).toBe(Math.min(due.length, 30));
    for (const parcel of live) await tidied(parcel, today, chance);
    // Some of what arrived goes back with a label of ours, which stands on the carrier's statement too; what has come is taken in.
    for (const { id, state, recipient } of live) {
      const link = links.get(recipient.name);
      if (state !== 'delivered' || !link || askedBack.has(id) || chance() > 0.02) continue;
      askedBack.add(id);
      const lines = [{ line: 0, quantity: '1' }];
      // Its days may be over, or it came twice: then it cannot be asked back.
      await askBackByInvoice(link, `half-${id}`, { reason: 'not-wanted', words: '', fileId: null, lines }).catch(
        (error) => expect(error).toMatchObject({ code: 'nothing-to-return' }),
      );
    }
    for (const back of await returnsDesk(house.owner)) {
      if (back.state === 'asked') await allowReturn(house.owner, back.id, '', true);
      else if (chance() < 0.1)
        await receiveReturn(house.owner, back.id, [{ line: 0, toStock: '1', thrown: '0' }]).then(() =>
          closeReturn(house.owner, back.id),
        );
    }
  }

  const parcels = await of((db) => parcelsByIds(db, all));
  expect(parcels.length).toBeGreaterThan(100);
  expect(askedBack.size).toBeGreaterThan(5);
  expect(new Set(parcels.map(({ state }) => state)).size).toBeGreaterThanOrEqual(6);
  const messages = await told();
  expect(new Set(messages.map(({ parcel, kind }) => `${parcel} ${kind}`)).size).toBe(messages.length);
  const book = await carriersBook(parcels.map(({ number }) => number).slice(-200));
  for (const { id, number, mailOn, notice } of parcels) {
    const own = messages.filter(({ parcel }) => parcel === id);
    const when = (kind: string) => own.find((one) => one.kind === kind)?.at;
    if (away.has(id)) {
      expect(own).toEqual([]);
      continue;
    }
    const scans = book.get(number);
    if (!scans) continue;
    const scanned = (scan: string) => {
      const found = scans.find((one) => one.scan === scan);
      return found ? new Date(found.at) : null;
    };
    const left = when('parcel-left');
    // Nobody hears before its mailing date that it left, unless the carrier has it.
    if (left)
      expect(dateInZone(left, house.business.zone) >= mailOn || (scans[0] && new Date(scans[0].at) <= left)).toBe(true);
    else expect(own).toEqual([]);
    if (notice === 'held') expect(own).toEqual([]);
    for (const [kind, scan] of [
      ['parcel-door', 'at-door'],
      ['parcel-delivered', 'delivered'],
    ] as const) {
      const at_ = when(kind);
      const seen = scanned(scan);
      if (at_) expect(seen && seen <= at_, `${kind} ${number}`).toBe(true);
    }
    // What has arrived, and of which it was told that it left, is told to have arrived.
    if (left && scanned('delivered')) expect(when('parcel-delivered')).toBeDefined();
  }
  // What was tried in the way of claims ended one way or the other, and the months agree once they are decided on.
  const months = (await statementDesk(house.owner, null)).months.filter(({ statement }) => statement);
  expect(months.length).toBe(6);
  for (const { month } of months) {
    const { comparison } = await statementDesk(house.owner, month);
    expect(comparison?.sumMinor, month).toBe(0);
    const open = (comparison?.entries ?? []).filter(({ leftMinor }) => leftMinor !== 0);
    // Nothing but what was weighed again differs.
    expect(
      open.map(({ theirs }) => theirs?.kind).filter((kind) => kind !== 'surcharge'),
      month,
    ).toEqual([]);
    for (const { key } of open) await decideEntry(house.owner, month, key, 'book');
  }
  for (const { month } of months)
    expect((await statementDesk(house.owner, month)).comparison, month).toMatchObject({ openingMinor: 0 });
  const held = await services().carrier.balance(house.business.id);
  await of(async (db) => {
    const ours = await carrierBalance(db);
    expect((await accountBalances(db, 'carrier-balance'))[0]?.minor).toBe(ours);
    // What was weighed again since the last statement stands on the next one.
    expect(BigInt(held?.minor ?? 0) <= ours).toBe(true);
    expect(await ledgerTroubles(db)).toEqual([]);
    expect(await stockTroubles(db)).toEqual([]);
  });
  expect((await shipmentSheet(house.owner, all[0] ?? '')).lines.length).toBeGreaterThan(2);
}, 300_000);
