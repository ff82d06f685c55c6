/** What is known of how a sale came to whoever bought it: each parcel with its scans and who took it, what was fetched, what was downloaded. */
import { clockTime, longDate } from '@/core/dates/date-text';
import { dateInZone } from '@/core/dates/zone';
import { spacedNumber } from '@/core/parcel/number';
import { SCAN_WORDS } from '@/core/parcel/shipment';
import { addressLines } from '@/core/place/address';
import { type Collection, collectionsOf } from '@/db/collections';
import { handoversOfSale } from '@/db/handovers';
import { type Parcel, scansOf } from '@/db/parcels';
import type { Db } from '@/db/pool';
import { parcelsOfSale } from '@/db/shipments';
import { handPicture } from '@/outside/hand';

export type Delivered = {
  readonly parcels: readonly Parcel[];
  readonly scans: Awaited<ReturnType<typeof scansOf>>;
  readonly fetched: readonly (Collection & { readonly what: string })[];
};

/** @param saleId an invoice's or an order's */
export async function deliveredOf(db: Db, saleId: string): Promise<Delivered> {
  const parcels = (await parcelsOfSale(db, saleId)).filter(({ boughtAt, state }) => boughtAt && state !== 'voided');
  const handovers = await handoversOfSale(db, saleId);
  const whats = new Map(handovers.flatMap(({ id, lines }) => lines.map(({ line, what }) => [`${id} ${line}`, what])));
  const fetched = await collectionsOf(
    db,
    handovers.map(({ id }) => id),
  );
  return {
    parcels,
    scans: await scansOf(
      db,
      parcels.map(({ id }) => id),
    ),
    fetched: fetched.map((one) => ({
      ...one,
      what: one.lines
        .map(
          ({ line, quantity }) =>
            `${quantity === '1' ? '' : `${quantity} × `}${whats.get(`${one.handoverId} ${line}`) ?? ''}`,
        )
        .join(', '),
    })),
  };
}

type Row = readonly [string, string];
type Told = { readonly zone: string; readonly locale: string };

/** The same as rows, in the order in which it happened; times by the business's clock. */
export function deliveredRows({ parcels, scans, fetched }: Delivered, { zone, locale }: Told): Row[] {
  const moment = (at: Date) => `${longDate(dateInZone(at, zone), locale)}, ${clockTime(at, zone)}`;
  return [
    ...parcels.flatMap((parcel): Row[] => {
      const { number, label, recipient, proof, id } = parcel;
      const own = scans.filter(({ parcelId }) => parcelId === id);
      return [
        [
          `Parcel ${spacedNumber(number)}`,
          [label?.serviceName, parcel.lines.map(({ what }) => what).join(', ')].filter(Boolean).join(': '),
        ],
        ['Sent to', [recipient.name, ...addressLines(recipient.address, '', locale)].join(', ')],
        ...own.map(
          ({ at, scan, place, words }): Row => [
            moment(at),
            [SCAN_WORDS[scan], place, words].filter(Boolean).join(', '),
          ],
        ),
        ...(proof
          ? [
              [
                'Taken by',
                [proof.name, proof.place, moment(new Date(proof.at)), proof.strokes ? 'signed' : '']
                  .filter(Boolean)
                  .join(', '),
              ] as const,
            ]
          : []),
      ];
    }),
    ...fetched.map(
      ({ at, name, byName, what, strokes }): Row => [
        moment(at),
        `${what}: fetched by ${name}${strokes ? ', who signed' : ''}; handed over by ${byName}`,
      ],
    ),
  ];
}

/** Hands under which something was taken, as pictures by the names that the part gives them. */
export const handNames = ({ parcels, fetched }: Delivered): { name: string; strokes: string }[] =>
  [...parcels.flatMap(({ proof }) => (proof ? [proof] : [])), ...fetched]
    .filter(({ strokes }) => strokes)
    .map(({ name, strokes }, at) => ({ name: `Signature ${at + 1}, ${name}.png`, strokes }));

/** @returns the pictures as papers of a file */
export const handPapers = (delivered: Delivered): Promise<{ name: string; type: string; bytes: Buffer }[]> =>
  Promise.all(
    handNames(delivered).map(async ({ name, strokes }) => ({
      name,
      type: 'image/png',
      bytes: await handPicture(strokes),
    })),
  );
