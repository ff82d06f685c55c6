import { desk, textAnswer } from '@/app/answer';
import { ExportInput } from '@/app/input/list-input';
import { exportCustomers } from '@/flows/records/export-customers';

export const GET = desk(ExportInput, async (actor, { input }) => {
  const { name, text } = await exportCustomers(actor, input.form);
  return textAnswer(name, input.form === 'csv' ? 'text/csv' : 'text/vcard', text);
});
