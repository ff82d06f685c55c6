/** A billing plan written at once, by another program. */
import type { CalendarDate } from '@/core/dates/calendar-date';
import { isCalendarDate } from '@/core/dates/calendar-date';
import { businessById } from '@/db/businesses';
import { desk } from '@/flows/door/operation';
import { Refusal } from '@/flows/door/refusal';
import { emptyPaper } from '@/flows/invoice/draft';
import { customerFor, paperLine, type WrittenLine } from '@/flows/invoice/write-invoice';
import { writePlan } from './plans';

/** Writes a membership down as a draft. Returns its id. @throws Refusal `paper-not-ready`, `plan-not-ready` */
export const writePlanAtOnce = desk('ask').write(
  async (
    tx,
    asked: {
      readonly customerId: string;
      readonly name: string;
      readonly lines: readonly WrittenLine[];
      readonly start: string;
      readonly unit: 'day' | 'week' | 'month' | 'year';
      readonly every: number;
      /** After so many it ends; null for one that goes on. */
      readonly charges: number | null;
      readonly pay: 'card' | 'invoice';
      readonly memo: string;
      readonly reference: string;
    },
  ): Promise<string> => {
    if (!isCalendarDate(asked.start))
      throw new Refusal('plan-not-ready', [{ field: 'start', words: 'There is no such day.' }]);
    const business = await businessById(tx);
    const customer = await customerFor(tx, asked.customerId);
    const { unit, every, charges, name, pay, memo, reference } = asked;
    return writePlan(
      tx,
      {
        memo,
        reference,
        terms: {
          kind: 'membership',
          name,
          paper: { ...emptyPaper(business, customer), lines: asked.lines.map(paperLine) },
          schedule: {
            unit,
            every,
            start: asked.start as CalendarDate,
            ends: charges === null ? 'never' : { after: charges },
          },
          firstNow: false,
          setUp: '',
          freeFirst: false,
          deposit: '',
          leftover: 'even',
          pay,
          receipts: true,
          noticeDays: null,
        },
      },
      { customerId: customer.id, currency: customer.currency || business.currency },
    );
  },
);
