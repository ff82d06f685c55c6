import type { Db, Tx } from './pool';
import { many, run, sql } from './sql';

/** What somebody decided about a file of an invoice; `approverId` where they were asked by name, `sha256` the file's as it was looked at. */
export type Approval = {
  readonly id: string;
  readonly fileId: string;
  readonly approverId: string | null;
  readonly decision: 'approved' | 'change';
  readonly comment: string;
  readonly byName: string;
  readonly sha256: string;
  readonly at: Date;
};

export const insertApproval = (tx: Tx, invoiceId: string, approval: Approval): Promise<number> =>
  run(
    tx,
    sql`insert into approvals (id, business_id, invoice_id, file_id, approver_id, decision, comment, by_name, sha256, decided_at)
        values (${approval.id}, ${tx.businessId}, ${invoiceId}, ${approval.fileId}, ${approval.approverId}, ${approval.decision}, ${approval.comment},
          ${approval.byName}, ${approval.sha256}, ${approval.at})`,
  );

/** The latest word of each on each file of an invoice. */
export const latestApprovals = (db: Db, invoiceId: string): Promise<Approval[]> =>
  many(
    db,
    sql`select distinct on (file_id, approver_id) id, file_id as "fileId", approver_id as "approverId", decision, comment, by_name as "byName", sha256, decided_at as at
        from approvals where business_id = ${db.businessId} and invoice_id = ${invoiceId}
        order by file_id, approver_id, decided_at desc, id desc`,
  );
