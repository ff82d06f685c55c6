import { typedMinor } from '@/core/invoice/read-paper';
import { minorDigits } from '@/core/money/currency';
import { decimalText } from '@/core/money/decimal';
import type { PaymentMethod } from '@/core/payment/methods';
import type { RefundWish } from '@/core/refund/refund';
import { QUANTITY_SCALE } from '@/core/tally/tally';
import type { JsonPayment } from './json-payment';
import { typedQuantity } from './stepper';

/** What is filled in for a refund, as typed. */
export type TypedRefund = {
  readonly by: RefundWish['by'];
  /** By line. */
  readonly quantities: Readonly<Record<number, string>>;
  readonly delivery: boolean;
  readonly fees: readonly number[];
  readonly tip: boolean;
  readonly sum: string;
  readonly method: PaymentMethod;
  readonly reference: string;
  /** The account that a transfer goes to, as typed; empty where the business sees to it by itself. */
  readonly iban: string;
  readonly holder: string;
  readonly owedAgain: boolean;
  readonly reason: string;
  readonly tell: boolean;
  readonly toStock: boolean;
  readonly endPlan: boolean;
};

export const newRefund = (payment: JsonPayment, byLines: boolean): TypedRefund => ({
  by: byLines ? 'lines' : 'sum',
  quantities: {},
  delivery: false,
  fees: [],
  tip: false,
  sum: '',
  method: payment.method === 'account' ? 'transfer' : payment.method,
  reference: '',
  iban: '',
  holder: payment.payer,
  owedAgain: false,
  reason: '',
  tell: payment.email !== '',
  toStock: false,
  endPlan: false,
});

/** Of which lines how much goes back. */
const linesOf = ({ quantities }: TypedRefund) =>
  Object.entries(quantities).flatMap(([index, text]) => {
    const scaled = typedQuantity(text);
    return scaled === 0n
      ? []
      : [{ index: Number(index), quantity: scaled === null ? text : decimalText(scaled, QUANTITY_SCALE) }];
  });

/** What is typed as a wish; null where nothing is chosen yet, or what stands there is no sum. */
export function wishOf(typed: TypedRefund, payment: JsonPayment): RefundWish | null {
  if (typed.by === 'sum') {
    const amountMinor = typedMinor(typed.sum, minorDigits(payment.currency));
    return amountMinor === null || amountMinor <= 0n ? null : { by: 'sum', amountMinor };
  }
  if (typed.by !== 'lines') return { by: typed.by };
  const lines = linesOf(typed);
  const { delivery, fees, tip } = typed;
  if (lines.length + fees.length === 0 && !delivery && !tip) return null;
  return { by: 'lines', lines, ...(delivery ? { delivery } : {}), ...(fees.length > 0 ? { fees } : {}), tip };
}

/** The goods among the lines that go back, where they are to go to the stock. */
export function goodsBack(typed: TypedRefund, payment: JsonPayment): { index: number; quantity: string }[] {
  if (!typed.toStock) return [];
  const lines =
    typed.by === 'lines' ? linesOf(typed) : payment.printed.lines.map(({ quantity }, index) => ({ index, quantity }));
  return lines.filter(({ index }) => payment.goods.includes(index));
}
