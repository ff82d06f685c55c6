import { fileAnswer, Nothing, open } from '@/app/answer';
import { returnLabelByOrder } from '@/flows/returning/return-label';

export const GET = open(Nothing, async ({ params: { token = '', id = '' } }) =>
  fileAnswer(await returnLabelByOrder(token, id)),
);
