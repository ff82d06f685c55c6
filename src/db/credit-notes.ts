import type { CalendarDate } from '@/core/dates/calendar-date';
import type { PrintedCredit } from '@/core/refund/printed-credit';
import type { KeptStep } from '@/core/refund/printed-document';
import type { Db, Tx } from './pool';
import { many, maybeOne, run, sql } from './sql';

/** A credit of an invoice, whole or part; amounts in minor units. */
export type CreditNote = {
  readonly id: string;
  readonly invoiceId: string;
  readonly number: string;
  readonly currency: string;
  readonly amountMinor: bigint;
  readonly taxMinor: bigint;
  readonly reason: string;
  /** How it credits the invoice. */
  readonly step: KeptStep;
  readonly printed: PrintedCredit;
  readonly issuedOn: CalendarDate;
};

const COLUMNS = sql`id, invoice_id as "invoiceId", number, currency, amount_minor as "amountMinor", tax_minor as "taxMinor", reason, step,
  printed, issued_on as "issuedOn"`;

export const insertCredit = (tx: Tx, credit: CreditNote, requestKey: string): Promise<number> =>
  run(
    tx,
    sql`insert into credit_notes (id, business_id, invoice_id, number, currency, amount_minor, tax_minor, reason, step, printed,
          issued_on, created_at, request_key)
        values (${credit.id}, ${tx.businessId}, ${credit.invoiceId}, ${credit.number}, ${credit.currency}, ${credit.amountMinor},
          ${credit.taxMinor}, ${credit.reason}, ${JSON.stringify(credit.step)}, ${JSON.stringify(credit.printed)}, ${credit.issuedOn}, ${tx.now}, ${requestKey})`,
  );

export const creditById = (db: Db, id: string): Promise<CreditNote | null> =>
  maybeOne(db, sql`select ${COLUMNS} from credit_notes where business_id = ${db.businessId} and id = ${id}`);

/** The credit that this press of the button made, if it came before. */
export const creditByRequest = (db: Db, requestKey: string): Promise<CreditNote | null> =>
  maybeOne(
    db,
    sql`select ${COLUMNS} from credit_notes where business_id = ${db.businessId} and request_key = ${requestKey}`,
  );

export const creditsOf = (db: Db, invoiceId: string): Promise<CreditNote[]> =>
  many(
    db,
    sql`select ${COLUMNS} from credit_notes where business_id = ${db.businessId} and invoice_id = ${invoiceId} order by created_at, id`,
  );
