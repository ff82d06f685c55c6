import { desk, textAnswer } from '@/app/answer';
import { exportCustomers } from '@/flows/records/export-customers';
import { ExportInput } from '@/input/list-input';

export const GET = desk(ExportInput, async (actor, { input }) => {
  const { name, text } = await exportCustomers(actor, input.form);
  return textAnswer(name, input.form === 'csv' ? 'text/csv' : 'text/vcard', text);
});
