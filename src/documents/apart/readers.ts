import type { CsvTable } from '@/core/bank/statement/csv';
import { readStatements } from '@/core/bank/statement/read';
import type { BankStatement } from '@/core/bank/statement/statement';
import { decoded } from '@/core/file/decoded';
import { RuleError } from '@/core/rule-error';
import { holidaysOf } from '@/documents/calendar/charges';
import { rawTable, tableOf } from '@/documents/csv/read';
import { readHybrid } from '@/documents/pdf/embedded';
import { readRates } from '@/documents/rates/read';
import { readInvoiceXml } from '@/documents/xml/read-invoice';

const readInvoice = (bytes: Uint8Array) => readInvoiceXml(decoded(bytes).text);

/** What a bank's file holds: statements, or a table whose columns have to be told; or why it cannot be read. */
type BankFile =
  | { readonly kind: 'statements'; readonly statements: readonly BankStatement[] }
  | { readonly kind: 'table'; readonly table: CsvTable }
  | { readonly kind: 'broken'; readonly detail: string };

/** How a file of one of the three formats begins; all else is a table. */
const FORMATTED = /^\s*(<|OFXHEADER|\{\d:|:\d\d[A-Z]?:)/;

function readBankFile(bytes: Uint8Array): BankFile {
  const text = decoded(bytes).text.replace(/^\ufeff/, '');
  try {
    if (FORMATTED.test(text)) return { kind: 'statements', statements: readStatements(text) };
    const table = rawTable(text);
    if (table.headings.length < 2 || table.rows.length === 0)
      return { kind: 'broken', detail: 'there are no columns in it' };
    return { kind: 'table', table };
  } catch (error) {
    if (error instanceof RuleError) return { kind: 'broken', detail: error.message };
    throw error;
  }
}

/** What is read of files that others wrote, by name: all of it can be made to take very long. */
export const READERS = {
  invoice: readInvoice,
  hybrid: readHybrid,
  rates: readRates,
  holidays: holidaysOf,
  table: tableOf,
  bank: readBankFile,
} as const;
