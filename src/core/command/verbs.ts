import { RuleError } from '../rule-error';
import { answerReference, answerStatement } from './bank-verbs';
import { answerCredit } from './giving-back-verbs';
import { answerAgeing, answerPayment, answerTally } from './invoice-verbs';
import { answerConvert, answerSplit, answerTaxes } from './money-verbs';
import { answerPayouts } from './payout-verbs';
import { answerInstalments, answerInstants, answerSchedule } from './plan-verbs';
import { Reader } from './reader';

const VERBS: Readonly<Record<string, (input: Reader) => unknown>> = {
  tally: answerTally,
  payment: answerPayment,
  convert: answerConvert,
  instalments: answerInstalments,
  schedule: answerSchedule,
  instants: answerInstants,
  taxes: answerTaxes,
  split: answerSplit,
  ageing: answerAgeing,
  credit: answerCredit,
  payouts: answerPayouts,
  reference: answerReference,
  statement: answerStatement,
};

/** The verbs that `answerLine` knows. */
export const verbs: readonly string[] = Object.keys(VERBS);

/**
 * Answers one NDJSON line of `npm run -s core -- VERB` (`calculation.md` 14): a JSON text; null for a blank line.
 * A refused case is answered with its code, never thrown.
 */
export function answerLine(verb: string, line: string): string | null {
  const answer = VERBS[verb];
  if (!answer) throw new Error(`No such verb: ${verb}`);
  if (line.trim() === '') return null;
  try {
    return JSON.stringify(answer(Reader.of(parsed(line))));
  } catch (error) {
    if (error instanceof RuleError) return JSON.stringify({ error: error.code, message: error.message });
    throw error;
  }
}

function parsed(line: string): unknown {
  try {
    return JSON.parse(line);
  } catch {
    throw new RuleError('bad_input', 'input: not a JSON document');
  }
}
