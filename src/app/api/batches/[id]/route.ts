import { desk } from '@/app/answer';
import { BatchDeedInput } from '@/app/input/repeat-input';
import { sendBatch } from '@/flows/batch';

export const POST = desk(BatchDeedInput, (actor, { input, params }) =>
  sendBatch(actor, params.id ?? '', input.deed === 'again'),
);
