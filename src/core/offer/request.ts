import type { Choice } from './choice';
import { blankChoice } from './choice';
import type { Offer } from './offer';
import { type QuoteProblem, type QuoteSetting, quoteOffer } from './quote';

/**
 * What is wrong with what is filled in for one person: a sum that is none or that the offer does not take, an answer of another kind. What is
 * left to the payer is not looked at.
 *
 * @param business its smallest payment, in minor units of its currency, and how its prices are written
 */
export function requestProblems(
  offer: Offer,
  filled: Partial<Choice>,
  business: Pick<QuoteSetting, 'smallest' | 'homeCurrency' | 'pricesIncludeTax'>,
): QuoteProblem[] {
  // Neither taxes, codes nor stock decide whether a sum is one.
  const setting: QuoteSetting = {
    ...business,
    taxes: [],
    home: { country: '' },
    rateTo: () => null,
    code: null,
    codeTrouble: null,
    stock: new Map(),
  };
  const choice = { ...blankChoice(filled.currency ?? offer.currency), ...filled };
  const looked = (field: string): boolean =>
    field === 'amount' || field === 'total'
      ? filled.amount !== undefined
      : field.startsWith('answers.') && filled.answers?.[field.slice('answers.'.length)] !== undefined;
  return quoteOffer(offer, choice, setting).problems.filter(({ field }) => looked(field));
}
