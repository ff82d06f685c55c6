import { readableOn } from '../look/contrast';
import { escaped } from '../words/escaped';
import { isLanguage, type Language } from '../words/words';

export const BUTTON_SIZES = ['small', 'medium', 'large'] as const;
/** A slip with torn edges, a slip with its stub, a petal. */
export const BUTTON_SHAPES = ['slip', 'stub', 'petal'] as const;
/** The usual wordings of a button. */
export const WORDINGS = ['buy', 'pay', 'give', 'book', 'order'] as const;

/** How a button looks wherever it stands. */
export type ButtonLook = {
  readonly wording: (typeof WORDINGS)[number] | 'own';
  /** The business's own words, where the wording is its own. */
  readonly label: string;
  readonly language: Language;
  readonly size: (typeof BUTTON_SIZES)[number];
  readonly shape: (typeof BUTTON_SHAPES)[number];
  /** `#rrggbb`. */
  readonly accent: string;
  /** The card schemes named below it, in the order of `CARD_SCHEMES`. */
  readonly schemes: readonly string[];
  /** A picture of the business's own in place of the drawing; its size as it is shown, in pixels. */
  readonly picture: { readonly fileId: string; readonly width: number; readonly height: number } | null;
};

/** The card schemes that the processor takes. */
export const CARD_SCHEMES: readonly string[] = ['Corvid', 'Lumen'];

/** Those that a look names: before they were chosen one by one it was all or none. */
const completeSchemes = (kept: unknown): readonly string[] =>
  kept === true ? CARD_SCHEMES : Array.isArray(kept) ? CARD_SCHEMES.filter((scheme) => kept.includes(scheme)) : [];

/** The widest that a picture of one's own is shown. */
export const WIDEST_PICTURE = 320;

const LABELS: Readonly<Record<Language, Readonly<Record<(typeof WORDINGS)[number], string>>>> = {
  en: {
    buy: 'I’ll take this one',
    pay: 'Settle it here',
    give: 'Yes, I’ll give',
    book: 'Keep me a place',
    order: 'Make one for me',
  },
  de: {
    buy: 'Das nehme ich',
    pay: 'Hier begleichen',
    give: 'Ja, ich gebe etwas',
    book: 'Platz freihalten',
    order: 'Für mich anfertigen',
  },
  fr: {
    buy: 'Je prends celui-ci',
    pay: 'Régler ici',
    give: 'Oui, je donne',
    book: 'Gardez-moi une place',
    order: 'Faites-en un pour moi',
  },
  es: {
    buy: 'Me llevo este',
    pay: 'Saldar aquí',
    give: 'Sí, quiero dar',
    book: 'Guárdame un sitio',
    order: 'Hazme uno',
  },
};

const oneOf = <T extends string>(list: readonly T[], value: unknown, fallback: T): T =>
  list.find((one) => one === value) ?? fallback;

function completePicture(value: unknown): ButtonLook['picture'] {
  if (typeof value !== 'object' || value === null) return null;
  const { fileId, width, height } = value as Record<string, unknown>;
  const size = (side: unknown) => (typeof side === 'number' && side >= 1 && side <= 2000 ? Math.round(side) : 0);
  if (typeof fileId !== 'string' || !/^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/.test(fileId)) return null;
  return size(width) && size(height) ? { fileId, width: size(width), height: size(height) } : null;
}

/** A button's look whole, whatever was kept. @param accent the business's own colour */
export function completeButton(kept: Readonly<Record<string, unknown>>, accent: string): ButtonLook {
  const { label, language } = kept;
  return {
    wording: oneOf([...WORDINGS, 'own'] as const, kept.wording, 'buy'),
    label: typeof label === 'string' ? label.slice(0, 40) : '',
    language: typeof language === 'string' && isLanguage(language) ? language : 'en',
    size: oneOf(BUTTON_SIZES, kept.size, 'medium'),
    shape: oneOf(BUTTON_SHAPES, kept.shape, 'stub'),
    accent: typeof kept.accent === 'string' && /^#[0-9a-f]{6}$/i.test(kept.accent) ? kept.accent : accent,
    schemes: completeSchemes(kept.schemes),
    picture: completePicture(kept.picture),
  };
}

/** What a button says. */
export const buttonLabel = ({ wording, label, language }: ButtonLook): string =>
  wording === 'own' ? label.trim() || LABELS[language].buy : LABELS[language][wording];

const HEIGHTS = { small: 34, medium: 44, large: 56 } as const;
/** Widths of letters differ; this is a wide one, so that nothing is cut off. */
const LETTER = 0.62;

/** Bites along an edge, as paper has them that was torn at a perforation. */
function torn(tall: number): { bites: number; bite: number } {
  const bites = Math.max(4, Math.round(tall / 9));
  return { bites, bite: tall / bites };
}

/** The outline of a button `width` wide and `tall` high. */
function outline(shape: ButtonLook['shape'], width: number, tall: number): string {
  if (shape === 'petal') {
    const point = tall * 0.55;
    const [near, far, middle] = [point * 0.3, tall * 0.86, tall / 2];
    return `M${point} 0H${width - point}Q${width - near} ${tall - far} ${width} ${middle}Q${width - near} ${far} ${width - point} ${tall}H${point}Q${near} ${far} 0 ${middle}Q${near} ${tall - far} ${point} 0Z`;
  }
  if (shape === 'stub') return `M2 0H${width - 2}L${width} 2V${tall - 2}L${width - 2} ${tall}H2L0 ${tall - 2}V2Z`;
  const { bites, bite } = torn(tall);
  const round = bite * 0.34;
  const side = (sweep: number, down: boolean) =>
    Array.from({ length: bites }, () => {
      const [flat, turn] = [(bite - round * 2) / 2, round * 2];
      return down
        ? `v${flat}a${round} ${round} 0 0 ${sweep} 0 ${turn}v${flat}`
        : `v${-flat}a${round} ${round} 0 0 ${sweep} 0 ${-turn}v${-flat}`;
    }).join('');
  return `M0 0H${width}${side(0, true)}H0${side(0, false)}Z`;
}

const PETAL = 'M12 8.3C8.9 6.7 7.3 3.3 12 .6 16.7 3.3 15.1 6.7 12 8.3Z';

/** The stub at the right of its perforation: two notches, a dashed line, and the six petals. */
function stubOf(width: number, tall: number, ink: string): string {
  const at = width - tall;
  const size = tall * 0.56;
  const petals = [0, 60, 120, 180, 240, 300]
    .map((turn) => `<path d="${PETAL}" transform="rotate(${turn} 12 12)"/>`)
    .join('');
  return `<path d="M${at} ${tall * 0.16}V${tall * 0.84}" stroke="${ink}" stroke-width="1.4" stroke-dasharray="2.5 3" fill="none"/><g transform="translate(${at + (tall - size) / 2} ${(tall - size) / 2}) scale(${size / 24})" fill="none" stroke="${ink}" stroke-width="1.5">${petals}</g>`;
}

/** A button as a drawing: served under an address that stays, so that a change shows wherever it stands. Nothing in it can run. */
export function buttonPicture(look: ButtonLook): { svg: string; width: number; height: number } {
  const label = buttonLabel(look);
  const tall = HEIGHTS[look.size];
  const font = Math.round(tall * 0.38);
  const names = look.schemes.join(' · ');
  const below = names ? Math.round(font * 1.5) : 0;
  const small = Math.round(font * 0.72);
  const stub = look.shape === 'stub' ? tall : 0;
  const width = Math.ceil(
    Math.max(label.length * font * LETTER + tall + stub, names.length * small * LETTER, tall * 2 + stub),
  );
  const height = tall + below;
  const ink = readableOn(look.accent);
  const middle = (width - stub) / 2;
  const face = "font-family='Vollkorn, Georgia, Cambria, serif'";
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}" viewBox="0 0 ${width} ${height}" role="img"><title>${escaped(label)}</title><path d="${outline(look.shape, width, tall)}" fill="${look.accent}"/>${stub ? stubOf(width, tall, ink) : ''}<text x="${middle}" y="${tall / 2}" dominant-baseline="central" text-anchor="middle" ${face} font-size="${font}" font-weight="600" fill="${ink}">${escaped(label)}</text>${
    names
      ? `<text x="${middle}" y="${tall + below * 0.66}" text-anchor="middle" font-family='Encode Sans, Segoe UI, Helvetica, Arial, sans-serif' font-size="${small}" fill="#635463">${escaped(names)}</text>`
      : ''
  }</svg>`;
  return { svg, width, height };
}

/** The ways to place a button on a website. @param host the application's origin @param passed what is passed through, as the address has it */
export function buttonSnippets(
  host: string,
  publicId: string,
  look: ButtonLook,
): { html: string; script: string; link: string } {
  const { width, height } = look.picture ?? buttonPicture(look);
  const link = `${host}/c/${publicId}`;
  const label = escaped(buttonLabel(look));
  const html = `<a href="${link}"><img src="${host}/b/${publicId}" alt="${label}" width="${width}" height="${height}"></a>`;
  return { html, script: `<script src="${host}/checkout.js" data-offer="${publicId}" async></script>`, link };
}
