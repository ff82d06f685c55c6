import { desk } from '@/app/answer';
import { keepReceiptStyle } from '@/flows/records/profile';
import { ReceiptStyleInput } from '@/input/offer-records-input';

export const PUT = desk(ReceiptStyleInput, (actor, { input }) =>
  keepReceiptStyle(actor, { ...input, signature: input.signature ?? null, seal: input.seal ?? null }),
);
