import { calendarDate } from '../dates/calendar-date';
import { ageing } from '../invoice/ageing';
import { jsonMinor } from '../money/money';
import { isAllowed, payable } from '../payment/part-payment';
import type { TallyDocument } from '../tally/document';
import { tally } from '../tally/tally';
import { integerEntry, percentOrAmount, Reader, textEntry } from './reader';

/** Reads the document of `tally` and `credit`. */
export function readTallyDocument(input: Reader): TallyDocument {
  const taxIds = (reader: Reader) => {
    const taxes = reader.listOr('taxes', textEntry, undefined);
    return taxes ? { taxes } : {};
  };
  const discount = (reader: Reader, path: string) =>
    reader.has('discount') ? { discount: percentOrAmount(reader.object('discount'), path) } : {};
  const charge = (reader: Reader) => ({ amount: reader.amount('amount'), ...taxIds(reader) });
  const whole = discount(input, 'discount').discount;
  const only = input.has('discount') ? input.object('discount').listOr('lines', integerEntry, undefined) : undefined;
  return {
    currency: input.text('currency'),
    pricesIncludeTax: input.flag('pricesIncludeTax'),
    ...(input.has('exempt') ? { exempt: input.text('exempt') } : {}),
    lines: input.list('lines', (value, path) => {
      const line = Reader.of(value, path);
      return {
        quantity: line.decimal('quantity', 'bad_quantity'),
        unitPrice: line.decimal('unitPrice', 'bad_price'),
        ...discount(line, `${path}.discount`),
        ...taxIds(line),
      };
    }),
    ...(whole ? { discount: { ...whole, ...(only ? { lines: only } : {}) } } : {}),
    ...(input.has('delivery') ? { delivery: charge(input.object('delivery')) } : {}),
    fees: input.listOr('fees', (value, path) => charge(Reader.of(value, path)), []),
    taxes: input.list('taxes', (value, path) => {
      const tax = Reader.of(value, path);
      return {
        id: tax.text('id'),
        name: tax.text('name'),
        rate: tax.decimal('rate', 'bad_rate'),
        onDelivery: tax.flag('onDelivery'),
      };
    }),
    flatTaxes: input.listOr(
      'flatTaxes',
      (value, path) => {
        const tax = Reader.of(value, path);
        return { name: tax.text('name'), amount: tax.amount('amount') };
      },
      [],
    ),
  };
}

/** `tally`: a document's total with all its steps. */
export function answerTally(input: Reader): unknown {
  const worked = tally(readTallyDocument(input));
  return {
    lines: worked.lines.map((line) => ({
      gross: jsonMinor(line.gross),
      discount: jsonMinor(line.discount),
      net: jsonMinor(line.net),
      apportioned: jsonMinor(line.apportioned),
    })),
    subtotal: jsonMinor(worked.subtotal),
    lineDiscounts: jsonMinor(worked.lineDiscounts),
    documentDiscount: jsonMinor(worked.documentDiscount),
    charges: jsonMinor(worked.charges),
    taxes: worked.taxes.map((tax) => ({ id: tax.id, base: jsonMinor(tax.base), amount: jsonMinor(tax.amount) })),
    flatTaxes: worked.flatTaxes.map((tax) => ({ name: tax.name, amount: jsonMinor(tax.amount) })),
    taxTotal: jsonMinor(worked.taxTotal),
    total: jsonMinor(worked.total),
  };
}

/** `payment`: what a total still owes and what may be paid of it. */
export function answerPayment(input: Reader): unknown {
  const found = payable({
    total: input.amount('total'),
    paid: input.amountOr('paid', 0n),
    refunded: input.amountOr('refunded', 0n),
    credited: input.amountOr('credited', 0n),
    parts: input.flag('parts'),
    ...(input.has('firstPayment')
      ? { firstPayment: percentOrAmount(input.object('firstPayment'), 'firstPayment') }
      : {}),
    smallest: input.amount('smallest'),
  });
  const payment = input.amountOr('payment', undefined);
  return {
    due: jsonMinor(found.due),
    credit: jsonMinor(found.credit),
    least: jsonMinor(found.least),
    greatest: jsonMinor(found.greatest),
    ...(payment === undefined ? {} : { allowed: isAllowed(payment, found) }),
  };
}

/** `ageing`: what is due by how late it is. */
export function answerAgeing(input: Reader): unknown {
  const today = calendarDate(input.text('today'));
  const documents = input.list('documents', (value, path) => {
    const document = Reader.of(value, path);
    return { dueOn: calendarDate(document.text('dueOn')), due: document.amount('due') };
  });
  const sums = Object.entries(ageing(today, documents)) as [string, bigint][];
  return Object.fromEntries(sums.map(([bucket, minor]) => [bucket, jsonMinor(minor)]));
}
