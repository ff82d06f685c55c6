import { type CalendarDate, daysBetween } from '../dates/calendar-date';
import { inRange } from '../money/money';

/** What is due by how late it is, in minor units. */
export type Ageing = {
  readonly notDue: bigint;
  readonly d1to30: bigint;
  readonly d31to60: bigint;
  readonly d61to90: bigint;
  readonly over90: bigint;
};

function bucket(late: number): keyof Ageing {
  if (late <= 0) return 'notDue';
  if (late <= 30) return 'd1to30';
  if (late <= 60) return 'd31to60';
  return late <= 90 ? 'd61to90' : 'over90';
}

/** By due date against today in the business's zone; on the due date itself nothing is late. @throws RuleError `amount_out_of_range` */
export function ageing(today: CalendarDate, documents: readonly { dueOn: CalendarDate; due: bigint }[]): Ageing {
  const sums: Record<keyof Ageing, bigint> = { notDue: 0n, d1to30: 0n, d31to60: 0n, d61to90: 0n, over90: 0n };
  for (const { dueOn, due } of documents) {
    const into = bucket(daysBetween(dueOn, today));
    sums[into] = inRange(sums[into] + due);
  }
  return sums;
}
