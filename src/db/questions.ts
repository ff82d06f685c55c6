import type { Db, Tx } from './pool';
import { many, maybeOne, run, sql } from './sql';

/** A customer's question about an invoice, and its answer once there is one. */
export type Question = {
  readonly id: string;
  readonly invoiceId: string;
  readonly text: string;
  readonly byName: string;
  readonly askedAt: Date;
  readonly answer: string | null;
};

const COLUMNS = sql`id, invoice_id as "invoiceId", text, by_name as "byName", asked_at as "askedAt", answer`;

export const insertQuestion = (tx: Tx, question: Question): Promise<number> =>
  run(
    tx,
    sql`insert into questions (id, business_id, invoice_id, text, by_name, asked_at)
        values (${question.id}, ${tx.businessId}, ${question.invoiceId}, ${question.text}, ${question.byName}, ${question.askedAt})`,
  );

export const questionById = (db: Db, id: string): Promise<Question | null> =>
  maybeOne(db, sql`select ${COLUMNS} from questions where business_id = ${db.businessId} and id = ${id}`);

export const questionsOf = (db: Db, invoiceId: string): Promise<Question[]> =>
  many(
    db,
    sql`select ${COLUMNS} from questions where business_id = ${db.businessId} and invoice_id = ${invoiceId} order by asked_at, id`,
  );

/** Questions that nobody has answered, oldest first, with whose invoice they are about. */
export const openQuestions = (
  db: Db,
  limit: number,
): Promise<(Question & { number: string; customer: string; customerId: string })[]> =>
  many(
    db,
    sql`select questions.id, questions.invoice_id as "invoiceId", text, by_name as "byName", asked_at as "askedAt", answer,
          invoices.number, customers.name as customer, customers.id as "customerId"
        from questions
        join invoices on invoices.business_id = questions.business_id and invoices.id = questions.invoice_id
        join customers on customers.business_id = invoices.business_id and customers.id = invoices.customer_id
        where questions.business_id = ${db.businessId} and answer is null order by asked_at, questions.id limit ${limit}`,
  );

/** Answers a question; true the first time. */
export async function updateAnswered(
  tx: Tx,
  id: string,
  answer: { text: string; byName: string; at: Date },
): Promise<boolean> {
  const touched = await run(
    tx,
    sql`update questions set answer = ${answer.text}, answered_by = ${answer.byName}, answered_at = ${answer.at}
        where business_id = ${tx.businessId} and id = ${id} and answer is null`,
  );
  return touched === 1;
}
