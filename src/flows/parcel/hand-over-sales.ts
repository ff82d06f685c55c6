/** What sales hand over, noted as they are made, paid, cancelled and given back. */
import { randomUUID } from 'node:crypto';
import type { Business } from '@/core/business/business';
import type { Customer } from '@/core/customer/customer';
import type { PrintedInvoice, PrintedLine } from '@/core/invoice/printed';
import type { Handed } from '@/core/item/item';
import { packingOf } from '@/core/offer/packing';
import type { Paper } from '@/core/paper/paper';
import {
  blockOf,
  type HandoverLine,
  handedOf,
  handedOver,
  type Recipient,
  unpackedQuantity,
  wantedBy,
} from '@/core/parcel/handover';
import { isNoAddress, NO_ADDRESS } from '@/core/place/address';
import { scaledCount } from '@/core/stock/available';
import { digitalGoods, endGrants } from '@/db/digital';
import {
  addDropped,
  goodsOfSales,
  type Handover,
  handoversOfSales,
  insertHandovers,
  type NewHandover,
  updateCounter,
  updateHandoverState,
  updateReady,
} from '@/db/handovers';
import { itemsById } from '@/db/items';
import type { Order } from '@/db/orders';
import { deliverSettings } from '@/db/parcel-profiles';
import type { Tx } from '@/db/pool';
import { holdStock } from '@/db/stock';
import { grantDigital } from '@/flows/digital/grants';
import { reviseSales } from '@/flows/stock/wait-for-stock';
import { takeOff } from './unpack';

/** An invoice as it is issued. */
export type IssuedSale = {
  readonly id: string;
  readonly printed: PrintedInvoice;
  readonly paper: Paper;
  readonly customer: Customer | null;
  readonly totalMinor: bigint;
};

/** How items come, by id; one that only its kind speaks for is left to whether anything is delivered. */
async function waysOf(tx: Tx, lines: readonly PrintedLine[]) {
  const ids = [...new Set(lines.flatMap(({ itemId }) => (itemId ? [itemId] : [])))];
  const items = ids.length > 0 ? await itemsById(tx, ids) : [];
  return {
    ways: new Map<string, Handed>(items.map((item) => [item.id, handedOf(item)])),
    posted: new Set(items.flatMap(({ id, going }) => (going.handed === 'posted' ? [id] : []))),
  };
}

const UNITS_PACKED = new Set(['piece', 'kilogram', 'metre', 'litre']);

/** Lines with what their item, or the delivery that is charged, says of how they go. */
const said = (lines: readonly PrintedLine[], posted: ReadonlySet<string>, isDelivered: boolean): PrintedLine[] =>
  lines.map((line) => {
    if (line.handed) return line;
    const goes = line.itemId ? posted.has(line.itemId) : isDelivered && UNITS_PACKED.has(line.unit);
    return goes ? { ...line, handed: 'posted' } : line;
  });

const recipientOf = (customer: Customer | null, printed: PrintedInvoice): Recipient => ({
  name: printed.payer.name,
  address:
    customer?.delivery && !isNoAddress(customer.delivery) ? customer.delivery : (customer?.billing ?? NO_ADDRESS),
  email: printed.payer.email,
  phone: customer?.phone ?? '',
  locale: printed.locale,
});

type State = Extract<Handover['state'], 'waits' | 'open'>;

/** How its parts stand: only what is posted waits to be packed, only what is collected stands at the counter. */
const standing = (lines: readonly HandoverLine[], state: State): Pick<NewHandover, 'state' | 'counter'> => ({
  state: lines.some(({ handed }) => handed === 'posted') ? state : 'done',
  counter: lines.some(({ handed }) => handed === 'collected') ? state : '',
});

/** Without what is digital and gives nothing. */
async function withoutEmpty<Line extends HandoverLine>(tx: Tx, sales: readonly (readonly Line[])[]): Promise<Line[][]> {
  const ids = [
    ...new Set(sales.flat().flatMap(({ handed, itemId }) => (handed === 'digital' && itemId ? [itemId] : []))),
  ];
  const gives = new Set(ids.length > 0 ? (await digitalGoods(tx, ids)).map(({ itemId }) => itemId) : []);
  return sales.map((lines) => lines.filter(({ handed, itemId }) => handed !== 'digital' || gives.has(itemId ?? '')));
}

/** Notes what invoices hand over, as they are issued: to be packed once they are paid, or at once where the business ships first. */
export async function handOverInvoices(tx: Tx, sales: readonly IssuedSale[]): Promise<void> {
  const likely = sales.filter(
    ({ printed, paper }) => paper.delivery !== null || printed.lines.some(({ handed, itemId }) => handed || itemId),
  );
  if (likely.length === 0) return;
  const { ways, posted } = await waysOf(
    tx,
    likely.flatMap(({ printed }) => printed.lines),
  );
  const handed = await withoutEmpty(
    tx,
    likely.map(({ printed, paper }) => {
      const isDelivered = paper.delivery !== null;
      // Goods of an invoice of which nobody says how they go were handed over with the work, as a rule.
      const isSaid = ({ line, itemId }: HandoverLine) =>
        printed.lines[line]?.handed === 'collected' || ways.get(itemId ?? '') === 'collected';
      return handedOver(said(printed.lines, posted, isDelivered), ways, isDelivered).filter(
        (line) => line.handed !== 'collected' || isSaid(line),
      );
    }),
  );
  const made = likely.flatMap(({ id, printed, paper, customer, totalMinor }, at): NewHandover[] => {
    const lines = handed[at] ?? [];
    if (lines.length === 0 || (!customer && lines.some((line) => line.handed === 'posted'))) return [];
    const recipient = recipientOf(customer, printed);
    const first = paper.shipsFirst ?? customer?.shipsFirst ?? null;
    // Whether the business ships first is asked only where neither the invoice nor the customer says so.
    const standsAs = standing(lines, first || totalMinor === 0n ? 'open' : 'waits');
    return [
      {
        id: randomUUID(),
        invoiceId: id,
        orderId: null,
        customerId: paper.customerId,
        ...standsAs,
        block: lines.some((line) => line.handed === 'posted') ? blockOf(recipient) : '',
        number: printed.number,
        currency: printed.currency,
        chargedMinor: BigInt(printed.delivery?.amount ?? 0),
        recipient,
        wantedBy: wantedBy(printed.lines, printed.serviceTo),
        wish: '',
        lines,
      },
    ];
  });
  if (made.length === 0) return;
  const undecided = new Set(
    likely.flatMap(({ id, paper, customer }) =>
      (paper.shipsFirst ?? customer?.shipsFirst ?? null) === null ? [id] : [],
    ),
  );
  const shipsFirst = made.some(({ invoiceId }) => invoiceId && undecided.has(invoiceId))
    ? (await deliverSettings(tx)).shipsFirst
    : false;
  await insertHandovers(
    tx,
    made.map((one) =>
      shipsFirst && one.invoiceId && undecided.has(one.invoiceId) ? { ...one, ...standing(one.lines, 'open') } : one,
    ),
  );
  const free = likely.filter(({ totalMinor }) => totalMinor === 0n).map(({ id }) => id);
  if (free.length > 0) await grantDigital(tx, free);
  await reviseSales(
    tx,
    made.flatMap(({ invoiceId }) => invoiceId ?? []),
  );
}

/** Notes what an order hands over, as it is paid. */
export async function handOverOrder(tx: Tx, business: Business, order: Order, customer: Customer): Promise<void> {
  const { printed, choice, offer } = order;
  if (!offer.delivery && !printed.lines.some(({ itemId }) => itemId)) return;
  const { ways, posted } = await waysOf(tx, printed.lines);
  const address = choice.delivery && !isNoAddress(choice.delivery) ? choice.delivery : null;
  const isDelivered = offer.delivery !== null;
  const [lines = []] = await withoutEmpty(tx, [
    handedOver(said(printed.lines, posted, isDelivered), ways, isDelivered),
  ]);
  if (lines.length === 0) return;
  const own = customer.delivery && !isNoAddress(customer.delivery) ? customer.delivery : customer.billing;
  const recipient: Recipient = {
    name: printed.payer.name,
    address: address ?? own ?? NO_ADDRESS,
    email: printed.payer.email,
    phone: printed.phone,
    locale: printed.locale || business.paperLocale,
  };
  const wish = packingOf(printed)
    .filter(({ label }) => !['Deliver to', 'Bill to', 'Address', 'E-mail', 'Phone'].includes(label))
    .map(({ label, text }) => (label === 'Message' ? text : `${label}: ${text}`))
    .join('\n');
  await insertHandovers(tx, [
    {
      id: randomUUID(),
      invoiceId: null,
      orderId: order.id,
      customerId: customer.id,
      ...standing(lines, 'open'),
      block: lines.some(({ handed }) => handed === 'posted') ? blockOf(recipient) : '',
      number: order.reference,
      currency: order.currency,
      chargedMinor: BigInt(printed.delivery?.amount ?? 0),
      recipient,
      wantedBy: wantedBy(printed.lines, ''),
      wish,
      lines,
    },
  ]);
  await reviseSales(tx, [order.id]);
  await grantDigital(tx, [order.id]);
}

/** Invoices that are paid can be packed, if what they want is there, and fetched; what is digital is given. */
export async function handOverPaid(tx: Tx, invoiceIds: readonly string[]): Promise<void> {
  if ((await updateReady(tx, invoiceIds)) > 0) await reviseSales(tx, invoiceIds);
  await grantDigital(tx, invoiceIds);
}

const isLeft = ({ lines }: Handover, handed: 'posted' | 'collected' = 'posted'): boolean =>
  lines.some((line) => line.handed === handed && unpackedQuantity(line) > 0n);

const idsOf = (handovers: readonly Handover[]): string[] => handovers.map(({ id }) => id);

/** A sale is cancelled: what of it is not on its way is not packed any more. */
export async function dropSale(tx: Tx, saleId: string): Promise<void> {
  await holdStock(tx, await goodsOfSales(tx, [saleId]));
  const own = await handoversOfSales(tx, [saleId]);
  await takeOff(tx, own);
  await updateHandoverState(
    tx,
    own.filter(({ state }) => state !== 'dropped').map(({ id }) => id),
    'dropped',
  );
  await updateCounter(tx, idsOf(own), 'dropped');
  await endGrants(tx, idsOf(own));
  await reviseSales(tx, [saleId]);
}

/** An invoice is not paid after all: what of it is not on its way waits again, unless it ships first. */
export async function waitAgain(tx: Tx, invoiceId: string, shipsFirst: boolean | null): Promise<void> {
  await endGrants(tx, idsOf(await handoversOfSales(tx, [invoiceId])));
  if (shipsFirst ?? (await deliverSettings(tx)).shipsFirst) return;
  const own = (await handoversOfSales(tx, [invoiceId])).filter(({ state }) => state === 'open' || state === 'done');
  await takeOff(tx, own);
  const after = await handoversOfSales(tx, [invoiceId]);
  await updateHandoverState(tx, idsOf(after.filter((one) => one.state !== 'dropped' && isLeft(one))), 'waits');
  await updateCounter(tx, idsOf(after.filter((one) => one.counter === 'open' && isLeft(one, 'collected'))), 'waits');
  await reviseSales(tx, [invoiceId]);
}

/** What was given back of a sale before it left is not packed: whole, or by lines. */
export async function dropGivenBack(
  tx: Tx,
  saleId: string,
  what: 'all' | readonly { readonly index: number; readonly quantity: string }[],
): Promise<void> {
  if (what === 'all') return dropSale(tx, saleId);
  await holdStock(tx, await goodsOfSales(tx, [saleId]));
  const own = await handoversOfSales(tx, [saleId]);
  if (own.length === 0 || what.length === 0) return;
  await takeOff(tx, own);
  await addDropped(
    tx,
    own.flatMap(({ id, lines }) =>
      what
        .filter(({ index }) => lines.some(({ line }) => line === index))
        .map(({ index, quantity }) => ({ handoverId: id, line: index, quantity })),
    ),
  );
  const after = await handoversOfSales(tx, [saleId]);
  await updateHandoverState(tx, idsOf(after.filter((one) => one.state === 'open' && !isLeft(one))), 'done');
  await updateCounter(tx, idsOf(after.filter((one) => one.counter === 'open' && !isLeft(one, 'collected'))), 'done');
  for (const { id, lines } of after) {
    const ended = lines.filter(({ line, handed, quantity, dropped }) => {
      const back = what.some(({ index }) => index === line);
      return back && handed === 'digital' && scaledCount(dropped) >= scaledCount(quantity);
    });
    if (ended.length > 0)
      await endGrants(
        tx,
        [id],
        ended.map(({ line }) => line),
      );
  }
  await reviseSales(tx, [saleId]);
}
