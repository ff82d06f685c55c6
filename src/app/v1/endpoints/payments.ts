import { jsonMinor } from '@/core/money/money';
import { WHOLE_REGISTER } from '@/core/register/ask';
import { onePayment } from '@/flows/payment/payment-list';
import { refundPayment, refundsOfPayment } from '@/flows/payment/refund-payment';
import { registerOf } from '@/flows/register/register';
import { NothingWritten, PaymentsAsked, RefundWritten } from '@/input/program-input';
import { act, BY_MOMENT, cursorOf, cursorText, type Endpoint, get, saidOf } from '../endpoint';
import { ID, list, MINOR, MOMENT, object, orNull, page, TEXT } from '../schema';

const PAYMENT = object({
  id: ID,
  state: TEXT,
  method: TEXT,
  amountMinor: MINOR,
  tipMinor: MINOR,
  refundedMinor: MINOR,
  currency: TEXT,
  customer: TEXT,
  subject: TEXT,
  invoiceId: orNull(ID),
  card: orNull(object({ scheme: TEXT, last4: TEXT })),
  receiptNumber: orNull(TEXT),
  at: MOMENT,
});

const REFUND = object({
  id: ID,
  paymentId: ID,
  state: TEXT,
  method: TEXT,
  amountMinor: MINOR,
  reason: TEXT,
  at: MOMENT,
});

type Row = {
  readonly id: string;
  readonly state: string;
  readonly method: string;
  readonly amountMinor: bigint;
  readonly tipMinor: bigint;
  readonly refundedMinor: bigint;
  readonly currency: string;
  readonly customer: string | null;
  readonly subject: string | null;
  readonly invoiceId: string | null;
  readonly cardScheme: string | null;
  readonly cardLast4: string | null;
  readonly receiptNumber: string | null;
};

const shown = (row: Row, at: Date): object => ({
  id: row.id,
  state: row.state,
  method: row.method,
  amountMinor: jsonMinor(row.amountMinor),
  tipMinor: jsonMinor(row.tipMinor),
  refundedMinor: jsonMinor(row.refundedMinor),
  currency: row.currency,
  customer: row.customer ?? '',
  subject: row.subject ?? '',
  invoiceId: row.invoiceId,
  card: row.cardScheme ? { scheme: row.cardScheme, last4: row.cardLast4 ?? '' } : null,
  receiptNumber: row.receiptNumber,
  at: at.toISOString(),
});

const shownRefunds = async (...given: Parameters<typeof refundsOfPayment>): Promise<object> => ({
  data: (await refundsOfPayment(...given)).map((refund) => ({
    id: refund.id,
    paymentId: refund.paymentId,
    state: refund.state,
    method: refund.method,
    amountMinor: jsonMinor(refund.amountMinor),
    reason: refund.reason,
    at: refund.startedAt.toISOString(),
  })),
});

const REFUNDS = object({ data: list(REFUND) });

export const PAYMENTS: readonly Endpoint[] = [
  get('/payments', {
    what: 'Payments, latest first',
    right: 'see',
    input: PaymentsAsked,
    answers: page(PAYMENT),
    run: async (actor, { input: { after, ...asked } }) => {
      const ask = { ...WHOLE_REGISTER, ...saidOf(asked), show: 'payments' as const };
      const { rows, next } = await registerOf(actor, ask, cursorOf(after, BY_MOMENT));
      return { data: rows.map((row) => shown(row, row.at)), next: cursorText(next) };
    },
  }),
  get('/payments/{id}', {
    what: 'A payment',
    right: 'see',
    input: NothingWritten,
    answers: PAYMENT,
    run: async (actor, { ids: [id = ''] }) => {
      const row = await onePayment(actor, id);
      return shown(row, row.settledAt ?? row.startedAt);
    },
  }),
  get('/payments/{id}/refunds', {
    what: 'What was given back of a payment',
    right: 'see',
    input: NothingWritten,
    answers: REFUNDS,
    run: (actor, { ids: [id = ''] }) => shownRefunds(actor, id),
  }),
  act('/payments/{id}/refunds', {
    what: 'Give back some of a payment',
    right: 'give-back',
    input: RefundWritten,
    answers: REFUNDS,
    run: async (actor, { input: { amountMinor, ...more }, ids: [id = ''], requestKey }) => {
      const wish = { by: 'sum' as const, amountMinor: BigInt(amountMinor) };
      await refundPayment(actor, id, { ...more, wish, reference: '', aside: {}, requestKey });
      return shownRefunds(actor, id);
    },
  }),
];
