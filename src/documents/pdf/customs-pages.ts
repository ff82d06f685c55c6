import { NATURES } from '@/core/customs/declaration';
import { type CustomsPaper, NATURE_WORDS } from '@/core/customs/form';
import { spacedNumber } from '@/core/parcel/number';
import { code128 } from '../barcode';
import { type Face, type Measure, type SetDocument, Setter } from './setter';

const POINTS = 72 / 25.4;
const EDGE = 7 * POINTS;

/** The forms are read by officers of two countries: each field is named in English and in French, the language of the Union. */
const CERTIFIED =
  'I certify that the particulars given in this customs declaration are correct and that this item does not contain any dangerous article or articles prohibited by legislation or by postal or customs regulations.';

/** Writes fields of a form, each named by what stands above it, downwards in columns. */
class FormSetter {
  readonly set: Setter;
  constructor(
    measure: Measure,
    readonly width: number,
    readonly height: number,
  ) {
    this.set = new Setter(measure, { width: width + EDGE, height: height + 74 - EDGE }, () => undefined);
    this.set.y = EDGE;
  }

  get y(): number {
    return this.set.y;
  }
  set y(at: number) {
    this.set.y = at;
  }
  get left(): number {
    return EDGE;
  }
  get right(): number {
    return this.width - EDGE;
  }

  /** Lines of a text in a column; at most so many, the last one ending in an ellipsis where there is more. */
  lines(x: number, text: string, width: number, size: number, most: number, face: Face = 'serif'): void {
    const all = this.set.wrapped(text, face, size, width);
    const kept = all.slice(0, most);
    if (all.length > most) kept[most - 1] = `${kept[most - 1]} …`;
    for (const line of kept) {
      this.set.text(x, line, face, size);
      this.set.y += size * 1.22;
    }
  }

  /** A field under its names; where it is empty, its names alone. */
  field(x: number, width: number, en: string, fr: string, value: string, most = 2): void {
    this.lines(x, fr && fr !== en ? `${en} / ${fr}` : en, width, 5.6, 1, 'sans');
    this.set.y += 0.5;
    if (value) this.lines(x, value, width, 8.6, most);
    this.set.y += 2.5;
  }

  /** Columns that begin at one height; goes on below the longest. */
  beside(...columns: readonly (() => void)[]): void {
    const top = this.y;
    let deepest = top;
    for (const column of columns) {
      this.y = top;
      column();
      deepest = Math.max(deepest, this.y);
    }
    this.y = deepest;
  }

  rule(weight = 0.5): void {
    this.set.rule(this.left, this.right - this.left, weight);
    this.y += 3.5;
  }
}

/** How much of the width the first three natures take: theirs are the longest words. */
const FIRST_NATURES = 0.56;

/** The natures, with a cross before the one that holds. */
function natures(form: FormSetter, x: number, width: number, paper: CustomsPaper): void {
  const top = form.y;
  const size = width < 300 ? 5.9 : 6.4;
  const step = 9.6;
  const rows = NATURES.length / 2;
  for (const [at, nature] of NATURES.entries()) {
    const left = x + Math.floor(at / rows) * width * FIRST_NATURES;
    form.y = top + (at % rows) * step;
    const words = NATURE_WORDS[nature];
    form.set.text(left, nature === paper.nature ? '[X]' : '[  ]', 'sans', 6.6);
    form.set.text(left + 13, words.en === words.fr ? words.en : `${words.en} / ${words.fr}`, 'sans', size);
  }
  form.y = top + rows * step + 2;
}

type Column = { readonly at: number; readonly to: number; readonly head: string; readonly under: string };

/** What is in it, line by line. Turns the page where it is full. */
function contents(form: FormSetter, paper: CustomsPaper, foot: number, onTurn: () => void): void {
  const { left, right } = form;
  const width = right - left;
  // Ten figures of a customs number, and a worth with its currency, take what they take.
  const shares = width < 300 ? [0.33, 0.42, 0.54, 0.77, 0.95] : [0.44, 0.54, 0.67, 0.83, 0.93];
  const ends = shares.map((share) => left + width * share);
  const [w0 = 0, w1 = 0, w2 = 0, w3 = 0, w4 = 0] = ends;
  const columns: readonly Column[] = [
    { at: left, to: w0, head: 'Contents', under: 'Contenu' },
    { at: w0, to: w1, head: 'Qty', under: 'Qté' },
    { at: w1, to: w2, head: 'Net kg', under: 'Poids net' },
    { at: w2, to: w3, head: 'Value', under: 'Valeur' },
    { at: w3, to: w4, head: 'HS', under: 'N° SH' },
    { at: w4, to: right, head: 'Origin', under: 'Origine' },
  ];
  const heads = () => {
    for (const [words, size] of [
      ['head', 6],
      ['under', 5.2],
    ] as const) {
      for (const column of columns) form.set.text(column.at, column[words], 'sans', size, { soft: words === 'under' });
      form.y += size + 1.2;
    }
    form.rule(0.4);
  };
  heads();
  for (const line of paper.lines) {
    const what = form.set.wrapped(line.what, 'serif', 8.2, w0 - left - 6).slice(0, 4);
    if (form.y + what.length * 10 + 4 > foot) {
      onTurn();
      heads();
    }
    const top = form.y;
    const figures = [line.quantity, line.kilograms, line.value, line.hsCode, line.origin];
    for (const [at, figure] of figures.entries()) {
      const column = columns[at + 1];
      if (column) form.set.text(column.at, figure, 'serif', 8.2);
    }
    for (const part of what) {
      form.set.text(left, part, 'serif', 8.2);
      form.y += 10;
    }
    form.y = Math.max(form.y, top + 10) + 1.5;
  }
  form.rule(0.8);
}

const title = (form: FormSetter, paper: CustomsPaper): void => {
  const name = paper.form === 'cn22' ? 'CN 22' : 'CN 23';
  form.set.text(form.left, 'Customs declaration', 'serif-bold', 12, { role: 'H1' });
  form.set.text(form.right - form.set.measure(name, 'serif-bold', 15), name, 'serif-bold', 15);
  form.y += 13.5;
  form.set.text(
    form.left,
    'Déclaration en douane · May be opened officially / Peut être ouvert d’office',
    'sans',
    5.8,
    {
      soft: true,
    },
  );
  form.y += 9;
};

/** At the foot, with room for a hand. */
function signature(form: FormSetter, paper: CustomsPaper): void {
  form.y = Math.max(form.y, form.height - EDGE - (form.width < 320 ? 66 : 52));
  form.lines(form.left, CERTIFIED, form.right - form.left, 5.8, 4, 'sans');
  form.y += 12;
  form.field(
    form.left,
    form.right - form.left,
    'Date and sender’s signature',
    'Date et signature de l’expéditeur',
    `${paper.mailOn}   ${paper.signedBy}`,
    1,
  );
}

const SMALL = { width: 105 * POINTS, height: 148 * POINTS };
const WHOLE = { width: 210 * POINTS, height: 148 * POINTS };

/** The small form, on A6. */
function small(paper: CustomsPaper, measure: Measure): SetDocument {
  const form = new FormSetter(measure, SMALL.width, SMALL.height);
  const head = () => {
    title(form, paper);
    form.rule(1);
  };
  head();
  natures(form, form.left, form.right - form.left, paper);
  if (paper.explanation)
    form.field(form.left, form.right - form.left, 'Explanation', 'Explication', paper.explanation, 2);
  form.rule(0.4);
  const turn = () => {
    form.set.pages.push([]);
    form.y = EDGE;
    head();
  };
  contents(form, paper, SMALL.height - EDGE - 92, turn);
  if (form.y > SMALL.height - EDGE - 92) turn();
  const width = (form.right - form.left) / 3;
  form.beside(
    () => form.field(form.left, width, 'Total gross kg', 'Poids brut', paper.grossKilograms, 1),
    () => form.field(form.left + width, width, 'Total value', 'Valeur totale', paper.value, 1),
    () => form.field(form.left + 2 * width, width, 'Item number', 'N° de l’envoi', paper.number, 1),
  );
  if (paper.reference)
    form.field(form.left, 3 * width, 'Sender’s customs reference', 'Référence en douane', paper.reference, 1);
  signature(form, paper);
  return { title: `CN 22, ${paper.number}`, language: 'en', ...SMALL, pages: form.set.pages };
}

/** The whole form, on A5 across. */
function whole(paper: CustomsPaper, measure: Measure): SetDocument {
  const form = new FormSetter(measure, WHOLE.width, WHOLE.height);
  const half = (form.right - form.left - 12) / 2;
  const middle = form.left + half + 12;
  title(form, paper);
  const bars = code128(paper.number);
  const across = Math.min(1.3, (half - 30) / bars.width);
  form.beside(
    () => undefined,
    () => {
      form.set.put({
        ...{ kind: 'bars', x: form.right - bars.width * across - 62, y: EDGE - 2, across, down: 20, bars: bars.bars },
        says: paper.number,
      });
      const number = spacedNumber(paper.number);
      form.y = EDGE + 20;
      form.set.text(form.right - bars.width * across - 62, number, 'sans', 6.2);
    },
  );
  form.y = EDGE + 30;
  form.rule(1);
  form.beside(
    () => {
      form.field(form.left, half, 'From', 'De', paper.from.join(', '), 3);
      form.beside(
        () => form.field(form.left, half / 2 - 6, 'Phone', 'Téléphone', paper.fromPhone, 1),
        () => form.field(form.left + half / 2, half / 2, 'Sender’s customs reference', '', paper.reference, 1),
      );
    },
    () => {
      form.field(middle, half, 'To', 'À', paper.to.join(', '), 3);
      form.beside(
        () => form.field(middle, half / 2 - 6, 'Importer’s reference', 'Référence', paper.importer, 1),
        () =>
          form.field(
            middle + half / 2,
            half / 2,
            'Importer’s phone or e-mail',
            '',
            [paper.toPhone, paper.toEmail].filter(Boolean).join(', '),
            2,
          ),
      );
    },
  );
  form.rule(0.4);
  contents(form, paper, WHOLE.height - EDGE - 128, () => {
    form.set.pages.push([]);
    form.y = EDGE;
    title(form, paper);
    form.set.text(form.left, spacedNumber(paper.number), 'sans', 7);
    form.y += 11;
    form.rule(1);
  });
  const quarter = (form.right - form.left) / 4;
  form.beside(
    () => form.field(form.left, quarter - 6, 'Total net kg', 'Poids net total', paper.netKilograms, 1),
    () => form.field(form.left + quarter, quarter - 6, 'Total gross kg', 'Poids brut total', paper.grossKilograms, 1),
    () => form.field(form.left + 2 * quarter, quarter - 6, 'Total value', 'Valeur totale', paper.value, 1),
    () => form.field(form.left + 3 * quarter, quarter - 6, 'Postal charges', 'Frais de port', paper.postage, 1),
  );
  form.rule(0.4);
  form.beside(
    () => {
      natures(form, form.left, half, paper);
      form.field(form.left, half, 'Explanation', 'Explication', paper.explanation, 1);
    },
    () => {
      form.field(middle, half, 'Comments', 'Observations', paper.comments, 2);
      const third = half / 3;
      form.beside(
        () => form.field(middle, third - 4, 'Licence', '', paper.licence, 1),
        () => form.field(middle + third, third - 4, 'Certificate', 'Certificat', paper.certificate, 1),
        () => form.field(middle + 2 * third, third, 'Invoice', 'Facture', paper.invoice, 1),
      );
    },
  );
  form.rule(0.4);
  signature(form, paper);
  return { title: `CN 23, ${paper.number}`, language: 'en', ...WHOLE, pages: form.set.pages };
}

/** Sets a customs declaration: CN 22 on A6, CN 23 on A5 across; further sheets where there is more in it. */
export const customsPages = (paper: CustomsPaper, measure: Measure): SetDocument =>
  paper.form === 'cn22' ? small(paper, measure) : whole(paper, measure);
