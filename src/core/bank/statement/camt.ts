import type { CalendarDate } from '../../dates/calendar-date';
import { all, type Element, elementsOf, first, textAt, within } from './elements';
import { currencyOf, dayOf, fault, field, minorOf, oneLine } from './fields';
import type { BankStatement, LineFacts, LinePart, StatementLine } from './statement';

const NAMESPACE = /^urn:iso:std:iso:20022:tech:xsd:camt\.053\.001\.(0[2-9]|1[0-3])$/;

/** Reads camt.053 of ISO 20022, versions 2 to 13. @throws RuleError `bad_input`, `amount_out_of_range` */
export function readCamt(text: string): BankStatement[] {
  const root = elementsOf(text);
  if (root.name !== 'Document' || !NAMESPACE.test(root.uri))
    throw fault('text', 'it is no camt.053 of a known version');
  const document = within(root, root.uri);
  return all(first(document, 'BkToCstmrStmt'), 'Stmt').map(statementOf);
}

const needed = (from: Element, name: string): string => {
  const text = oneLine(textAt(from, name) ?? '');
  if (!text) throw fault(from.name, `${name} is missing`);
  return text;
};

/** + for money in, − for money out. */
function signOf(text: string, where: string): 1n | -1n {
  if (text === 'CRDT') return 1n;
  if (text === 'DBIT') return -1n;
  throw fault(where, `CdtDbtInd is ${text}`);
}

/** The day of a Dt or DtTm as it is written. */
function dateAt(from: Element | undefined, where: string): CalendarDate | undefined {
  const written = textAt(from, 'Dt') ?? textAt(from, 'DtTm');
  return written === undefined ? undefined : writtenDay(written, where);
}

function writtenDay(written: string, where: string): CalendarDate {
  const line = oneLine(written);
  const match = /^(\d{4}-\d\d-\d\d)(?:$|T|Z$|[+-])/.exec(line);
  if (!match?.[1]) throw fault(where, `${line} is no day`);
  return dayOf(match[1], where);
}

/** An amount without its sign. */
function amountOf(amount: Element, currency: string): bigint {
  const written = oneLine(amount.text);
  const match = /^(\d+)(?:\.(\d+))?$/.exec(written);
  if (!match) throw fault('Amt', `${written} is no amount`);
  return minorOf(match[1] ?? '', match[2] ?? '', currency, 'Amt');
}

/** The signed amount of a balance or an entry in the statement's currency. */
function signedOf(of: Element, currency: string): bigint {
  const amount = first(of, 'Amt');
  if (!amount) throw fault(of.name, 'Amt is missing');
  const { Ccy } = amount.attributes;
  if (Ccy !== undefined && Ccy !== currency) throw fault(of.name, `it is in ${Ccy}, the statement in ${currency}`);
  return signOf(needed(of, 'CdtDbtInd'), of.name) * amountOf(amount, currency);
}

const accountOf = (account: Element | undefined): string | undefined =>
  textAt(account, 'Id', 'IBAN') ?? textAt(account, 'Id', 'Othr', 'Id');

function statementOf(statement: Element): BankStatement {
  const account = oneLine(accountOf(first(statement, 'Acct')) ?? '');
  if (!account) throw fault('Stmt', 'the account is missing');
  const balances = all(statement, 'Bal');
  const entries = all(statement, 'Ntry');
  const currency = currencyOf(
    textAt(statement, 'Acct', 'Ccy') ??
      first(balances[0], 'Amt')?.attributes.Ccy ??
      first(entries[0], 'Amt')?.attributes.Ccy,
    'Stmt',
  );
  const balance = (code: string) =>
    balances.find((one) => oneLine(textAt(one, 'Tp', 'CdOrPrtry', 'Cd') ?? '') === code);
  const opening = balance('OPBD') ?? balance('PRCD');
  const closing = balance('CLBD');
  const span = first(statement, 'FrToDt');
  const [from, to] = [textAt(span, 'FrDtTm'), textAt(span, 'ToDtTm')];
  return {
    account,
    currency,
    id: needed(statement, 'Id'),
    ...(from === undefined ? {} : { from: writtenDay(from, 'FrDtTm') }),
    ...(to === undefined ? {} : { to: writtenDay(to, 'ToDtTm') }),
    ...(opening ? { opening: signedOf(opening, currency) } : {}),
    ...(closing ? { closing: signedOf(closing, currency) } : {}),
    lines: entries.filter(isBooked).map((entry) => lineOf(entry, currency)),
  };
}

function isBooked(entry: Element): boolean {
  const status = first(entry, 'Sts');
  const code = oneLine(textAt(status, 'Cd') ?? status?.text ?? '');
  if (!code) throw fault('Ntry', 'Sts is missing');
  return code === 'BOOK';
}

/** What a transaction's details say. @param isIn whether the money came in, @param otherwise the text where they have none */
function factsOf(details: Element, isIn: boolean, otherwise: string): LineFacts {
  const [side, account] = isIn ? ['Dbtr', 'DbtrAcct'] : ['Cdtr', 'CdtrAcct'];
  const parties = first(details, 'RltdPties');
  const remittance = first(details, 'RmtInf');
  const endToEnd = oneLine(textAt(details, 'Refs', 'EndToEndId') ?? '');
  const reference = all(remittance, 'Strd')
    .map((one) => textAt(one, 'CdtrRefInf', 'Ref'))
    .find((text) => text !== undefined && oneLine(text) !== '');
  const unstructured = oneLine(
    all(remittance, 'Ustrd')
      .map(({ text }) => text)
      .join(' '),
  );
  return {
    ...field('reference', reference),
    ...(endToEnd === 'NOTPROVIDED' ? {} : field('endToEnd', endToEnd)),
    text: unstructured || oneLine(textAt(details, 'AddtlTxInf') ?? '') || otherwise,
    ...field('name', textAt(parties, side, 'Nm') ?? textAt(parties, side, 'Pty', 'Nm')),
    ...field('otherAccount', accountOf(first(parties, account))),
    ...field('bankReference', textAt(details, 'Refs', 'AcctSvcrRef')),
  };
}

function lineOf(entry: Element, currency: string): StatementLine {
  const amount = signedOf(entry, currency);
  const valueDay = dateAt(first(entry, 'ValDt'), 'ValDt');
  const day = dateAt(first(entry, 'BookgDt'), 'BookgDt') ?? valueDay;
  if (!day) throw fault('Ntry', 'its day is missing');
  const isReversal = ['true', '1'].includes(oneLine(textAt(entry, 'RvslInd') ?? ''));
  const isIn = signOf(needed(entry, 'CdtDbtInd'), 'Ntry') > 0n !== isReversal;
  const details = all(entry, 'NtryDtls').flatMap((one) => all(one, 'TxDtls'));
  const said = oneLine(textAt(entry, 'AddtlNtryInf') ?? '');
  const [only] = details;
  const facts = only && details.length === 1 ? factsOf(only, isIn, said) : { text: said };
  return {
    day,
    ...(valueDay ? { valueDay } : {}),
    amount,
    ...facts,
    ...field('bankReference', textAt(entry, 'AcctSvcrRef')),
    ...(isReversal ? { reversal: true } : {}),
    ...(details.length > 1
      ? { parts: details.map((one) => partOf(one, needed(entry, 'CdtDbtInd'), isReversal, currency)) }
      : {}),
  };
}

function partOf(details: Element, ofLine: string, isReversal: boolean, currency: string): LinePart {
  const sign = signOf(oneLine(textAt(details, 'CdtDbtInd') ?? '') || ofLine, 'TxDtls');
  const amount = first(details, 'Amt') ?? first(details, 'AmtDtls', 'TxAmt', 'Amt');
  const isOurs = amount && (amount.attributes.Ccy ?? currency) === currency;
  return {
    ...(isOurs ? { amount: sign * amountOf(amount, currency) } : {}),
    ...factsOf(details, sign > 0n !== isReversal, ''),
  };
}
