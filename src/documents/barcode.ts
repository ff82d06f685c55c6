import bwipjs from 'bwip-js/node';

/** A dark rectangle of a code, in modules from its top left. */
export type Bar = { readonly x: number; readonly y: number; readonly width: number; readonly height: number };

/** A code: how many modules it is wide and high, and its dark rectangles. */
export type Bars = { readonly width: number; readonly height: number; readonly bars: readonly Bar[] };

type Raw = { sbs?: readonly number[]; pixs?: readonly number[]; pixx?: number; pixy?: number };

const raw = (bcid: string, text: string): Raw => {
  const [drawn] = bwipjs.raw({ bcid, text }) as unknown as Raw[];
  if (!drawn) throw new Error(`No ${bcid} of this text`);
  return drawn;
};

/** A text as Code 128 (ISO/IEC 15417), one module high. @throws Error for a text that it cannot hold */
export function code128(text: string): Bars {
  const { sbs = [] } = raw('code128', text);
  const bars: Bar[] = [];
  let x = 0;
  for (const [at, width] of sbs.entries()) {
    if (at % 2 === 0) bars.push({ x, y: 0, width, height: 1 });
    x += width;
  }
  return { width: x, height: 1, bars };
}

/** A text as DataMatrix ECC 200 (ISO/IEC 16022). @throws Error for a text that it cannot hold */
export function dataMatrix(text: string): Bars {
  const { pixs = [], pixx = 0, pixy = 0 } = raw('datamatrix', text);
  const bars: Bar[] = [];
  for (let y = 0; y < pixy; y++)
    for (let x = 0; x < pixx; x++) {
      if (!pixs[y * pixx + x]) continue;
      let width = 1;
      while (x + width < pixx && pixs[y * pixx + x + width]) width++;
      bars.push({ x, y, width, height: 1 });
      x += width;
    }
  return { width: pixx, height: pixy, bars };
}
