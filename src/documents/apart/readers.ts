import { decoded } from '@/core/file/decoded';
import { holidaysOf } from '@/documents/calendar/charges';
import { tableOf } from '@/documents/csv/read';
import { readHybrid } from '@/documents/pdf/embedded';
import { readRates } from '@/documents/rates/read';
import { readInvoiceXml } from '@/documents/xml/read-invoice';

const readInvoice = (bytes: Uint8Array) => readInvoiceXml(decoded(bytes).text);

/** What is read of files that others wrote, by name: all of it can be made to take very long. */
export const READERS = {
  invoice: readInvoice,
  hybrid: readHybrid,
  rates: readRates,
  holidays: holidaysOf,
  table: tableOf,
} as const;
