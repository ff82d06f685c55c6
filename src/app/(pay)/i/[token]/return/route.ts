import { open } from '@/app/answer';
import { askBackByInvoice } from '@/flows/returning/returns';
import { AskBackInput } from '@/input/return-input';

export const POST = open(
  AskBackInput,
  ({ params: { token = '' }, input: { requestKey, reason, words, fileId, lines } }) =>
    askBackByInvoice(token, requestKey, {
      reason,
      words,
      fileId: fileId ?? null,
      lines: lines.map((line) => ({ ...line })),
    }),
);
