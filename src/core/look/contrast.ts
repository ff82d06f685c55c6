const channel = (value: number): number => {
  const share = value / 255;
  return share <= 0.04045 ? share / 12.92 : ((share + 0.055) / 1.055) ** 2.4;
};

/** Relative luminance of `#rrggbb`, 0 to 1 (WCAG 2.2). */
function luminance(colour: string): number {
  const [red = 0, green = 0, blue = 0] = [1, 3, 5].map((at) => channel(Number.parseInt(colour.slice(at, at + 2), 16)));
  return 0.2126 * red + 0.7152 * green + 0.0722 * blue;
}

/** The contrast of two colours, 1 to 21 (WCAG 2.2); 4.5 is enough for text. */
export function contrast(one: string, other: string): number {
  const [dark = 0, light = 0] = [luminance(one), luminance(other)].sort((a, b) => a - b);
  return (light + 0.05) / (dark + 0.05);
}

/** White or our ink, whichever reads better on a colour. */
export const readableOn = (colour: string): string =>
  contrast('#ffffff', colour) >= contrast('#241A26', colour) ? '#ffffff' : '#241A26';
