/** What customs are told of parcels that cross a border: said on the paper, kept with the items, printed as the form that goes along. */
import { type CustomsPart, type LineCustoms } from '@/core/customs/declaration';
import { type CustomsPaper, writtenDeclaration } from '@/core/customs/form';
import { plainSum } from '@/core/money/money-text';
import type { BoughtLabel } from '@/core/parcel/packed';
import { addressLines } from '@/core/place/address';
import { businessById } from '@/db/businesses';
import { rememberForCustoms } from '@/db/items';
import { deleteParcelLines, insertParcelLines, parcelsByIds, updatePacking } from '@/db/parcels';
import { salesOfParcels } from '@/db/shipments';
import { customsPdf } from '@/documents/pdf/draw';
import { desk } from '@/flows/door/operation';
import { Refusal } from '@/flows/door/refusal';
import { found } from '@/flows/door/rights';
import type { File } from '@/flows/file/kept-files';
import { askRates } from './ask-rates';
import { packingParcel } from './pack';

/** What is said of one line of a parcel; `valueMinor` is what all of it is worth, null for as it was sold. */
export type LineSaid = LineCustoms & { readonly place: number; readonly valueMinor: bigint | null };

/** Says what customs ask of a parcel on the paper, and asks the carrier anew. @throws Refusal `label-asked-for`, `not-found` */
export const declareParcel = desk('pack').run(
  async (ctx, id: string, part: CustomsPart, said: readonly LineSaid[]): Promise<void> => {
    await ctx.turn(async (tx) => {
      const parcel = await packingParcel(tx, id);
      await updatePacking(tx, id, { customs: part, trouble: '' });
      await deleteParcelLines(tx, [id]);
      await insertParcelLines(
        tx,
        parcel.lines.map((line) => {
          const own = said.find(({ place }) => place === line.place);
          if (!own) return { ...line, parcelId: id };
          const { place: _, valueMinor, ...customs } = own;
          return { ...line, parcelId: id, customs, valueMinor: valueMinor ?? line.valueMinor };
        }),
      );
    });
    await askRates(await ctx.later());
  },
);

/** What was said for a parcel is kept with its items, for the next one. @throws Refusal `not-found` */
export const rememberCustoms = desk('records').turn(async (tx, id: string): Promise<void> => {
  const { lines } = found((await parcelsByIds(tx, [id]))[0]);
  await rememberForCustoms(
    tx,
    lines.flatMap(({ itemId, customs }) =>
      itemId && customs
        ? [{ itemId, hsCode: customs.hsCode, origin: customs.origin, grams: customs.netGrams ?? 0 }]
        : [],
    ),
  );
});

/** The form that goes with a label; null where no border asks. */
export function customsPaper(
  { spec, sender, customsForm }: BoughtLabel,
  of: Pick<CustomsPaper, 'number' | 'fromPhone' | 'toPhone' | 'toEmail' | 'invoice' | 'mailOn' | 'signedBy'> & {
    readonly postageMinor: bigint;
  },
): CustomsPaper | null {
  if (!customsForm || !spec.customs) return null;
  const { postageMinor, ...rest } = of;
  const { currency } = spec.customs;
  return {
    ...writtenDeclaration(spec.customs, spec.grams),
    ...rest,
    form: customsForm,
    from: [sender, ...addressLines(spec.from, spec.to.country, 'en')],
    to: [spec.name, ...addressLines(spec.to, spec.from.country, 'en')],
    postage: postageMinor > 0n ? `${plainSum(postageMinor, currency)} ${currency}` : '',
  };
}

/** The customs forms of those parcels that need one, in their order. @throws Refusal `no-border` where none does */
export const customsFile = desk('pack').run(async (ctx, ids: readonly string[]): Promise<File> => {
  const papers = await ctx.read(async (db) => {
    const business = await businessById(db);
    const parcels = await parcelsByIds(db, ids);
    const sales = await salesOfParcels(db, ids);
    return ids.flatMap((id) => {
      const parcel = parcels.find((one) => one.id === id);
      if (!parcel?.label || parcel.state === 'voided') return [];
      const { number, mailOn, recipient, label, rateMinor, insuranceMinor } = parcel;
      const numbers = sales.filter(({ parcelId }) => parcelId === id).map((sale) => sale.number);
      const paper = customsPaper(label, {
        ...{ number, mailOn, fromPhone: business.phone, toPhone: recipient.phone, toEmail: recipient.email },
        invoice: numbers.join(', '),
        signedBy: ctx.name,
        postageMinor: (rateMinor ?? 0n) + (insuranceMinor ?? 0n),
      });
      return paper ? [paper] : [];
    });
  });
  const [first] = papers;
  if (!first) throw new Refusal('no-border');
  const name = papers.length === 1 ? `${first.form}-${first.number}.pdf` : `${papers.length}-customs-forms.pdf`;
  return { name, bytes: await customsPdf(papers), type: 'application/pdf' };
});
