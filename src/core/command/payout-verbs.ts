import { type CalendarDate, calendarDate } from '../dates/calendar-date';
import { jsonMinor } from '../money/money';
import { type PayoutSchedule, payouts } from '../payout/payouts';
import { RuleError } from '../rule-error';
import { Reader, signedAmount, textEntry } from './reader';

const dateEntry = (value: unknown, path: string): CalendarDate => calendarDate(textEntry(value, path));

function readSchedule(input: Reader): PayoutSchedule {
  const kind = input.text('kind');
  if (kind === 'weekly') return { kind, weekday: input.number('weekday') };
  if (kind === 'monthly') return { kind, day: input.number('day') };
  if (kind !== 'daily') throw new RuleError('bad_schedule', 'schedule.kind: daily, weekly or monthly');
  return { kind };
}

/** `payouts`: which payouts days lead to. */
export function answerPayouts(input: Reader): unknown {
  const days = input.list('days', (value, path) => {
    const day = Reader.of(value, path);
    return { day: calendarDate(day.text('day')), net: signedAmount(day, 'net') };
  });
  const weekend = input.weekend();
  const reserve = input.has('reserve') ? input.object('reserve') : null;
  const minimum = input.has('minimum') ? input.amount('minimum') : undefined;
  const found = payouts(
    days,
    {
      schedule: readSchedule(input.object('schedule')),
      ...(input.has('lag') ? { lag: input.number('lag') } : {}),
      ...(minimum === undefined ? {} : { minimum }),
      ...(reserve
        ? { reserve: { percent: reserve.decimal('percent', 'bad_rate'), days: reserve.number('days') } }
        : {}),
      holidays: input.listOr('holidays', dateEntry, []),
      ...(weekend ? { weekend } : {}),
    },
    calendarDate(input.text('until')),
  );
  return {
    payouts: found.payouts.map(({ on, amount, days: of, reserved, released, carried }) => ({
      on,
      amount: jsonMinor(amount),
      days: of,
      reserved: jsonMinor(reserved),
      released: jsonMinor(released),
      carried: jsonMinor(carried),
    })),
    left: jsonMinor(found.left),
  };
}
