import { expect, test } from 'vitest';
import { calendarDate } from '@/core/dates/calendar-date';
import { NotReadable, readApart, WrongFile } from './read-apart';

const FROM = calendarDate('2026-11-01');
const UNTIL = calendarDate('2029-11-01');

const calendar = (event: string) =>
  `BEGIN:VCALENDAR\r\nVERSION:2.0\r\nBEGIN:VEVENT\r\nUID:1\r\n${event}\r\nEND:VEVENT\r\nEND:VCALENDAR\r\n`;

test('a file is read as without the thread, and a wrong one says why', async () => {
  const text = calendar('DTSTART;VALUE=DATE:20270101\r\nSUMMARY:New year');
  expect(await readApart('holidays', [text, FROM, UNTIL])).toEqual([{ on: '2027-01-01', name: 'New year' }]);
  expect(await readApart('table', ['a;b\n1;2\n', ['b']])).toEqual([{ b: '2' }]);
  await expect(readApart('invoice', [Buffer.from('<Note/>')])).rejects.toThrow(WrongFile);
});

test('a file that takes too long is given up, and the next one is read all the same', async () => {
  const large = `a;b\n${'1;2\n'.repeat(500_000)}`;
  const [slow, fine] = await Promise.allSettled([
    readApart('table', [large, ['a']], 1),
    readApart('table', ['a\n1\n', ['a']]),
  ]);
  expect(slow).toMatchObject({ status: 'rejected', reason: expect.any(NotReadable) });
  expect(fine).toEqual({ status: 'fulfilled', value: [{ a: '1' }] });
});

test('a file that would take all memory ends its thread only', async () => {
  const columns = 6000;
  const heading = Array.from({ length: columns }, (_, at) => `c${at}`).join(',');
  const wide = `${heading}\n${`${'1,'.repeat(columns - 1)}1\n`.repeat(columns)}`;
  await expect(readApart('table', [wide, ['c1']], 120_000)).rejects.toThrow(NotReadable);
  expect(await readApart('table', ['a\n1\n', ['a']])).toEqual([{ a: '1' }]);
});
