import { expect, test } from 'vitest';
import type { CalendarDate } from '@/core/dates/calendar-date';
import { chargesCalendar, holidaysOf } from './charges';

const day = (text: string) => text as CalendarDate;

test('days off are read from an iCalendar file: single, of several days, and coming again every year', () => {
  const file = [
    'BEGIN:VCALENDAR',
    'VERSION:2.0',
    'BEGIN:VEVENT',
    'UID:1',
    'SUMMARY:Founders’ Day',
    'DTSTART;VALUE=DATE:20260706',
    'DTEND;VALUE=DATE:20260708',
    'END:VEVENT',
    'BEGIN:VEVENT',
    'UID:2',
    'SUMMARY:New Year',
    'DTSTART;VALUE=DATE:20200101',
    'DTEND;VALUE=DATE:20200102',
    'RRULE:FREQ=YEARLY',
    'END:VEVENT',
    'END:VCALENDAR',
  ].join('\r\n');
  expect(holidaysOf(file, day('2026-01-01'), day('2027-12-31'))).toEqual([
    { on: '2026-01-01', name: 'New Year' },
    { on: '2026-07-06', name: 'Founders’ Day' },
    { on: '2026-07-07', name: 'Founders’ Day' },
    { on: '2027-01-01', name: 'New Year' },
  ]);
  expect(holidaysOf('nothing of the kind', day('2026-01-01'), day('2026-12-31'))).toBeNull();
});

test('charges go out as all-day events that a reader takes in again', () => {
  const text = chargesCalendar(
    'Sallow; Joinery',
    [{ id: 'a', on: day('2026-12-31'), words: '$22.00, Otto Reed', more: 'Care club' }],
    new Date('2026-11-23T18:05:06Z'),
  );
  // A moment in UTC, never a day (RFC 5545, 3.8.7.2).
  expect(text).toContain('DTSTAMP:20261123T180506Z');
  expect(text).toContain('DTSTART;VALUE=DATE:20261231');
  expect(text).toContain('SUMMARY:$22.00\\, Otto Reed');
  expect(holidaysOf(text, day('2026-01-01'), day('2027-01-01'))).toEqual([
    { on: '2026-12-31', name: '$22.00, Otto Reed' },
  ]);
});
