/** The label that brings goods back: bought once under its key, printed with its customs form, followed on its way. */
import { USUAL_CUSTOMS } from '@/core/customs/declaration';
import type { CalendarDate } from '@/core/dates/calendar-date';
import { dateInZone } from '@/core/dates/zone';
import { labelBought } from '@/core/ledger/movements';
import { allocate, money } from '@/core/money/money';
import { nextMailDay } from '@/core/parcel/notice';
import { type BoughtLabel, declared, type PackingParcel, type ParcelSpec } from '@/core/parcel/packed';
import { cheapestFirst, rateTotal } from '@/core/parcel/service';
import { inOrder, type ScanLine } from '@/core/parcel/shipment';
import { scaledCount } from '@/core/stock/available';
import { businessById } from '@/db/businesses';
import { carrierBalance, insertMoves } from '@/db/carrier-moves';
import { type Handover, handoversByIds } from '@/db/handovers';
import { itemsById } from '@/db/items';
import { insertEntry } from '@/db/ledger';
import { deliverSettings } from '@/db/parcel-profiles';
import type { Db } from '@/db/pool';
import { type Return, returnById, updateReturnLabel } from '@/db/returns';
import { parcelsOfSale } from '@/db/shipments';
import { labelsPdf } from '@/documents/pdf/draw';
import { idFor } from '@/flows/door/id-for';
import { INVOICE_LINK, ORDER_LINK } from '@/flows/door/links';
import { byLink, type Context, desk } from '@/flows/door/operation';
import { Refusal } from '@/flows/door/refusal';
import { found } from '@/flows/door/rights';
import type { File } from '@/flows/file/kept-files';
import { customsPaper } from '@/flows/parcel/customs';
import { leavesFrom } from '@/flows/parcel/packing-setting';
import { printedLabel } from '@/flows/parcel/parcel-papers';
import { services } from '@/outside/services';

/** Nobody waits longer for the carrier before they see their list. */
const PATIENCE_MS = 1500;

/** Where the labels of returns were scanned last, by their numbers; what was not scanned, or is not said soon, is left out. */
export const returnsUnderWay = desk('customers').run(
  async (ctx, numbers: readonly string[]): Promise<ReadonlyMap<string, ScanLine>> => {
    if (numbers.length === 0) return new Map();
    const late = new Promise<null>((resolve) => setTimeout(resolve, PATIENCE_MS, null).unref());
    const tracked = await Promise.race([services().carrier.scans(ctx.businessId, numbers), late]);
    return new Map(
      numbers.flatMap((number, at) => {
        const last = inOrder(tracked?.[at]?.scans ?? []).at(-1);
        return last ? [[number, last] as const] : [];
      }),
    );
  },
);

/** What customs are told of what comes back: as it was sold, and that it comes home. */
const declaredBack = (
  { lines }: Return,
  sale: Handover,
  importer: string,
): Pick<PackingParcel, 'currency' | 'customs' | 'lines'> => ({
  currency: sale.currency,
  customs: { ...USUAL_CUSTOMS, nature: 'returned', comments: `Sold as ${sale.number}`, importer },
  lines: lines.flatMap(({ line, quantity }) => {
    const of = sale.lines.find((one) => one.line === line);
    if (!of) return [];
    const [valueMinor = 0n] = allocate(of.valueMinor, [
      scaledCount(quantity),
      scaledCount(of.quantity) - scaledCount(quantity),
    ]);
    return [{ what: of.what, itemId: of.itemId, optionId: of.optionId, quantity, valueMinor, customs: null }];
  }),
});

/** The parcel as it comes back: the one in which it left, the other way round. */
async function specBack(db: Db, one: Return): Promise<{ spec: ParcelSpec; sender: string } | null> {
  const business = await businessById(db);
  const [sale] = await handoversByIds(db, [one.handoverId]);
  const parcels = await parcelsOfSale(db, sale?.invoiceId ?? sale?.orderId ?? '');
  const left = parcels.find(({ state, label }) => state === 'delivered' && label)?.label;
  if (!left || !sale) return null;
  const settings = await deliverSettings(db);
  const mailOn: CalendarDate = nextMailDay(dateInZone(db.now, business.zone), settings.mailDays);
  const way = { from: left.spec.to, to: leavesFrom(business) };
  const { customs: _, ...asItLeft } = left.spec;
  const customs = declared(declaredBack(one, sale, settings.customsReference), way, {
    items: new Map(
      (
        await itemsById(
          db,
          sale.lines.flatMap(({ itemId }) => itemId ?? []),
        )
      ).map((item) => [item.id, item]),
    ),
    customsReference: '',
  });
  return {
    spec: {
      ...asItLeft,
      ...way,
      name: business.name,
      insuredMinor: 0,
      signature: false,
      mailOn,
      ...(customs ? { customs } : {}),
    },
    sender: sale.recipient.name,
  };
}

/**
 * Buys the label that brings a return back; one that was bought before is asked about under its key.
 *
 * @throws Refusal `return-moved-on`, `carrier-silent`, `no-return-label`, `balance-short`
 */
export async function labelFor(ctx: Context, id: string): Promise<void> {
  const { one, back, business, balance } = await ctx.read(async (db) => {
    const read = found(await returnById(db, id));
    return {
      one: read,
      back: await specBack(db, read),
      business: await businessById(db),
      balance: await carrierBalance(db),
    };
  });
  if (one.state !== 'asked') throw new Refusal('return-moved-on');
  if (one.label) return;
  if (!back) throw new Refusal('no-return-label');
  const { carrier } = services();
  const key = `return:${id}`;
  const [known] = (await carrier.known(ctx.businessId, [key])) ?? [];
  if (!known) throw new Refusal('carrier-silent');
  let sold = known === 'never-seen' ? null : known;
  if (!sold) {
    const [rates] = (await carrier.rates(business.currency, [back.spec])) ?? [];
    if (!rates) throw new Refusal('carrier-silent');
    const [cheapest] = cheapestFirst(rates.rates);
    if (!cheapest) throw new Refusal('no-return-label');
    if (BigInt(rateTotal(cheapest)) > balance) throw new Refusal('balance-short');
    const [answer] =
      (await carrier.buy(ctx.businessId, business.currency, [{ key, service: cheapest.service, parcel: back.spec }])) ??
      [];
    if (!answer) throw new Refusal('carrier-silent');
    sold = answer;
  }
  if (sold.kind === 'refused') throw new Refusal('no-return-label');
  const { number, service, serviceName, rateMinor, insuranceMinor, customsForm } = sold;
  const label: BoughtLabel = { spec: back.spec, service, serviceName, profile: '', sender: back.sender, customsForm };
  const minor = BigInt(rateMinor + insuranceMinor);
  const later = await ctx.later();
  await later.turn(async (tx) => {
    if ((await updateReturnLabel(tx, id, label, number)) === 0) return;
    const { currency } = business;
    const move = {
      id: idFor(`move ${key}`),
      key,
      kind: 'label',
      state: 'done',
      parcelId: null,
      currency,
      minor: -minor,
    } as const;
    await insertMoves(tx, [{ ...move, byName: tx.name }]);
    if (minor > 0n)
      await insertEntry(
        tx,
        labelBought(dateInZone(tx.now, business.zone), `Return label ${number}`, money(minor, currency)),
        {
          ...{ id: idFor(`entry ${key}`), cause: key, invoiceId: null, paymentId: null },
        },
      );
  });
}

async function labelPdf(ctx: Context, id: string, saleId: string | null): Promise<File> {
  const { one, saleNumber, settings, business } = await ctx.read(async (db) => {
    const read = found(await returnById(db, id));
    const [sale] = await handoversByIds(db, [read.handoverId]);
    if (saleId !== null && sale?.invoiceId !== saleId && sale?.orderId !== saleId) throw new Refusal('not-found');
    return {
      one: read,
      saleNumber: sale?.number ?? '',
      settings: await deliverSettings(db),
      business: await businessById(db),
    };
  });
  const { label, number } = one;
  if (!label) throw new Refusal('not-found');
  const printed = printedLabel({ label, number, mailOn: label.spec.mailOn, reference: '' }, business);
  const form = customsPaper(label, {
    ...{ number, mailOn: label.spec.mailOn, invoice: saleNumber, signedBy: '', postageMinor: 0n },
    ...{ fromPhone: '', toPhone: business.phone, toEmail: business.email },
  });
  const bytes = await labelsPdf([printed], { sheet: 'a6', own: settings.ownLabel, begin: 0 }, form ? [form] : []);
  return { name: `return-${number}.pdf`, bytes, type: 'application/pdf' };
}

/** The label that brings goods back, for the desk. @throws Refusal `not-found` */
export const returnLabel = desk('customers').run((ctx, id: string) => labelPdf(ctx, id, null));
/** The same for whoever sends them, by the invoice's link. @throws Refusal `not-found` */
export const returnLabelByInvoice = byLink(INVOICE_LINK).run((ctx, invoiceId: string, id: string) =>
  labelPdf(ctx, id, invoiceId),
);
/** The same by the order's link. @throws Refusal `not-found` */
export const returnLabelByOrder = byLink(ORDER_LINK).run((ctx, orderId: string, id: string) =>
  labelPdf(ctx, id, orderId),
);
