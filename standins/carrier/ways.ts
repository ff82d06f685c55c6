import { addDays, type CalendarDate } from '../../src/core/dates/calendar-date';
import type { Scan } from '../../src/core/parcel/shipment';
import type { Seeded } from '../seeded';
import { BY_NAME, type Goes, type Label } from './label';
import { zoneOf } from './tariff';

/** One scan as the carrier tells it; `at` an instant (ISO 8601). */
export type ToldScan = { readonly at: string; readonly scan: Scan; readonly place: string; readonly words: string };

/** Proof that something was handed over: who took it, and their hand as a drawing (path in a field of 100 × 40). */
export type Proof = { readonly name: string; readonly at: string; readonly place: string; readonly strokes: string };

export const behaviourOf = (name: string): Goes =>
  BY_NAME.find((word) =>
    name
      .toLowerCase()
      .split(/[^\p{L}]+/u)
      .includes(word),
  ) ?? 'usual';

/** Invented halls through which parcels go. */
const HALLS = ['Cresset sorting hall', 'Brant Junction', 'Lower Wending depot', 'Hollow Bridge hall', 'Starling yard'];

const HOUR_MS = 3_600_000;
/** How many hours the clock is behind UTC about where something is: the carrier's people scan by daylight. */
const BEHIND: Readonly<Record<string, number>> = { US: 7, CA: 6, MX: 6, AU: -10, NZ: -12, JP: -9, IN: -5 };

const instant = (day: CalendarDate, time: string, country: string): string =>
  new Date(Date.parse(`${day}T${time}:00.000Z`) + (BEHIND[country] ?? 0) * HOUR_MS).toISOString();

/** A drawing that looks like a hand: the same name draws the same. */
function strokesOf(name: string, seeded: Seeded): string {
  const points = Array.from({ length: 14 }, (_, at) => {
    const x = 6 + at * 6.4;
    const y = seeded.between(`${name}|stroke|${at}`, 6, 34);
    return `${x.toFixed(1)} ${y}`;
  });
  return `M${points.join(' L')}`;
}

/** All that will be scanned of a label, past and to come, from its mailing date on; nothing before it was bought. */
export function wayAhead(label: Label, seeded: Seeded): { scans: ToldScan[]; proof: Proof | null } {
  const { scans, proof } = planned(label, seeded);
  const from = Date.parse(label.boughtAt) + HOUR_MS / 2;
  const late = Math.max(0, from - Date.parse(scans[0]?.at ?? label.boughtAt));
  if (late === 0) return { scans, proof };
  const moved = (at: string): string => new Date(Date.parse(at) + late).toISOString();
  return {
    scans: scans.map((scan) => ({ ...scan, at: moved(scan.at) })),
    proof: proof && { ...proof, at: moved(proof.at) },
  };
}

function planned(label: Label, seeded: Seeded): { scans: ToldScan[]; proof: Proof | null } {
  const { asked, number, promisedOn, service } = label;
  const { mailOn } = asked;
  const behaviour = label.goes ?? behaviourOf(asked.name);
  if (behaviour === 'never') return { scans: [], proof: null };
  const scans: ToldScan[] = [];
  const add = (day: CalendarDate, time: string, scan: Scan, place: string, words = '') =>
    scans.push({ at: instant(day, time, asked.from.country), scan, place, words });
  const minutes = (words: string, from: number): string => {
    const at = seeded.between(`${number}|${words}`, 0, 59);
    return `${String(from).padStart(2, '0')}:${String(at).padStart(2, '0')}`;
  };
  const hall = (nth: number) =>
    HALLS[(seeded.between(`${number}|hall`, 0, HALLS.length - 1) + nth) % HALLS.length] ?? '';
  const counter = `${asked.from.city || 'Origin'} counter`;
  const near = `${asked.to.city || 'Destination'} depot`;
  const door = `${asked.to.city || 'Destination'}, at the door`;
  add(mailOn, minutes('first', 17), 'accepted', counter);
  const night = addDays(mailOn, 1);
  const isSoon = promisedOn <= night;
  add(isSoon ? mailOn : night, minutes('hall', isSoon ? 21 : 5), 'moved', hall(0));
  if (zoneOf(asked.from, asked.to) > 1)
    add(addDays(night, 1), minutes('border', 9), 'moved', 'Border office', 'Left the country');
  if (behaviour === 'lost') {
    add(night, minutes('second', 21), 'moved', hall(1));
    add(addDays(promisedOn, 9), '11:00', 'lost', '', 'Searched for in vain');
    return { scans, proof: null };
  }
  const there = behaviour === 'late' ? addDays(promisedOn, 4) : promisedOn;
  if (!isSoon) add(addDays(there, -1), minutes('second', 21), 'moved', near);
  if (behaviour === 'late') add(addDays(promisedOn, -1), '12:10', 'delayed', hall(1), 'Held up by weather');
  if (behaviour === 'damaged') {
    add(there, minutes('damaged', 6), 'damaged', near, 'The packing is torn; what is in it may be broken');
    return { scans, proof: null };
  }
  if (behaviour === 'returned') {
    add(there, minutes('door', 8), 'at-door', near);
    add(there, minutes('not', 14), 'not-met', door, 'Not known at this address');
    add(addDays(there, 1), minutes('back', 9), 'turned-back', near, 'Back to the sender');
    add(addDays(there, 4), minutes('home', 10), 'returned', counter);
    return { scans, proof: null };
  }
  add(there, minutes('door', 8), 'at-door', near);
  const signed = (day: CalendarDate, time: string, place: string): Proof => {
    const surname = asked.name.trim().split(/\s+/).at(-1) ?? '';
    const name = `${asked.name.trim().charAt(0)}. ${surname}`;
    return { name, at: instant(day, time, asked.from.country), place, strokes: strokesOf(name, seeded) };
  };
  if (behaviour === 'missed' || behaviour === 'counter') {
    add(there, minutes('not', 13), 'not-met', door, 'Nobody there');
    const shop = `${asked.to.city || 'Destination'} counter`;
    add(addDays(there, 1), minutes('wait', 9), 'waiting', shop, 'Kept for seven days');
    if (behaviour === 'counter') return { scans, proof: null };
    const time = minutes('fetched', 16);
    add(addDays(there, 3), time, 'delivered', shop);
    return { scans, proof: signed(addDays(there, 3), time, shop) };
  }
  const time = minutes('delivered', 14);
  add(there, time, 'delivered', door);
  return { scans, proof: asked.signature || service === 'swift' ? signed(there, time, door) : null };
}

/** The places it is still to pass, as the carrier means to carry it. */
export const placesAhead = (label: Label, seeded: Seeded): string[] => {
  const plan = wayAhead({ ...label, goes: 'usual' }, seeded);
  return [...new Set(plan.scans.map(({ place }) => place))];
};
