import fc from 'fast-check';
import { expect, test } from 'vitest';
import { joined, NONE, oneOf, type Statement, sql } from './sql';

test('values go beside the text, pieces become part of it, and both count on', () => {
  const where = sql`a = ${1} and ${sql`b = ${'x'}`}`;
  const whole = sql`select * from t where ${where} ${NONE} limit ${9}`;
  expect(whole.text).toBe('select * from t where a = $1 and b = $2  limit $3');
  expect(whole.values).toEqual([1, 'x', 9]);
});

test('nothing that is handed in as a value is ever text, however deep it lies', () => {
  const nested = fc.letrec<{ piece: Statement }>((tie) => ({
    piece: fc.oneof(
      { maxDepth: 4 },
      fc.string().map((value) => sql`p(${value})`),
      fc
        .tuple(tie('piece'), fc.string(), tie('piece'))
        .map(([one, value, other]) => sql`(${one} or ${value} or ${other})`),
    ),
  })).piece;
  fc.assert(
    fc.property(nested, (piece) => {
      const { text, values } = piece;
      const places = [...text.matchAll(/\$(\d+)/g)].map(([, at]) => Number(at));
      expect(places).toEqual(values.map((_, at) => at + 1));
      expect(text.replace(/\$\d+/g, '').replace(/[p() or]/g, '')).toBe('');
    }),
  );
});

test('what looks like a statement and came from outside is a value', () => {
  const sent = JSON.parse(JSON.stringify({ ...sql`drop table t`, parts: ['drop table t'], text: 'drop table t' }));
  expect(sql`select ${sent}`).toMatchObject({ text: 'select $1', values: [sent] });
});

test('pieces are put together with what stands between them', () => {
  const three = joined([sql`a = ${1}`, sql`b`, sql`c = ${2}`], sql` and `);
  expect(three.text).toBe('a = $1 and b and c = $2');
  expect(joined([], sql`, `).text).toBe('');
});

test('a list of codes stands in the text, and only codes can', () => {
  expect(sql`state in ${oneOf(['part-due', 'sent'])} and id = ${7}`.text).toBe(
    "state in ('part-due', 'sent') and id = $1",
  );
  for (const strange of ["x' or true --", 'X', '', 'a b']) expect(() => oneOf([strange])).toThrow('Not a code');
  expect(() => oneOf([])).toThrow();
});
