import { open } from '@/app/answer';
import { askBackByOrder } from '@/flows/returning/returns';
import { AskBackInput } from '@/input/return-input';

export const POST = open(
  AskBackInput,
  ({ params: { token = '' }, input: { requestKey, reason, words, fileId, lines } }) =>
    askBackByOrder(token, requestKey, {
      reason,
      words,
      fileId: fileId ?? null,
      lines: lines.map((line) => ({ ...line })),
    }),
);
