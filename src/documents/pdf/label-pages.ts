import { type LabelPlace, labelPlaces, type PrintedLabel, placed, routingText } from '@/core/parcel/label';
import { spacedNumber } from '@/core/parcel/number';
import type { LabelSheet } from '@/core/parcel/profile';
import { code128, dataMatrix } from '../barcode';
import { type Mark, type Measure, type SetDocument, Setter } from './setter';

const POINTS = 72 / 25.4;
/** Quiet edge of a label: printers do not reach the paper's, and readers want white around a code. */
const EDGE_MM = 6;
/** The narrowest bar that hand readers take from paper, and the widest that is of use. */
const BAR_MM = { least: 0.25, most: 0.5 };
const LONGEST_LABEL_MM = 148;

/** Labels on their sheets. @param begin the first free place of a sheet that is used in part, from 0 */
export function labelPages(
  labels: readonly PrintedLabel[],
  {
    sheet,
    own,
    begin,
  }: {
    readonly sheet: LabelSheet;
    readonly own: { readonly widthMm: number; readonly heightMm: number };
    readonly begin: number;
  },
  measure: Measure,
): SetDocument {
  const { width, height, places } = labelPlaces(sheet, own);
  const pages: Mark[][] = [];
  for (const [at, { sheet: page, place }] of placed(labels.length, places.length, begin % places.length).entries()) {
    const [label, where] = [labels[at], places[place]];
    if (!label || !where) continue;
    const marks = pages[page] ?? [];
    marks.push(...labelMarks(label, where, measure));
    pages[page] = marks;
  }
  return {
    title: labels.length === 1 ? `Label ${labels[0]?.number ?? ''}` : `${labels.length} labels`,
    language: 'en',
    width: width * POINTS,
    height: height * POINTS,
    pages,
  };
}

function labelMarks(label: PrintedLabel, place: LabelPlace, measure: Measure): Mark[] {
  const left = (place.x + EDGE_MM) * POINTS;
  const right = (place.x + place.width - EDGE_MM) * POINTS;
  const top = (place.y + EDGE_MM) * POINTS;
  const bottom = (place.y + Math.min(place.height, LONGEST_LABEL_MM) - EDGE_MM) * POINTS;
  const set = new Setter(measure, { width: right, height: bottom }, () => undefined);
  const narrow = place.width < 90;
  set.y = top;
  const line = (
    text: string,
    face: 'sans' | 'serif-bold' | 'serif-medium',
    size: number,
    step: number,
    width: number,
    most = 1,
  ) => {
    for (const part of set.wrapped(text, face, size, width).slice(0, most)) {
      set.text(left, part, face, size);
      set.y += step;
    }
  };
  line(label.from.join(', '), 'sans', 7.5, 10, right - left, 2);
  set.y += 4;
  set.text(left, label.serviceName, 'serif-bold', narrow ? 22 : 28);
  const about = [label.mailOn, label.weight].join(' · ');
  const aboutTop = set.y;
  set.text(right - measure(about, 'sans', 8.5), about, 'sans', 8.5);
  if (label.signature) {
    set.y += 12;
    const words = 'Signature needed';
    set.text(right - measure(words, 'sans', 8.5), words, 'sans', 8.5);
  }
  set.y = aboutTop + (narrow ? 30 : 38);
  set.rule(left, right - left, 1.4);
  set.y += 10;
  // The square code stands beside the address, at its foot.
  const square = dataMatrix(routingText(label));
  const side = (narrow ? 20 : 26) * POINTS;
  const [name = '', ...rest] = label.to;
  line(name, 'serif-bold', 14, 18, right - left, 2);
  for (const part of rest) line(part, 'serif-medium', 12.5, 16, right - left - side - 8, 2);
  if (label.reference) {
    set.y += 6;
    line(label.reference, 'sans', 8, 11, right - left - side - 8, 2);
  }
  // The long code at the foot, with white on both sides, and its number below.
  const code = code128(label.number);
  const barHeight = (place.height < 120 ? 16 : 24) * POINTS;
  const room = right - left;
  const bar = Math.min(BAR_MM.most * POINTS, Math.max(BAR_MM.least * POINTS, room / (code.width + 20)));
  const codeWidth = bar * code.width;
  const codeTop = bottom - 16 - barHeight;
  const bars = (of: typeof code, x: number, y: number, across: number, down: number): Mark => ({
    kind: 'bars',
    x,
    y,
    across,
    down,
    bars: of.bars,
    says: label.number,
  });
  set.put(bars(code, left + (room - codeWidth) / 2, codeTop, bar, barHeight));
  const module = side / square.width;
  set.put(bars(square, right - side, codeTop - 10 - side, module, module));
  set.y = bottom - 11;
  const number = spacedNumber(label.number);
  set.text(left + (room - measure(number, 'sans', 10)) / 2, number, 'sans', 10);
  return set.pages[0] ?? [];
}
