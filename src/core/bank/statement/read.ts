import { RuleError } from '../../rule-error';
import { readCamt } from './camt';
import { readMt940 } from './mt940';
import { readOfx } from './ofx';
import type { BankStatement } from './statement';

export const STATEMENT_FORMATS = ['camt.053', 'mt940', 'ofx'] as const;
export type StatementFormat = (typeof STATEMENT_FORMATS)[number];

const READERS: Readonly<Record<StatementFormat, (text: string) => BankStatement[]>> = {
  'camt.053': readCamt,
  mt940: readMt940,
  ofx: readOfx,
};

/** What a file looks like by its beginning, after a byte order mark and white space. */
function formatOf(text: string): StatementFormat {
  if (text.startsWith('OFXHEADER')) return 'ofx';
  if (!text.startsWith('<')) return 'mt940';
  const first = /^(?:\s|<\?[^>]*\?>|<!--[\s\S]*?-->)*<\s*([^\s/>]+)/.exec(text)?.[1];
  return first === 'OFX' ? 'ofx' : 'camt.053';
}

/**
 * Reads the statements of a bank: camt.053 (versions 2 to 13), MT940, OFX 1 and 2 (`calculation.md` 18).
 *
 * @param format read from the text where it is not given
 * @throws RuleError `bad_input` for any fault of the file, `amount_out_of_range`
 */
export function readStatements(text: string, format?: StatementFormat): BankStatement[] {
  const plain = text.replace(/^\ufeff/, '').trimStart();
  const statements = READERS[format ?? formatOf(plain)](plain);
  if (statements.length === 0) throw new RuleError('bad_input', 'text: there is no statement in the file');
  return statements;
}
