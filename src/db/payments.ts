import type { PaymentMethod } from '@/core/payment/methods';
import { type CardSeen, methodOf, type RefusalReason } from '@/core/payment/outcome';
import type { Db, Tx } from './pool';
import { many, maybeOne, one, records, run, sql } from './sql';

export type PaymentState = 'pending' | 'paid' | 'refused' | 'voided';
export type Channel = 'invoice' | 'link' | 'page' | 'button' | 'plan' | 'desk';

/** One payment or attempt to pay; amounts in minor units. A card payment's id is also the idempotency key at the processor. */
export type Payment = {
  readonly id: string;
  /** What it pays: an invoice, or else an order. */
  readonly invoiceId: string | null;
  readonly orderId: string | null;
  /** The charge of a billing plan that made it. */
  readonly chargeId: string | null;
  /** Null while an order is not paid: only then does its payer become a customer. */
  readonly customerId: string | null;
  readonly attemptKey: string;
  readonly channel: Channel;
  readonly currency: string;
  readonly amountMinor: bigint;
  /** On top of the amount. */
  readonly tipMinor: bigint;
  readonly feeMinor: bigint;
  readonly agreedFeeMinor: bigint | null;
  readonly refundedMinor: bigint;
  readonly method: PaymentMethod;
  readonly reference: string;
  readonly state: PaymentState;
  readonly saleId: string | null;
  readonly approvalUrl: string | null;
  /** When it will be known whether a bank debit is paid; null for whatever is known at once. */
  readonly expectedAt: Date | null;
  readonly cardScheme: string | null;
  readonly cardLast4: string | null;
  readonly reason: RefusalReason | null;
  /** Whether its card's holder asked for it back, and how that ended; null where not. */
  readonly dispute: 'open' | 'won' | 'lost' | null;
  /** Whether it is a bank debit that the payer's bank took back. */
  readonly cameBack: boolean;
  /** The gift voucher that paid it, and the card payment of the same order that it goes along with. */
  readonly voucherId: string | null;
  readonly besideId: string | null;
  readonly startedAt: Date;
  readonly settledAt: Date | null;
};

const PAYMENT = sql`payments.id, payments.invoice_id as "invoiceId", payments.order_id as "orderId",
  payments.charge_id as "chargeId", payments.customer_id as "customerId",
  payments.attempt_key as "attemptKey", payments.channel,
  payments.currency, payments.amount_minor as "amountMinor", payments.tip_minor as "tipMinor", payments.fee_minor as "feeMinor",
  payments.agreed_fee_minor as "agreedFeeMinor",
  payments.refunded_minor as "refundedMinor",
  payments.method, payments.reference, payments.state,
  payments.sale_id as "saleId", payments.approval_url as "approvalUrl", payments.expected_at as "expectedAt", payments.card_scheme as "cardScheme",
  payments.card_last4 as "cardLast4", payments.reason, payments.dispute, payments.came_back as "cameBack", payments.voucher_id as "voucherId", payments.beside_id as "besideId", payments.started_at as "startedAt", payments.settled_at as "settledAt"`;

export const paymentById = (db: Db, id: string): Promise<Payment | null> =>
  maybeOne(db, sql`select ${PAYMENT} from payments where business_id = ${db.businessId} and id = ${id}`);

/** Payments by id, locked until the transaction ends: an outcome is written down once. */
export const lockedPayments = (tx: Tx, ids: readonly string[]): Promise<Payment[]> =>
  many(
    tx,
    sql`select ${PAYMENT} from payments where business_id = ${tx.businessId} and id = any(${[...ids]}) order by id for update`,
  );

/** Those of these payments whose outcome is still open. */
export const openPayments = (db: Db, ids: readonly string[]): Promise<Payment[]> =>
  many(
    db,
    sql`select ${PAYMENT} from payments where business_id = ${db.businessId} and id = any(${[...ids]}) and state = 'pending' order by id`,
  );

/** The invoice's attempt that carries the payer's key, if this click came before. */
export const paymentByAttempt = (db: Db, invoiceId: string, attemptKey: string): Promise<Payment | null> =>
  maybeOne(
    db,
    sql`select ${PAYMENT} from payments where business_id = ${db.businessId} and attempt_key = ${attemptKey} and invoice_id = ${invoiceId}`,
  );

/** Whether anything was tried under this key. */
export async function isAttemptUsed(db: Db, attemptKey: string): Promise<boolean> {
  const row = await maybeOne(
    db,
    sql`select 1 from payments where business_id = ${db.businessId} and attempt_key = ${attemptKey}`,
  );
  return row !== null;
}

/** The order's attempts, latest first; a voucher's beside a card's is part of that one. */
export const orderPayments = (db: Db, orderId: string): Promise<Payment[]> =>
  many(
    db,
    sql`select ${PAYMENT} from payments where business_id = ${db.businessId} and order_id = ${orderId} and beside_id is null
      order by started_at desc, id desc`,
  );

/** What went through beside a payment for the same order: the card's with a voucher's, or a voucher's with the card's. */
export const paidTogether = (db: Db, { id, orderId }: Pick<Payment, 'id' | 'orderId'>): Promise<Payment[]> =>
  many(
    db,
    sql`select ${PAYMENT} from payments where business_id = ${db.businessId} and order_id = ${orderId} and id <> ${id}
          and state in ('paid', 'voided')
        order by started_at, id`,
  );

/** What gift vouchers pay along with a payment, in the order in which they were typed. */
export const besidePayments = (db: Db, id: string): Promise<Payment[]> =>
  many(
    db,
    sql`select ${PAYMENT} from payments where business_id = ${db.businessId} and beside_id = ${id} order by started_at, id`,
  );

/** Notes that what vouchers pay went through. */
export const updateVoucherPaid = (tx: Tx, ids: readonly string[], customerId: string): Promise<number> =>
  run(
    tx,
    sql`update payments set state = 'paid', customer_id = ${customerId}, settled_at = ${tx.now}
        where business_id = ${tx.businessId} and id = any(${[...ids]}::uuid[]) and state = 'pending' and method = 'voucher'`,
  );

/** The card was refused: what went along with it is, too. */
export const updateBesideRefused = (tx: Tx, id: string): Promise<number> =>
  run(
    tx,
    sql`update payments set state = 'refused', settled_at = ${tx.now}
        where business_id = ${tx.businessId} and beside_id = ${id} and state = 'pending'`,
  );

/** Notes what was given back of a payment; a voided one never was. */
export const updateRefunded = (
  tx: Tx,
  id: string,
  moreMinor: bigint,
  { isVoid = false, cameBack = false }: { readonly isVoid?: boolean; readonly cameBack?: boolean },
): Promise<number> =>
  run(
    tx,
    sql`update payments set refunded_minor = refunded_minor + ${moreMinor}, state = ${isVoid ? 'voided' : 'paid'},
          came_back = came_back or ${cameBack}
        where business_id = ${tx.businessId} and id = ${id} and state = 'paid'`,
  );

/** What open attempts hold of each of these invoices, in minor units: it is spoken for until they are settled. */
export async function heldOfInvoices(db: Db, invoiceIds: readonly string[]): Promise<Map<string, bigint>> {
  const rows = await many<{ invoiceId: string; held: bigint }>(
    db,
    sql`select invoice_id as "invoiceId", sum(amount_minor)::bigint as held from payments
        where business_id = ${db.businessId} and invoice_id = any(${[...invoiceIds]}) and state = 'pending' group by invoice_id`,
  );
  return new Map(rows.map(({ invoiceId, held }) => [invoiceId, held]));
}

/** The same of one invoice. */
export const heldByPending = async (db: Db, invoiceId: string): Promise<bigint> =>
  (await heldOfInvoices(db, [invoiceId])).get(invoiceId) ?? 0n;

/** The invoice's open attempt that keeps others out: there is one at most. */
export const pendingPayment = (db: Db, invoiceId: string): Promise<Payment | null> =>
  maybeOne(
    db,
    sql`select ${PAYMENT} from payments where business_id = ${db.businessId} and invoice_id = ${invoiceId} and state = 'pending' and exclusive`,
  );

/** Every open attempt on an invoice, oldest first: each is under way, whether it keeps others out or not. */
export const openAttempts = (db: Db, invoiceId: string): Promise<Payment[]> =>
  many(
    db,
    sql`select ${PAYMENT} from payments where business_id = ${db.businessId} and invoice_id = ${invoiceId} and state = 'pending'
      order by started_at, id limit 20`,
  );

/** How many cards were refused at an invoice since an instant. */
export async function refusedOfInvoice(db: Db, invoiceId: string, since: Date): Promise<number> {
  const row = await one<{ refused: number }>(
    db,
    sql`select count(*)::int as refused from payments
        where business_id = ${db.businessId} and invoice_id = ${invoiceId} and started_at > ${since} and state = 'refused'`,
  );
  return row.refused;
}

/** Nothing had to be paid: settled without a card. */
export const updatePaymentFree = (tx: Tx, id: string, customerId: string): Promise<number> =>
  run(
    tx,
    sql`update payments set state = 'paid', method = 'other', customer_id = ${customerId}, settled_at = ${tx.now}
        where business_id = ${tx.businessId} and id = ${id} and state = 'pending' and amount_minor = 0`,
  );

/** An attempt to pay by card, as it is written down before the processor hears of it. */
export type NewPayment = Pick<
  Payment,
  'id' | 'invoiceId' | 'orderId' | 'customerId' | 'channel' | 'currency' | 'amountMinor' | 'tipMinor' | 'attemptKey'
> & {
  readonly chargeId?: string;
  readonly exclusive: boolean;
  /** Where it is known before the processor says it. */
  readonly method?: 'card' | 'debit' | 'voucher';
  readonly voucherId?: string;
  readonly besideId?: string;
  /** Of a voucher: the end of its code. */
  readonly reference?: string;
};

export const insertPayments = (tx: Tx, payments: readonly NewPayment[]): Promise<number> =>
  run(
    tx,
    sql`insert into payments (id, business_id, invoice_id, order_id, charge_id, customer_id, channel, currency, amount_minor, tip_minor,
          exclusive, method, voucher_id, beside_id, reference, state, attempt_key, started_at)
        select id, ${tx.businessId}, "invoiceId", "orderId", "chargeId", "customerId", channel, currency, "amountMinor", "tipMinor",
          exclusive, coalesce(method, 'card'), "voucherId", "besideId", coalesce(reference, ''), 'pending', "attemptKey", ${tx.now}
        from jsonb_to_recordset(${records(payments)}::jsonb) as given (id uuid, "invoiceId" uuid, "orderId" uuid, "chargeId" uuid,
          "customerId" uuid, channel text, currency text, "amountMinor" bigint, "tipMinor" bigint, exclusive boolean,
          method text, "voucherId" uuid, "besideId" uuid, reference text, "attemptKey" text)`,
  );

/** Notes that payments went through. */
export const updatePaymentsPaid = (
  tx: Tx,
  paid: readonly {
    readonly id: string;
    readonly customerId: string;
    readonly saleId: string;
    readonly feeMinor: bigint;
    /** What the tariff says it is; null without one. */
    readonly agreedFeeMinor: bigint | null;
    readonly card: CardSeen;
  }[],
): Promise<number> =>
  run(
    tx,
    sql`update payments set state = 'paid', customer_id = "customerId", sale_id = "saleId", fee_minor = "feeMinor", agreed_fee_minor = "agreedFeeMinor", approval_url = null,
          card_scheme = card->>'scheme', card_last4 = card->>'last4', method = given.method, settled_at = ${tx.now}
        from jsonb_to_recordset(${records(paid.map((one) => ({ ...one, method: methodOf(one.card) })))}::jsonb)
          as given (id uuid, method text, "customerId" uuid, "saleId" text, "feeMinor" bigint, "agreedFeeMinor" bigint, card jsonb)
        where business_id = ${tx.businessId} and payments.id = given.id and state = 'pending'`,
  );

/** Notes that payments were refused. */
export const updatePaymentsRefused = (
  tx: Tx,
  refused: readonly { readonly id: string; readonly reason: RefusalReason; readonly card: CardSeen | null }[],
): Promise<number> =>
  run(
    tx,
    sql`update payments set state = 'refused', reason = given.reason, approval_url = null,
          card_scheme = coalesce(card->>'scheme', card_scheme), card_last4 = coalesce(card->>'last4', card_last4),
          settled_at = ${tx.now}
        from jsonb_to_recordset(${records(refused)}::jsonb) as given (id uuid, reason text, card jsonb)
        where business_id = ${tx.businessId} and payments.id = given.id and state = 'pending'`,
  );

/** Notes that a bank debit is under way, and when it will be known whether it is paid. */
export const updatePaymentCollecting = (
  tx: Tx,
  id: string,
  sale: { readonly saleId: string; readonly expectedAt: Date; readonly card: CardSeen },
): Promise<number> =>
  run(
    tx,
    sql`update payments set sale_id = ${sale.saleId}, expected_at = ${sale.expectedAt}, method = ${methodOf(sale.card)},
          card_scheme = ${sale.card.scheme}, card_last4 = ${sale.card.last4}
        where business_id = ${tx.businessId} and id = ${id} and state = 'pending'`,
  );

/** Bank debits of which it should be known by now whether they are paid. */
export const debitsToAskAbout = (db: Db, limit: number): Promise<Payment[]> =>
  many(
    db,
    sql`select ${PAYMENT} from payments where business_id = ${db.businessId} and state = 'pending' and expected_at <= ${db.now}
      order by expected_at, id limit ${limit}`,
  );

/** Those of these payments that were paid by bank debit. */
export const debitsOf = (db: Db, ids: readonly string[]): Promise<Payment[]> =>
  many(
    db,
    sql`select ${PAYMENT} from payments where business_id = ${db.businessId} and id = any(${[...ids]}::uuid[]) and method = 'debit'`,
  );

export const updatePaymentApproval = (
  tx: Tx,
  id: string,
  sale: { saleId: string; approvalUrl: string; card: CardSeen },
): Promise<number> =>
  run(
    tx,
    sql`update payments set sale_id = ${sale.saleId}, approval_url = ${sale.approvalUrl},
          card_scheme = ${sale.card.scheme}, card_last4 = ${sale.card.last4}
        where business_id = ${tx.businessId} and id = ${id} and state = 'pending'`,
  );

/** A payment with the words that its list and sheet show. */
export type PaymentRow = Payment & {
  readonly customer: string;
  /** The invoice's number, or the name of the offer. */
  readonly subject: string;
  readonly offerId: string | null;
  readonly orderReference: string | null;
  readonly receiptId: string | null;
  readonly receiptNumber: string | null;
};

const ROW = sql`${PAYMENT}, coalesce(customers.name, orders.printed->'payer'->>'name') as customer,
    coalesce(invoices.number, offers.name) as subject, offers.id as "offerId", orders.reference as "orderReference",
    receipts.id as "receiptId", receipts.number as "receiptNumber"
  from payments
  left join customers on customers.business_id = payments.business_id and customers.id = payments.customer_id
  left join invoices on invoices.business_id = payments.business_id and invoices.id = payments.invoice_id
  left join orders on orders.business_id = payments.business_id and orders.id = payments.order_id
  left join offers on offers.business_id = payments.business_id and offers.id = orders.offer_id
  left join receipts on receipts.business_id = payments.business_id and receipts.payment_id = payments.id`;

export const paymentRow = (db: Db, id: string): Promise<PaymentRow | null> =>
  maybeOne(db, sql`select ${ROW} where payments.business_id = ${db.businessId} and payments.id = ${id}`);

/** These payments, in no order. */
export const paymentRowsOf = (db: Db, ids: readonly string[]): Promise<PaymentRow[]> =>
  many(db, sql`select ${ROW} where payments.business_id = ${db.businessId} and payments.id = any(${[...ids]}::uuid[])`);

/** What a card paid here before a payment of the same customer's, undisputed, latest first. */
export const earlierByCard = (
  db: Db,
  {
    customerId,
    cardScheme,
    cardLast4,
    settledAt,
  }: Pick<Payment, 'customerId' | 'cardScheme' | 'cardLast4' | 'settledAt'>,
  limit: number,
): Promise<PaymentRow[]> =>
  many(
    db,
    sql`select ${ROW} where payments.business_id = ${db.businessId} and payments.customer_id = ${customerId} and payments.state = 'paid'
          and payments.card_scheme = ${cardScheme} and payments.card_last4 = ${cardLast4} and payments.settled_at < ${settledAt}
          and payments.dispute is null
        order by payments.at desc, payments.id desc limit ${limit}`,
  );

/** The payments of one invoice that went through, oldest first. */
export const paidPayments = (db: Db, invoiceId: string): Promise<PaymentRow[]> =>
  many(
    db,
    sql`select ${ROW} where payments.business_id = ${db.businessId} and payments.invoice_id = ${invoiceId} and payments.state = 'paid'
      order by payments.settled_at, payments.id`,
  );

/** The latest payments that went through, for "Came in". */
export const cameIn = (db: Db, limit: number): Promise<PaymentRow[]> =>
  many(
    db,
    sql`select ${ROW} where payments.business_id = ${db.businessId} and payments.state = 'paid'
      order by payments.settled_at desc, payments.id desc limit ${limit}`,
  );

/** The last refused attempt of each invoice that is still unpaid and has no attempt since. */
export const refusedLately = (db: Db, since: Date, limit: number): Promise<PaymentRow[]> =>
  many(
    db,
    sql`select ${ROW} where payments.business_id = ${db.businessId} and payments.state = 'refused' and payments.at > ${since}
        and invoices.due_minor > 0 and invoices.stage = 'sent'
        and not exists (select 1 from payments later where later.business_id = ${db.businessId} and later.invoice_id = payments.invoice_id
          and later.started_at > payments.started_at)
      order by payments.started_at desc, payments.id desc limit ${limit}`,
  );

/** Debits that came back since an instant, of invoices that are unpaid again and have no attempt since; `why` as it was told. */
export const cameBackLately = (
  db: Db,
  since: Date,
  limit: number,
): Promise<(PaymentRow & { readonly why: RefusalReason; readonly cameBackAt: Date })[]> =>
  many(
    db,
    sql`select back.wish ->> 'why' as why, back.settled_at as "cameBackAt", ${ROW}
        join refunds back on back.business_id = payments.business_id and back.payment_id = payments.id and back.kind = 'return'
        where payments.business_id = ${db.businessId} and back.settled_at > ${since}
          and invoices.due_minor > 0 and invoices.stage = 'sent' and payments.charge_id is null
          and not exists (select 1 from payments later where later.business_id = ${db.businessId}
            and later.invoice_id = payments.invoice_id and later.started_at > back.settled_at)
        order by back.settled_at desc, payments.id desc limit ${limit}`,
  );

/** Attempts whose outcome has been open since before `before`; a bank debit's, since it should be known. */
export const pendingSince = (db: Db, before: Date, limit: number): Promise<PaymentRow[]> =>
  many(
    db,
    sql`select ${ROW} where payments.business_id = ${db.businessId} and payments.state = 'pending' and payments.started_at < ${before}
        and coalesce(payments.expected_at, ${before}) <= ${before} and payments.beside_id is null
      order by payments.started_at, payments.id limit ${limit}`,
  );

/** Money that came another way than by card, paid from the start; the attempt key makes the same press one payment. */
export const insertReceived = (
  tx: Tx,
  payment: {
    id: string;
    invoiceId: string;
    customerId: string;
    currency: string;
    amountMinor: bigint;
    method: PaymentMethod;
    reference: string;
    attemptKey: string;
    receivedAt: Date;
    channel?: Channel;
    voucherId?: string;
  },
): Promise<number> =>
  run(
    tx,
    sql`insert into payments (id, business_id, invoice_id, customer_id, channel, currency, amount_minor, method, reference, state,
          exclusive, attempt_key, started_at, settled_at, voucher_id)
        values (${payment.id}, ${tx.businessId}, ${payment.invoiceId}, ${payment.customerId}, ${payment.channel ?? 'desk'}, ${payment.currency},
          ${payment.amountMinor}, ${payment.method}, ${payment.reference}, 'paid', false, ${payment.attemptKey}, ${tx.now},
          ${payment.receivedAt}, ${payment.voucherId ?? null})`,
  );

/** A payment taken at the desk, by the key of the press. */
export const paymentByDeskKey = (db: Db, attemptKey: string): Promise<Payment | null> =>
  maybeOne(
    db,
    sql`select ${PAYMENT} from payments where business_id = ${db.businessId} and attempt_key = ${attemptKey} and channel = 'desk'`,
  );

/** What came in within a span, its end not included, by channel and method; with tips, minor units. */
export type WaySum = {
  readonly channel: Channel;
  readonly method: PaymentMethod;
  readonly currency: string;
  readonly count: number;
  readonly minor: bigint;
};

export const receivedByWay = (db: Db, from: Date, to: Date): Promise<WaySum[]> =>
  many(
    db,
    sql`select channel, method, currency, count(*)::int as count, sum(amount_minor + tip_minor)::bigint as minor from payments
        where business_id = ${db.businessId} and state = 'paid' and settled_at >= ${from} and settled_at < ${to}
        group by channel, method, currency order by minor desc, channel, method`,
  );

/** The latest attempts that have no answer yet, or were refused and not followed by another. */
export const openOrRefused = (db: Db, since: Date, limit: number): Promise<PaymentRow[]> =>
  many(
    db,
    sql`select ${ROW} where payments.business_id = ${db.businessId} and payments.state in ('pending', 'refused')
        and payments.at > ${since} order by payments.at desc, payments.id desc limit ${limit}`,
  );
