/** The character sets that are told apart. */
export type Charset = 'utf-8' | 'utf-16le' | 'utf-16be' | 'windows-1252' | 'declared';

const starts = (bytes: Uint8Array, ...marks: number[]): boolean => marks.every((mark, at) => bytes[at] === mark);

/** Where zeros are in the first bytes: text of two bytes a letter has them in every second place. */
function halfZeros(bytes: Uint8Array): 'utf-16le' | 'utf-16be' | null {
  const looked = bytes.subarray(0, 2000);
  const zeros = [0, 0];
  looked.forEach((byte, at) => {
    if (byte === 0) zeros[at % 2] = (zeros[at % 2] ?? 0) + 1;
  });
  const [even = 0, odd = 0] = zeros;
  if (odd > looked.length / 5 && even < odd / 4) return 'utf-16le';
  return even > looked.length / 5 && odd < even / 4 ? 'utf-16be' : null;
}

/** What an XML file says of itself in its first line; empty where it says nothing. */
function declared(bytes: Uint8Array): string {
  const head = new TextDecoder('latin1').decode(bytes.subarray(0, 200));
  return /^<\?xml[^>]*encoding\s*=\s*["']([\w.:-]+)["']/.exec(head)?.[1] ?? '';
}

// Signs of 0x80 to 0x9f; the rest is as in Latin-1. Some programs' own decoders take all of it for Latin-1.
const WINDOWS = '€\u0081‚ƒ„…†‡ˆ‰Š‹Œ\u008dŽ\u008f\u0090‘’“”•–—˜™š›œ\u009džŸ';

/** A text in Windows-1252 (WHATWG encoding standard, index windows-1252); every file is one. */
export function windows1252(bytes: Uint8Array): string {
  const latin = new TextDecoder('latin1').decode(bytes);
  return latin.replace(/[\u0080-\u009f]/g, (sign) => WINDOWS[sign.charCodeAt(0) - 0x80] ?? sign);
}

/** A text in a named character set; null where there is none of that name, or the bytes are none of it. */
export function inCharset(bytes: Uint8Array, name: string): string | null {
  if (/^(windows-1252|cp-?1252)$/i.test(name)) return windows1252(bytes);
  try {
    return new TextDecoder(name, { fatal: true }).decode(bytes);
  } catch {
    return null;
  }
}

/**
 * The text of a file that somebody else wrote: by its byte order mark, by what an XML file says of itself, as UTF-8 where it is
 * that throughout, as UTF-16 where every second byte is zero, else in Windows-1252, as old office programs write.
 */
export function decoded(bytes: Uint8Array): { readonly text: string; readonly charset: Charset } {
  if (starts(bytes, 0xef, 0xbb, 0xbf)) return { text: new TextDecoder('utf-8').decode(bytes), charset: 'utf-8' };
  if (starts(bytes, 0xff, 0xfe)) return { text: new TextDecoder('utf-16le').decode(bytes), charset: 'utf-16le' };
  if (starts(bytes, 0xfe, 0xff)) return { text: new TextDecoder('utf-16be').decode(bytes), charset: 'utf-16be' };
  const said = declared(bytes);
  const named = said ? inCharset(bytes, said) : null;
  if (named !== null) return { text: named, charset: 'declared' };
  const wide = halfZeros(bytes);
  if (wide) return { text: new TextDecoder(wide).decode(bytes), charset: wide };
  const text = inCharset(bytes, 'utf-8');
  if (text !== null) return { text, charset: 'utf-8' };
  return { text: windows1252(bytes), charset: 'windows-1252' };
}
