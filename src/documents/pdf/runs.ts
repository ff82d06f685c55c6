import bidiFactory from 'bidi-js';
import type { FaceName } from './face-files';

/** A piece of a line that one font draws in one direction; `text` in the order in which it is handed to the font. */
export type Run = { readonly face: FaceName; readonly text: string };

const bidi = bidiFactory();
const graphemes = new Intl.Segmenter('en', { granularity: 'grapheme' });

/** Letters of scripts that are written from right to left: their fonts turn the glyphs themselves. */
const TURNED_BY_FONT = /[\p{Script=Hebrew}\p{Script=Arabic}\p{Script=Syriac}\p{Script=Thaana}\p{Script=Nko}]/u;

/** Signs that only join or vary their neighbours, and are in no font; signs of direction, which are not drawn at all. */
const JOINERS = /\u200c|\u200d|\ufe0e|\ufe0f/gu;
const DIRECTIONS = /[\u061c\u200e\u200f\u202a-\u202e\u2066-\u2069]/gu;

/** Letters of a line that does not simply run from left to right. */
const FROM_RIGHT =
  /[\u0590-\u08ff\u200f\u202a-\u202e\u2066-\u2069\ufb1d-\ufdff\ufe70-\ufeff]|[\u{10800}-\u{10fff}\u{1e800}-\u{1efff}]/u;

/** Whether something of a text is written from right to left. */
export const runsFromRight = (text: string): boolean => FROM_RIGHT.test(text);

/** A text as a part of a longer one, whose order it neither changes nor follows (UAX 9, isolates). */
export const isolated = (text: string): string => (runsFromRight(text) ? `\u2068${text}\u2069` : text);

/** Brackets and their like, as they are drawn from right to left; in reverse order where the font does not turn them itself. */
function turned(text: string): string {
  const signs = [...graphemes.segment(text)].map(({ segment }) => bidi.getMirroredCharacter(segment) ?? segment);
  return (TURNED_BY_FONT.test(text) ? signs : signs.reverse()).join('');
}

/**
 * Sets a line in runs, from left to right as they are seen (UAX 9): each in the first face that has its letters. From right to left, spaces
 * and signs stay with the letters before them where their face has them too.
 *
 * @param has whether a face has all letters of a text @param chain the faces that are tried, the line's own first
 */
export function runsOf(
  text: string,
  chain: readonly FaceName[],
  has: (face: FaceName, text: string) => boolean,
): Run[] {
  const own = chain[0] as FaceName;
  const { levels } = bidi.getEmbeddingLevels(text, 'auto');
  const logical: { face: FaceName; text: string; level: number }[] = [];
  for (const { segment: whole, index } of graphemes.segment(text)) {
    const segment = whole.replace(DIRECTIONS, '');
    if (!segment) continue;
    const level = levels[index] ?? 0;
    const bare = segment.replace(JOINERS, '');
    const last = logical.at(-1);
    const isSign = !/[\p{L}\p{N}]/u.test(bare);
    const staying = last && level % 2 === 1 && isSign && has(last.face, bare) ? last.face : undefined;
    const face = staying ?? (bare ? chain.find((one) => has(one, bare)) : last?.face) ?? own;
    if (last && last.face === face && last.level === level) last.text += segment;
    else logical.push({ face, text: segment, level });
  }
  return seen(logical).map(({ face, text: piece, level }) => ({
    face,
    text: level % 2 === 1 ? turned(piece) : piece,
  }));
}

/** Runs in the order in which they are seen (UAX 9, L2): from the highest level down, what is at it or above is turned. */
function seen<One extends { readonly level: number }>(runs: readonly One[]): One[] {
  const order = [...runs];
  const highest = Math.max(0, ...runs.map(({ level }) => level));
  for (let level = highest; level >= 1; level--) {
    let at = 0;
    while (at < order.length) {
      let end = at;
      while (end < order.length && (order[end]?.level ?? 0) >= level) end += 1;
      if (end > at) order.splice(at, end - at, ...order.slice(at, end).reverse());
      at = Math.max(end, at + 1);
    }
  }
  return order;
}
