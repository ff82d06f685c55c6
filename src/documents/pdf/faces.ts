import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { create, type Font, type GlyphRun } from 'fontkit';
import type { Face } from './setter';

declare global {
  namespace PDFKit.Mixins {
    // The library takes a font that was read already; its types do not say so yet.
    interface PDFFont {
      registerFont(name: string, font: Font): this;
    }
  }
}

// The whole fonts, not subsets: a subset drops a letter that it lacks without a word.
const FILES: Readonly<Record<Face, string>> = {
  serif: 'vollkorn/400Regular/Vollkorn_400Regular.ttf',
  'serif-medium': 'vollkorn/500Medium/Vollkorn_500Medium.ttf',
  'serif-bold': 'vollkorn/600SemiBold/Vollkorn_600SemiBold.ttf',
  'serif-italic': 'vollkorn/400Regular_Italic/Vollkorn_400Regular_Italic.ttf',
  sans: 'encode-sans/400Regular/EncodeSans_400Regular.ttf',
};

/** The typographic features that every text of ours is set with. */
export const FEATURES: PDFKit.Mixins.OpenTypeFeatures[] = ['kern', 'lnum', 'tnum'];

const MOST_RUNS = 4000;
const LONGEST_KEPT = 200;

/** A run of its own for a caller who changes its positions, as the PDF library does. */
const copied = (run: GlyphRun): GlyphRun =>
  Object.assign(Object.create(Object.getPrototypeOf(run)), run, {
    positions: run.positions.map((position) => ({ ...position })),
  });

/**
 * Lets a font remember the glyphs of texts it has set: each text is measured, measured again where it is drawn, and then drawn.
 * Only for fonts that are always asked with `FEATURES`.
 */
function remembering(font: Font): Font {
  const runs = new Map<string, GlyphRun>();
  const layout = font.layout.bind(font);
  font.layout = (text, ...how) => {
    const known = runs.get(text);
    if (known) return copied(known);
    const run = layout(text, ...how);
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

/**
 * A font that may serve many documents. It remembers for each glyph the first letter that it stood for, from which a PDF's text is
 * read back; so each gets the first of its letters now, and what a document takes out of the font is taken from a twin, which
 * meets glyphs as parts of others, without a letter.
 */
function readFace(file: string): Font {
  const bytes = readFileSync(join(process.cwd(), 'node_modules/@expo-google-fonts', file));
  const [font, twin] = [opened(bytes), opened(bytes)];
  for (const letter of [...font.characterSet].sort((a, b) => a - b)) font.glyphForCodePoint(letter);
  font.createSubset = () => twin.createSubset();
  return remembering(font);
}

let faces: Map<string, Font> | undefined;

/** Our faces by their names, read once a process: reading them again for each document took half of its time. */
export function readFaces(): ReadonlyMap<string, Font> {
  faces ??= new Map(Object.entries(FILES).map(([face, file]) => [face, readFace(file)]));
  return faces;
}
