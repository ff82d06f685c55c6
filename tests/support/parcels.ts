/** Things to be packed, for tests: items that are posted, profiles, sales of them, labels bought. */
import { randomUUID } from 'node:crypto';
import type { Customer } from '@/core/customer/customer';
import { newCustomer } from '@/core/customer/customer';
import { GOES_AS_USUAL, type Item, type ItemGoing } from '@/core/item/item';
import { newLine, type Paper } from '@/core/paper/paper';
import { openRule, type ParcelProfile } from '@/core/parcel/profile';
import { NO_ADDRESS } from '@/core/place/address';
import { settleTopUp, topUp } from '@/flows/parcel/balance';
import { buyLabels, settleLabels } from '@/flows/parcel/buy-labels';
import { putOnPaper } from '@/flows/parcel/pack';
import { keepProfile, keepRules } from '@/flows/parcel/profiles';
import { packDesk } from '@/flows/parcel/to-pack';
import { recordReceived } from '@/flows/payment/receive-payment';
import { addCustomer } from '@/flows/records/customers';
import { keepItem } from '@/flows/records/items';
import { type House, plainPaper, sentInvoice } from './workshop';

/** A door in Oregon, that lacks nothing. */
export const GULL_POINT = {
  ...NO_ADDRESS,
  lines: ['18 Pan Lane'],
  city: 'Gull Point',
  region: 'US-OR',
  postalCode: '97201',
  country: 'US',
};

/** An item that is posted: 40 g unless said otherwise. */
export const postedItem = (house: House, name: string, more: Partial<Omit<Item, 'id'>> = {}): Promise<Item> =>
  keepItem(house.owner, null, {
    code: '',
    name,
    description: '',
    kind: 'goods',
    unit: 'piece',
    prices: { USD: '8.00' },
    cost: '',
    taxClass: 'standard',
    onHand: null,
    lowAt: null,
    pictureId: null,
    options: [],
    ...more,
    going: { ...GOES_AS_USUAL, handed: 'posted', grams: 40, ...more.going },
  });

/** How a thing goes of which customs know all that they ask: 45 g, made in Denmark. */
export const KNOWN_TO_CUSTOMS: ItemGoing = {
  ...GOES_AS_USUAL,
  ...{ handed: 'posted', grams: 45, origin: 'DK', hsCode: '9209.94' },
};

const LETTER: Omit<ParcelProfile, 'id'> = {
  name: 'Padded letter',
  lengthMm: 200,
  widthMm: 120,
  heightMm: 20,
  ownGrams: 20,
  mostGrams: 500,
  packagingMinor: 35,
  service: 'light',
  insuring: { kind: 'never' },
  signature: false,
};

/** A profile for letters that everything takes, by one rule, and money at the carrier. Returns the profile's id. */
export async function readyToPack(
  house: House,
  more: Partial<typeof LETTER> = {},
  topUpMinor = 50_000n,
): Promise<string> {
  const id = await keepProfile(house.owner, null, { ...LETTER, ...more });
  await keepRules(house.owner, [openRule(randomUUID(), id)]);
  if (topUpMinor > 0n) {
    const key = randomUUID();
    await topUp(house.owner, key, topUpMinor);
    await settleTopUp(house.business.id, `top-up:${key}`);
  }
  return id;
}

/** Somebody at a door. */
export const livesAt = (house: House, name: string, more: Partial<Customer> = {}): Promise<Customer> =>
  addCustomer(
    house.owner,
    newCustomer(name, { email: `${randomUUID().slice(0, 8)}@post.example`, billing: GULL_POINT, ...more }),
  );

/** An invoice for some of an item with 5.00 for delivery, paid by transfer unless said otherwise. */
export async function soldToPost(
  house: House,
  customer: Pick<Customer, 'id'>,
  item: Pick<Item, 'id' | 'name'>,
  { quantity = '1', paid = true, paper = {} }: { quantity?: string; paid?: boolean; paper?: Partial<Paper> } = {},
) {
  const line = newLine(randomUUID(), 'piece', {
    what: item.name,
    price: '8.00',
    quantity,
    itemId: item.id,
    taxes: [],
    taxesBy: 'person',
  });
  const invoice = await sentInvoice(
    house,
    plainPaper(house, {
      customerId: customer.id,
      lines: [line],
      delivery: { charged: '5.00', postage: '', packaging: '', taxes: [] },
      ...paper,
    }),
  );
  if (paid) await payByTransfer(house, invoice.id, 8 * Number(quantity) + 5);
  return invoice;
}

/** All of an invoice is paid by transfer. */
export const payByTransfer = (house: House, id: string, amount: number): Promise<unknown> =>
  recordReceived(house.owner, id, {
    requestKey: randomUUID(),
    amountMinor: BigInt(Math.round(amount * 100)),
    method: 'transfer',
    receivedOn: '',
    reference: '',
  });

/** All that can be packed is put on the paper. Returns the parcels' ids. */
export async function packAll(house: House): Promise<string[]> {
  const { ready } = await packDesk(house.owner, '');
  await putOnPaper(
    house.owner,
    ready.rows.map(({ id }) => id),
  );
  return (await packDesk(house.owner, '')).paper.map(({ parcel }) => parcel.id);
}

/** Buys the labels of all that lies on the paper, as the worker would. */
export async function buyAll(house: House): Promise<string[]> {
  await buyLabels(house.owner, null, null);
  const ids = (await packDesk(house.owner, '')).paper
    .filter(({ parcel }) => parcel.state === 'buying')
    .map(({ parcel }) => parcel.id);
  await settleLabels(house.business.id, ids);
  return ids;
}
