import { readableOn } from '../look/contrast';
import { escaped } from '../words/escaped';
import { isLanguage, type Language } from '../words/words';

export const BUTTON_SIZES = ['small', 'medium', 'large'] as const;
export const BUTTON_SHAPES = ['square', 'soft', 'round'] as const;
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
  readonly schemes: boolean;
  /** A picture of the business's own in place of the drawing; its size as it is shown, in pixels. */
  readonly picture: { readonly fileId: string; readonly width: number; readonly height: number } | null;
};

/** The widest that a picture of one's own is shown. */
export const WIDEST_PICTURE = 320;

const LABELS: Readonly<Record<Language, Readonly<Record<(typeof WORDINGS)[number], string>>>> = {
  en: { buy: 'Buy now', pay: 'Pay', give: 'Donate', book: 'Book a place', order: 'Order' },
  de: { buy: 'Jetzt kaufen', pay: 'Bezahlen', give: 'Spenden', book: 'Platz buchen', order: 'Bestellen' },
  fr: { buy: 'Acheter', pay: 'Payer', give: 'Faire un don', book: 'Réserver', order: 'Commander' },
  es: { buy: 'Comprar', pay: 'Pagar', give: 'Donar', book: 'Reservar', order: 'Pedir' },
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
    shape: oneOf(BUTTON_SHAPES, kept.shape, 'soft'),
    accent: typeof kept.accent === 'string' && /^#[0-9a-f]{6}$/i.test(kept.accent) ? kept.accent : accent,
    schemes: kept.schemes === true,
    picture: completePicture(kept.picture),
  };
}

/** What a button says. */
export const buttonLabel = ({ wording, label, language }: ButtonLook): string =>
  wording === 'own' ? label.trim() || LABELS[language].buy : LABELS[language][wording];

const HEIGHTS = { small: 34, medium: 44, large: 56 } as const;
const CORNERS = { square: 2, soft: 8, round: 28 } as const;
/** Widths of letters differ; this is a wide one, so that nothing is cut off. */
const LETTER = 0.62;

/**
 * A button as a drawing: served under an address that stays, so that a change shows wherever it stands. Nothing in it can run.
 *
 * @param schemes the names of the card schemes, written below where the look wants them
 */
export function buttonPicture(
  look: ButtonLook,
  schemes: readonly string[],
): { svg: string; width: number; height: number } {
  const label = buttonLabel(look);
  const tall = HEIGHTS[look.size];
  const font = Math.round(tall * 0.38);
  const below = look.schemes ? Math.round(font * 1.5) : 0;
  const small = Math.round(font * 0.72);
  const names = schemes.join(' · ');
  const width = Math.ceil(
    Math.max(label.length * font * LETTER + tall, look.schemes ? names.length * small * LETTER : 0, tall * 2),
  );
  const height = tall + below;
  const face = "font-family='Encode Sans, Segoe UI, Helvetica, Arial, sans-serif'";
  const corner = Math.min(CORNERS[look.shape], tall / 2);
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}" viewBox="0 0 ${width} ${height}" role="img"><title>${escaped(label)}</title><rect width="${width}" height="${tall}" rx="${corner}" fill="${look.accent}"/><text x="${width / 2}" y="${tall / 2}" dominant-baseline="central" text-anchor="middle" ${face} font-size="${font}" font-weight="600" fill="${readableOn(look.accent)}">${escaped(label)}</text>${
    look.schemes
      ? `<text x="${width / 2}" y="${tall + below * 0.66}" text-anchor="middle" ${face} font-size="${small}" fill="#635463">${escaped(names)}</text>`
      : ''
  }</svg>`;
  return { svg, width, height };
}

/** The ways to place a button on a website. @param host the application's origin @param passed what is passed through, as the address has it */
export function buttonSnippets(
  host: string,
  publicId: string,
  look: ButtonLook,
  schemes: readonly string[],
): { html: string; script: string; link: string } {
  const { width, height } = look.picture ?? buttonPicture(look, schemes);
  const link = `${host}/c/${publicId}`;
  const label = escaped(buttonLabel(look));
  const html = `<a href="${link}"><img src="${host}/b/${publicId}" alt="${label}" width="${width}" height="${height}"></a>`;
  return { html, script: `<script src="${host}/checkout.js" data-offer="${publicId}" async></script>`, link };
}
