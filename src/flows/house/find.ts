import { canDo, type Deed, wishesOf } from '@/core/find/deeds';
import { bestFound, type Found } from '@/core/find/found';
import { typedMinor } from '@/core/invoice/read-paper';
import { minorDigits } from '@/core/money/currency';
import { decimalSignOf, typedDecimal } from '@/core/money/typed';
import { contentWords } from '@/core/parcel/lot';
import type { ParcelState } from '@/core/parcel/shipment';
import { mayDo } from '@/core/person/rights';
import { businessById } from '@/db/businesses';
import { everythingMatching } from '@/db/find';
import type { Db } from '@/db/pool';
import { shipmentRows } from '@/db/shipments';
import { desk } from '@/flows/door/operation';

/** So many of each kind are looked at, and so many of all are shown. */
const OF_KIND = 12;
const SHOWN = 12;
const DEEDS = 5;

/** What "Find or do" answers: what can be done as typed, and what was found, each best first. */
export type FoundAll = {
  readonly deeds: readonly { readonly deed: Deed; readonly found: Found }[];
  readonly found: readonly Found[];
};

/** Everything by name, number, reference, address, last digits or sum, and what a typed verb does with it; nothing for a single letter. */
export const findAll = desk('own').run(async (ctx, line: string): Promise<FoundAll> => {
  const words = line.trim();
  if (words.length < 2 && !/\d/.test(words)) return { deeds: [], found: [] };
  // What is found are customers and sums; who sees no sums finds what is sent.
  if (!mayDo(ctx.actor, 'see')) {
    const sent = mayDo(ctx.actor, 'customers') ? await ctx.read((db) => shipmentsMatching(db, words)) : [];
    return { deeds: [], found: bestFound(sent, words, SHOWN) };
  }
  return ctx.read(async (db) => {
    const { currency, deskLocale: locale } = await businessById(db);
    const sumOf = (typed: string) =>
      typedMinor(typedDecimal(typed, decimalSignOf(locale)) ?? typed, minorDigits(currency));
    const looked = new Map<string, Found[]>();
    const look = async (typed: string): Promise<Found[]> => {
      const known = looked.get(typed) ?? (await matching(db, typed, sumOf(typed)));
      looked.set(typed, known);
      return known;
    };
    const deeds: FoundAll['deeds'][number][] = [];
    for (const { deed, rest } of wishesOf(words))
      for (const found of bestFound(
        (await look(rest)).filter((one) => canDo(deed, one)),
        rest,
        DEEDS,
      ))
        deeds.push({ deed, found });
    return { deeds: deeds.slice(0, DEEDS), found: bestFound(await look(words.toLowerCase()), words, SHOWN) };
  });
});

async function matching(db: Db, typed: string, amountMinor: bigint | null): Promise<Found[]> {
  const [digits = null] = /^(?:·\s*)?(\d{4})$/.exec(typed)?.slice(1) ?? [];
  return [
    ...(await everythingMatching(db, { typed, digits, amountMinor }, OF_KIND)),
    ...(await shipmentsMatching(db, typed)),
  ];
}

/** How a shipment's state reads among what was found: what is under way is as good as open. */
const SHIPMENT_STATES: Readonly<Partial<Record<ParcelState, string>>> = {
  ...{ delivered: 'arrived', voided: 'label given back', returned: 'came back', lost: 'lost' },
};

/** Shipments by whom they are for, where they go, what is in them, their sales and numbers. */
async function shipmentsMatching(db: Db, typed: string): Promise<Found[]> {
  const rows = await shipmentRows(db, { under: 'all', words: typed.toLowerCase() }, OF_KIND);
  return rows.map(({ id, recipient, number, lines, state, currency, boughtAt, madeAt }) => ({
    ...{ kind: 'shipment' as const, id, number, currency, amountMinor: null },
    name: recipient.name,
    about: [recipient.address.city, contentWords(lines)].filter(Boolean).join(' · '),
    state: SHIPMENT_STATES[state] ?? 'open',
    at: boughtAt ?? madeAt,
  }));
}
