import { addDays, type CalendarDate } from '../dates/calendar-date';
import { typedDay } from '../dates/typed-day';
import { type ColumnsAs, cellOf, type RowRead } from '../import/columns';
import { isCurrency, minorDigits } from '../money/currency';
import { typedDecimal } from '../money/typed';
import { typedMinor } from './read-paper';

/** What a column of a file of open invoices can be. */
export const OPEN_INVOICE_FIELDS = {
  number: 'Number',
  customer: 'Customer’s name',
  email: 'Customer’s e-mail address',
  issuedOn: 'Issued on',
  dueOn: 'Due on',
  total: 'Total, with tax',
  paid: 'Paid so far',
  currency: 'Currency',
  what: 'What it was for',
  reference: 'Reference',
} as const;
export type OpenInvoiceField = keyof typeof OPEN_INVOICE_FIELDS;

export const USUAL_INVOICE_HEADINGS: Readonly<Record<OpenInvoiceField, RegExp>> = {
  number:
    /^(number|no\.?|invoice( (no\.?|number|#))?|rechnungs?[ -]?(nr\.?|nummer)|rechnung|facture|n[°º]|num[eé]ro|factura)$/i,
  email: /^(customer'?s? )?e-?mail( ?address)?$|^courriel$|^correo$/i,
  customer: /^(customer|client|name|customer'?s? name|company|kunde|client|nom|cliente|nombre)$/i,
  issuedOn: /^((issue|invoice)d?( on| date)?|date|rechnungsdatum|datum|date de facture|fecha)$/i,
  dueOn: /^(due( on| date)?|f[aä]llig(keit)?( am)?|[eé]ch[eé]ance|vencimiento)$/i,
  paid: /^(paid( so far)?|amount paid|bezahlt|pay[eé]|pagado)$/i,
  total: /^(total|amount|gross|sum|betrag|gesamt(betrag)?|brutto|montant( ttc)?|importe|total, with tax)$/i,
  currency: /^(currency|w[aä]hrung|devise|moneda)$/i,
  what: /^(what|for|description|subject|title|betreff|beschreibung|objet|concepto|what it was for)$/i,
  reference: /^(reference|your reference|po|order (no\.?|number)|zeichen|r[eé]f[eé]rence|referencia)$/i,
};

/** An open invoice of before, as a file has it; sums in minor units of its currency, the total with tax. */
export type OpenInvoice = {
  readonly number: string;
  readonly customer: string;
  readonly email: string;
  readonly issuedOn: CalendarDate;
  readonly dueOn: CalendarDate;
  readonly totalMinor: bigint;
  readonly paidMinor: bigint;
  readonly currency: string;
  readonly what: string;
  readonly reference: string;
};

const ADDRESS = /^[^\s@,;<>"]+@[^\s@,;<>"]+\.[^\s@,;<>".]+$/;
const NUMBER = /^[\p{L}\p{N} ./_-]{1,40}$/u;
/** Due so many days after it was issued where the file does not say. */
const USUAL_DAYS = 14;

/**
 * Reads one row: only what is still open comes in.
 *
 * @param setting.sign the decimal sign, and `locale` the order of days, of whoever brings the file
 */
export function importedInvoice(
  cells: readonly string[],
  mapping: ColumnsAs<OpenInvoiceField>,
  setting: {
    readonly currency: string;
    readonly sign: '.' | ',';
    readonly locale: string;
    readonly today: CalendarDate;
  },
): RowRead<OpenInvoice> {
  const cell = cellOf(cells, mapping);
  const reasons: string[] = [];
  const number = cell('number');
  if (!number) reasons.push('No number');
  else if (!NUMBER.test(number)) reasons.push('Letters, digits, spaces and . / _ - can stand in a number, 40 at most');
  const email = cell('email');
  if (email && !ADDRESS.test(email)) reasons.push(`Not an e-mail address: ${email}`);
  if (!email && !cell('customer')) reasons.push('Nobody to whom it was sent');
  if (cell('customer').length > 160) reasons.push('Customer’s name: longer than 160 letters');
  const day = (field: 'issuedOn' | 'dueOn'): CalendarDate | null => {
    const read = typedDay(cell(field), setting.locale);
    if (cell(field) && !read) reasons.push(`${OPEN_INVOICE_FIELDS[field]}: no day: ${cell(field)}`);
    return read;
  };
  const issuedOn = day('issuedOn');
  if (!cell('issuedOn')) reasons.push('No day of issue');
  if (issuedOn && (issuedOn > setting.today || issuedOn < '1990-01-01'))
    reasons.push('Issued on: a day to come, or long ago');
  const dueOn = day('dueOn') ?? (issuedOn && addDays(issuedOn, USUAL_DAYS));
  if (issuedOn && dueOn && dueOn < issuedOn) reasons.push('Due on: before it was issued');
  const currency = cell('currency').toUpperCase() || setting.currency;
  if (!isCurrency(currency)) reasons.push(`Unknown currency: ${currency}`);
  const sum = (field: 'total' | 'paid'): bigint | null => {
    const text = cell(field).replace(/^[^\d.,-]+|[^\d.,]+$/g, '');
    const decimal = text === '' ? null : typedDecimal(text, setting.sign);
    const minor = decimal && isCurrency(currency) ? typedMinor(decimal, minorDigits(currency)) : null;
    if (cell(field) !== '' && minor === null) reasons.push(`${OPEN_INVOICE_FIELDS[field]}: not a sum: ${cell(field)}`);
    return minor;
  };
  const totalMinor = sum('total');
  const paidMinor = sum('paid') ?? 0n;
  if (!cell('total')) reasons.push('No total');
  if (totalMinor !== null && (totalMinor <= 0n || totalMinor >= 2n ** 50n)) reasons.push('Total: not above 0');
  else if (totalMinor !== null && paidMinor >= totalMinor) reasons.push('Nothing of it is open');
  if (reasons.length > 0 || !issuedOn || !dueOn || totalMinor === null) return { ok: false, reasons };
  return {
    ok: true,
    value: {
      number,
      customer: cell('customer'),
      email,
      issuedOn,
      dueOn,
      totalMinor,
      paidMinor,
      currency,
      what: cell('what').slice(0, 400),
      reference: cell('reference').slice(0, 120),
    },
  };
}
