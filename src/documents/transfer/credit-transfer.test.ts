import { XMLParser, XMLValidator } from 'fast-xml-parser';
import { expect, test } from 'vitest';
import type { CalendarDate } from '@/core/dates/calendar-date';
import { creditTransferXml, type Transfer } from './credit-transfer';

const transfer = (id: string, currency: string, amountMinor: bigint, holder = 'Ødegård & Søn <1>'): Transfer => ({
  id,
  currency,
  amountMinor,
  to: { holder, iban: 'DE02120300000000202051' },
  words: 'Refund of invoice 2026-117\nthank you',
});

const order = (transfers: readonly Transfer[]) =>
  creditTransferXml({
    id: '6f1c2d3e-0000-4000-8000-1234567890ab',
    madeAt: new Date('2026-11-27T10:11:12Z'),
    on: '2026-11-30' as CalendarDate,
    from: { holder: 'Sallow Joinery', account: 'DE02 1001 0010 0006 8201 01', bankCode: '' },
    transfers,
  });

/** The names of an element's children, in their order: the standard's schemas are sequences. */
const names = (nodes: readonly Record<string, unknown>[]): string[] => nodes.map((node) => Object.keys(node)[0] ?? '');
type Node = Record<string, Node[]>;
const child = (nodes: readonly Node[], name: string): Node[] => nodes.find((node) => name in node)?.[name] ?? [];

test('the elements stand in the order of pain.001.001.09, and the sums agree with what is in it', () => {
  const xml = order([
    transfer('a', 'EUR', 1250n),
    transfer('b', 'JPY', 500n),
    transfer('c', 'EUR', 1n),
    transfer('d', 'KWD', 1005n),
  ]);
  expect(XMLValidator.validate(xml)).toBe(true);
  const tree = new XMLParser({ preserveOrder: true, ignoreAttributes: false, parseTagValue: false }).parse(
    xml,
  ) as Node[];
  const initiation = child(child(tree, 'Document'), 'CstmrCdtTrfInitn');
  expect(names(initiation)).toEqual(['GrpHdr', 'PmtInf', 'PmtInf', 'PmtInf']);
  expect(names(child(initiation, 'GrpHdr'))).toEqual(['MsgId', 'CreDtTm', 'NbOfTxs', 'CtrlSum', 'InitgPty']);
  const group = child(initiation, 'PmtInf');
  expect(names(group)).toEqual([
    'PmtInfId',
    'PmtMtd',
    'NbOfTxs',
    'CtrlSum',
    'ReqdExctnDt',
    'Dbtr',
    'DbtrAcct',
    'DbtrAgt',
    'CdtTrfTxInf',
    'CdtTrfTxInf',
  ]);
  expect(names(child(group, 'CdtTrfTxInf'))).toEqual(['PmtId', 'Amt', 'Cdtr', 'CdtrAcct', 'RmtInf']);

  const read = new XMLParser({ ignoreAttributes: false, parseTagValue: false }).parse(xml).Document;
  expect(read['@_xmlns']).toBe('urn:iso:std:iso:20022:tech:xsd:pain.001.001.09');
  const { GrpHdr, PmtInf } = read.CstmrCdtTrfInitn;
  // 12.50 + 500 + 0.01 + 1.005.
  expect(GrpHdr).toMatchObject({ NbOfTxs: '4', CtrlSum: '513.515', CreDtTm: '2026-11-27T10:11:12' });
  expect(PmtInf[0]).toMatchObject({
    NbOfTxs: '2',
    CtrlSum: '12.51',
    DbtrAcct: { Id: { IBAN: 'DE02100100100006820101' }, Ccy: 'EUR' },
  });
  expect(PmtInf[0].CdtTrfTxInf[0]).toMatchObject({
    PmtId: { EndToEndId: 'a' },
    Amt: { InstdAmt: { '#text': '12.50', '@_Ccy': 'EUR' } },
    Cdtr: { Nm: 'Ødegård & Søn <1>' },
    RmtInf: { Ustrd: 'Refund of invoice 2026-117 thank you' },
  });
  expect(PmtInf[2].CdtTrfTxInf.Amt.InstdAmt['#text']).toBe('1.005');
});
