import { type CalendarDate, daysBetween, isCalendarDate } from '../../dates/calendar-date';
import { currencyOf, dayOf, fault, field, minorOf, oneLine } from './fields';
import type { BankStatement, StatementLine } from './statement';

type Field = { readonly tag: string; readonly lines: string[] };

/** The fields of each statement: from `:20:` to a line `-`, the next `:20:` or the end. */
function statementsOf(text: string): Field[][] {
  const statements: Field[][] = [];
  let now: Field[] | null = null;
  for (const line of text.split(/\r\n|\n|\r/)) {
    if (line.trim() === '') continue;
    if (line === '-' || line.startsWith('-}')) {
      now = null;
      continue;
    }
    const match = /^:(\d\d[A-Z]?):(.*)$/.exec(line);
    if (match?.[1] === '20') {
      now = [];
      statements.push(now);
    }
    if (!now) continue;
    if (match) now.push({ tag: match[1] ?? '', lines: [match[2] ?? ''] });
    else now.at(-1)?.lines.push(line);
  }
  return statements;
}

/** YYMMDD: 80 to 99 are of the last century. */
function dayOfSix(six: string, where: string): CalendarDate {
  const year = Number(six.slice(0, 2));
  return dayOf(`${year >= 80 ? 1900 + year : 2000 + year}-${six.slice(2, 4)}-${six.slice(4, 6)}`, where);
}

/** MMDD in the year in which it is nearest to the value day; of two as near, the earlier. */
function entryDay(monthDay: string, value: CalendarDate): CalendarDate {
  const year = Number(value.slice(0, 4));
  const days = [year - 1, year, year + 1]
    .map((one) => `${one}-${monthDay.slice(0, 2)}-${monthDay.slice(2)}`)
    .filter(isCalendarDate)
    .sort((a, b) => Math.abs(daysBetween(a, value)) - Math.abs(daysBetween(b, value)) || (a < b ? -1 : 1));
  const [nearest] = days;
  if (!nearest) throw fault(':61:', `${monthDay} is no day`);
  return nearest;
}

/** Puts parts together: a full one runs on, after any other comes a space. */
const joined = (parts: readonly string[], full: number): string =>
  oneLine(
    parts.reduce((text, part, at) => `${text}${at > 0 && (parts[at - 1]?.length ?? 0) < full ? ' ' : ''}${part}`, ''),
  );

const PART = 27;
const LINE = 65;
const DETAILS = 34;

type Balance = { readonly day: CalendarDate; readonly currency: string; readonly minor: bigint };

function balanceOf({ tag, lines }: Field): Balance {
  const match = /^([CD])(\d{6})([A-Z]{3})(\d+),(\d*)$/.exec((lines[0] ?? '').trim());
  if (!match) throw fault(`:${tag}:`, 'it is no balance');
  const currency = currencyOf(match[3], `:${tag}:`);
  const minor = minorOf(match[4] ?? '', match[5] ?? '', currency, `:${tag}:`);
  return { day: dayOfSix(match[2] ?? '', `:${tag}:`), currency, minor: match[1] === 'D' ? -minor : minor };
}

/** What is told of a line: as parts `?NN`, or as lines of text. */
function toldBy(lines: readonly string[]): { text: string; name?: string; otherAccount?: string } {
  if (!/^(\d{3})?\?\d\d/.test(lines[0] ?? '')) return { text: joined(lines, LINE) };
  const parts = lines
    .join('')
    .split(/\?(?=\d\d)/)
    .slice(1)
    .map((part) => ({ code: Number(part.slice(0, 2)), words: part.slice(2) }));
  const of = (isOf: (code: number) => boolean) =>
    joined(
      parts.filter(({ code }) => isOf(code)).map(({ words }) => words),
      PART,
    );
  return {
    text: of((code) => (code >= 20 && code <= 29) || (code >= 60 && code <= 63)) || of((code) => code === 0),
    ...field(
      'name',
      of((code) => code === 32 || code === 33),
    ),
    ...field(
      'otherAccount',
      of((code) => code === 31),
    ),
  };
}

const ENTRY = /^(\d{6})(\d{4})?(RC|RD|C|D)([A-Z])?(\d+),(\d*)([NFS][A-Z0-9]{3})(.*)$/;

function lineOf({ lines }: Field, told: Field | undefined, currency: string): StatementLine {
  const [head = '', ...details] = lines;
  const match = ENTRY.exec(head.trimEnd());
  if (!match) throw fault(':61:', 'it is no line');
  const [, six = '', monthDay, mark = '', , whole = '', fraction = '', , references = ''] = match;
  const valueDay = dayOfSix(six, ':61:');
  const minor = minorOf(whole, fraction, currency, ':61:');
  const [customer = '', ...bank] = references.split('//');
  const said = told ? toldBy(told.lines) : { text: '' };
  return {
    day: monthDay ? entryDay(monthDay, valueDay) : valueDay,
    valueDay,
    amount: mark === 'C' || mark === 'RD' ? minor : -minor,
    ...(oneLine(customer) === 'NONREF' ? {} : field('endToEnd', customer)),
    ...field('bankReference', bank.join('//')),
    ...said,
    text: said.text || joined(details, DETAILS),
    ...(mark.startsWith('R') ? { reversal: true } : {}),
  };
}

/** Reads SWIFT's MT940. @throws RuleError `bad_input`, `amount_out_of_range` */
export function readMt940(text: string): BankStatement[] {
  return statementsOf(text).map((fields): BankStatement => {
    const find = (...tags: string[]) => fields.find(({ tag }) => tags.includes(tag));
    const [first, account, opening, closing] = [find('20'), find('25'), find('60F', '60M'), find('62F', '62M')];
    if (!first || !account || !opening || !closing)
      throw fault('text', 'a statement needs :20:, :25:, its opening and its closing balance');
    const [opens, closes] = [balanceOf(opening), balanceOf(closing)];
    const number = oneLine(account.lines.join(' '));
    if (!number) throw fault(':25:', 'the account is missing');
    if (closes.currency !== opens.currency) throw fault(':62:', 'the balances are in two currencies');
    const { currency } = opens;
    return {
      account: number,
      currency,
      ...field('id', (find('28C') ?? first).lines.join(' ')),
      from: opens.day,
      to: closes.day,
      opening: opens.minor,
      closing: closes.minor,
      lines: fields.flatMap((one, at) => {
        const next = fields[at + 1];
        return one.tag === '61' ? [lineOf(one, next?.tag === '86' ? next : undefined, currency)] : [];
      }),
    };
  });
}
