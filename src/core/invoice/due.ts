import { addDays, type CalendarDate, isCalendarDate, monthEnd } from '../dates/calendar-date';
import type { DueChoice, Paper } from '../paper/paper';

/** The day a choice means when the invoice is issued on `issuedOn`; null for a date that does not exist. */
export function dueDate(due: DueChoice, issuedOn: CalendarDate): CalendarDate | null {
  if (due.kind === 'receipt') return issuedOn;
  if (due.kind === 'days') return addDays(issuedOn, due.days);
  if (due.kind === 'month-end') return monthEnd(issuedOn);
  return isCalendarDate(due.date) ? due.date : null;
}

/** The day of issue: as chosen, or the day of sending. */
export const issueDate = (paper: Paper, today: CalendarDate): CalendarDate =>
  isCalendarDate(paper.issuedOn) ? paper.issuedOn : today;
