/** What is printed of parcels: labels, what goes along, what is taken from the shelves. */

import type { Business } from '@/core/business/business';
import { sellerOf } from '@/core/business/business';
import { shortDate } from '@/core/dates/date-text';
import { dateInZone } from '@/core/dates/zone';
import { unpackedQuantity } from '@/core/parcel/handover';
import { labelZpl, type PrintedLabel } from '@/core/parcel/label';
import { measuresOf, weightText } from '@/core/parcel/measure';
import type { BoughtLabel } from '@/core/parcel/packed';
import { pickRows } from '@/core/parcel/picking';
import type { LabelSheet } from '@/core/parcel/profile';
import type { PackingSlip } from '@/core/parcel/slip';
import { addressLines } from '@/core/place/address';
import { businessById } from '@/db/businesses';
import { handoversByIds } from '@/db/handovers';
import { itemsById } from '@/db/items';
import { deliverSettings } from '@/db/parcel-profiles';
import { onThePaper, type Parcel, parcelsByIds, updatePrinted } from '@/db/parcels';
import type { Db } from '@/db/pool';
import { salesOfParcels } from '@/db/shipments';
import { labelsPdf, pickingPdf, slipsPdf } from '@/documents/pdf/draw';
import { desk } from '@/flows/door/operation';
import { Refusal } from '@/flows/door/refusal';
import { type File, picturesOf } from '@/flows/file/kept-files';

/** How labels are wanted. */
export type LabelsWanted = {
  readonly as: 'pdf' | 'zpl';
  readonly sheet: LabelSheet;
  /** The first free place of a sheet that is used in part, from 0. */
  readonly begin: number;
};

/** Labels in the order in which they were asked for. @throws Refusal `not-found` where none of them has one */
async function printedLabels(db: Db, ids: readonly string[]): Promise<PrintedLabel[]> {
  const business = await businessById(db);
  const parcels = await parcelsByIds(db, ids);
  const sales = await salesOfParcels(db, ids);
  return ids.flatMap((id) => {
    const parcel = parcels.find((one) => one.id === id);
    if (!parcel?.label || !parcel.number || parcel.state === 'voided') return [];
    const own = sales.filter(({ parcelId }) => parcelId === id);
    const reference = own.map(({ number }) => number).join(', ');
    return [printedLabel({ label: parcel.label, number: parcel.number, mailOn: parcel.mailOn, reference }, business)];
  });
}

/** A label as it is printed, from what was bought. */
export function printedLabel(
  {
    label: { spec, serviceName, sender },
    ...bought
  }: { readonly label: BoughtLabel } & Pick<PrintedLabel, 'number' | 'mailOn' | 'reference'>,
  { country, deskLocale }: Pick<Business, 'country' | 'deskLocale'>,
): PrintedLabel {
  return {
    ...bought,
    serviceName,
    from: [sender, ...addressLines(spec.from, spec.to.country, 'en')],
    to: [spec.name, ...addressLines(spec.to, spec.from.country, 'en')],
    weight: weightText(spec.grams, measuresOf(country), deskLocale),
    signature: spec.signature,
    country: spec.to.country,
    postalCode: spec.to.postalCode,
  };
}

/** Labels to be printed, again at any time. @throws Refusal `not-found` */
export const labelFile = desk('pack').run(
  async (ctx, ids: readonly string[], { as, sheet, begin }: LabelsWanted): Promise<File> => {
    const { labels, settings } = await ctx.read(async (db) => ({
      labels: await printedLabels(db, ids),
      settings: await deliverSettings(db),
    }));
    const [first] = labels;
    if (!first) throw new Refusal('not-found');
    await ctx.keep((tx) => updatePrinted(tx, ids));
    const name = labels.length === 1 ? `label-${first.number}` : `${labels.length}-labels`;
    if (as === 'zpl') {
      const text = labels.map((label) => labelZpl(label, settings.ownLabel)).join('\n');
      return { name: `${name}.zpl`, bytes: Buffer.from(`${text}\n`), type: 'text/plain; charset=utf-8' };
    }
    const bytes = await labelsPdf(labels, { sheet, own: settings.ownLabel, begin });
    return { name: `${name}.pdf`, bytes, type: 'application/pdf' };
  },
);

/** What goes along in each of these parcels, in their readers' languages. @throws Refusal `not-found` */
export const slipFile = desk('customers').run(async (ctx, ids: readonly string[]): Promise<File> => {
  const { slips, logoId } = await ctx.read(async (db) => {
    const business = await businessById(db);
    const parcels = await parcelsByIds(db, ids);
    const sales = await salesOfParcels(db, ids);
    const handoverIds = [
      ...new Set(parcels.flatMap(({ lines }) => lines.flatMap(({ handoverId }) => (handoverId ? [handoverId] : [])))),
    ];
    const handovers = await handoversByIds(db, handoverIds);
    const follows = (parcel: Parcel): boolean =>
      parcel.lines.some(({ handoverId, line, quantity }) =>
        handovers.some(
          ({ id, lines }) =>
            id === handoverId &&
            lines.some(
              (one) =>
                one.handed === 'posted' &&
                (unpackedQuantity(one) > 0n || (one.line === line && one.packed !== quantity)),
            ),
        ),
      );
    return {
      logoId: business.logoId,
      slips: ids.flatMap((id): PackingSlip[] => {
        const parcel = parcels.find((one) => one.id === id);
        if (!parcel) return [];
        const { recipient, lines, number } = parcel;
        const locale = recipient.locale || business.paperLocale;
        return [
          {
            locale,
            seller: sellerOf(business),
            accent: business.accent,
            logoId: business.logoId,
            to: [recipient.name, ...addressLines(recipient.address, business.country, locale)],
            sales: sales
              .filter(({ parcelId }) => parcelId === id)
              .map(({ invoiceId, number: of }) => ({
                kind: invoiceId ? ('invoice' as const) : ('order' as const),
                number: of,
              })),
            lines,
            restFollows: follows(parcel),
            number,
          },
        ];
      }),
    };
  });
  if (slips.length === 0) throw new Refusal('not-found');
  const bytes = await slipsPdf(slips, await picturesOf(ctx, logoId));
  return {
    name: slips.length === 1 ? 'packing-slip.pdf' : `${slips.length}-packing-slips.pdf`,
    bytes,
    type: 'application/pdf',
  };
});

/** What is taken from the shelves for all that lies on the paper. */
export const pickingFile = desk('customers').run(async (ctx): Promise<File> => {
  const { business, parcels, items } = await ctx.read(async (db) => {
    const own = await onThePaper(db);
    const ids = [...new Set(own.flatMap(({ lines }) => lines.flatMap(({ itemId }) => (itemId ? [itemId] : []))))];
    return {
      business: await businessById(db),
      parcels: own,
      items: new Map((await itemsById(db, ids)).map((item) => [item.id, item])),
    };
  });
  const rows = pickRows(
    parcels.flatMap(({ recipient, lines }) =>
      lines.map(({ itemId, optionId, what, quantity }) => {
        const item = itemId ? items.get(itemId) : undefined;
        const option = item?.options.find(({ id }) => id === optionId);
        return {
          shelf: option?.shelf || item?.going.shelf || '',
          key: itemId ? `${itemId} ${optionId ?? ''}` : what,
          what,
          quantity,
          name: recipient.name,
        };
      }),
    ),
  );
  const today = shortDate(dateInZone(ctx.now, business.zone), business.deskLocale, { year: true });
  const list = { house: business.name, title: `Picking list, ${today}`, locale: business.paperLocale, rows };
  return { name: 'picking-list.pdf', bytes: await pickingPdf(list), type: 'application/pdf' };
});

/** On what labels are usually printed here. */
export const labelSetting = desk('customers').read(async (db) => {
  const { labelSheet, ownLabel } = await deliverSettings(db);
  return { sheet: labelSheet, own: ownLabel };
});
