import { desk } from '@/app/answer';
import { BulkActionInput } from '@/app/input/recurring-input';
import { sendBulk } from '@/flows/invoice/bulk-invoices';

export const POST = desk(BulkActionInput, (actor, { input, params }) =>
  sendBulk(actor, params.id ?? '', input.action === 'again'),
);
