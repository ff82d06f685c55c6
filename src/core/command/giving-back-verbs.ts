import { jsonMinor } from '../money/money';
import { RuleError } from '../rule-error';
import { type CreditStep, creditInSteps } from '../tally/credit-steps';
import { readTallyDocument } from './invoice-verbs';
import { integerEntry, Reader } from './reader';

function readStep(value: unknown, path: string): CreditStep {
  const step = Reader.of(value, path);
  const named = ['lines', 'amount', 'all'].filter((name) => step.has(name));
  if (named.length !== 1) throw new RuleError('bad_input', `${path}: give lines, amount or all, one of the three`);
  const beside = ['delivery', 'fees', 'flatTaxes'].filter((name) => step.has(name));
  if (step.has('lines'))
    return {
      lines: step.list('lines', (one, at) => {
        const line = Reader.of(one, at);
        return { index: line.number('index'), quantity: line.decimal('quantity', 'bad_quantity') };
      }),
      ...(step.has('delivery') ? { delivery: step.flag('delivery') } : {}),
      fees: step.listOr('fees', integerEntry, []),
      ...(step.has('flatTaxes') ? { flatTaxes: step.flag('flatTaxes') } : {}),
    };
  if (beside.length > 0) throw new RuleError('bad_input', `${path}.${beside[0]}: only beside lines`);
  if (step.has('amount')) return { amount: step.amount('amount') };
  if (!step.flag('all')) throw new RuleError('bad_input', `${path}.all: true, or left out`);
  return { all: true };
}

/** `credit`: what of a document each step gives back. */
export function answerCredit(input: Reader): unknown {
  const document = readTallyDocument(input.object('document'));
  const { steps, now } = creditInSteps(document, input.list('steps', readStep));
  return {
    steps: steps.map(({ lines, taxes, flatTaxes, total }) => ({
      lines: lines.map(({ index, net }) => ({ index, net: jsonMinor(net) })),
      taxes: taxes.map(({ id, amount }) => ({ id, amount: jsonMinor(amount) })),
      flatTaxes: flatTaxes.map(jsonMinor),
      total: jsonMinor(total),
    })),
    left: jsonMinor(now.left),
  };
}
