import { desk, Nothing, textAnswer } from '@/app/answer';
import { transferFile } from '@/flows/payment/transfer-file';

export const GET = desk(Nothing, async (actor, { params }) => {
  const { name, text } = await transferFile(actor, params.id ?? '');
  return textAnswer(name, 'application/xml', text);
});
