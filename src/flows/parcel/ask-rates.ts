import { addressKey, checkOf, type Packing, packing, specKey } from '@/core/parcel/packed';
import { businessById } from '@/db/businesses';
import { onThePaper, type Parcel, updateChecked, updateRates } from '@/db/parcels';
import type { Db } from '@/db/pool';
import type { Context } from '@/flows/door/operation';
import { services } from '@/outside/services';
import { type PackingTable, packingTable } from './packing-setting';

/** The carrier is asked of so many at once. */
const AT_ONCE = 100;

/** Parcels worked out, each by what it is packed with. */
export const workedOut = (parcels: readonly Parcel[], table: PackingTable): { parcel: Parcel; packing: Packing }[] =>
  parcels.map((parcel) => ({ parcel, packing: packing(parcel, table) }));

/** What lies on the paper, worked out. */
export async function paperWorkedOut(db: Db) {
  const business = await businessById(db);
  const parcels = await onThePaper(db);
  const table = await packingTable(db, business, parcels);
  return { business, table, parcels: workedOut(parcels, table) };
}

/** Asks the carrier what those parcels on the paper cost, and whether it knows their addresses, where that is not known. Without an answer it stays so. */
export async function askRates(ctx: Context): Promise<void> {
  const { business, parcels } = await ctx.read(paperWorkedOut);
  const packing = parcels.filter(({ parcel }) => parcel.state === 'packing');
  const { carrier } = services();
  const unknown = packing.flatMap(({ parcel, packing: { spec, answer } }) =>
    spec && !answer ? [{ id: parcel.id, spec }] : [],
  );
  for (let at = 0; at < unknown.length; at += AT_ONCE) {
    const asked = unknown.slice(at, at + AT_ONCE);
    const answers = await carrier.rates(
      business.currency,
      asked.map(({ spec }) => spec),
    );
    if (!answers) return;
    const known = asked.flatMap(({ id, spec }, place) => {
      const answer = answers[place];
      return answer ? [{ id, rates: { spec: specKey(spec), answer } }] : [];
    });
    await ctx.turn((tx) => updateRates(tx, known));
  }
  const unchecked = packing.filter(({ parcel }) => !checkOf(parcel)).map(({ parcel }) => parcel);
  for (let at = 0; at < unchecked.length; at += AT_ONCE) {
    const asked = unchecked.slice(at, at + AT_ONCE);
    const answers = await carrier.checkAddresses(asked.map(({ recipient }) => recipient.address));
    if (!answers) return;
    const checks = asked.flatMap(({ id, recipient }, place) => {
      const answer = answers[place];
      const of = addressKey(recipient.address);
      const address = answer?.says === 'proposal' ? answer.address : null;
      return answer ? [{ id, checked: { of, says: answer.says, address } }] : [];
    });
    await ctx.turn((tx) => updateChecked(tx, checks));
  }
}
