import { completePrinted, type PrintedInvoice } from '@/core/invoice/printed';
import type { FileDecision } from '@/core/paper/approval';
import type { PaymentMethod } from '@/core/payment/methods';
import type { RefusalReason } from '@/core/payment/outcome';
import type { TermsAccepted } from './invoices';
import type { Connection } from './pool';
import { maybeOne, sql } from './sql';

/** What the customer's page shows, read through the link in one query. Amounts in minor units. */
export type PayerView = {
  readonly businessId: string;
  readonly invoiceId: string;
  readonly printed: PrintedInvoice;
  readonly stage: 'sent' | 'cancelled';
  readonly paidMinor: bigint;
  readonly dueMinor: bigint;
  readonly creditedMinor: bigint;
  readonly refundedMinor: bigint;
  readonly totalMinor: bigint;
  /** The currency's smallest payment. */
  readonly smallestMinor: bigint;
  readonly zone: string;
  readonly termsAccepted: TermsAccepted | null;
  /** The open attempt that keeps others out, if there is one. */
  readonly pending: {
    readonly id: string;
    readonly approvalUrl: string | null;
    readonly expectedAt: string | null;
    readonly card: string | null;
  } | null;
  /** What open attempts hold, theirs included. */
  readonly heldMinor: bigint;
  /** Every open attempt, oldest first; `approval` where the holder's bank is asked. */
  readonly underWay: readonly {
    readonly amountMinor: number;
    readonly tipMinor: number;
    readonly approval: boolean;
    readonly expectedAt: string | null;
  }[];
  /** What a plan asks for of it now, part by part, and the parts that it counts as paid. */
  readonly askedMinor: bigint;
  readonly countedMinor: bigint;
  /** The latest attempt, if it was refused. */
  readonly refused: { readonly reason: RefusalReason; readonly at: string } | null;
  readonly receipts: readonly {
    readonly number: string;
    readonly amountMinor: number;
    readonly tipMinor: number;
    readonly at: string;
    readonly method: PaymentMethod;
    readonly card: string;
  }[];
  /** The latest word of each on each file. */
  readonly approvals: readonly FileDecision[];
};

export async function payerView(db: Connection, token: string): Promise<PayerView | null> {
  const view = await maybeOne<PayerView>(
    db,
    sql`select business_id as "businessId", invoice_id as "invoiceId", printed, stage, paid_minor as "paidMinor",
          due_minor as "dueMinor", credited_minor as "creditedMinor", refunded_minor as "refundedMinor",
          total_minor as "totalMinor", smallest_minor as "smallestMinor", zone, terms_accepted as "termsAccepted", pending,
          held_minor as "heldMinor", under_way as "underWay", refused, receipts, approvals, asked_minor as "askedMinor",
          counted_minor as "countedMinor"
        from payer_view(${token})`,
  );
  return view && { ...view, printed: completePrinted(view.printed) };
}
