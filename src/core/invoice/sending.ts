import { MAIL_ADDRESS } from '../customer/mail-address';
import { addDays, type CalendarDate } from '../dates/calendar-date';
import { minorDigits } from '../money/currency';
import type { Approver } from '../paper/paper';
import { isDayOrNone, type Paper } from '../paper/paper';
import { RuleError } from '../rule-error';
import { percentOf } from '../tally/tally';
import { dueDate, issueDate } from './due';
import { type PaperProblem, type PaperReading, typedShare } from './read-paper';

/** How far from today an invoice may be dated, in days: the books of a month stay open for a while. */
const OLDEST = 366;
const NEWEST = 31;
const MOST_MINOR = 2n ** 53n - 1n;

/** The least first payment a paper asks for, in minor units; 0 for none, null where it cannot be read or is too much. */
export function firstPaymentMinor(paper: Paper, total: bigint, currency: string): bigint | null {
  const first = typedShare(paper.ways.first, minorDigits(currency));
  if (first === undefined) return 0n;
  if (first === null) return null;
  if ('amount' in first) return first.amount <= total ? first.amount : null;
  try {
    return percentOf(total, first.percent, 'first');
  } catch (error) {
    if (!(error instanceof RuleError)) throw error;
    return null;
  }
}

function dateProblems(paper: Paper, today: CalendarDate): PaperProblem[] {
  const problems: PaperProblem[] = [];
  const days: [string, string][] = [
    ['issuedOn', paper.issuedOn],
    ['serviceFrom', paper.serviceFrom],
    ['serviceTo', paper.serviceTo],
    ...paper.lines.map((line): [string, string] => [`${line.id}.on`, line.on ?? '']),
  ];
  for (const [field, typed] of days) {
    if (!isDayOrNone(typed)) problems.push({ field, words: 'Write this as a day of the calendar.' });
  }
  const issuedOn = issueDate(paper, today);
  if (issuedOn < addDays(today, -OLDEST) || issuedOn > addDays(today, NEWEST))
    problems.push({ field: 'issuedOn', words: 'Choose a day of issue within the last year or the coming month.' });
  if (paper.serviceFrom && paper.serviceTo && paper.serviceTo < paper.serviceFrom)
    problems.push({ field: 'serviceTo', words: 'The period ends before it begins.' });
  const due = dueDate(paper.due, issuedOn);
  if (due === null) problems.push({ field: 'due', words: 'Choose a day of the calendar.' });
  else if (due < issuedOn || (due < today && paper.due.kind === 'date'))
    problems.push({ field: 'due', words: 'Choose a due date that has not passed.' });
  return problems;
}

function waysProblems(paper: Paper, reading: PaperReading): PaperProblem[] {
  const { ways } = paper;
  const problems: PaperProblem[] = [];
  if (!ways.card && !ways.debit && !ways.transfer)
    problems.push({ field: 'ways', words: 'Allow at least one way to pay: by card, bank debit or bank transfer.' });
  if (ways.parts && firstPaymentMinor(paper, reading.tally.total, reading.document.currency) === null)
    problems.push({ field: 'first', words: 'Write the first payment as 30% or as an amount within the total.' });
  return problems;
}

const isReachable = ({ name, email }: Approver): boolean => name.trim() !== '' && MAIL_ADDRESS.test(email.trim());

const SAY_NOTHING = 'There is nothing to pay yet: give a line a price.';
const SAY_ALL_OFF =
  'All of it is taken off, and an invoice asks for something: take less off, or leave the discount out.';

/** Whether it is the discounts that leave nothing to pay. */
const isGivenAway = ({ tally }: PaperReading): boolean =>
  tally.subtotal > 0n && tally.lineDiscounts + tally.documentDiscount >= tally.subtotal;

/** What stands in the way where nothing is asked for: no price yet, or the discount that takes all of it, at its own place. */
function nothingProblem(paper: Paper, reading: PaperReading): PaperProblem {
  if (!isGivenAway(reading)) return { field: 'lines', words: SAY_NOTHING };
  const line = paper.discount.trim() ? undefined : reading.counted.find(({ discount }) => discount.trim());
  return { field: line ? `${line.id}.discount` : 'discount', words: SAY_ALL_OFF };
}

/** All that keeps this paper from being sent today, in words that say what to do; empty when it is ready. */
export function sendingProblems(paper: Paper, reading: PaperReading, today: CalendarDate): PaperProblem[] {
  const { total } = reading.tally;
  return [
    ...(paper.customerId ? [] : [{ field: 'customer', words: 'Choose who pays.' }]),
    ...dateProblems(paper, today),
    ...reading.problems,
    ...(reading.counted.length === 0 && reading.problems.length === 0
      ? [{ field: 'lines', words: 'Write at least one line.' }]
      : []),
    ...(reading.counted.length > 0 && total === 0n ? [nothingProblem(paper, reading)] : []),
    ...(total > MOST_MINOR ? [{ field: 'lines', words: 'This amount is too large to be written down.' }] : []),
    ...waysProblems(paper, reading),
    ...(paper.files.some(({ approve, approvers = [] }) => approve && approvers.some((one) => !isReachable(one)))
      ? [
          {
            field: 'files',
            words: 'Write the name and the whole e-mail address of everybody who is to approve a file.',
          },
        ]
      : []),
  ];
}
