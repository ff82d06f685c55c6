import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { addDays, type CalendarDate } from '../dates/calendar-date';
import { csvTable } from '../file/csv-table';
import { decoded } from '../file/decoded';
import { compareStatement, correctionKey, type OwnMove, readCarrierStatement, type StatementEntry } from './statement';

const OCTOBER = '2026-10-01' as CalendarDate;
const read = (text: string, currency = 'USD') => readCarrierStatement(csvTable(text), currency);
const HEAD = 'Date,Entry,Item,Reference,Details,Amount,Balance';

describe('a statement is read as others write it', () => {
  const [top, label] = [
    { on: '2026-10-02', kind: 'top-up', number: '', reference: 'top-up:a', words: '', minor: 10_000 },
    { on: '2026-10-03', kind: 'label', number: 'TW1US', reference: 'label:p:1', words: 'Light', minor: -360 },
  ];
  const whole = { month: OCTOBER, openingMinor: 500, closingMinor: 10_140, entries: [top, label] };
  test('with opening and closing, days and decimals of two worlds, groups and another charset', () => {
    const ours = `${HEAD}\r\n2026-10-01,Opening balance,,,,,5.00\r\n2026-10-02,top-up,,top-up:a,,100.00,105.00\r\n2026-10-03,label,TW1US,label:p:1,Light,-3.60,101.40\r\n2026-10-03,Closing balance,,,,,101.40\r\n`;
    expect(read(ours)).toEqual(whole);
    const theirs = 'sep=;\nDatum;Vorgang;Sendungsnummer;Referenz;Bemerkung;Betrag (USD);Saldo\n'.concat(
      '01.10.2026;Anfangsbestand;;;;;5,00\n02.10.2026;Aufladung;;top-up:a;;+100,00;105,00\n',
      '03.10.2026;Porto;TW 1 US;label:p:1;Light;3,60-;101,40\n31.10.2026;Endbestand;;;;;101,40\n',
    );
    expect(read(theirs)).toEqual(whole);
    const bytes = Buffer.from(theirs.replace('Light', 'Zuschlag für Überhöhe'), 'latin1');
    expect(read(decoded(bytes).text).entries[1]?.words).toBe('Zuschlag für Überhöhe');
    const wide = Buffer.concat([Buffer.from([0xff, 0xfe]), Buffer.from(ours, 'utf16le')]);
    expect(read(decoded(wide).text)).toEqual(whole);
  });

  test.each([
    ['nothing', '', 'no column for the day'],
    ['no amount', 'Date,Entry\n2026-10-01,label', 'no column for the amount'],
    ['no entry', `${HEAD}\n2026-10-01,Opening balance,,,,,5.00`, 'there is no entry in it'],
    ['two months', `${HEAD}\n2026-10-01,label,a,,,-1.00,\n2026-11-01,label,b,,,-1.00,`, 'it holds more than one month'],
    ['a day that is none', `${HEAD}\n2026-10-41,label,a,,,-1.00,`, 'line 2'],
    ['a sum that is none', `${HEAD}\n2026-10-02,label,a,,,-1.0.0,`, 'line 2'],
    ['an open quote', `${HEAD}\n2026-10-02,label,"a,,,-1.00,\n2026-10-03,label,b,,,-1.00,`, 'line 2'],
    ['a year that is none', `${HEAD}\n0000-01-02,label,a,,,-1.00,`, 'line 2'],
    ['a year of nobody’s', `${HEAD}\n9999-12-02,label,a,,,-1.00,`, 'it is of no year of ours'],
    ['a page of the web', '<!doctype html><html><body>Sign in</body></html>', 'no column for the day'],
    ['another file’s length', `${HEAD}\n${'2026-10-02,label,a,,,-1.00,\n'.repeat(20_001)}`, 'more than 20000 rows'],
    ['zeros', '\u0000'.repeat(400), 'no column for the day'],
  ])('%s is refused in words', (_, text, words) => expect(() => read(text)).toThrow(words));
});

describe('compared with ours', () => {
  const entry = (at: number, more: Partial<StatementEntry> = {}): StatementEntry => ({
    ...{
      on: addDays(OCTOBER, at),
      kind: 'label',
      number: `TW${at}US`,
      reference: `label:${at}:1`,
      words: '',
      minor: -360,
    },
    ...more,
  });
  const ours = ({ on, kind, number, reference, minor }: StatementEntry): OwnMove => ({
    key: reference,
    kind: kind as OwnMove['kind'],
    ...{ number, on, minor },
  });
  const compare = (entries: readonly StatementEntry[], moves: readonly OwnMove[], more = {}) =>
    compareStatement({ month: OCTOBER, openingMinor: null, closingMinor: null, entries, ...more }, moves, 0);
  const verdicts = (entries: readonly StatementEntry[], moves: readonly OwnMove[]) =>
    compare(entries, moves).entries.map(({ verdict, leftMinor }) => [verdict, leftMinor]);

  test('what agrees, differs, is new, stands twice, is missing or comes a month later', () => {
    const [a, b, c] = [entry(1), entry(2), entry(3)];
    const surcharge = entry(4, { kind: 'surcharge', reference: '', minor: -90 });
    const last = entry(30);
    expect(verdicts([a, { ...b, minor: -410 }, a, surcharge], [ours(a), ours(b), ours(c), ours(last)])).toEqual([
      ['agrees', 0],
      ['sum-differs', -50],
      ['twice', -360],
      ['not-ours', -90],
      ['not-theirs', 360],
      ['next-month', 0],
    ]);
  });

  test('without a reference by kind and number, each of ours once; of another month nothing is missed', () => {
    const [a, b] = [entry(1, { reference: '' }), entry(2, { reference: '' })];
    const void_ = { ...a, kind: 'void' as const, minor: 360 };
    const own = [ours({ ...a, reference: 'label:x:1' }), ours({ ...void_, reference: 'void:TW1US' })];
    const early = ours(entry(-1));
    expect(verdicts([a, void_, b], [...own, early])).toEqual([
      ['agrees', 0],
      ['agrees', 0],
      ['not-ours', -360],
    ]);
  });

  test('opening against our books, and their own sum', () => {
    const statement = { openingMinor: 700, closingMinor: 400 };
    const { openingMinor, sumMinor } = compareStatement({ month: OCTOBER, ...statement, entries: [entry(1)] }, [], 650);
    expect([openingMinor, sumMinor]).toEqual([50, 60]);
    expect(compare([entry(1)], []).sumMinor).toBe(null);
  });

  test('whatever stands there: booking all that is left makes our month theirs, and then nothing is left', () => {
    const some = fc.record({
      at: fc.integer({ min: 0, max: 28 }),
      kind: fc.constantFrom('label', 'void', 'claim', 'surcharge', 'top-up', 'other'),
      key: fc.integer({ min: 0, max: 6 }),
      named: fc.boolean(),
      minor: fc.integer({ min: -5000, max: 5000 }).filter((minor) => minor !== 0),
    });
    fc.assert(
      fc.property(fc.array(some, { maxLength: 14 }), fc.array(some, { maxLength: 14 }), (theirs, mine) => {
        const entries = theirs.map(({ at, kind, key, named, minor }) =>
          entry(at, { kind, minor, number: `TW${key}US`, reference: named ? `${kind}:${key}` : '' } as never),
        );
        const moves = [
          ...new Map(
            mine.map(({ at, kind, key, minor }) => [
              `${kind}:${key}`,
              ours(entry(at, { kind, minor, number: `TW${key}US`, reference: `${kind}:${key}` } as never)),
            ]),
          ).values(),
        ];
        const before = compare(entries, moves).entries;
        const booked = before
          .filter(({ leftMinor }) => leftMinor !== 0)
          .map(
            ({ key, leftMinor }): OwnMove => ({
              ...{ key: correctionKey(OCTOBER, key), kind: 'correction', number: '', on: OCTOBER, minor: leftMinor },
            }),
          );
        const sum = (all: readonly { minor: number }[]) => all.reduce((whole, { minor }) => whole + minor, 0);
        expect(new Set(before.map(({ key }) => key)).size).toBe(before.length);
        expect(sum(moves) + sum(booked)).toBe(sum(entries));
        expect(compare(entries, [...moves, ...booked]).entries.every(({ leftMinor }) => leftMinor === 0)).toBe(true);
      }),
    );
  });
});
