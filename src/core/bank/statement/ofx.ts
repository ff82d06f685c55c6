import type { CalendarDate } from '../../dates/calendar-date';
import { all, type Element, elementsOf, first, textAt } from './elements';
import { currencyOf, dayOf, fault, field, minorOf, oneLine } from './fields';
import type { BankStatement, StatementLine } from './statement';

/** Elements that hold others on the paths that are read: one of them left open is a fault, and no empty leaf. */
const HOLDERS = new Set([
  'OFX',
  'BANKMSGSRSV1',
  'STMTTRNRS',
  'STMTRS',
  'BANKACCTFROM',
  'BANKTRANLIST',
  'LEDGERBAL',
  'STMTTRN',
  'PAYEE',
  'BANKACCTTO',
  'CURRENCY',
]);

const NAMED: Readonly<Record<string, string>> = { amp: '&', lt: '<', gt: '>', quot: '"', apos: "'" };

/** The five named and the numeric entities; an `&` that begins none stands for itself. */
const decoded = (text: string): string =>
  text.replace(/&(?:#(\d{1,7})|#x([0-9a-f]{1,6})|(amp|lt|gt|quot|apos));/gi, (whole, decimal, hex, name) => {
    if (name) return NAMED[String(name).toLowerCase()] ?? whole;
    const code = decimal ? Number(decimal) : Number.parseInt(hex, 16);
    return code > 0 && code <= 0x10ffff ? String.fromCodePoint(code) : whole;
  });

const newElement = (name: string): Element => ({ name, uri: '', attributes: {}, children: [], text: '' });

/** The elements of OFX 1, whose leaves need no end tags. @throws RuleError `bad_input` */
function leafy(text: string): Element {
  const begin = text.indexOf('<OFX>');
  if (begin < 0) throw fault('text', 'there is no OFX in it');
  const outer = newElement('');
  const open: Element[] = [outer];
  const top = () => open.at(-1) as Element;
  const isLeaf = (element: Element) => element.text.trim() !== '';
  /** Closes the innermost; an element that was left open inside it is an empty leaf, and its contents belong to the parent. */
  const leave = (isClosed: boolean) => {
    const element = open.pop() as Element;
    if (isClosed || isLeaf(element)) return;
    if (HOLDERS.has(element.name)) throw fault('text', `${element.name} is not closed`);
    top().children.push(...element.children.splice(0));
  };
  const tokens = /<(\/?)([^<>]*)>|([^<]+)/g;
  tokens.lastIndex = begin;
  let read = begin;
  for (let token = tokens.exec(text); token; token = tokens.exec(text)) {
    if (token.index !== read) throw fault('text', 'a tag is broken');
    read = tokens.lastIndex;
    const [, end, tag, words] = token;
    if (words !== undefined) {
      if (open.length > 1) top().text += decoded(words);
      continue;
    }
    const name = (tag ?? '').trim();
    if (name.startsWith('!') || name === '') throw fault('text', 'what is no element is not taken');
    if (!end) {
      if (isLeaf(top())) leave(true);
      const element = newElement(name);
      top().children.push(element);
      open.push(element);
      continue;
    }
    if (!open.some((one) => one.name === name)) throw fault('text', `${name} is closed and was not open`);
    while (top().name !== name) leave(false);
    leave(true);
  }
  if (read !== text.length) throw fault('text', 'a tag is broken');
  while (open.length > 1) leave(false);
  const [root] = outer.children;
  if (root?.name !== 'OFX') throw fault('text', 'there is no OFX in it');
  return root;
}

/** The children of an element on the way down, as many as there are. */
const allAt = (from: readonly Element[], ...path: readonly string[]): Element[] =>
  path.reduce<Element[]>((at, name) => at.flatMap((one) => all(one, name)), [...from]);

function writtenDay(written: string, where: string): CalendarDate {
  const match = /^(\d{4})(\d\d)(\d\d)(?:\d{4}|\d{6}(?:\.\d+)?)?(?:\[[^\]]*\])?$/.exec(oneLine(written));
  if (!match) throw fault(where, `${oneLine(written)} is no day`);
  return dayOf(`${match[1]}-${match[2]}-${match[3]}`, where);
}

function amountOf(written: string, currency: string, where: string): bigint {
  const match = /^([+-]?)(\d+)(?:[.,](\d+))?$/.exec(oneLine(written));
  if (!match) throw fault(where, `${oneLine(written)} is no amount`);
  const minor = minorOf(match[2] ?? '', match[3] ?? '', currency, where);
  return match[1] === '-' ? -minor : minor;
}

const needed = (from: Element, name: string): string => {
  const text = oneLine(textAt(from, name) ?? '');
  if (!text) throw fault(from.name, `${name} is missing`);
  return text;
};

const dayField = <Name extends string>(name: Name, written: string | undefined, where: string) =>
  (written === undefined || oneLine(written) === '' ? {} : { [name]: writtenDay(written, where) }) as {
    readonly [key in Name]?: CalendarDate;
  };

function lineOf(transaction: Element, currency: string): StatementLine {
  const other = textAt(transaction, 'CURRENCY', 'CURSYM');
  if (other !== undefined && oneLine(other) !== currency) throw fault('STMTTRN', `it is in ${oneLine(other)}`);
  const given = (...path: readonly string[]) => oneLine(textAt(transaction, ...path) ?? '');
  return {
    day: writtenDay(needed(transaction, 'DTPOSTED'), 'DTPOSTED'),
    ...dayField('valueDay', textAt(transaction, 'DTAVAIL'), 'DTAVAIL'),
    amount: amountOf(needed(transaction, 'TRNAMT'), currency, 'TRNAMT'),
    ...field('reference', given('REFNUM') || given('CHECKNUM')),
    text: given('MEMO'),
    ...field('name', given('NAME') || given('PAYEE', 'NAME')),
    ...field('otherAccount', given('BANKACCTTO', 'ACCTID')),
    ...field('bankReference', given('FITID')),
  };
}

/** Reads OFX 1 and 2. @throws RuleError `bad_input`, `amount_out_of_range` */
export function readOfx(text: string): BankStatement[] {
  const root = text.startsWith('<?') ? elementsOf(text) : leafy(text);
  if (root.name !== 'OFX') throw fault('text', 'there is no OFX in it');
  return allAt([root], 'BANKMSGSRSV1', 'STMTTRNRS', 'STMTRS').map((statement) => {
    const currency = currencyOf(textAt(statement, 'CURDEF'), 'CURDEF');
    const account = oneLine(textAt(statement, 'BANKACCTFROM', 'ACCTID') ?? '');
    if (!account) throw fault('STMTRS', 'the account is missing');
    const list = first(statement, 'BANKTRANLIST');
    const closing = textAt(statement, 'LEDGERBAL', 'BALAMT');
    return {
      account,
      currency,
      ...dayField('from', textAt(list, 'DTSTART'), 'DTSTART'),
      ...dayField('to', textAt(list, 'DTEND'), 'DTEND'),
      ...(closing === undefined ? {} : { closing: amountOf(closing, currency, 'BALAMT') }),
      lines: all(list, 'STMTTRN').map((transaction) => lineOf(transaction, currency)),
    };
  });
}
