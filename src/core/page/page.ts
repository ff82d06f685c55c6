import { typedMinor } from '../invoice/read-paper';
import { contrast } from '../look/contrast';

export const BLOCK_KINDS = [
  'heading',
  'text',
  'picture',
  'gallery',
  'logo',
  'offer',
  'field',
  'goal',
  'questions',
  'terms',
  'contact',
  'spacer',
] as const;
export type BlockKind = (typeof BLOCK_KINDS)[number];

/** A picture of the business's, under its file's id; `alt` says what it shows. */
export type PagePicture = { readonly fileId: string; readonly alt: string };

/** A piece of a hosted page. What its kind has no use for is empty. */
export type Block = {
  readonly id: string;
  readonly kind: BlockKind;
  readonly hidden: boolean;
  /** A heading's words, a text's HTML, a button's label, terms; the goal as a typed amount. */
  readonly text: string;
  readonly pictures: readonly PagePicture[];
  readonly questions: readonly { readonly ask: string; readonly answer: string }[];
  /** The offer's own question that stands here. */
  readonly fieldId: string;
};

export const FONT_PAIRS = ['workshop', 'plain', 'book'] as const;
export const PAGE_SIZES = ['small', 'medium', 'large'] as const;
export const PAGE_CORNERS = ['square', 'soft', 'round'] as const;

/** How a page looks; colours are `#rrggbb`. */
export type Theme = {
  readonly background: string;
  readonly text: string;
  readonly accent: string;
  readonly fonts: (typeof FONT_PAIRS)[number];
  readonly size: (typeof PAGE_SIZES)[number];
  readonly corners: (typeof PAGE_CORNERS)[number];
  readonly cover: PagePicture | null;
};

export type HostedPage = { readonly blocks: readonly Block[]; readonly theme: Theme };

export const MOST_BLOCKS = 80;

/** A block on which nothing is written yet. */
export const newBlock = (id: string, kind: BlockKind, more: Partial<Block> = {}): Block => ({
  id,
  kind,
  hidden: false,
  text: '',
  pictures: [],
  questions: [],
  fieldId: '',
  ...more,
});

const record = (value: unknown): Record<string, unknown> =>
  typeof value === 'object' && value !== null && !Array.isArray(value) ? (value as Record<string, unknown>) : {};
const list = (value: unknown): unknown[] => (Array.isArray(value) ? value : []);
const text = (value: unknown, most: number): string => (typeof value === 'string' ? value.slice(0, most) : '');
const colour = (value: unknown, fallback: string): string =>
  typeof value === 'string' && /^#[0-9a-f]{6}$/i.test(value) ? value.toLowerCase() : fallback;
const oneOf = <T extends string>(known: readonly T[], value: unknown, fallback: T): T =>
  known.find((one) => one === value) ?? fallback;
const UUID = /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/;

function picture(value: unknown): PagePicture | null {
  const { fileId, alt } = record(value);
  return typeof fileId === 'string' && UUID.test(fileId) ? { fileId, alt: text(alt, 200) } : null;
}

function block(value: unknown): Block | null {
  const kept = record(value);
  const kind = BLOCK_KINDS.find((known) => known === kept.kind);
  if (!kind || typeof kept.id !== 'string' || !UUID.test(kept.id)) return null;
  return {
    id: kept.id,
    kind,
    hidden: kept.hidden === true,
    text: text(kept.text, 20_000),
    pictures: list(kept.pictures)
      .flatMap((one) => picture(one) ?? [])
      .slice(0, 24),
    questions: list(kept.questions)
      .slice(0, 40)
      .map((one) => ({ ask: text(record(one).ask, 300), answer: text(record(one).answer, 4000) })),
    fieldId: typeof kept.fieldId === 'string' && UUID.test(kept.fieldId) ? kept.fieldId : '',
  };
}

/** A page whole, whatever was kept or sent: what is of no known form is left out. @param accent the business's own colour */
export function completePage(kept: Readonly<Record<string, unknown>>, accent: string): HostedPage {
  const theme = record(kept.theme);
  return {
    blocks: list(kept.blocks)
      .flatMap((one) => block(one) ?? [])
      .slice(0, MOST_BLOCKS),
    theme: {
      background: colour(theme.background, '#fffdf9'),
      text: colour(theme.text, '#241a26'),
      accent: colour(theme.accent, colour(accent, '#6b2451')),
      fonts: oneOf(FONT_PAIRS, theme.fonts, 'workshop'),
      size: oneOf(PAGE_SIZES, theme.size, 'medium'),
      corners: oneOf(PAGE_CORNERS, theme.corners, 'soft'),
      cover: picture(theme.cover),
    },
  };
}

/** All files that a page shows. */
export const pageFiles = ({ blocks, theme }: HostedPage): string[] => [
  ...(theme.cover ? [theme.cover.fileId] : []),
  ...blocks.filter(({ hidden }) => !hidden).flatMap(({ pictures }) => pictures.map(({ fileId }) => fileId)),
];

/** What a page is called before it has a title of its own. */
export const PLACEHOLDER_TITLE = 'New hosted page';

/** A page whose heading nobody has written yet takes the title of what is asked for. */
export const titled = (page: HostedPage, title: string): HostedPage => ({
  ...page,
  blocks: page.blocks.map((one) =>
    one.kind === 'heading' && one.text === PLACEHOLDER_TITLE && title.trim() ? { ...one, text: title.trim() } : one,
  ),
});

/** What keeps a page from being published, in words for the business: a title that is none, a goal of nothing. @param digits of the offer's currency */
export function pageFaults({ blocks }: HostedPage, digits: number): { field: string; words: string }[] {
  const shown = blocks.filter(({ hidden }) => !hidden);
  const faults: { field: string; words: string }[] = [];
  const heading = shown.find(({ kind }) => kind === 'heading');
  if (heading && (!heading.text.trim() || heading.text.trim() === PLACEHOLDER_TITLE))
    faults.push({ field: `blocks.${heading.id}`, words: 'Write the heading: visitors read it first.' });
  for (const { id, kind, text: typed } of shown)
    if (kind === 'goal' && !((typedMinor(typed, digits) ?? 0n) > 0n))
      faults.push({ field: `blocks.${id}`, words: 'Write the goal as an amount, or take it off the page.' });
  return faults;
}

/** Text needs 4.5, the accent on the background 3 (WCAG 2.2). */
const TEXT_LEAST = 4.5;
const ACCENT_LEAST = 3;

/** What somebody should know of a page before it is published; nothing of it forbids it. */
export function pageWarnings({ blocks, theme }: HostedPage): string[] {
  const warnings: string[] = [];
  if (contrast(theme.text, theme.background) < TEXT_LEAST)
    warnings.push('The text is hard to read on this background. Choose a darker text or a lighter background.');
  if (contrast(theme.accent, theme.background) < ACCENT_LEAST)
    warnings.push('The accent hardly stands out from the background.');
  if (!blocks.some(({ kind, hidden }) => kind === 'offer' && !hidden))
    warnings.push('There is no offer on the page: nobody can pay from it.');
  if (blocks.some(({ kind, pictures }) => kind === 'picture' && pictures.some(({ alt }) => !alt.trim())))
    warnings.push('A picture has no description. Who cannot see it learns nothing of it.');
  return warnings;
}

/** The page that an offer begins with. @param ids makes an id for each block */
export const firstPage = (title: string, description: string, ids: () => string): Pick<HostedPage, 'blocks'> => ({
  blocks: [
    newBlock(ids(), 'logo'),
    newBlock(ids(), 'heading', { text: title }),
    newBlock(ids(), 'text', { text: description ? `<p>${description}</p>` : '' }),
    newBlock(ids(), 'offer'),
    newBlock(ids(), 'contact'),
  ],
});

/** Moves a block to another place. */
export function moved(blocks: readonly Block[], id: string, to: number): Block[] {
  const from = blocks.findIndex((one) => one.id === id);
  if (from < 0) return [...blocks];
  const rest = blocks.filter((one) => one.id !== id);
  const place = Math.min(rest.length, Math.max(0, to));
  return [...rest.slice(0, place), ...blocks.slice(from, from + 1), ...rest.slice(place)];
}

/** The share of a goal that has been reached, 0 to 1. Amounts in minor units. */
export const goalShare = (reached: bigint, goal: bigint): number =>
  goal <= 0n ? 0 : Math.min(1, Math.max(0, Number(reached) / Number(goal)));
