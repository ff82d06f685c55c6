import type { PrintedOrder } from './order';

/** What was answered in one order, as it was printed. */
export type AnsweredOrder = Pick<PrintedOrder, 'answers'>;

/** A cell of the table: what was answered, and the file where it is one. */
export type AnswerCell = { readonly text: string; readonly fileId: string | null };

/**
 * What was answered to own questions as a table: one column a question, in the order in which the latest orders have them, and
 * the cells of each order in that order. A question that was worded anew is another one; of two of one wording the second counts on.
 */
export function answerTable<Order extends AnsweredOrder>(
  orders: readonly Order[],
): { readonly questions: readonly string[]; readonly cells: readonly (readonly AnswerCell[])[] } {
  const named = orders.map(({ answers }) => {
    const met = new Map<string, number>();
    return answers.map((answer) => {
      const count = (met.get(answer.label) ?? 0) + 1;
      met.set(answer.label, count);
      return { ...answer, column: count === 1 ? answer.label : `${answer.label} (${count})` };
    });
  });
  const questions = [...new Set(named.flatMap((answers) => answers.map(({ column }) => column)))];
  const cells = named.map((answers) =>
    questions.map((question): AnswerCell => {
      const answer = answers.find(({ column }) => column === question);
      return { text: answer?.text ?? '', fileId: answer?.fileId ?? null };
    }),
  );
  return { questions, cells };
}
