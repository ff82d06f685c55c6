/** Delivery prices proposed from costs are what parcels then really cost, at home, abroad, in another currency. */
import { randomUUID } from 'node:crypto';
import { beforeEach, expect, test } from 'vitest';
import { dateInZone } from '@/core/dates/zone';
import { totalCost } from '@/core/parcel/cost';
import { openRule } from '@/core/parcel/profile';
import { keepRates } from '@/db/rates';
import { inBusiness } from '@/db/transaction';
import { programContext } from '@/flows/door/program';
import { services } from '@/outside/services';
import { buyAll, livesAt, packAll, postedItem, readyToPack, soldToPost } from '../../../tests/support/parcels';
import { setClock } from '../../../tests/support/plans';
import { foundHouse, type House, sharedWorkshop } from '../../../tests/support/workshop';
import { keepProfile, keepRules } from './profiles';
import { proposeDelivery } from './propose-delivery';
import { paperCosts } from './to-pack';

const workshop = await sharedWorkshop();
let house: House;
beforeEach(async () => {
  await setClock(workshop.standIns, new Date());
  house = await foundHouse();
});

const ZONES = [
  { id: 'home', countries: ['US'] },
  { id: 'else', countries: [] },
];
const propose = (itemId: string, currency = 'USD', zones = ZONES) =>
  proposeDelivery(house.owner, { currency, things: [{ itemId, optionId: null }], zones });

test('what is proposed is what it costs, packing and insurance with it; half a year’s parcels stand beside it', async () => {
  await readyToPack(house);
  const rosin = await postedItem(house, 'Rosin');
  const [home, far] = await propose(rosin.id);
  // 40 g in 20 g of paper, a box of 96 g by volume: Light up to 100 g at 3.60 in the country, 0.35 for the letter.
  expect(home).toMatchObject({
    most: { what: 'Rosin', country: 'US', service: 'Light', costMinor: 395n },
    priceMinor: 400n,
  });
  // Light to another continent: 3.20 times the rate, rounded up to 5.
  expect(far).toMatchObject({ most: { costMinor: 1190n }, priceMinor: 1200n, unknown: [], before: null });
  await soldToPost(house, await livesAt(house, 'Ida Marsh'), rosin);
  const [id = ''] = await packAll(house);
  const cost = (await paperCosts(house.owner)).parcels[id];
  expect(cost && totalCost(cost)).toBe(395n);
  await buyAll(house);
  expect((await propose(rosin.id)).map(({ before }) => before)).toMatchObject([{ count: 1, costMinor: 395n }, null]);
  // No zone names the home: everywhere else takes it in.
  expect((await propose(rosin.id, 'USD', ZONES.slice(1)))[0]).toMatchObject({
    least: { country: 'US', costMinor: 395n },
    before: { count: 1 },
  });
});

test('in another currency it is converted; what no box holds or no service takes is said', async () => {
  const small = await readyToPack(house);
  const [rosin, harp] = [
    await postedItem(house, 'Rosin'),
    await postedItem(house, 'Harp', { going: { grams: 40_000, lengthMm: 1800, widthMm: 900, heightMm: 400 } as never }),
  ];
  // Without a rate nothing is known in another currency.
  expect((await propose(rosin.id, 'EUR'))[0]).toMatchObject({ most: null, priceMinor: null });
  await inBusiness(programContext(house.business.id), (tx) =>
    keepRates(tx, { on: dateInZone(new Date(), 'UTC'), perEuro: { USD: '1.25' } }, 'a file'),
  );
  expect((await propose(rosin.id, 'EUR'))[0]).toMatchObject({ most: { costMinor: 316n }, priceMinor: 350n });
  expect((await propose(harp.id))[0]).toMatchObject({ least: null, priceMinor: null, unknown: [{ what: 'Harp' }] });
  const crate = await keepProfile(house.owner, null, {
    ...{ name: 'Crate', lengthMm: 2000, widthMm: 1000, heightMm: 500, ownGrams: 9000, mostGrams: 0, packagingMinor: 0 },
    ...{ service: '', insuring: { kind: 'never' }, signature: false },
  });
  await keepRules(
    house.owner,
    [small, crate].map((profileId) => openRule(randomUUID(), profileId)),
  );
  expect((await propose(harp.id))[0]).toMatchObject({ priceMinor: null, unknown: [{ what: 'Harp', service: '' }] });
});

test('things of no items, and a carrier that is silent, are said in words; somebody without sums is not let in', async () => {
  await readyToPack(house);
  const rosin = await postedItem(house, 'Rosin');
  await expect(propose(randomUUID())).rejects.toMatchObject({ code: 'nothing-to-propose' });
  await expect(
    proposeDelivery(house.packer, { currency: 'USD', things: [{ itemId: rosin.id, optionId: null }], zones: ZONES }),
  ).rejects.toMatchObject({ code: 'not-allowed' });
  const { carrier } = services();
  const answer = carrier.rates;
  try {
    carrier.rates = () => Promise.resolve(null);
    await expect(propose(rosin.id)).rejects.toMatchObject({ code: 'carrier-silent' });
  } finally {
    carrier.rates = answer;
  }
});
