import { findReferences, makeReference, plainOfReference } from '../bank/reference';
import { readStatements, STATEMENT_FORMATS, type StatementFormat } from '../bank/statement/read';
import { balancesOf, type LinePart } from '../bank/statement/statement';
import { jsonMinor } from '../money/money';
import { RuleError } from '../rule-error';
import type { Reader } from './reader';

/** `reference`: makes, checks or finds structured creditor references. */
export function answerReference(input: Reader): unknown {
  const asked = ['make', 'check', 'find'].filter((name) => input.has(name));
  if (asked.length !== 1) throw new RuleError('bad_input', 'input: give make, check or find, one of the three');
  if (input.has('make')) return makeReference(input.text('make'));
  if (input.has('find')) return { found: findReferences(input.text('find')) };
  const plain = plainOfReference(input.text('check'));
  return plain === null ? { valid: false } : { valid: true, plain };
}

const partOf = ({ amount, ...facts }: LinePart) => ({
  ...(amount === undefined ? {} : { amount: jsonMinor(amount) }),
  ...facts,
});

/** `statement`: reads a bank's file. */
export function answerStatement(input: Reader): unknown {
  const format = input.has('format') ? input.text('format') : undefined;
  if (format !== undefined && !STATEMENT_FORMATS.includes(format as StatementFormat))
    throw new RuleError('bad_input', 'format: camt.053, mt940 or ofx');
  return {
    statements: readStatements(input.text('text'), format as StatementFormat | undefined).map((statement) => {
      const { opening, closing, lines, ...head } = statement;
      return {
        ...head,
        ...(opening === undefined ? {} : { opening: jsonMinor(opening) }),
        ...(closing === undefined ? {} : { closing: jsonMinor(closing) }),
        lines: lines.map(({ amount, parts, ...line }) => ({
          ...line,
          amount: jsonMinor(amount),
          ...(parts ? { parts: parts.map(partOf) } : {}),
        })),
        balances: balancesOf(statement),
      };
    }),
  };
}
