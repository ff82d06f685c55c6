import { desk } from '@/app/answer';
import { sendBulk } from '@/flows/invoice/bulk-invoices';
import { BulkActionInput } from '@/input/recurring-input';

export const POST = desk(BulkActionInput, (actor, { input, params }) =>
  sendBulk(actor, params.id ?? '', input.action === 'again'),
);
