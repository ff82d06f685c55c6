import { readFileSync } from 'node:fs';
import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { RuleError } from '../../rule-error';
import { readStatements } from './read';

const FILES = readFileSync('tests/vectors/statement.ndjson', 'utf8')
  .split('\n')
  .filter((line) => line.trim())
  .map((line) => (JSON.parse(line) as { in: { text: unknown } }).in.text)
  .filter((text): text is string => typeof text === 'string' && text.length > 60);

/** What reading answers: statements, or the code of its no; anything else is thrown on. */
const answerOf = (text: string) => {
  try {
    return readStatements(text).length;
  } catch (error) {
    if (error instanceof RuleError) return error.code;
    throw error;
  }
};

describe('a file as others write it', () => {
  test('cut off, doubled, or with strange signs in it: statements, or one known no', () => {
    const change = fc.record({
      file: fc.constantFrom(...FILES),
      at: fc.double({ min: 0, max: 1, noNaN: true }),
      cut: fc.nat(40),
      put: fc.oneof(
        fc.string({ maxLength: 12 }),
        fc.constantFrom('<', '>', '&', '&#0;', '&x;', ']]>', '<!--', '-\n', ':61:', '\u0000', '</', 'OFX'),
      ),
    });
    fc.assert(
      fc.property(change, ({ file, at, cut, put }) => {
        const place = Math.floor(file.length * at);
        const answer = answerOf(`${file.slice(0, place)}${put}${file.slice(place + cut)}`);
        if (typeof answer === 'string') expect(['bad_input', 'amount_out_of_range']).toContain(answer);
      }),
      { numRuns: 3000 },
    );
  });

  test.each([
    [
      'an entity that grows',
      `<!DOCTYPE a [<!ENTITY b "${'x'.repeat(50)}">]><Document xmlns="urn:iso:std:iso:20022:tech:xsd:camt.053.001.08">&b;</Document>`,
    ],
    [
      'elements without an end',
      `<Document xmlns="urn:iso:std:iso:20022:tech:xsd:camt.053.001.08">${'<a>'.repeat(100_000)}`,
    ],
    ['leaves without an end', `OFXHEADER:100\n<OFX>${'<A>'.repeat(20_000)}</OFX>`],
    ['a mark of another kind in front', '\u00ef\u00bb\u00bf:20:X'],
  ])('%s', (_, text) => {
    expect(['bad_input', 0]).toContain(answerOf(text));
  });

  test('line breaks of any kind, and a byte order mark, are the same statement', () => {
    const file = FILES.find((text) => text.startsWith(':20:') && text.includes(':86:')) ?? '';
    const plain = file.replace(/\r\n|\r/g, '\n');
    const read = readStatements(plain);
    for (const end of ['\r\n', '\r']) expect(readStatements(`\ufeff${plain.replaceAll('\n', end)}`)).toEqual(read);
  });
});
