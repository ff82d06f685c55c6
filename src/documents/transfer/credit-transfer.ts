import { XMLBuilder } from 'fast-xml-parser';
import type { CalendarDate } from '@/core/dates/calendar-date';
import { minorDigits } from '@/core/money/currency';
import { fixedText } from '@/core/money/decimal';
import type { PayeeAccount } from '@/core/refund/account';

/** One transfer of a file; minor units. `id` comes back on the bank's statement, `words` are read by whoever gets it. */
export type Transfer = {
  readonly id: string;
  readonly currency: string;
  readonly amountMinor: bigint;
  readonly to: PayeeAccount;
  readonly words: string;
};

/** A file of transfers for the bank. */
export type TransferOrder = {
  readonly id: string;
  readonly madeAt: Date;
  readonly on: CalendarDate;
  readonly from: { readonly holder: string; readonly account: string; readonly bankCode: string };
  readonly transfers: readonly Transfer[];
};

const builder = new XMLBuilder({
  ignoreAttributes: false,
  attributeNamePrefix: '@',
  textNodeName: '#',
  format: true,
  suppressEmptyNode: true,
});

/** A text as the standard limits it: one line of printable letters, cut to a length. */
const text = (words: string, most: number): string =>
  [
    ...words
      .replace(/[\p{Cc}\ufffe\uffff]+/gu, ' ')
      .replace(/\s+/g, ' ')
      .trim(),
  ]
    .slice(0, most)
    .join('');

/** A key of ours in the 35 signs that the standard gives it. */
const key = (id: string): string => id.replaceAll('-', '').slice(0, 35);

const isIban = (account: string): boolean => /^[A-Z]{2}\d{2}[A-Z0-9]{11,30}$/.test(account);

const accountOf = (typed: string): object => {
  const account = typed.replace(/\s/g, '').toUpperCase();
  return { Id: isIban(account) ? { IBAN: account } : { Othr: { Id: text(account, 34) } } };
};

const agentOf = (bankCode: string): object => {
  const code = bankCode.replace(/\s/g, '').toUpperCase();
  return {
    FinInstnId: /^[A-Z]{6}[A-Z0-9]{2}([A-Z0-9]{3})?$/.test(code)
      ? { BICFI: code }
      : { Othr: { Id: code || 'NOTPROVIDED' } },
  };
};

/** Digits after the point that a sum over several currencies has. */
const CONTROL_DIGITS = 4;
const control = (transfers: readonly Transfer[]): string => {
  const scaled = transfers.reduce(
    (sum, { amountMinor, currency }) => sum + amountMinor * 10n ** BigInt(CONTROL_DIGITS - minorDigits(currency)),
    0n,
  );
  return fixedText(scaled, CONTROL_DIGITS).replace(/0{1,2}$/, '');
};

/** Customer credit transfer initiation, ISO 20022 pain.001.001.09: a group a currency, each transfer under its own end-to-end id. */
export function creditTransferXml({ id, madeAt, on, from, transfers }: TransferOrder): string {
  const currencies = [...new Set(transfers.map(({ currency }) => currency))];
  const groups = currencies.map((currency, at) => {
    const own = transfers.filter((one) => one.currency === currency);
    return {
      PmtInfId: `${key(id).slice(0, 32)}-${at + 1}`.slice(0, 35),
      PmtMtd: 'TRF',
      NbOfTxs: String(own.length),
      CtrlSum: control(own),
      ReqdExctnDt: { Dt: on },
      Dbtr: { Nm: text(from.holder, 140) },
      DbtrAcct: { ...accountOf(from.account), Ccy: currency },
      DbtrAgt: agentOf(from.bankCode),
      CdtTrfTxInf: own.map((transfer) => ({
        PmtId: { EndToEndId: key(transfer.id) },
        Amt: { InstdAmt: { '@Ccy': currency, '#': fixedText(transfer.amountMinor, minorDigits(currency)) } },
        Cdtr: { Nm: text(transfer.to.holder, 140) },
        CdtrAcct: accountOf(transfer.to.iban),
        RmtInf: { Ustrd: text(transfer.words, 140) },
      })),
    };
  });
  const document = {
    '?xml': { '@version': '1.0', '@encoding': 'UTF-8' },
    Document: {
      '@xmlns': 'urn:iso:std:iso:20022:tech:xsd:pain.001.001.09',
      CstmrCdtTrfInitn: {
        GrpHdr: {
          MsgId: key(id),
          CreDtTm: madeAt.toISOString().slice(0, 19),
          NbOfTxs: String(transfers.length),
          CtrlSum: control(transfers),
          InitgPty: { Nm: text(from.holder, 140) },
        },
        PmtInf: groups,
      },
    },
  };
  return builder.build(document);
}
