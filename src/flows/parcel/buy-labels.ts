/** Labels are bought once: what is wanted is fixed with its key before the carrier hears of it, and an unknown answer is asked about. */
import { randomUUID } from 'node:crypto';
import { dateInZone } from '@/core/dates/zone';
import { labelBought } from '@/core/ledger/movements';
import { money } from '@/core/money/money';
import { lotCost } from '@/core/parcel/cost';
import { noticeAt } from '@/core/parcel/notice';
import { isBuyable } from '@/core/parcel/packed';
import { REFUSED_WORDS } from '@/core/parcel/service';
import { businessById } from '@/db/businesses';
import { carrierBalance, insertMoves } from '@/db/carrier-moves';
import { enqueueJobs } from '@/db/jobs';
import { insertEntries } from '@/db/ledger';
import { deliverSettings } from '@/db/parcel-profiles';
import { onThePaper, type Parcel, parcelsByIds, updateBought, updateBuying, updateNotBought } from '@/db/parcels';
import type { Tx } from '@/db/pool';
import { addLines } from '@/db/timeline';
import { type Context, desk, worker } from '@/flows/door/operation';
import { Refusal } from '@/flows/door/refusal';
import type { LabelAnswer } from '@/outside/carrier';
import { services } from '@/outside/services';
import { workedOut } from './ask-rates';
import { packingTable } from './packing-setting';

/** Labels asked for in one breath, and in one job. */
const AT_ONCE = 50;

/** How long after its mailing day begins, and then again, the carrier is asked where a parcel is. */
export const LOOK_MS = 2 * 3_600_000;

/** The key of a label at the carrier: each try of a parcel has its own. */
export const labelKey = (parcel: Pick<Parcel, 'id' | 'tries'>): string => `label:${parcel.id}:${parcel.tries}`;

const pieces = <One>(all: readonly One[], size: number): One[][] =>
  Array.from({ length: Math.ceil(all.length / size) }, (_, at) => all.slice(at * size, (at + 1) * size));

/** What a press of “Buy labels” sets going. */
export type Buying = { readonly asked: number; readonly left: number };

/**
 * Asks for the labels of parcels on the paper: of those that are ready, as the screen had them. The job does the rest, so that a press
 * twice, or a program that dies, buys each once.
 *
 * @param expectedMinor what the screen said goes to the carrier, in minor units; null for whoever does not see sums
 * @throws Refusal `nothing-to-buy`, `balance-short`, `amount-changed`
 */
export const buyLabels = desk('pack').turn(
  async (tx, ids: readonly string[] | null, expectedMinor: bigint | null): Promise<Buying> => {
    const business = await businessById(tx);
    const paper = (await onThePaper(tx, true)).filter(({ id }) => ids === null || ids.includes(id));
    const wanted = paper.filter(({ state }) => state === 'packing');
    // Pressed twice: what the first press asked for is on its way.
    if (wanted.length === 0 && paper.length > 0) return { asked: 0, left: 0 };
    const table = await packingTable(tx, business, wanted);
    const ready = workedOut(wanted, table).filter(({ packing }) => isBuyable(packing));
    if (ready.length === 0) throw new Refusal('nothing-to-buy');
    const { carrierMinor } = lotCost(ready.map(({ packing }) => packing.cost));
    if (expectedMinor !== null && expectedMinor !== carrierMinor) throw new Refusal('amount-changed');
    if (carrierMinor > (await carrierBalance(tx))) throw new Refusal('balance-short');
    await updateBuying(
      tx,
      ready.flatMap(({ parcel, packing: { spec, rate, profile, cost } }) =>
        spec && rate && profile
          ? [
              {
                id: parcel.id,
                tries: parcel.tries + 1,
                packagingMinor: cost.packagingMinor,
                byName: tx.name,
                label: {
                  spec,
                  service: rate.service,
                  serviceName: rate.name,
                  profile: profile.name,
                  sender: business.name,
                  customsForm: rate.customsForm ?? '',
                },
              },
            ]
          : [],
      ),
    );
    await enqueueJobs(
      tx,
      pieces(ready, AT_ONCE).map((some) => ({
        task: 'buy-labels' as const,
        key: `buy:${some[0]?.parcel.id}:${(some[0]?.parcel.tries ?? 0) + 1}`,
        payload: { businessId: tx.businessId, parcelIds: some.map(({ parcel }) => parcel.id) },
      })),
    );
    return { asked: ready.length, left: wanted.length - ready.length };
  },
);

/** What became of each: asked about first where it was asked for before. Null where the carrier says nothing. */
async function outcomes(
  ctx: Context,
  parcels: readonly Parcel[],
  currency: string,
): Promise<readonly LabelAnswer[] | null> {
  const { carrier } = services();
  const keys = parcels.map(labelKey);
  const known = await carrier.known(ctx.businessId, keys);
  if (!known) return null;
  const fresh = parcels.filter((_, at) => known[at] === 'never-seen');
  const sold =
    fresh.length === 0
      ? []
      : await carrier.buy(
          ctx.businessId,
          currency,
          fresh.flatMap((parcel) =>
            parcel.label ? [{ key: labelKey(parcel), service: parcel.label.service, parcel: parcel.label.spec }] : [],
          ),
        );
  if (!sold) return null;
  const answers = new Map(fresh.map((parcel, at) => [parcel.id, sold[at]]));
  return parcels.map((parcel, at) => {
    const before = known[at];
    const answer = before && before !== 'never-seen' ? before : answers.get(parcel.id);
    if (!answer) throw new Error('the carrier answered for fewer labels than it was asked');
    return answer;
  });
}

/** The worker’s part: buys what is asked for and writes down what came of it. Without an answer it is tried again, and asked about first. */
export const settleLabels = worker().run(async (ctx, parcelIds: readonly string[]): Promise<void> => {
  const { business, parcels } = await ctx.read(async (db) => ({
    business: await businessById(db),
    parcels: (await parcelsByIds(db, parcelIds)).filter(({ state }) => state === 'buying'),
  }));
  if (parcels.length === 0) return;
  const answers = await outcomes(ctx, parcels, business.currency);
  if (!answers) throw new Error('the carrier did not answer');
  const later = await ctx.later();
  await later.turn((tx) =>
    recordLabels(
      tx,
      parcels.map((parcel, at) => ({ parcel, answer: answers[at] })),
    ),
  );
});

async function recordLabels(
  tx: Tx,
  outcome: readonly { readonly parcel: Parcel; readonly answer: LabelAnswer | undefined }[],
): Promise<void> {
  const business = await businessById(tx);
  const settings = await deliverSettings(tx);
  const held = await parcelsByIds(
    tx,
    outcome.map(({ parcel }) => parcel.id),
    true,
  );
  const own = held.flatMap((parcel) => {
    const answer = outcome.find((one) => one.parcel.id === parcel.id && one.parcel.tries === parcel.tries)?.answer;
    return parcel.state === 'buying' && answer ? [{ parcel, answer }] : [];
  });
  const sold = own.flatMap(({ parcel, answer }) => (answer.kind === 'sold' ? [{ parcel, answer }] : []));
  const today = dateInZone(tx.now, business.zone);
  await updateBought(
    tx,
    sold.flatMap(({ parcel, answer }) => {
      if (!parcel.label) return [];
      const { number, promisedOn, service, serviceName, customsForm } = answer;
      const told = noticeAt(parcel, settings, business.zone);
      const lookAt = new Date(
        Math.max(
          tx.now.getTime(),
          noticeAt({ notice: 'on-day', mailOn: parcel.mailOn }, { tellAt: '12:00' }, business.zone)?.getTime() ?? 0,
        ),
      );
      return [
        {
          id: parcel.id,
          number,
          promisedOn,
          rateMinor: BigInt(answer.rateMinor),
          insuranceMinor: BigInt(answer.insuranceMinor),
          label: { ...parcel.label, service, serviceName, customsForm },
          lookAt,
          actAt: told && told < lookAt ? told : lookAt,
        },
      ];
    }),
  );
  await insertMoves(
    tx,
    sold.map(({ parcel, answer }) => ({
      id: randomUUID(),
      key: labelKey(parcel),
      kind: 'label',
      state: 'done',
      parcelId: parcel.id,
      currency: business.currency,
      minor: -BigInt(answer.rateMinor + answer.insuranceMinor),
      byName: parcel.byName,
    })),
  );
  await insertEntries(
    tx,
    sold
      .filter(({ answer }) => answer.rateMinor + answer.insuranceMinor > 0)
      .map(({ parcel, answer }) => ({
        entry: labelBought(
          today,
          `Label ${answer.number}`,
          money(BigInt(answer.rateMinor + answer.insuranceMinor), business.currency),
        ),
        booking: { id: randomUUID(), cause: labelKey(parcel), invoiceId: null, paymentId: null },
      })),
  );
  await addLines(
    tx,
    sold.map(({ parcel, answer }) => ({
      of: { parcelId: parcel.id },
      event: { kind: 'label-bought' as const, number: answer.number },
      byName: parcel.byName || 'Dahlia',
    })),
  );
  await updateNotBought(
    tx,
    own.flatMap(({ parcel, answer }) =>
      answer.kind === 'refused'
        ? [{ id: parcel.id, trouble: `The carrier refused the label: ${REFUSED_WORDS[answer.why]}.` }]
        : [],
    ),
  );
}
