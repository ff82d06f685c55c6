import { jsonRow } from '@/app/(desk)/ask/invoices/json-row';
import { desk } from '@/app/answer';
import { startInvoice } from '@/flows/invoice/draft';
import { moreInvoices } from '@/flows/invoice/invoice-list';
import { businessToday } from '@/flows/payment/payment-list';
import { InvoicePageInput } from '@/input/list-input';
import { StartInput } from '@/input/paper-input';

export const GET = desk(InvoicePageInput, async (actor, { input }) => {
  const { business, today } = await businessToday(actor);
  const page = await moreInvoices(actor, input.part, input);
  return { rows: page.rows.map((row) => jsonRow(row, business, today)), next: page.next };
});

export const POST = desk(StartInput, async (actor, { input }) => ({ id: await startInvoice(actor, input) }));
