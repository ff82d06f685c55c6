import { tariffText } from '@/core/business/tariff';
import { jsonMinor } from '@/core/money/money';
import { plainSum } from '@/core/money/money-text';
import { METHOD_WORDS } from '@/core/payment/methods';
import { type Acting, mayDo } from '@/core/person/rights';
import type { PaymentSheet } from '@/flows/payment/payment-sheet';
import type { JsonPayment } from '@/ui/refund/json-payment';

/** What of it the payer's bank took back, and its fee. */
function returnOf({ subject }: PaymentSheet): JsonPayment['returned'] {
  const back = subject.refunds.find(({ kind }) => kind === 'return');
  return back ? { taken: jsonMinor(back.amountMinor), fee: jsonMinor(back.feeMinor) } : null;
}

/** The line of the tariff that a payment's fee is agreed by, with its words; null without one. */
function agreedLine({ row, business }: PaymentSheet): JsonPayment['agreedLine'] {
  const lines = business.tariff.filter(({ currency }) => currency === row.currency);
  const line = lines.find(({ scheme }) => scheme === row.cardScheme) ?? lines.find(({ scheme }) => scheme === '');
  if (!line || row.agreedFeeMinor === null) return null;
  const { percent, fixedMinor, currency } = line;
  return { percent, fixed: fixedMinor, text: tariffText(line, plainSum(BigInt(fixedMinor), currency)) };
}

/** What a partner bears of a dispute that is not won; minor units. */
const disputedOf = ({ dispute }: PaymentSheet, partnerId: string): number =>
  dispute && dispute.state !== 'won'
    ? dispute.partners.reduce((sum, one) => sum + (one.partnerId === partnerId ? one.minor : 0), 0)
    : 0;

/** A payment's sheet as the browser has it. */
export function jsonSheet(sheet: PaymentSheet, actor: Acting): JsonPayment {
  const { row, subject, business } = sheet;
  const { invoice, order, printed, paid, shares, creditMinor, dueMinor, steps } = subject;
  const { payer } = invoice?.printed ?? order?.printed ?? { payer: { name: row.customer, email: '' } };
  return {
    id: row.id,
    currency: row.currency,
    locale: business.deskLocale,
    payer: payer.name,
    email: payer.email,
    method: row.method,
    how: row.cardScheme
      ? `${row.cardScheme} ·${row.cardLast4}`
      : row.method === 'voucher'
        ? `the voucher ${row.reference}`
        : METHOD_WORDS[row.method],
    state: row.state,
    printed: {
      currency: printed.currency,
      locale: printed.locale,
      pricesIncludeTax: printed.pricesIncludeTax,
      lines: printed.lines,
      subtotal: printed.subtotal,
      lineDiscounts: printed.lineDiscounts,
      discount: printed.discount,
      discountText: printed.discountText,
      ...(printed.discountLines ? { discountLines: printed.discountLines } : {}),
      taxes: printed.taxes,
      taxTotal: printed.taxTotal,
      total: printed.total,
      delivery: printed.delivery,
      fees: printed.fees,
      flatTaxes: printed.flatTaxes,
      exempt: printed.exempt,
    },
    steps,
    amount: jsonMinor(row.amountMinor),
    tip: jsonMinor(row.tipMinor),
    fee: jsonMinor(row.feeMinor),
    agreed: row.agreedFeeMinor === null ? null : jsonMinor(row.agreedFeeMinor),
    agreedLine: agreedLine(sheet),
    refunded: jsonMinor(row.refundedMinor),
    returned: returnOf(sheet),
    tipRefunded: jsonMinor(paid.tipRefundedMinor),
    shares: shares.map(({ name, partnerId, shareMinor, feeMinor, reversedMinor }) => ({
      name,
      share: jsonMinor(shareMinor),
      fee: jsonMinor(feeMinor),
      reversed: jsonMinor(reversedMinor) + disputedOf(sheet, partnerId),
    })),
    isInvoice: invoice !== null,
    invoiceNumber: invoice?.number ?? '',
    credit: jsonMinor(creditMinor),
    due: jsonMinor(dueMinor),
    mayVoid: sheet.mayVoid,
    mayRefund: mayDo(actor, 'give-back') && row.dispute !== 'open' && row.dispute !== 'lost',
    dispute: sheet.dispute && {
      taken: sheet.dispute.state === 'won' ? 0 : jsonMinor(sheet.dispute.amountMinor),
      fee: jsonMinor(sheet.dispute.feeMinor - sheet.dispute.feeBackMinor),
    },
    plan: sheet.plan && { name: sheet.plan.name, runs: sheet.plan.runs },
    goods: printed.lines.flatMap(({ itemId }, index) => (itemId ? [index] : [])),
  };
}
