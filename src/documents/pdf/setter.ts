/** The faces that the documents are set in. */
export type Face = 'serif' | 'serif-medium' | 'serif-bold' | 'serif-italic' | 'sans';

/** The pictures that a business puts on what it sends. */
export type PictureName = 'logo' | 'signature' | 'seal';

/** What a text is in the document's structure, for readers that do not see it. */
export type Role = 'P' | 'H1' | 'H2';

/** Something on a page: text with its baseline box's top left corner, a rule, a picture by name, or a code. Points, from the page's top left. */
export type Mark =
  | {
      readonly kind: 'text';
      readonly x: number;
      readonly y: number;
      readonly text: string;
      readonly face: Face;
      readonly size: number;
      readonly soft?: boolean;
      readonly role?: Role;
      readonly colour?: string;
      readonly link?: string;
    }
  | { readonly kind: 'rule'; readonly x: number; readonly y: number; readonly width: number; readonly weight: number }
  | {
      readonly kind: 'picture';
      readonly name: PictureName;
      readonly x: number;
      readonly y: number;
      readonly width: number;
      readonly height: number;
      readonly says: string;
    }
  | {
      /** A text as a square of modules (ISO/IEC 18004). */
      readonly kind: 'code';
      readonly text: string;
      readonly x: number;
      readonly y: number;
      readonly width: number;
      readonly says: string;
    }
  | {
      /** Dark rectangles in modules, each `across` wide and `down` high: a code, read out as `says`; empty for mere lines. */
      readonly kind: 'bars';
      readonly x: number;
      readonly y: number;
      readonly across: number;
      readonly down: number;
      readonly bars: readonly {
        readonly x: number;
        readonly y: number;
        readonly width: number;
        readonly height: number;
      }[];
      readonly says: string;
    };

export type Page = readonly Mark[];

/** A document set on pages; sizes in points. */
export type SetDocument = {
  readonly title: string;
  readonly language: string;
  readonly width: number;
  readonly height: number;
  readonly pages: readonly Page[];
};

/** How wide a text runs in a face and size, in points. */
export type Measure = (text: string, face: Face, size: number) => number;

/** A picture's size in pixels, for its shape. */
export type PictureSize = { readonly width: number; readonly height: number };

/** The pictures that a document has. */
export type PictureSizes = Readonly<Partial<Record<PictureName, PictureSize>>>;

const LETTER = { width: 612, height: 792 };
const A4 = { width: 595.28, height: 841.89 };
export const MARGIN = 56;
const BOTTOM = 74;

/** The sheet that a locale's readers print on. */
export const paperOf = (locale: string) => (/^(en-US|en-CA|es-MX|fr-CA)/.test(locale) ? LETTER : A4);

// A sign with its accents, and an emoji of several parts, is one.
const GRAPHEMES = new Intl.Segmenter('en', { granularity: 'grapheme' });

/** Writes downwards, and turns the page when it is full. */
export class Setter {
  private readonly done: Mark[][] = [[]];
  y = MARGIN;
  readonly right: number;

  constructor(
    readonly measure: Measure,
    readonly paper: { width: number; height: number },
    /** Draws what every further page begins with. */
    public onTurn: () => void,
  ) {
    this.right = paper.width - MARGIN;
  }

  get pages(): Mark[][] {
    return this.done;
  }

  /** Makes sure that `height` fits on this page, or turns it. */
  room(height: number): void {
    if (this.y + height <= this.paper.height - BOTTOM) return;
    this.done.push([]);
    this.y = MARGIN;
    this.onTurn();
  }

  put(mark: Mark): void {
    this.done.at(-1)?.push(mark);
  }

  text(
    x: number,
    text: string,
    face: Face,
    size: number,
    more: { soft?: boolean; role?: Role; colour?: string; link?: string } = {},
  ): void {
    if (text) this.put({ kind: 'text', x, y: this.y, text, face, size, soft: false, ...more });
  }

  /** Ends at `right`. */
  figure(right: number, text: string, face: Face, size: number, soft = false): void {
    this.text(right - this.measure(text, face, size), text, face, size, { soft });
  }

  rule(x: number, width: number, weight = 0.7): void {
    this.put({ kind: 'rule', x, y: this.y, width, weight });
  }

  /** Breaks text at spaces, and inside a word only where it alone is too long. */
  wrapped(text: string, face: Face, size: number, width: number): string[] {
    const lines: string[] = [];
    for (const paragraph of text.split('\n')) {
      let line = '';
      for (const word of paragraph.split(/\s+/).flatMap((long) => this.pieces(long, face, size, width))) {
        const longer = line ? `${line} ${word}` : word;
        if (line && this.measure(longer, face, size) > width) {
          lines.push(line);
          line = word;
        } else line = longer;
      }
      lines.push(line);
    }
    return lines;
  }

  private pieces(word: string, face: Face, size: number, width: number): string[] {
    if (this.measure(word, face, size) <= width) return [word];
    const pieces: string[] = [];
    let piece = '';
    for (const { segment: sign } of GRAPHEMES.segment(word)) {
      if (this.measure(piece + sign, face, size) > width) {
        pieces.push(piece);
        piece = sign;
      } else piece += sign;
    }
    return [...pieces, piece];
  }
}
