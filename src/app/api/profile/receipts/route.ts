import { desk } from '@/app/answer';
import { ReceiptStyleInput } from '@/app/input/offer-records-input';
import { keepReceiptStyle } from '@/flows/records/profile';

export const PUT = desk(ReceiptStyleInput, (actor, { input }) =>
  keepReceiptStyle(actor, { ...input, signature: input.signature ?? null, seal: input.seal ?? null }),
);
