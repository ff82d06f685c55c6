import { RuleError } from '../rule-error';

/** The longest text that a reference carries. */
const MOST = 21;
const PREFIX = 'RF';
const BLANK = /[ \u00a0\t\r\n]/;
const SIGN = /[A-Z0-9]/;

const upper = (letter: string): string => (/[a-z]/.test(letter) ? letter.toUpperCase() : letter);

/** The remainder by 97 of a text read as a number, A = 10 … Z = 35. */
function mod97(text: string): number {
  let rest = 0;
  for (const sign of text) {
    const value = sign >= 'A' ? sign.charCodeAt(0) - 55 : Number(sign);
    rest = (rest * (value > 9 ? 100 : 10) + value) % 97;
  }
  return rest;
}

const referenceOf = (plain: string): string =>
  `${PREFIX}${String(98 - mod97(`${plain}${PREFIX}00`)).padStart(2, '0')}${plain}`;

/** A structured creditor reference, and as it is printed: in groups of four. */
export type CreditorReference = { readonly reference: string; readonly printed: string };

/**
 * Makes a structured creditor reference (ISO 11649) of a text: its letters and digits, in order; other signs are left out.
 *
 * @throws RuleError `bad_input` for letters, marks or digits of another kind, and where none or more than 21 remain
 */
export function makeReference(text: string): CreditorReference {
  let plain = '';
  for (const letter of text) {
    const sign = upper(letter);
    if (SIGN.test(sign) && sign.length === 1) plain += sign;
    else if (/[\p{L}\p{M}\p{N}]/u.test(letter))
      throw new RuleError('bad_input', `make: ${letter} is none of A to Z and 0 to 9`);
  }
  if (plain.length === 0 || plain.length > MOST)
    throw new RuleError('bad_input', `make: 1 to ${MOST} letters and digits are needed`);
  const reference = referenceOf(plain);
  return { reference, printed: reference.replace(/(.{4})(?=.)/g, '$1 ') };
}

/** The reference that an invoice is paid under; empty for a number of which none can be made. */
export function referenceOfNumber(number: string): string {
  try {
    return makeReference(number).reference;
  } catch {
    return '';
  }
}

/** How it is written on paper: the reference in groups of four, or else the number itself. */
export function printedReference(number: string): string {
  const reference = referenceOfNumber(number);
  return reference ? reference.replace(/(.{4})(?=.)/g, '$1 ') : number;
}

/** What a text carries as a reference, without RF and check digits; null where it is none. Blanks and small letters are taken. */
export function plainOfReference(text: string): string | null {
  const signs = [...text]
    .filter((sign) => !BLANK.test(sign))
    .map(upper)
    .join('');
  const match = /^RF\d\d([A-Z0-9]{1,21})$/.exec(signs);
  const plain = match?.[1];
  return plain && referenceOf(plain) === signs ? plain : null;
}

/** The longest reference with its RF and check digits. */
const LONGEST = MOST + 4;
const isSign = (sign: string | undefined): boolean => sign !== undefined && /^[A-Za-z0-9]$/.test(sign);

/** The reference that begins at a place: the one before the first blank, else the longest; with the place behind it. */
function referenceAt(text: string, start: number): { reference: string; end: number } | null {
  let read = '';
  let best: { reference: string; end: number } | null = null;
  let blank = false;
  for (let at = start; at < text.length && read.length < LONGEST; at += 1) {
    const sign = text[at] ?? '';
    if (BLANK.test(sign)) {
      blank = true;
      continue;
    }
    if (!isSign(sign)) break;
    read += upper(sign);
    if (isSign(text[at + 1]) || plainOfReference(read) === null) continue;
    best = { reference: read, end: at + 1 };
    if (!blank) return best;
  }
  return best;
}

/** The references in a text, in their order, each once: as people and banks write them, with or without blanks. */
export function findReferences(text: string): string[] {
  const found = new Set<string>();
  for (let at = 0; at < text.length; ) {
    const starts = upper(text[at] ?? '') === 'R' && !isSign(text[at - 1]);
    const one = starts ? referenceAt(text, at) : null;
    if (one) found.add(one.reference);
    at = one ? one.end : at + 1;
  }
  return [...found];
}
