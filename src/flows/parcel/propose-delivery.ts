/** Delivery prices of an offer, proposed from what its delivery costs: packed by the rules, asked of the carrier, beside what was really paid. */
import { type Business } from '@/core/business/business';
import { addDays } from '@/core/dates/calendar-date';
import { dateInZone } from '@/core/dates/zone';
import type { Item } from '@/core/item/item';
import { priceIn } from '@/core/item/item';
import { priceMinor } from '@/core/offer/price';
import { totalCost } from '@/core/parcel/cost';
import { nextMailDay } from '@/core/parcel/notice';
import { type PackingParcel, packing, specKey } from '@/core/parcel/packed';
import {
  countriesToAsk,
  type DeliveryCase,
  proposedFor,
  type ZoneProposal,
  type ZoneToAsk,
} from '@/core/parcel/proposal';
import type { RateAnswer } from '@/core/parcel/service';
import { NO_ADDRESS } from '@/core/place/address';
import { businessById } from '@/db/businesses';
import { itemsById } from '@/db/items';
import { deliverSettings } from '@/db/parcel-profiles';
import { type SentBefore, sentBefore } from '@/db/shipments';
import { desk } from '@/flows/door/operation';
import { Refusal } from '@/flows/door/refusal';
import { services } from '@/outside/services';
import { inOtherCurrency, packingTable, profileByRule } from './packing-setting';

/** Parcels of so many days before are looked at. */
const BACK_DAYS = 180;
const MOST_THINGS = 12;
const AT_ONCE = 100;

/** A zone's proposal, in the offer's currency, with what parcels really cost there lately; null where none went. */
export type ProposedZone = ZoneProposal & { readonly before: SentBefore | null };

/** A thing of an offer that is posted: an item, as one of its options. */
export type ThingToSend = { readonly itemId: string; readonly optionId: string | null };

const exampleOf = (
  business: Business,
  item: Item,
  optionId: string | null,
  country: string,
  mailOn: PackingParcel['mailOn'],
): PackingParcel => {
  const option = item.options.find(({ id }) => id === optionId) ?? null;
  const what = option ? `${item.name}, ${option.name}` : item.name;
  const valueMinor = priceMinor(priceIn(item, option, business.currency), business.currency) ?? 0n;
  return {
    recipient: {
      ...{ name: 'Example', email: '', phone: '', locale: business.paperLocale },
      address: { ...NO_ADDRESS, lines: ['1 Example Street'], country },
    },
    ...{ profileId: null, byRule: true, grams: null, service: '', mailOn, rates: null, paidMinor: null, customs: null },
    currency: business.currency,
    lines: [{ what, itemId: item.id, optionId, quantity: '1', valueMinor, customs: null }],
  };
};

/**
 * What the delivery of an offer's things costs, zone by zone, and which price covers it: each thing alone, to each country that stands
 * for the zone. In minor units of the offer's currency.
 *
 * @throws Refusal `carrier-silent`, `nothing-to-propose` for things of no items, `no-rate` where a currency cannot be converted
 */
export const proposeDelivery = desk('see').run(
  async (
    ctx,
    {
      currency,
      things,
      zones,
    }: { readonly currency: string; readonly things: readonly ThingToSend[]; readonly zones: readonly ZoneToAsk[] },
  ): Promise<ProposedZone[]> => {
    const { business, items, table, mailOn, into } = await ctx.read(async (db) => {
      const house = await businessById(db);
      const lines = things.slice(0, MOST_THINGS).map(({ itemId }) => ({ itemId }));
      const settings = await deliverSettings(db);
      return {
        business: house,
        items: await itemsById(db, [...new Set(lines.map(({ itemId }) => itemId))]),
        table: await packingTable(db, house, [{ lines }]),
        mailOn: nextMailDay(dateInZone(ctx.now, house.zone), settings.mailDays),
        into: await inOtherCurrency(db, house, currency),
      };
    });
    const home = table.home;
    const cases = zones.flatMap((zone) =>
      countriesToAsk(zone, zones, home).flatMap((country) =>
        things.slice(0, MOST_THINGS).flatMap(({ itemId, optionId }) => {
          const item = items.find(({ id }) => id === itemId);
          if (!item) return [];
          const bare = exampleOf(business, item, optionId, country, mailOn);
          const parcel = { ...bare, profileId: profileByRule(table, bare, '') };
          return [
            { zoneId: zone.id, country, what: bare.lines[0]?.what ?? '', parcel, spec: packing(parcel, table).spec },
          ];
        }),
      ),
    );
    if (cases.length === 0) throw new Refusal('nothing-to-propose');
    const asked = cases.flatMap(({ spec }) => (spec ? [spec] : []));
    const answers: RateAnswer[] = [];
    for (let at = 0; at < asked.length; at += AT_ONCE) {
      const some = await services().carrier.rates(business.currency, asked.slice(at, at + AT_ONCE));
      if (!some) throw new Refusal('carrier-silent');
      answers.push(...some);
    }
    const answerOf = new Map(asked.map((spec, at) => [specKey(spec), answers[at]]));
    const worked = cases.map(({ zoneId, country, what, parcel, spec }) => {
      const answer = spec && answerOf.get(specKey(spec));
      const known = answer && spec ? packing({ ...parcel, rates: { spec: specKey(spec), answer } }, table) : null;
      const cost = known && totalCost(known.cost);
      const one: DeliveryCase = {
        ...{ what, country },
        service: known?.rate?.name ?? '',
        costMinor: cost === null || cost === undefined ? null : into(cost),
      };
      return { zoneId, one };
    });
    const before = await ctx.read((db) =>
      sentBefore(
        db,
        zones.map((zone) => ({
          zoneId: zone.id,
          countries: zone.countries,
          named: zones.flatMap(({ countries }) => countries),
        })),
        addDays(dateInZone(ctx.now, business.zone), -BACK_DAYS),
      ),
    );
    return zones.map((zone) => {
      const sent = before.find(({ zoneId }) => zoneId === zone.id);
      return {
        ...proposedFor(
          zone.id,
          worked.filter(({ zoneId }) => zoneId === zone.id).map(({ one }) => one),
          currency,
        ),
        before: sent ? { ...sent, costMinor: into(sent.costMinor) ?? 0n } : null,
      };
    });
  },
);
