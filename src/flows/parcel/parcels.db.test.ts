/** From paid to told: what sales hand over, parcels on the paper, labels bought once, the way and its notices. */
import { randomUUID } from 'node:crypto';
import { beforeEach, describe, expect, test } from 'vitest';
import { addDays } from '@/core/dates/calendar-date';
import { dateInZone } from '@/core/dates/zone';
import { newOfferItem } from '@/core/offer/offer';
import { accountBalances, ledgerTroubles } from '@/db/ledger';
import { parcelsByIds, scansOf } from '@/db/parcels';
import type { Db } from '@/db/pool';
import { readBusiness } from '@/db/transaction';
import { knownOf } from '@/flows/dispute/gather-file';
import { programContext } from '@/flows/door/program';
import { cancelInvoice } from '@/flows/invoice/cancel-invoice';
import { refundPayment } from '@/flows/payment/refund-payment';
import { takeBackReceived } from '@/flows/payment/take-back-received';
import { handOverMessage } from '@/flows/post/hand-over-message';
import { asSuperuser } from '../../../tests/support/database';
import { playMinute } from '../../../tests/support/minute';
import { paidOrder, placedOffer } from '../../../tests/support/offers';
import {
  buyAll,
  GULL_POINT,
  livesAt,
  packAll,
  payByTransfer,
  postedItem,
  readyToPack,
  soldToPost,
} from '../../../tests/support/parcels';
import { setClock } from '../../../tests/support/plans';
import { back } from '../../../tests/support/refunds';
import { foundHouse, type House, mailOf, sharedWorkshop } from '../../../tests/support/workshop';
import { carrierAccount, settleTopUp, topUp } from './balance';
import { buyLabels, settleLabels } from './buy-labels';
import { changeParcel, correctRecipient, leaveOut, putFreeParcel, putOnPaper, takeOffPaper } from './pack';
import { changeNotices, giveLabelBack, shipmentCosts, shipmentList, shipmentSheet } from './shipments';
import { packDesk, paperCosts, scannedThing } from './to-pack';

const workshop = await sharedWorkshop();
let house: House;
beforeEach(async () => {
  await setClock(workshop.standIns, new Date());
  house = await foundHouse();
});

const of = <T>(work: (db: Db) => Promise<T>) => readBusiness(programContext(house.business.id), work);
const books = () => of(ledgerTroubles);
const parcelOf = async (id: string) => {
  const [parcel] = await of((db) => parcelsByIds(db, [id]));
  if (!parcel) throw new Error('The parcel is gone');
  return parcel;
};
const waiting = async () => (await packDesk(house.owner, '')).ready.rows;
const onPaper = async () => (await packDesk(house.owner, '')).paper;
const minor = async (account: 'postage' | 'carrier-balance' | 'outside') =>
  (await of((db) => accountBalances(db, account)))[0]?.minor ?? 0n;
const dayAt = (day: string, hour: string) => setClock(workshop.standIns, new Date(`${day}T${hour}:00Z`));
/** The clock goes on to a number of days after now, at an hour in UTC. */
const daysOn = (days: number, hour = '15:00') => dayAt(addDays(dateInZone(new Date(), 'UTC'), days), hour);
const handOver = async () => {
  const rows = await asSuperuser<{ id: string }>(
    workshop.admin,
    `select id from messages where business_id = $1 and state = 'queued' and kind like 'parcel-%'`,
    [house.business.id],
  );
  for (const { id } of rows) await handOverMessage(house.business.id, id);
};
const subjectsTo = async (address: string) => {
  await handOver();
  return (await mailOf(workshop.standIns, address))
    .map(({ subject }) => subject)
    .filter((subject) => /parcel/.test(subject));
};

describe('what a sale hands over', () => {
  test('an invoice for a posted item waits until it is paid, and goes with what the customer paid for delivery', async () => {
    await readyToPack(house);
    const [rosin, ida] = [await postedItem(house, 'Rosin'), await livesAt(house, 'Ida Marsh')];
    const { id } = await soldToPost(house, ida, rosin, { quantity: '2', paid: false });
    expect(await waiting()).toEqual([]);
    await payByTransfer(house, id, 21);
    expect(await waiting()).toMatchObject([{ name: 'Ida Marsh', what: 'Rosin, 2', invoiceId: id, block: '' }]);
    const [parcelId = ''] = await packAll(house);
    expect(await waiting()).toEqual([]);
    const { parcels } = await paperCosts(house.owner);
    // Two of 40 g in 20 g of paper, a box of 96 g by volume: Light up to 100 g, 3.60, and 0.35 for the letter; 5.00 was paid.
    expect(parcels[parcelId]).toMatchObject({
      paidMinor: 500n,
      rateMinor: 360n,
      packagingMinor: 35n,
      insuranceMinor: 0n,
    });
    expect((await onPaper())[0]).toMatchObject({ grams: 100, serviceName: 'Light', faults: [], isBuyable: true });
  });

  test('who ships first packs before it is paid: by the invoice, or by the customer', async () => {
    const rosin = await postedItem(house, 'Rosin');
    const first = await livesAt(house, 'First Shipped', { shipsFirst: true });
    const plain = await livesAt(house, 'Plain Payer');
    await soldToPost(house, first, rosin, { paid: false });
    await soldToPost(house, plain, rosin, { paid: false, paper: { shipsFirst: true } });
    await soldToPost(house, first, rosin, { paid: false, paper: { shipsFirst: false } });
    expect((await waiting()).map(({ name }) => name).sort()).toEqual(['First Shipped', 'Plain Payer']);
  });

  test('an order by a link goes to where the payer said, with what they wrote', async () => {
    const rosin = await postedItem(house, 'Rosin');
    const { called } = await placedOffer(house, {
      kind: 'items',
      items: [newOfferItem('a', { name: 'Rosin', itemId: rosin.id, prices: { USD: '8' } })],
      delivery: { zones: [{ id: 'z', name: 'Anywhere', countries: [], prices: { USD: '4.50' } }], freeFrom: {} },
      message: true,
    });
    await paidOrder(workshop, called, {
      items: [{ id: 'a', optionId: '', quantity: '3' }],
      delivery: GULL_POINT,
      message: 'Ring twice',
    });
    expect(await waiting()).toMatchObject([
      { name: 'Ida Marsh', what: 'Rosin, 3', wish: 'Ring twice', city: 'Gull Point, OR' },
    ]);
  });

  test('cancelled, taken back or given back before it left, it is not packed', async () => {
    await readyToPack(house);
    const [rosin, ida] = [await postedItem(house, 'Rosin'), await livesAt(house, 'Ida Marsh', { shipsFirst: true })];
    const cancelled = await soldToPost(house, ida, rosin, { paid: false });
    await packAll(house);
    await cancelInvoice(house.owner, cancelled.id, '', false);
    expect([await waiting(), await onPaper()]).toEqual([[], []]);

    const plain = await livesAt(house, 'Plain Payer');
    const taken = await soldToPost(house, plain, rosin);
    const paymentOf = async (invoiceId: string) =>
      (
        await asSuperuser<{ id: string }>(workshop.admin, 'select id from payments where invoice_id = $1', [invoiceId])
      )[0]?.id ?? '';
    await takeBackReceived(house.owner, await paymentOf(taken.id), { reason: 'Another’s', tell: false });
    expect(await waiting()).toEqual([]);
    await payByTransfer(house, taken.id, 13);
    expect(await waiting()).toHaveLength(1);

    const some = await soldToPost(house, plain, rosin, { quantity: '3' });
    const lines = { by: 'lines', tip: false, lines: [{ index: 0, quantity: '1' }] } as const;
    await refundPayment(house.owner, await paymentOf(some.id), back(lines, { method: 'transfer' }));
    await packAll(house);
    const quantities = (await onPaper()).flatMap(({ parcel }) => parcel.lines.map(({ quantity }) => quantity));
    expect(quantities.sort()).toEqual(['1', '2']);
    expect(await books()).toEqual([]);
  });
});

describe('the paper', () => {
  test('sales of one customer for one door go together; others apart; taken off they wait again', async () => {
    await readyToPack(house);
    const rosin = await postedItem(house, 'Rosin');
    const [ida, otto] = [await livesAt(house, 'Ida Marsh'), await livesAt(house, 'Otto Reed')];
    for (const who of [ida, ida, otto]) await soldToPost(house, who, rosin);
    await packAll(house);
    const rows = await onPaper();
    expect(rows.map(({ parcel }) => [parcel.recipient.name, parcel.lines.length, parcel.paidMinor])).toEqual([
      ['Ida Marsh', 2, 1000n],
      ['Otto Reed', 1, 500n],
    ]);
    await takeOffPaper(house.owner, null);
    expect([(await waiting()).length, (await onPaper()).length]).toEqual([3, 0]);
  });

  test('one sale goes in several parcels, or a part of it later; what was paid for delivery counts once', async () => {
    await readyToPack(house);
    const [rosin, ida] = [await postedItem(house, 'Rosin'), await livesAt(house, 'Ida Marsh')];
    await soldToPost(house, ida, rosin, { quantity: '5' });
    const [first = ''] = await packAll(house);
    await leaveOut(house.owner, first, [{ place: 0, quantity: '2' }], true);
    await leaveOut(house.owner, first, [{ place: 0, quantity: '1' }], false);
    const rows = await onPaper();
    expect(rows.map(({ parcel }) => [parcel.lines[0]?.quantity, parcel.paidMinor])).toEqual([
      ['2', 500n],
      ['2', 0n],
    ]);
    expect(await waiting()).toMatchObject([{ what: 'Rosin' }]);
    await expect(leaveOut(house.owner, first, [{ place: 0, quantity: '2' }], false)).rejects.toMatchObject({
      code: 'nothing-left-in-it',
    });
    await buyAll(house);
    const [rest = ''] = await packAll(house);
    expect((await parcelOf(rest)).paidMinor).toBe(0n);
    expect(await books()).toEqual([]);
  });

  test('an address that is not whole keeps a sale; put right it goes', async () => {
    const rosin = await postedItem(house, 'Rosin');
    const ida = await livesAt(house, 'Ida Marsh', { billing: { ...GULL_POINT, lines: ['Pan Lane'] } });
    await soldToPost(house, ida, rosin);
    const { blocked } = await packDesk(house.owner, '');
    expect(blocked.rows).toMatchObject([{ block: 'no-number' }]);
    const [row] = blocked.rows;
    if (!row) throw new Error('Nothing is kept');
    await putOnPaper(house.owner, [row.id]);
    expect(await onPaper()).toEqual([]);
    await correctRecipient(house.owner, row.id, { ...row.recipient, address: GULL_POINT });
    expect(await waiting()).toHaveLength(1);
    await expect(
      correctRecipient(house.owner, row.id, { ...row.recipient, address: { ...GULL_POINT, city: '' } }),
    ).rejects.toMatchObject({ code: 'address-not-whole' });
  });

  test('the carrier says how it would write an address, or that it is on no map; taken over, it knows it', async () => {
    await readyToPack(house);
    const rosin = await postedItem(house, 'Rosin');
    const misspelt = { ...GULL_POINT, city: 'gull point', postalCode: '972O1' };
    await soldToPost(house, await livesAt(house, 'Ida Marsh', { billing: misspelt }), rosin);
    await soldToPost(
      house,
      await livesAt(house, 'Otto Reed', { billing: { ...GULL_POINT, lines: ['1 Nowhere'] } }),
      rosin,
    );
    await packAll(house);
    const [ida, otto] = (await onPaper()).map(({ parcel }) => parcel);
    expect([ida?.checked, otto?.checked?.says]).toMatchObject([{ says: 'proposal', address: GULL_POINT }, 'unknown']);
    if (!ida) throw new Error('Nothing is packed');
    await changeParcel(house.packer, ida.id, { recipient: { ...ida.recipient, address: GULL_POINT } });
    expect((await onPaper())[0]?.parcel.checked?.says).toBe('known');
  });

  test('a parcel without a sale; a profile by hand stays; too heavy for its service is said before', async () => {
    await readyToPack(house, { mostGrams: 0 });
    const id = await putFreeParcel(house.packer, {
      customerId: null,
      recipient: { name: 'Nell Ash', address: GULL_POINT, email: '', phone: '', locale: 'en-US' },
      lines: [{ what: 'Samples', itemId: null, optionId: null, quantity: '1', valueMinor: 0n }],
    });
    await changeParcel(house.packer, id, { grams: 2400 });
    const [row] = await onPaper();
    expect(row).toMatchObject({ grams: 2400, faults: ['refused'], refusedBecause: 'too-heavy', isBuyable: false });
    await changeParcel(house.packer, id, { service: 'steady' });
    expect((await onPaper())[0]).toMatchObject({ faults: [], serviceName: 'Steady', isBuyable: true });
  });
});

describe('labels', () => {
  test('are bought once however often one presses; the balance and the books agree', async () => {
    await readyToPack(house);
    const rosin = await postedItem(house, 'Rosin');
    for (const name of ['Ida Marsh', 'Otto Reed', 'Una Fell'])
      await soldToPost(house, await livesAt(house, name), rosin);
    await packAll(house);
    const { readyMinor } = await paperCosts(house.owner);
    expect(readyMinor).toBe(1080n);
    await expect(buyLabels(house.owner, null, 999n)).rejects.toMatchObject({ code: 'amount-changed' });
    const presses = await Promise.all([1, 2, 3].map(() => buyLabels(house.owner, null, null)));
    expect(presses.map(({ asked }) => asked).sort()).toEqual([0, 0, 3]);
    const ids = (await onPaper()).map(({ parcel }) => parcel.id);
    await Promise.all([settleLabels(house.business.id, ids), settleLabels(house.business.id, ids)]);
    await settleLabels(house.business.id, ids);
    const { rows } = await shipmentList(house.owner, { under: 'under-way' });
    expect(new Set(rows.map(({ parcel }) => parcel.number)).size).toBe(3);
    const { balanceMinor } = await carrierAccount(house.owner);
    expect([balanceMinor, await minor('carrier-balance'), await minor('postage'), await minor('outside')]).toEqual([
      48_920n,
      48_920n,
      1_080n,
      -50_000n,
    ]);
    const held = await fetch(`${workshop.standIns}/carrier/api/balance/${house.business.id}`, {
      headers: { authorization: 'Bearer test-carrier' },
    }).then((answer) => answer.json());
    expect(held).toEqual({ currency: 'USD', minor: 48_920 });
    expect(await books()).toEqual([]);
  });

  test('an answer that gets lost is asked about: the label is there, and paid once', async () => {
    await readyToPack(house);
    await soldToPost(house, await livesAt(house, 'Silent Otto'), await postedItem(house, 'Rosin'));
    const [id = ''] = await packAll(house);
    await buyLabels(house.owner, null, null);
    await expect(settleLabels(house.business.id, [id])).rejects.toThrow('did not answer');
    expect((await parcelOf(id)).state).toBe('buying');
    await expect(changeParcel(house.owner, id, { grams: 5 })).rejects.toMatchObject({ code: 'label-asked-for' });
    await settleLabels(house.business.id, [id]);
    expect(await parcelOf(id)).toMatchObject({ state: 'bought', rateMinor: 360n });
    expect(await minor('carrier-balance')).toBe(49_640n);
  });

  test('one that is refused lies on the paper again with the reason, the others are bought', async () => {
    await readyToPack(house);
    const rosin = await postedItem(house, 'Rosin');
    for (const name of ['Unknown Person', 'Otto Reed']) await soldToPost(house, await livesAt(house, name), rosin);
    await packAll(house);
    await buyAll(house);
    expect(await onPaper()).toMatchObject([
      { parcel: { recipient: { name: 'Unknown Person' }, trouble: expect.stringContaining('address') } },
    ]);
    expect((await shipmentList(house.owner, { under: 'under-way' })).rows).toHaveLength(1);
    expect(await minor('postage')).toBe(360n);
  });

  test('without enough on the balance nothing is asked for; a press to top up twice is one', async () => {
    await readyToPack(house, {}, 0n);
    await soldToPost(house, await livesAt(house, 'Otto Reed'), await postedItem(house, 'Rosin'));
    await packAll(house);
    await expect(buyLabels(house.owner, null, null)).rejects.toMatchObject({ code: 'balance-short' });
    const press = randomUUID();
    await topUp(house.bookkeeper, press, 400n);
    await topUp(house.bookkeeper, press, 400n);
    await settleTopUp(house.business.id, `top-up:${press}`);
    await settleTopUp(house.business.id, `top-up:${press}`);
    expect((await carrierAccount(house.owner)).balanceMinor).toBe(400n);
    await expect(topUp(house.packer, randomUUID(), 400n)).rejects.toMatchObject({ code: 'not-allowed' });
    await buyAll(house);
    expect([(await carrierAccount(house.owner)).balanceMinor, await minor('carrier-balance')]).toEqual([40n, 40n]);
  });

  test('given back within a day it is paid back, and what was in it waits again; later it is kept', async () => {
    await readyToPack(house);
    const rosin = await postedItem(house, 'Rosin');
    await soldToPost(house, await livesAt(house, 'Never Scanned'), rosin);
    await packAll(house);
    const [id = ''] = await buyAll(house);
    await giveLabelBack(house.owner, id);
    await giveLabelBack(house.owner, id);
    expect([(await parcelOf(id)).state, await minor('postage'), (await waiting()).length]).toEqual(['voided', 0n, 1]);
    await packAll(house);
    const [next = ''] = await buyAll(house);
    // What was paid for delivery counts on the parcel that goes.
    expect((await shipmentCosts(house.owner, next)).paidMinor).toBe(500n);
    await daysOn(2);
    await expect(giveLabelBack(house.owner, next)).rejects.toMatchObject({ code: 'label-kept' });
    expect(await books()).toEqual([]);
  });
});

describe('the way', () => {
  /** A parcel with its label, for somebody so called. */
  async function sent(name: string): Promise<{ id: string; email: string }> {
    await readyToPack(house, { service: 'steady' });
    const customer = await livesAt(house, name);
    await soldToPost(house, customer, await postedItem(house, 'Rosin'));
    await packAll(house);
    const [id = ''] = await buyAll(house);
    return { id, email: customer.email };
  }

  test('the customer is told on the mailing date, not before; then that it comes, and that it came', async () => {
    const { id, email } = await sent('Ida Marsh');
    const { mailOn } = await parcelOf(id);
    const on = addDays(mailOn, 2);
    await changeNotices(house.owner, [id], { deed: 'move', mailOn: on });
    await dayAt(addDays(on, -1), '23:00');
    await playMinute();
    expect(await subjectsTo(email)).toEqual([]);
    // 8:00 in Los Angeles is 16:00 in winter, 15:00 in summer.
    await dayAt(on, '16:10');
    await playMinute();
    expect(await subjectsTo(email)).toEqual(['Your parcel from Sallow Joinery is on its way']);
    for (let day = 0; day < 9; day++) {
      await dayAt(addDays(on, day), '20:00');
      await playMinute();
      await dayAt(addDays(on, day), '23:30');
      await playMinute();
    }
    expect(await parcelOf(id)).toMatchObject({ state: 'delivered', notice: 'told', actAt: null });
    expect(await subjectsTo(email)).toEqual(expect.arrayContaining(['Your parcel from Sallow Joinery has arrived']));
    const scans = await of((db) => scansOf(db, [id]));
    expect(scans.at(-1)?.scan).toBe('delivered');
    expect(new Set(scans.map((one) => `${one.at.getTime()} ${one.scan}`)).size).toBe(scans.length);
    // All of it stands in the file that a bank is shown.
    const [payment] = await asSuperuser<{ id: string }>(
      workshop.admin,
      'select id from payments where business_id = $1',
      [house.business.id],
    );
    const told = (await of((db) => knownOf(db, payment?.id ?? ''))).find(({ key }) => key === 'delivery');
    const rows = (told?.rows ?? []).map(([what, text]) => `${what}: ${text}`).join('\n');
    expect(rows).toMatch(/^Parcel TW.*Rosin\nSent to: Ida Marsh, 18 Pan Lane/);
    expect(rows).toMatch(/Taken over by the carrier[\s\S]*Delivered/);
  });

  test('held back nothing is told; by the first scan it is; sent now it is told now', async () => {
    const { id, email } = await sent('Ida Marsh');
    await changeNotices(house.owner, [id], { deed: 'hold' });
    await daysOn(4);
    await playMinute();
    expect(await subjectsTo(email)).not.toContain('Your parcel from Sallow Joinery is on its way');
    await changeNotices(house.owner, [id], { deed: 'send' });
    await playMinute();
    // By then it may have arrived: of that they are told anyway.
    expect((await parcelOf(id)).notice).toBe('told');
    await expect(changeNotices(house.owner, [id], { deed: 'hold' })).rejects.toMatchObject({ code: 'told-already' });
  });

  test.each([
    ['Late Larkin', 8, 'late'],
    ['Lost Larkin', 20, 'lost'],
    ['Damaged Larkin', 12, 'damaged'],
    ['Returned Larkin', 16, 'returned'],
    ['Counter Larkin', 12, 'waiting'],
  ])('%s is noticed', async (name, days, look) => {
    const { id } = await sent(name);
    const { promisedOn } = await parcelOf(id);
    if (!promisedOn) throw new Error('Nothing is promised');
    const promised = (Date.parse(promisedOn) - Date.parse(dateInZone(new Date(), 'UTC'))) / 86_400_000;
    for (let day = 0; day <= (look === 'late' ? promised + 2 : days); day++) {
      await daysOn(day, '23:30');
      await playMinute();
    }
    expect((await shipmentSheet(house.owner, id)).look).toBe(look);
    const { looks } = await shipmentList(house.owner, { under: 'under-way' });
    expect(looks.map(({ parcel }) => parcel.id)).toContain(id);
  });

  test('found by name, number and sale; a scanned number opens it', async () => {
    const { id } = await sent('Ida Marsh');
    const { number } = await parcelOf(id);
    for (const words of ['marsh', number.toLowerCase(), 'rosin', 'gull'])
      expect((await shipmentList(house.packer, { under: 'all', words })).rows.map(({ parcel }) => parcel.id)).toEqual([
        id,
      ]);
    expect(await scannedThing(house.packer, `${number.slice(0, 2)} ${number.slice(2)}`)).toEqual({
      kind: 'parcel',
      id,
    });
    expect(await scannedThing(house.packer, 'nothing of ours')).toEqual({ kind: 'unknown' });
  });
});
