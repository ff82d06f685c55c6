import { inCharset, windows1252 } from '@/core/file/decoded';

/** Parameters of vCard 2.1 that stand without a name are its types and encodings. */
const ENCODINGS = new Set(['QUOTED-PRINTABLE', 'BASE64', '8BIT', '7BIT']);

/** The bytes of a quoted-printable text (RFC 2045, 6.7), its soft line ends already gone. */
function quotedBytes(text: string): Uint8Array {
  const bytes: number[] = [];
  for (let at = 0; at < text.length; at++) {
    const pair = text[at] === '=' ? /^[0-9A-F]{2}$/i.exec(text.slice(at + 1, at + 3)) : null;
    if (pair) {
      bytes.push(Number.parseInt(pair[0], 16));
      at += 2;
    } else bytes.push(...new TextEncoder().encode(text[at]));
  }
  return Uint8Array.from(bytes);
}

/** A text as a value of vCard 3.0: line ends and commas with a backslash; semicolons part its cells as before. */
const escaped = (text: string): string => text.replace(/,/g, '\\,').replace(/\r\n|\n|\r/g, '\\n');

/** One property of 2.1 as one of 3.0; nothing for what holds a file. */
function property(line: string): string {
  const colon = line.indexOf(':');
  if (colon < 0) return line;
  const [name = '', ...parameters] = line.slice(0, colon).split(';');
  const value = line.slice(colon + 1);
  let encoding = '';
  let charset = 'utf-8';
  for (const parameter of parameters) {
    const [key = '', said = ''] = parameter.toUpperCase().split('=');
    if (key === 'ENCODING') encoding = said;
    else if (key === 'CHARSET') charset = parameter.split('=')[1] ?? charset;
    else if (ENCODINGS.has(key)) encoding = key;
  }
  if (encoding === 'BASE64') return '';
  if (encoding !== 'QUOTED-PRINTABLE') return `${name}:${escaped(value)}`;
  const bytes = quotedBytes(value);
  const text = inCharset(bytes, charset) ?? windows1252(bytes);
  return `${name}:${escaped(text)}`;
}

/**
 * A card of version 2.1, from before it was a standard of the IETF, as one of 3.0 (RFC 2426): quoted-printable texts in their
 * character sets, soft line ends, types without a name, pictures left out.
 *
 * @param lines the card's lines, unfolded but for the soft line ends
 */
export function asNewer(lines: readonly string[]): string[] {
  const whole: string[] = [];
  let soft = false;
  for (const line of lines) {
    if (soft) whole[whole.length - 1] = `${whole.at(-1)}${line}`;
    else whole.push(line);
    const last = whole.at(-1) ?? '';
    soft = last.endsWith('=') && /^[^:]*QUOTED-PRINTABLE/i.test(last);
    if (soft) whole[whole.length - 1] = last.slice(0, -1);
  }
  return whole.map((line) => (/^VERSION:/i.test(line) ? 'VERSION:3.0' : property(line))).filter(Boolean);
}
