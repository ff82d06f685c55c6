import { expect, test } from 'vitest';
import { chargeNoteText, howPaidText } from './charge-words';

test.each([
  [{ by: 'card', card: 'Corvid ·0819' }, 'Corvid ·0819'],
  [{ by: 'cash', reference: '' }, 'cash'],
  [{ by: 'transfer', reference: 'RF18' }, 'bank transfer, RF18'],
  [{ by: 'cheque', reference: '77' }, 'cheque, 77'],
  [{ by: 'other', reference: '' }, 'another way'],
] as const)('%j is told as %s', (how, words) => {
  expect(howPaidText(how as never)).toBe(words);
});

test.each([
  [{ code: 'by-hand', by: 'Ada' }, 'by Ada'],
  [{ code: 'first-period-free' }, 'the first period is free'],
  [{ code: 'plan-ended' }, 'the plan was cancelled'],
  [{ code: 'nothing-due' }, 'nothing was due any more'],
  [{ code: 'paid', how: { by: 'cash', reference: 'till 2' } }, 'cash, till 2'],
  [{ code: 'not-billed', problem: 'No address' }, 'No address'],
  [null, ''],
] as const)('the note %j is told as “%s”', (note, words) => {
  expect(chargeNoteText(note as never)).toBe(words);
});
