import { desk } from '@/app/answer';
import { checkInvoices, importInvoices } from '@/flows/invoice/import-invoices';
import { InvoiceRowsInput, textRows } from '@/input/import-input';

export const POST = desk(InvoiceRowsInput, (actor, { input }) =>
  (input.write ? importInvoices : checkInvoices)(actor, textRows(input.rows), input.mapping),
);
