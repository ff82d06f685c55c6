import type { CustomsForm } from '../../src/core/customs/form';
import type { CalendarDate } from '../../src/core/dates/calendar-date';
import type { Asked } from './tariff';

/** How it goes with parcels by a word in the recipient's name: for trying each of them out. Others arrive as promised, mostly. */
export const BY_NAME = ['late', 'lost', 'damaged', 'returned', 'counter', 'missed', 'never', 'heavier'] as const;
export type Goes = (typeof BY_NAME)[number] | 'usual';

/** A label that was bought. */
export type Label = {
  readonly account: string;
  readonly key: string;
  readonly number: string;
  readonly currency: string;
  readonly service: string;
  readonly serviceName: string;
  readonly asked: Asked;
  readonly rateMinor: number;
  readonly insuranceMinor: number;
  readonly promisedOn: CalendarDate;
  readonly boughtAt: string;
  readonly customsForm?: CustomsForm;
  /** How it was said by hand to go; none where its recipient's name decides. */
  readonly goes?: Goes;
};
