import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { create, type Font, type GlyphRun } from 'fontkit';
import { type FaceName, FILES, LENDERS } from './face-files';
import { type Run, runsFromRight, runsOf } from './runs';
import type { Face } from './setter';

declare global {
  namespace PDFKit.Mixins {
    // The library takes a font that was read already; its types do not say so yet.
    interface PDFFont {
      registerFont(name: string, font: Font): this;
    }
  }
}

const FEATURES: PDFKit.Mixins.OpenTypeFeatures[] = ['kern', 'lnum', 'tnum'];

// The library takes an object too, in which a feature can be left out; its types do not say so.
const UNJOINED = { liga: false, kern: true } as unknown as typeof FEATURES;

/** The typographic features that every text in a face is set with. Arabic without ornamental ligatures: read back, they fall apart in another order. */
export const featuresOf = (face: FaceName): typeof FEATURES => (face === 'arabic' ? UNJOINED : FEATURES);

const MOST_RUNS = 4000;
const LONGEST_KEPT = 200;

/** A run of its own for a caller who changes its positions, as the PDF library does. */
const copied = (run: GlyphRun): GlyphRun =>
  Object.assign(Object.create(Object.getPrototypeOf(run)), run, {
    positions: run.positions.map((position) => ({ ...position })),
  });

type Layout = Font['layout'];
type Features = Parameters<Layout>[1];

/**
 * The glyphs of a text. The library cannot place some marks over their letters (a mark without an anchor in the font, as in `Ἂ` taken
 * apart, ends in a TypeError): there they stand as they come, since a paper with one mark aside is better than none.
 */
function laidOut(layout: Layout, text: string, features: Features, how: unknown[]): GlyphRun {
  const rest = how as [string?, string?, ('ltr' | 'rtl')?];
  try {
    return layout(text, features, ...rest);
  } catch (error) {
    if (!(error instanceof TypeError)) throw error;
    const asked = Array.isArray(features) ? Object.fromEntries(features.map((one) => [one, true])) : features;
    return layout(text, { ...asked, mark: false, mkmk: false } as Features, ...rest);
  }
}

/**
 * Lets a font remember the glyphs of texts it has set: each text is measured, measured again where it is drawn, and then drawn.
 * Only for fonts that are always asked with the same features.
 */
function remembering(font: Font): Font {
  const runs = new Map<string, GlyphRun>();
  const layout = font.layout.bind(font);
  font.layout = (text, features, ...how) => {
    const known = runs.get(text);
    if (known) return copied(known);
    const run = laidOut(layout, text, features, how);
    if (text.length > LONGEST_KEPT) return run;
    if (runs.size >= MOST_RUNS) runs.clear();
    runs.set(text, copied(run));
    return run;
  };
  return font;
}

function opened(bytes: Buffer): Font {
  const font = create(bytes);
  if (!('layout' in font)) throw new Error('Several fonts in one file');
  return font;
}

/** Whether a letter is only how another one looks within a word: read back, it is to be the other. */
const isForm = (letter: number): boolean => letter >= 0xfb50 && letter <= 0xfeff;

/** Scripts whose letters are drawn in another order than they are written: read back, a run says how it is written. */
export const REORDERED: ReadonlySet<FaceName> = new Set([
  'devanagari',
  'bengali',
  'tamil',
  'telugu',
  'gujarati',
  'gurmukhi',
]);

/**
 * A font that may serve many documents. It remembers for each glyph the first letter that it stood for, from which a PDF's text is
 * read back; so each gets the first of its letters now, and what a document takes out of the font is taken from a twin, which
 * meets glyphs as parts of others, without a letter.
 */
function readFace(file: string): Font {
  const bytes = readFileSync(join(process.cwd(), 'node_modules/@expo-google-fonts', file));
  const [font, twin] = [opened(bytes), opened(bytes)];
  for (const letter of [...font.characterSet].sort((a, b) => a - b))
    if (!isForm(letter)) font.glyphForCodePoint(letter);
  font.createSubset = () => twin.createSubset();
  return remembering(font);
}

const faces = new Map<FaceName, Font>();

/** A face by its name, read once a process: reading them again for each document took half of its time. */
export function faceOf(name: FaceName): Font {
  const known = faces.get(name);
  if (known) return known;
  const face = readFace(FILES[name]);
  faces.set(name, face);
  return face;
}

const hasAll = (name: FaceName, text: string): boolean => {
  const face = faceOf(name);
  return [...text].every((letter) => face.hasGlyphForCodePoint(letter.codePointAt(0) ?? 0));
};

/** Letters that every face of ours has. */
const COMMON = /^[\x20-\x7e\u00a1-\u00ac\u00ae-\u00ff]*$/;

const MOST_LINES = 4000;
const lines = new Map<string, readonly Run[]>();

/** A line in the runs in which it is drawn, from left to right as they are seen. */
export function lineOf(text: string, face: Face): readonly Run[] {
  // What our own faces have, and runs from left to right, is most of all lines.
  if (COMMON.test(text) || (!runsFromRight(text) && hasAll(face, text))) return [{ face, text }];
  const key = `${face} ${text}`;
  const known = lines.get(key);
  if (known) return known;
  const runs = runsOf(text, [face, ...LENDERS], hasAll);
  if (lines.size >= MOST_LINES) lines.clear();
  lines.set(key, runs);
  return runs;
}
