import { type CalendarDate, calendarDate } from '../../dates/calendar-date';
import { minorDigits } from '../../money/currency';
import { inRange } from '../../money/money';
import { RuleError } from '../../rule-error';
import type { BankStatement, StatementLine } from './statement';

/** What a column of a bank's CSV can be. */
export const CSV_FIELDS = {
  day: 'Day',
  amount: 'Amount',
  in: 'Money in',
  out: 'Money out',
  name: 'Name of the other side',
  text: 'What for',
  otherAccount: 'Account of the other side',
  reference: 'Reference',
  bankReference: 'The bank’s own reference',
} as const;
export type CsvField = keyof typeof CSV_FIELDS;

export const DAY_ORDERS = ['ymd', 'dmy', 'mdy'] as const;
export type DayOrder = (typeof DAY_ORDERS)[number];

/** What the columns are, in their order; how days and decimals are written; whose account it is. */
export type CsvMapping = {
  readonly columns: readonly (CsvField | null)[];
  readonly dayOrder: DayOrder;
  readonly decimal: '.' | ',';
  readonly account: string;
  readonly currency: string;
};

/** A table as it was read: its headings, and the rows below them. */
export type CsvTable = { readonly headings: readonly string[]; readonly rows: readonly (readonly string[])[] };

const USUAL: Readonly<Record<CsvField, RegExp>> = {
  day: /^(booking ?|posting ?|transaction ?|posted ?)?(date|day)$|^buchung(stag|sdatum)?$|^datum$|^date( d['’ ]op[eé]ration| comptable)?$|^fecha( operaci[oó]n)?$/i,
  amount: /^(amount|sum|betrag|umsatz|montant|importe)( .*)?$/i,
  in: /^(credit|money in|paid in|deposits?|haben|gutschrift|cr[eé]dit|abono)$/i,
  out: /^(debit|money out|paid out|withdrawals?|soll|belastung|lastschrift|d[eé]bit|cargo)$/i,
  name: /name|payee|payer|counterparty|beg[uü]nstigter|auftraggeber|empf[aä]nger|b[eé]n[eé]ficiaire|beneficiario/i,
  text: /description|details|memo|narrative|purpose|verwendungszweck|buchungstext|libell[eé]|concepto/i,
  otherAccount: /iban|account ?(no|number)|kontonummer|compte|cuenta/i,
  reference: /^(end.?to.?end.*|payment reference|reference|referenz|r[eé]f[eé]rence|referencia)$/i,
  bankReference: /^(transaction ?id|fitid|bank ?reference|id|buchungsnummer)$/i,
};

const DAY = /^\s*(\d{1,4})[./\-\s](\d{1,2})[./\-\s](\d{1,4})(?:[T\s].*)?$/;

/** In which order the days of a column are written, as far as they tell. */
export function dayOrderOf(samples: readonly string[]): DayOrder {
  const parts = samples.flatMap((text) => {
    const match = DAY.exec(text);
    return match ? [[match[1] ?? '', match[2] ?? ''] as const] : [];
  });
  if (parts.some(([first]) => first.length === 4)) return 'ymd';
  return parts.some(([, second]) => Number(second) > 12) ? 'mdy' : 'dmy';
}

/** Which sign stands before the decimals, as far as the sums tell. */
export function decimalOf(samples: readonly string[]): '.' | ',' {
  const ends = samples.map((text) => /([.,])\d{1,2}\D*$/.exec(text)?.[1]).filter(Boolean);
  return ends.filter((sign) => sign === ',').length > ends.length / 2 ? ',' : '.';
}

/** The likely meaning of a table, by its headings and rows. */
export function guessedCsv({ headings, rows }: CsvTable, account: string, currency: string): CsvMapping {
  const taken = new Set<CsvField>();
  const columns = headings.map((heading) => {
    const fitting = (Object.keys(USUAL) as CsvField[]).find(
      (field) => !taken.has(field) && USUAL[field].test(heading.trim()),
    );
    if (fitting) taken.add(fitting);
    return fitting ?? null;
  });
  // What the headings do not tell, the cells may: days in every row, sums with decimals in every row.
  const cells = (at: number): string[] =>
    rows
      .slice(0, 200)
      .map((row) => (row[at] ?? '').trim())
      .filter(Boolean);
  const byCells = (field: CsvField, looks: RegExp): void => {
    if (taken.has(field) || (field === 'amount' && (taken.has('in') || taken.has('out')))) return;
    const at = columns.findIndex(
      (one, index) => one === null && cells(index).length > 0 && cells(index).every((cell) => looks.test(cell)),
    );
    if (at < 0) return;
    columns[at] = field;
    taken.add(field);
  };
  byCells('day', DAY);
  byCells('amount', /^[^\d]{0,4}\d[\d.,’' ]*[.,]\d{2}[^\d]{0,4}$/);
  const samples = (...fields: CsvField[]) =>
    columns.flatMap((field, at) =>
      field && fields.includes(field) ? rows.slice(0, 200).map((row) => row[at] ?? '') : [],
    );
  return {
    columns,
    dayOrder: dayOrderOf(samples('day')),
    decimal: decimalOf(samples('amount', 'in', 'out')),
    account,
    currency,
  };
}

/** What is missing of a mapping before a file can be read by it, in words; empty for nothing. */
export function csvTrouble({ columns, account }: CsvMapping): string {
  const has = (field: CsvField) => columns.includes(field);
  if (!has('day')) return 'Say which column is the day.';
  if (!has('amount') && !has('in') && !has('out'))
    return 'Say which column is the amount, or which are money in and out.';
  return account.trim() ? '' : 'Say whose account it is: its number.';
}

/** A day as a file writes it. @throws RuleError `bad_date` */
export function csvDay(text: string, order: DayOrder): CalendarDate {
  const match = DAY.exec(text);
  if (!match) throw new RuleError('bad_date', text);
  const [, a = '', b = '', c = ''] = match;
  const [year, month, day] = order === 'ymd' ? [a, b, c] : order === 'dmy' ? [c, b, a] : [c, a, b];
  const full = year.length === 2 ? `20${year}` : year;
  return calendarDate(`${full}-${month.padStart(2, '0')}-${day.padStart(2, '0')}`);
}

/** Groups of two or three digits, the last of three. */
const GROUPED = /^\d{1,3}(?:[.,]\d{2,3})*[.,]\d{3}$/;

/** A sum as banks write it: with groups, a sign before or after it, in brackets, with the currency beside it. */
export function csvAmount(text: string, decimal: '.' | ',', currency: string): bigint | null {
  const bare = text.replace(/[^\d.,+\-()−’']/g, '').replace(/−/g, '-');
  if (!/\d/.test(bare)) return null;
  const negative = /^\(.*\)$/.test(bare) || bare.includes('-');
  const [grouped = '', fraction = '', ...more] = bare.replace(/[^\d.,]/g, '').split(decimal);
  const places = minorDigits(currency);
  // A sign that is not before the decimals stands before three digits, else it is the other one: 192,00 is never 19200.
  const isGrouped = !/[.,]/.test(grouped) || GROUPED.test(grouped);
  if (!isGrouped || more.length > 0 || /[.,]/.test(fraction) || /[1-9]/.test(fraction.slice(places)))
    throw new RuleError('bad_input', `amount: ${text}`);
  const whole = grouped.replace(/[.,]/g, '');
  const minor = BigInt(`${whole || '0'}${fraction.slice(0, places).padEnd(places, '0')}`);
  return inRange(negative ? -minor : minor);
}

/**
 * Reads a bank's CSV by its mapping; rows without any sum are passed over. There is no opening and no closing.
 *
 * @throws RuleError `bad_input` naming the row that cannot be read, `bad_date`, `amount_out_of_range`
 */
export function readCsvStatement({ rows }: CsvTable, mapping: CsvMapping): BankStatement {
  const { columns, dayOrder, decimal, currency, account } = mapping;
  const at = (field: CsvField): number => columns.indexOf(field);
  const cell = (row: readonly string[], field: CsvField): string =>
    at(field) < 0 ? '' : (row[at(field)] ?? '').replace(/\s+/g, ' ').trim();
  const lines: StatementLine[] = [];
  for (const [index, row] of rows.entries()) {
    try {
      const amount =
        csvAmount(cell(row, 'amount'), decimal, currency) ??
        sumOfTwo(csvAmount(cell(row, 'in'), decimal, currency), csvAmount(cell(row, 'out'), decimal, currency));
      if (amount === null || amount === 0n) continue;
      const facts = (['name', 'otherAccount', 'reference', 'bankReference'] as const).flatMap((field) => {
        const text = cell(row, field);
        return text ? [[field, text] as const] : [];
      });
      lines.push({
        day: csvDay(cell(row, 'day'), dayOrder),
        amount,
        text: cell(row, 'text'),
        ...Object.fromEntries(facts),
      });
    } catch (error) {
      if (error instanceof RuleError)
        throw new RuleError('bad_input', `row ${index + 2}: ${cell(row, 'day')} ${cell(row, 'amount')} cannot be read`);
      throw error;
    }
  }
  if (lines.length === 0) throw new RuleError('bad_input', 'there is no line with a sum in the file');
  const days = lines.map(({ day }) => day).sort();
  return {
    account: account.replace(/\s/g, '').toUpperCase(),
    currency,
    from: days[0] as CalendarDate,
    to: days.at(-1) as CalendarDate,
    lines,
  };
}

/** Money in less money out, whichever sign the second is written with. */
function sumOfTwo(moneyIn: bigint | null, moneyOut: bigint | null): bigint | null {
  if (moneyIn === null && moneyOut === null) return null;
  const out = moneyOut ?? 0n;
  return (moneyIn ?? 0n) - (out < 0n ? -out : out);
}
