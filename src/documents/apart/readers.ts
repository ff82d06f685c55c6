import { holidaysOf } from '@/documents/calendar/charges';
import { tableOf } from '@/documents/csv/read';
import { readRates } from '@/documents/rates/read';
import { readInvoiceXml } from '@/documents/ubl/read';

/** What is read of files that others wrote, by name: all of it can be made to take very long. */
export const READERS = { invoice: readInvoiceXml, rates: readRates, holidays: holidaysOf, table: tableOf } as const;
