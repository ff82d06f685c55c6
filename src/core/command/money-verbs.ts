import { converted } from '../money/convert';
import { jsonMinor, money } from '../money/money';
import { RuleError } from '../rule-error';
import { reversals, split } from '../share/split';
import { scaledRate } from '../tally/tally';
import { applyingRules } from '../tax/tax-rules';
import { amountEntry, Reader, textEntry } from './reader';

/** `convert`: an amount in another currency. */
export function answerConvert(input: Reader): unknown {
  const amount = input.amount('amount');
  const to = converted(money(amount, input.text('from')), input.text('to'), input.decimal('rate', 'bad_rate'));
  return { amount: jsonMinor(to.minor) };
}

/** `split`: who gets what of a payment, and what refunds take back. */
export function answerSplit(input: Reader): unknown {
  const feeFrom = input.has('feeFrom') ? input.text('feeFrom') : 'business';
  if (feeFrom !== 'business' && feeFrom !== 'all') throw new RuleError('bad_input', 'feeFrom: business or all');
  const amount = input.amount('amount');
  const keep = input.amountOr('keep', undefined);
  const parts = split({
    amount,
    fee: input.amount('fee'),
    partners: input.list('partners', (value, path) => ({
      percent: Reader.of(value, path).decimal('percent', 'bad_rate'),
    })),
    ...(keep === undefined ? {} : { keep }),
    feeFrom,
  });
  const shown = (part: (typeof parts)['business']) => ({
    share: jsonMinor(part.share),
    fee: jsonMinor(part.fee),
    net: jsonMinor(part.net),
  });
  const shares = parts.partners.map(({ share }) => share);
  const steps = reversals(amount, shares, input.listOr('refunds', amountEntry, []));
  return {
    business: shown(parts.business),
    partners: parts.partners.map(shown),
    refunds: steps.map((step) => ({ business: jsonMinor(step.business), partners: step.partners.map(jsonMinor) })),
  };
}

/** `taxes`: which rules apply to a class at a place. */
export function answerTaxes(input: Reader): unknown {
  const place = input.object('place');
  const rules = input.list('rules', (value, path) => {
    const rule = Reader.of(value, path);
    scaledRate(rule.decimal('rate', 'bad_rate'), `${path}.rate`);
    rule.flag('onDelivery');
    const regions = rule.listOr('regions', textEntry, undefined);
    const postalCodes = rule.listOr('postalCodes', textEntry, undefined);
    return {
      name: rule.text('name'),
      class: rule.text('class'),
      country: rule.text('country'),
      ...(regions ? { regions } : {}),
      ...(postalCodes ? { postalCodes } : {}),
      additional: rule.has('additional') && rule.flag('additional'),
    };
  });
  const where = {
    country: place.text('country'),
    ...(place.has('region') ? { region: place.text('region') } : {}),
    ...(place.has('postalCode') ? { postalCode: place.text('postalCode') } : {}),
  };
  return { rules: applyingRules(where, input.text('class'), rules) };
}
