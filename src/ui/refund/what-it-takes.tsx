import { money } from '@/core/money/money';
import { moneyText } from '@/core/money/money-text';
import { isAtProcessor, METHOD_WORDS } from '@/core/payment/methods';
import { ownLossMinor, type RefundParts, taxOf } from '@/core/refund/refund';
import type { JsonPayment } from './json-payment';
import type { TypedRefund } from './wish';

const list = (parts: readonly string[]): string =>
  parts.length < 2 ? (parts[0] ?? '') : `${parts.slice(0, -1).join(', ')} and ${parts.at(-1)}`;

/** Before the press, in sentences: what the payer gets and how, out of whose money, and what becomes of tax, fee and papers. */
export function whatItTakes(payment: JsonPayment, typed: TypedRefund, parts: RefundParts): string[] {
  const { currency, locale, payer, shares } = payment;
  const text = (minor: bigint) => moneyText(money(minor, currency), locale);
  const name = payer || 'The payer';
  const isVoid = typed.by === 'void';
  const own = -ownLossMinor(parts);
  const taken = parts.partners.flatMap((minor, at) => (minor === 0n ? [] : [{ minor, name: shares[at]?.name ?? '' }]));
  const how = isAtProcessor(typed.method)
    ? isVoid
      ? `The payment on ${payment.how} is undone, and ${name} is never charged ${text(parts.totalMinor)}.`
      : `${name} gets ${text(parts.totalMinor)} on ${payment.how} in a few days.`
    : typed.method === 'voucher'
      ? `${text(parts.totalMinor)} is put back on ${payment.how}, to be used again.`
      : `${name} gets ${text(parts.totalMinor)} ${METHOD_WORDS[typed.method]}${typed.method === 'transfer' && typed.iban.trim() ? ', by the next file for your bank.' : ': you see to it, and it is written down here.'}`;
  const from =
    taken.length === 0
      ? isAtProcessor(typed.method)
        ? 'It comes out of your next payout.'
        : ''
      : `${text(own)} of it is yours, ${list(taken.map((one) => `${text(one.minor)} comes out of ${one.name}’s part`))}.`;
  const tax = taxOf(parts.credited);
  const paper = !payment.isInvoice
    ? ''
    : parts.step
      ? `A credit note over ${text(parts.credited?.total ?? 0n)} is written.`
      : typed.owedAgain
        ? `Invoice ${payment.invoiceNumber} asks for ${text(parts.amountMinor)} again.`
        : 'It is the customer’s credit that goes back, so no credit note is needed.';
  const fee =
    !isAtProcessor(payment.method) || payment.fee === 0
      ? ''
      : isVoid
        ? `The fee of ${text(BigInt(payment.fee))} comes back.`
        : `The fee of ${text(BigInt(payment.fee))} is not returned.`;
  return [how, from, tax > 0n ? `You owe ${text(tax)} less tax.` : '', paper, fee].filter(Boolean);
}
