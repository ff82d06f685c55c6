import { fileAnswer, Nothing, open } from '@/app/answer';
import { returnLabelByInvoice } from '@/flows/returning/return-label';

export const GET = open(Nothing, async ({ params: { token = '', id = '' } }) =>
  fileAnswer(await returnLabelByInvoice(token, id)),
);
