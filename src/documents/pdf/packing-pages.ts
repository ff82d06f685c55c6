import type { HandoverList } from '@/core/parcel/handover-list';
import { spacedNumber } from '@/core/parcel/number';
import type { PackingSlip, PickingList } from '@/core/parcel/slip';
import { wordsOf } from '@/core/words/words';
import { facts, letterhead } from './parts';
import { MARGIN, type Measure, type PictureSizes, paperOf, type SetDocument, Setter } from './setter';

/** Sets what goes along in a parcel: from whom, to whom, and what is in it; no sums. */
export function slipPages(slip: PackingSlip, measure: Measure, pictures: PictureSizes = {}): SetDocument {
  const { locale, seller } = slip;
  const words = wordsOf(locale);
  const paper = paperOf(locale);
  const set = new Setter(measure, paper, () => undefined);
  letterhead(set, { seller, accent: slip.accent, logo: pictures.logo });
  const sales = slip.sales.map(({ kind, number }) => `${words.parcel[kind]} ${number}`);
  facts(set, words.parcel.slip, [...sales, ...(slip.number ? [spacedNumber(slip.number)] : [])], '', slip.to);
  const quantityAt = set.right;
  set.text(MARGIN, words.parcel.what, 'sans', 8.5, { soft: true });
  set.figure(quantityAt, words.parcel.quantity, 'sans', 8.5, true);
  set.y += 14;
  set.rule(MARGIN, set.right - MARGIN, 1);
  set.y += 8;
  for (const { what, quantity } of slip.lines) {
    const parts = set.wrapped(what, 'serif', 11.5, set.right - MARGIN - 90);
    set.room(parts.length * 16 + 8);
    for (const [at, part] of parts.entries()) {
      set.text(MARGIN, part, 'serif', 11.5);
      if (at === 0) set.figure(quantityAt, quantity, 'serif-medium', 11.5);
      set.y += 16;
    }
    set.y += 2;
    set.rule(MARGIN, set.right - MARGIN, 0.4);
    set.y += 7;
  }
  if (slip.restFollows) {
    set.room(30);
    set.y += 8;
    set.text(MARGIN, words.parcel.restFollows, 'serif-italic', 11);
  }
  return { title: `${words.parcel.slip}, ${seller.name}`, language: locale, ...paper, pages: set.pages };
}

/** Sets what is taken from the shelves, with a box to tick before each. */
export function pickingPages(list: PickingList, measure: Measure): SetDocument {
  const paper = paperOf(list.locale);
  const set = new Setter(measure, paper, () => undefined);
  set.text(MARGIN, list.house, 'sans', 9, { soft: true });
  set.y += 16;
  set.text(MARGIN, list.title, 'serif-medium', 20, { role: 'H1' });
  set.y += 34;
  const shelfAt = MARGIN + 20;
  const whatAt = MARGIN + 100;
  const countAt = set.right;
  let shelf: string | null = null;
  for (const row of list.rows) {
    const people = row.parcels
      .map(({ name, quantity }) => (row.parcels.length > 1 || quantity !== row.quantity ? `${name} ${quantity}` : name))
      .join(', ');
    const what = set.wrapped(row.what, 'serif', 11.5, countAt - whatAt - 60);
    const whom = set.wrapped(people, 'sans', 8.5, countAt - whatAt - 60);
    set.room(what.length * 15 + whom.length * 11 + 12);
    if (row.shelf !== shelf) {
      set.rule(MARGIN, set.right - MARGIN, 0.8);
      set.y += 7;
      shelf = row.shelf;
      set.text(shelfAt, row.shelf || '–', 'serif-bold', 11.5);
    }
    // A box to tick, of four hairlines.
    const top = set.y + 2;
    for (const y of [top, top + 9]) set.put({ kind: 'rule', x: MARGIN, y, width: 9, weight: 0.6 });
    for (const x of [MARGIN, MARGIN + 9])
      set.put({
        kind: 'bars',
        x: x - 0.3,
        y: top,
        across: 0.6,
        down: 9,
        bars: [{ x: 0, y: 0, width: 1, height: 1 }],
        says: '',
      });
    for (const [at, part] of what.entries()) {
      set.text(whatAt, part, 'serif', 11.5);
      if (at === 0) set.figure(countAt, row.quantity, 'serif-bold', 11.5);
      set.y += 15;
    }
    for (const part of whom) {
      set.text(whatAt, part, 'sans', 8.5, { soft: true });
      set.y += 11;
    }
    set.y += 6;
  }
  return { title: list.title, language: 'en', ...paper, pages: set.pages };
}

/** The list that goes with parcels to the carrier: numbers, whom for, service and weight, the sum, and a line to sign on. */
export function handoverPages(list: HandoverList, measure: Measure): SetDocument {
  const paper = paperOf(list.locale);
  const set = new Setter(measure, paper, () => undefined);
  set.text(MARGIN, list.house, 'sans', 9, { soft: true });
  set.y += 16;
  set.text(MARGIN, list.title, 'serif-medium', 20, { role: 'H1' });
  set.y += 34;
  const [nameAt, serviceAt] = [MARGIN + 130, set.right - 150];
  for (const row of list.rows) {
    const whom = set.wrapped(`${row.name}, ${row.where}`, 'serif', 10.5, serviceAt - nameAt - 12);
    set.room(whom.length * 14 + 8);
    set.rule(MARGIN, set.right - MARGIN, 0.4);
    set.y += 5;
    set.text(MARGIN, row.number, 'sans', 9.5);
    set.text(serviceAt, row.service, 'sans', 9.5);
    set.figure(set.right, row.weight, 'serif', 10.5);
    for (const part of whom) {
      set.text(nameAt, part, 'serif', 10.5);
      set.y += 14;
    }
    set.y += 3;
  }
  set.room(110);
  set.rule(MARGIN, set.right - MARGIN, 0.8);
  set.y += 7;
  set.text(MARGIN, list.sum, 'serif-bold', 12);
  set.y += 70;
  set.rule(MARGIN, 220, 0.6);
  set.y += 5;
  set.text(MARGIN, 'Taken over by the carrier: day, hour, name', 'sans', 8.5, { soft: true });
  return { title: list.title, language: 'en', ...paper, pages: set.pages };
}
