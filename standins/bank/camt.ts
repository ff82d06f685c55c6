import { XMLBuilder } from 'fast-xml-parser';
import type { BookLine } from './book';

const builder = new XMLBuilder({ ignoreAttributes: false, attributeNamePrefix: '@', textNodeName: '#', format: true });

const DIGITS: Readonly<Record<string, number>> = { JPY: 0, KWD: 3, BHD: 3 };

function amount(minor: number, currency: string): object {
  const digits = DIGITS[currency] ?? 2;
  const text = String(Math.abs(minor)).padStart(digits + 1, '0');
  const whole = digits === 0 ? text : `${text.slice(0, -digits)}.${text.slice(-digits)}`;
  return { Amt: { '@Ccy': currency, '#': whole }, CdtDbtInd: minor < 0 ? 'DBIT' : 'CRDT' };
}

const side = (name: string, account: string, into: boolean): object => {
  const [party, number] = into ? ['Dbtr', 'DbtrAcct'] : ['Cdtr', 'CdtrAcct'];
  return {
    [party as string]: { Pty: { Nm: name } },
    ...(account ? { [number as string]: { Id: { Othr: { Id: account } } } } : {}),
  };
};

const entry = ({ id, day, minor, currency, words, reference, endToEnd, other, otherAccount }: BookLine): object => ({
  ...amount(minor, currency),
  Sts: { Cd: 'BOOK' },
  BookgDt: { Dt: day },
  ValDt: { Dt: day },
  AcctSvcrRef: id,
  NtryDtls: {
    TxDtls: {
      Refs: { EndToEndId: endToEnd || 'NOTPROVIDED' },
      ...(other ? { RltdPties: side(other, otherAccount, minor > 0) } : {}),
      RmtInf: {
        ...(words ? { Ustrd: words } : {}),
        ...(reference ? { Strd: { CdtrRefInf: { Ref: reference } } } : {}),
      },
    },
  },
});

const balance = (code: string, day: string, minor: number, currency: string): object => ({
  Tp: { CdOrPrtry: { Cd: code } },
  ...amount(minor, currency),
  Dt: { Dt: day },
});

/** A day of an account as a bank-to-customer statement, ISO 20022 camt.053.001.08. @param lines all of the account in this currency */
export function statementXml(account: string, currency: string, day: string, lines: readonly BookLine[]): string {
  const sum = (list: readonly BookLine[]): number => list.reduce((all, { minor }) => all + minor, 0);
  const opening = sum(lines.filter((line) => line.day < day));
  const own = lines.filter((line) => line.day === day);
  const id = `${account}-${currency}-${day}`;
  const statement = {
    Id: id,
    CreDtTm: `${day}T23:30:00Z`,
    FrToDt: { FrDtTm: `${day}T00:00:00Z`, ToDtTm: `${day}T23:59:59Z` },
    Acct: {
      Id: /^[A-Z]{2}/.test(account) ? { IBAN: account } : { Othr: { Id: account } },
      Ccy: currency,
    },
    Bal: [balance('OPBD', day, opening, currency), balance('CLBD', day, opening + sum(own), currency)],
    Ntry: own.map(entry),
  };
  return builder.build({
    '?xml': { '@version': '1.0', '@encoding': 'UTF-8' },
    Document: {
      '@xmlns': 'urn:iso:std:iso:20022:tech:xsd:camt.053.001.08',
      BkToCstmrStmt: { GrpHdr: { MsgId: id, CreDtTm: `${day}T23:30:00Z` }, Stmt: statement },
    },
  });
}
