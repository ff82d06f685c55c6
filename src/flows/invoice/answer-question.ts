import { invoiceById } from '@/db/invoices';
import { questionById, updateAnswered } from '@/db/questions';
import { addToTimeline } from '@/db/timeline';
import { desk } from '@/flows/door/operation';
import { Refusal } from '@/flows/door/refusal';
import { found } from '@/flows/door/rights';
import { queueMessage } from '@/flows/message/queue-message';

/** Answers a customer's question by mail, once. @throws Refusal `customer-without-email` */
export const answerQuestion = desk('ask').write(async (tx, questionId: string, text: string): Promise<void> => {
  const question = found(await questionById(tx, questionId));
  const invoice = found(await invoiceById(tx, question.invoiceId));
  const { payer } = found(invoice.printed);
  if (!payer.email) throw new Refusal('customer-without-email');
  if (!(await updateAnswered(tx, questionId, { text, byName: tx.name, at: tx.now }))) return;
  await addToTimeline(tx, invoice.id, { kind: 'answer', text }, tx.name);
  await queueMessage(tx, {
    kind: 'answer',
    key: `answer:${questionId}`,
    invoiceId: invoice.id,
    toName: payer.name,
    toAddress: payer.email,
    details: { text, subject: question.text },
  });
});
