/** What plans without an end bring, beyond the dozen charges that are written down: sums, list, file, calendar and Today. */
import { beforeEach, expect, test } from 'vitest';
import type { CalendarDate } from '@/core/dates/calendar-date';
import { instantInZone } from '@/core/dates/zone';
import { todayView } from '@/flows/day/today';
import { pauseRecurring, startRecurring } from '@/flows/invoice/recurring';
import { planTerms, runningPlan, setClock } from '../../../tests/support/plans';
import { foundHouse, type House, keptDraft, plainPaper, sharedWorkshop } from '../../../tests/support/workshop';
import { calendarFeed } from './calendar-feed';
import { pausePlan } from './change-plan';
import {
  planFigures,
  type UpcomingPage,
  upcomingCharges,
  upcomingCsv,
  upcomingMonth,
  upcomingSetting,
} from './upcoming';

const workshop = await sharedWorkshop();
let house: House;
let daily: string;
beforeEach(async () => {
  house = await foundHouse();
  await setClock(workshop.standIns, instantInZone('2027-01-01' as CalendarDate, '07:00', house.business.zone));
  const often = planTerms(house, '2027-01-01', { name: 'Practice room', schedule: { unit: 'day' } });
  daily = (await runningPlan(house, workshop.standIns, often, ['corvid-good'], 'Daily Dora')).id;
  await runningPlan(house, workshop.standIns, planTerms(house, '2027-01-31'), ['corvid-good'], 'Monthly Mo');
  const few = planTerms(house, '2027-01-04', { name: 'Course', schedule: { unit: 'week', ends: { after: 15 } } });
  await runningPlan(house, workshop.standIns, few, ['corvid-good'], 'Weekly Wim');
});

const ALL = { words: '', state: '', from: '', to: '', notCarried: false } as const;
const linesOf = async (words: Parameters<typeof upcomingCsv>[1]) =>
  (await upcomingCsv(house.reader, words)).trim().split('\r\n').slice(1);

test('Today, the month, the file and the calendar hold what any span asks for, to the last day', async () => {
  const { horizon } = await todayView(house.reader);
  // From 1 January to 12 February: 43 days, 6 Mondays, one month's end; 22.00 each.
  expect(horizon.expected).toBe(50n * 2200n);
  const far = await upcomingMonth(house.reader, '2029-02', ALL);
  expect(far).toHaveLength(28);
  expect(far.at(-1)).toEqual({ on: '2029-02-28', currency: 'USD', state: 'upcoming', count: 2, minor: 4400n });
  const span = { ...ALL, from: '2027-01-01', to: '2028-12-31' };
  // 731 days, 24 months' ends, 15 weeks.
  expect(await linesOf(span)).toHaveLength(731 + 24 + 15);
  expect(new Set(await linesOf(span)).size).toBe(731 + 24 + 15);
  // Without an end the longest that is written down or a year: 366 days, 12 months' ends up to 31 December and one more is written.
  expect((await linesOf(ALL)).filter((line) => line.includes('Daily Dora')).at(-1)).toMatch(/^2028-01-31/);
  expect(await linesOf({ ...span, words: 'wim' })).toHaveLength(15);
  expect(await linesOf({ ...span, state: 'charged' })).toHaveLength(0);
  const feed = await calendarFeed((await upcomingSetting(house.owner)).feed.split('/').at(-1) ?? '');
  // 400 days and today, 13 months' ends, 15 weeks.
  expect(feed.match(/BEGIN:VEVENT/g)).toHaveLength(401 + 13 + 15);
  const { months } = await planFigures(house.reader);
  expect(months.find(({ month }) => month === '2027-03')?.expectedMinor).toBe((31n + 1n + 5n) * 2200n);
});

test('the list turned page by page is the file, in order and each charge once; a paused plan brings nothing', async () => {
  const span = { ...ALL, from: '2027-01-01', to: '2027-12-31' };
  const rows: string[] = [];
  let after: UpcomingPage['next'] = null;
  do {
    const page: UpcomingPage = await upcomingCharges(house.reader, span, after);
    rows.push(...page.rows.map(({ chargedOn, customer }) => `${chargedOn},${customer}`));
    after = page.next;
  } while (after);
  expect(rows).toEqual((await linesOf(span)).map((line) => line.split(',').slice(0, 2).join(',')));
  expect(rows).toHaveLength(365 + 12 + 15);
  await pausePlan(house.owner, daily);
  expect(await linesOf({ ...span, words: 'dora' })).toHaveLength(0);
});

test('a recurring invoice that sends itself is expected on the days on which it will be due; a draft, a paused one and what is sent already are not', async () => {
  await setClock(workshop.standIns, instantInZone('2027-03-01' as CalendarDate, '07:00', house.business.zone));
  const own = await foundHouse('Recurring');
  const expected = async () => (await todayView(own.reader)).horizon.expected;
  const paper = plainPaper(own, { due: { kind: 'days', days: 14 } });
  const draft = await keptDraft(own, paper);
  const recur = (makes: 'send' | 'draft', start: string) =>
    startRecurring(own.owner, draft, {
      name: 'Tuning',
      schedule: { unit: 'week', every: 1, start: start as CalendarDate, ends: 'never' },
      makes,
    });
  expect(await expected()).toBe(0n);
  await recur('draft', '2027-03-02');
  expect(await expected()).toBe(0n);
  const id = await recur('send', '2027-03-02');
  // Made on 2, 9, 16, 23 and 30 March, due a fortnight later, up to 12 April: 16, 23, 30 March and 6 April; 13 April is too late.
  expect(await expected()).toBe(4n * 11_000n);
  await pauseRecurring(own.owner, id);
  expect(await expected()).toBe(0n);
});
