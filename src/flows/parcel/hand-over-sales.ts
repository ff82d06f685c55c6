/** What sales hand over, noted as they are made, paid, cancelled and given back. */
import { randomUUID } from 'node:crypto';
import type { Business } from '@/core/business/business';
import type { Customer } from '@/core/customer/customer';
import type { PrintedInvoice, PrintedLine } from '@/core/invoice/printed';
import type { Handed } from '@/core/item/item';
import { packingOf } from '@/core/offer/packing';
import type { Paper } from '@/core/paper/paper';
import { blockOf, handedOf, handedOver, type Recipient, wantedBy } from '@/core/parcel/handover';
import { isNoAddress, NO_ADDRESS } from '@/core/place/address';
import {
  addDropped,
  goodsOfSales,
  type Handover,
  handoversOfSales,
  insertHandovers,
  type NewHandover,
  updateHandoverState,
  updateReady,
} from '@/db/handovers';
import { itemsById } from '@/db/items';
import type { Order } from '@/db/orders';
import { deliverSettings } from '@/db/parcel-profiles';
import type { Tx } from '@/db/pool';
import { holdStock } from '@/db/stock';
import { takeOff, unpackedQuantity } from './unpack';
import { reviseSales } from './wait-for-stock';

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

const recipientOf = (customer: Customer, printed: PrintedInvoice): Recipient => ({
  name: printed.payer.name,
  address: customer.delivery && !isNoAddress(customer.delivery) ? customer.delivery : customer.billing,
  email: printed.payer.email,
  phone: customer.phone,
  locale: printed.locale,
});

/** Only what is posted waits to be packed. */
const isPosted = ({ lines }: Pick<NewHandover, 'lines'>): boolean => lines.some(({ handed }) => handed === 'posted');

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
  const made = likely.flatMap(({ id, printed, paper, customer, totalMinor }): NewHandover[] => {
    const isDelivered = paper.delivery !== null;
    const recipient = customer ? recipientOf(customer, printed) : null;
    const lines = handedOver(said(printed.lines, posted, isDelivered), ways, isDelivered);
    if (!recipient || !isPosted({ lines })) return [];
    const first = paper.shipsFirst ?? customer?.shipsFirst ?? null;
    return [
      {
        id: randomUUID(),
        invoiceId: id,
        orderId: null,
        customerId: paper.customerId,
        // Whether the business ships first is asked only where neither the invoice nor the customer says so.
        state: first || totalMinor === 0n ? 'open' : 'waits',
        block: blockOf(recipient),
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
    made.map((one) => (shipsFirst && one.invoiceId && undecided.has(one.invoiceId) ? { ...one, state: 'open' } : one)),
  );
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
  const lines = handedOver(said(printed.lines, posted, isDelivered), ways, isDelivered);
  if (!isPosted({ lines })) return;
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
      state: 'open',
      block: blockOf(recipient),
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
}

/** Invoices that are paid can be packed, if what they want is there. */
export async function handOverPaid(tx: Tx, invoiceIds: readonly string[]): Promise<void> {
  if ((await updateReady(tx, invoiceIds)) > 0) await reviseSales(tx, invoiceIds);
}

const isLeft = ({ lines }: Handover): boolean =>
  lines.some((line) => line.handed === 'posted' && unpackedQuantity(line) > 0n);

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
  await reviseSales(tx, [saleId]);
}

/** An invoice is not paid after all: what of it is not on its way waits again, unless it ships first. */
export async function waitAgain(tx: Tx, invoiceId: string, shipsFirst: boolean | null): Promise<void> {
  if (shipsFirst ?? (await deliverSettings(tx)).shipsFirst) return;
  const own = (await handoversOfSales(tx, [invoiceId])).filter(({ state }) => state === 'open' || state === 'done');
  await takeOff(tx, own);
  const left = (await handoversOfSales(tx, [invoiceId])).filter(isLeft);
  await updateHandoverState(
    tx,
    left.map(({ id }) => id),
    'waits',
  );
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
  await updateHandoverState(
    tx,
    after.filter((one) => one.state === 'open' && !isLeft(one)).map(({ id }) => id),
    'done',
  );
  await reviseSales(tx, [saleId]);
}
