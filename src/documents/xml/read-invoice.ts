import type { EInvoice } from '@/core/einvoice/einvoice';
import { readCrossIndustry } from '../cii/read';
import { readUbl } from '../ubl/read';
import { NotAnInvoice, treeOf } from './tree';

/**
 * Reads an e-invoice in one of the two syntaxes of EN 16931: UBL 2.1 (also a credit note) or the Cross Industry Invoice of
 * UN/CEFACT. Namespaces' prefixes do not matter.
 *
 * @throws NotAnInvoice with what is missing or wrong
 */
export function readInvoiceXml(xml: string): EInvoice {
  const tree = treeOf(xml);
  const read = readUbl(tree) ?? readCrossIndustry(tree);
  if (!read) throw new NotAnInvoice('There is no invoice in the file');
  if (read.lines.length === 0) throw new NotAnInvoice('The invoice has no lines');
  return read;
}
