import { type CalendarDate, calendarDate } from '../dates/calendar-date';
import { instantInZone } from '../dates/zone';
import { jsonMinor } from '../money/money';
import { instalments } from '../plan/instalments';
import { RuleError } from '../rule-error';
import { firstDates, type Schedule } from '../schedule/schedule';
import { numberOf, Reader, textEntry } from './reader';

/** `instalments`: a total over several payments. */
export function answerInstalments(input: Reader): unknown {
  const leftover = input.has('leftover') ? input.text('leftover') : 'even';
  if (leftover !== 'even' && leftover !== 'last') throw new RuleError('bad_input', 'leftover: even or last');
  const payments = instalments(input.amount('total'), input.number('count'), input.amountOr('deposit', 0n), leftover);
  return { payments: payments.map(jsonMinor) };
}

const dateEntry = (value: unknown, path: string): CalendarDate => calendarDate(textEntry(value, path));

/** Reads a schedule; what is no part of the rule is `bad_schedule`, what is no day `bad_date`. */
function readSchedule(input: Reader): Schedule {
  const ends = input.has('ends') && !input.isText('ends') ? input.object('ends') : null;
  if (!ends && input.text('ends') !== 'never') throw new RuleError('bad_schedule', 'schedule.ends: never, on or after');
  if (ends && ends.has('on') === ends.has('after'))
    throw new RuleError('bad_schedule', 'schedule.ends: one of on and after');
  const monthDays = input.listOr(
    'monthDays',
    (value, path) => (value === 'last' ? value : numberOf(value, path)),
    undefined,
  );
  const weekdays = input.listOr('weekdays', numberOf, undefined);
  const weekend = input.weekend();
  return {
    // Checked by the rule itself, which names what it takes.
    unit: input.text('unit') as Schedule['unit'],
    every: input.number('every'),
    start: calendarDate(input.text('start')),
    ends: ends ? (ends.has('on') ? { on: calendarDate(ends.text('on')) } : { after: ends.number('after') }) : 'never',
    ...(monthDays ? { monthDays } : {}),
    ...(weekdays ? { weekdays } : {}),
    ...(weekend ? { weekend } : {}),
    ...(input.has('shift') ? { shift: input.text('shift') as NonNullable<Schedule['shift']> } : {}),
  };
}

/** `schedule`: the first dates of a rule, nominal and charged. */
export function answerSchedule(input: Reader): unknown {
  const limit = input.number('limit');
  if (!Number.isInteger(limit) || limit < 0) throw new RuleError('bad_input', 'limit: a whole number from 0 on');
  const holidays = input.listOr('holidays', dateEntry, []);
  const pauses = input.listOr(
    'pauses',
    (value, path) => {
      const pause = Reader.of(value, path);
      return { from: calendarDate(pause.text('from')), to: calendarDate(pause.text('to')) };
    },
    [],
  );
  return firstDates(readSchedule(input.object('schedule')), { holidays, pauses }, limit);
}

/** `instants`: the charge hour of days in a zone, in UTC. */
export function answerInstants(input: Reader): unknown {
  const zone = input.text('zone');
  const hour = input.text('hour');
  const dates = input.list('dates', dateEntry);
  // An empty list asks nothing of the zone, but a zone that is none is refused all the same.
  instantInZone('2026-01-01' as CalendarDate, hour, zone);
  return { instants: dates.map((date) => instantInZone(date, hour, zone).toISOString().replace('.000Z', 'Z')) };
}
