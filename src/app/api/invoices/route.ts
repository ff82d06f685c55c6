import { wireRow } from '@/app/(desk)/ask/invoices/wire-row';
import { desk } from '@/app/answer';
import { InvoicePageInput } from '@/app/input/list-input';
import { StartInput } from '@/app/input/paper-input';
import { startInvoice } from '@/flows/draft';
import { moreInvoices } from '@/flows/invoice-list';
import { businessToday } from '@/flows/payment-list';

export const GET = desk(InvoicePageInput, async (actor, { input }) => {
  const { business, today } = await businessToday(actor);
  const page = await moreInvoices(actor, input.part, input);
  return { rows: page.rows.map((row) => wireRow(row, business, today)), next: page.next };
});

export const POST = desk(StartInput, async (actor, { input }) => ({ id: await startInvoice(actor, input) }));
