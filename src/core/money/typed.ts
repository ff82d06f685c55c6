import { numbersLike } from '../writing/writing';

/** Thousands: groups of three, or groups of two before a last of three. */
const GROUPED = /^(\d{1,3}([.,]\d{3})+|\d{1,2}([.,]\d{2})*[.,]\d{3}|([.,]\d{3})+)$/;

/**
 * What a person typed as a number, as a plain decimal string, or null where it is none.
 *
 * Spaces, apostrophes and currency signs are ignored. Of `,` and `.` the last one is the decimal sign, unless it is the
 * locale's grouping sign followed by exactly three digits (before which groups may have two, as in lakhs): `1,500` is 1500 for a reader of English, `1,5` is 1.5. No thousands begin
 * with a nought: `0,333` is a third for every reader.
 */
export function typedDecimal(text: string, decimalSign: '.' | ',' = '.'): string | null {
  const bare = text.replace(/[\s'’\u00a0\u202f$€£¥]/g, '');
  if (!/^[0-9.,]+$/.test(bare)) return null;
  const last = Math.max(bare.lastIndexOf('.'), bare.lastIndexOf(','));
  if (last < 0) return plain(bare, '');
  const sign = bare[last];
  const groups = sign !== decimalSign && bare.length - last === 4 && /^[1-9]/.test(bare);
  const repeated = bare.indexOf(sign ?? '') !== last;
  if (groups || repeated) return GROUPED.test(bare) ? plain(bare.replace(/[.,]/g, ''), '') : null;
  const whole = bare.slice(0, last);
  if (!/^\d*$/.test(whole) && !GROUPED.test(whole)) return null;
  return plain(whole.replace(/[.,]/g, ''), bare.slice(last + 1));
}

function plain(whole: string, fraction: string): string | null {
  if (whole === '' && fraction === '') return null;
  const digits = whole.replace(/^0+(?=\d)/, '') || '0';
  return fraction ? `${digits}.${fraction}` : digits;
}

/** The sign between units and decimals in a locale. @param locale BCP 47 */
export function decimalSignOf(locale: string): '.' | ',' {
  const parts = new Intl.NumberFormat(numbersLike(locale), { numberingSystem: 'latn' }).formatToParts(1.5);
  return parts.find(({ type }) => type === 'decimal')?.value === ',' ? ',' : '.';
}

/** What was typed, as it is kept (a plain decimal, with `%` where that was typed), and what else it may mean. */
export type TypedReading = { readonly text: string; readonly other: string | null };

/**
 * Reads what a person types by their own decimal sign. What is no number is kept as typed, so that nothing is lost. Of one sign
 * before three digits nobody can tell: `1.500` is 1500 to some and 1.5 to others; `other` is then the other one's reading.
 */
export function readTyped(typed: string, sign: '.' | ','): TypedReading {
  const [, body = '', percent = ''] = /^(.*?)\s*(%?)\s*$/s.exec(typed) ?? [];
  const own = typedDecimal(body, sign);
  if (own === null) return { text: typed, other: null };
  const other = typedDecimal(body, sign === '.' ? ',' : '.');
  const isSame = other === null || Number(other) === Number(own);
  return { text: `${own}${percent}`, other: isSame ? null : `${other}${percent}` };
}

/** What words that may be a number can be read as, as plain decimals: none, one, or two where nobody can tell. */
export function decimalReadings(words: string): string[] {
  const { text, other } = readTyped(words.trim(), '.');
  return typedDecimal(text) === null ? [] : [text, other].filter((one) => one !== null);
}

/** A kept number as its reader writes it, without thousands; what is no plain decimal stays as it is. */
export const spokenDecimal = (kept: string, sign: '.' | ','): string =>
  sign === ',' && /^\d+\.\d+%?$/.test(kept) ? kept.replace('.', ',') : kept;

/** A kept count as its reader sees it: with a true minus where it is below nothing. */
export const spokenCount = (kept: string, sign: '.' | ','): string =>
  kept.startsWith('-') ? `−${spokenDecimal(kept.slice(1), sign)}` : spokenDecimal(kept, sign);
