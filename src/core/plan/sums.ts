import { type PaperProblem, type PaperSetting, readPaper, typedMinor, typedShare } from '../invoice/read-paper';
import { minorDigits } from '../money/currency';
import { completePaper, newLine, type Paper } from '../paper/paper';
import { RuleError } from '../rule-error';
import type { Discount } from '../tally/document';
import { percentOf } from '../tally/tally';
import { type Decisions, termsOn } from './decisions';
import { forecast, type PlanContext, type PlanSums, type PlanTerms } from './plan';

/** The line that the set-up fee makes on the first invoice; it is taxed as the first line is. */
const SET_UP_LINE = '00000000-0000-4000-8000-00000000000a';

/** What is billed with a charge: the paper, and with the first one the set-up fee; a free period bills the fee alone. @param part.setUpWords what the fee is called, in the customer's language */
export function chargedPaper(
  terms: PlanTerms,
  part: { readonly setUp: boolean; readonly free: boolean; readonly setUpWords?: string },
): Paper {
  const { paper, setUp } = terms;
  const like = paper.lines[0];
  const fee = newLine(SET_UP_LINE, 'piece', {
    what: part.setUpWords ?? 'Set-up',
    quantity: '1',
    price: setUp,
    taxes: like?.taxes ?? [],
    taxesBy: like?.taxesBy ?? 'place',
    taxClass: like?.taxClass ?? 'standard',
  });
  const lines = part.free ? [] : paper.lines;
  return {
    ...paper,
    discount: part.free ? '' : paper.discount,
    lines: part.setUp && setUp.trim() ? [...lines, fee] : lines,
  };
}

/** A typed deposit in minor units; null for what is none, or for more than the whole in percent. */
function depositOf(share: Discount | undefined | null, whole: bigint): bigint | null {
  if (share === undefined) return 0n;
  if (share === null) return null;
  if ('amount' in share) return share.amount;
  return Number(share.percent) > 100 ? null : percentOf(whole, share.percent, 'deposit');
}

/** What a plan's terms come to for this customer now, and what has to be put right; sums of what cannot be read are 0. */
export function planReading(
  terms: PlanTerms,
  setting: PaperSetting,
  decisions: Decisions = {},
): { sums: PlanSums; currency: string; problems: PaperProblem[] } {
  const reading = readPaper(completePaper(terms.paper), setting);
  const { currency } = reading.document;
  const digits = minorDigits(currency);
  const problems: PaperProblem[] = [...reading.problems];
  const eachMinor = reading.tally.total;
  const fee = terms.kind === 'membership' ? typedMinor(terms.setUp, digits) : 0n;
  if (fee === null) problems.push({ field: 'setUp', words: 'Write the fee as a number, or leave it empty.' });
  const setUpMinor =
    fee !== null && fee > 0n ? readPaper(chargedPaper(terms, { setUp: true, free: true }), setting).tally.total : 0n;
  const share = terms.kind === 'instalments' ? typedShare(terms.deposit, digits) : undefined;
  const deposit = depositOf(share, eachMinor);
  if (deposit === null) problems.push({ field: 'deposit', words: 'Write the deposit as 30% or as an amount.' });
  const paidFirst = deposit ?? 0n;
  if (paidFirst > 0n && paidFirst >= eachMinor)
    problems.push({ field: 'deposit', words: 'The deposit is not less than the whole.' });
  if (!terms.name.trim()) problems.push({ field: 'name', words: 'Say what it is for: the customer reads this.' });
  if (eachMinor <= 0n) problems.push({ field: 'lines', words: 'Write what is charged, with a price.' });
  const onceMinor = Object.fromEntries(
    Object.entries(decisions).flatMap(([date, decision]) =>
      decision.price === undefined
        ? []
        : [[date, readPaper(completePaper(termsOn(terms, decision).paper), setting).tally.total]],
    ),
  );
  const depositMinor = paidFirst < eachMinor ? paidFirst : 0n;
  return { sums: { eachMinor, setUpMinor, depositMinor, onceMinor }, currency, problems };
}

/** Why a plan's dates cannot be used, in words; null where they can. */
export function dateTrouble(terms: PlanTerms, sums: PlanSums, context: PlanContext): string | null {
  try {
    return forecast(terms, sums, context).charges.length === 0
      ? 'This schedule has no date at all. Change its start or its end.'
      : null;
  } catch (error) {
    if (!(error instanceof RuleError)) throw error;
    if (error.message.startsWith('count'))
      return 'There are more payments than the smallest coins of the sum. Take fewer payments.';
    if (terms.kind === 'instalments' && terms.schedule.ends === 'never')
      return 'Say how many payments there are: parts of a balance have an end.';
    return error.message.includes('too many')
      ? 'These are more dates than anybody will see. Take fewer payments, or an earlier end.'
      : 'This schedule does not work out. Look at its days and its end.';
  }
}
