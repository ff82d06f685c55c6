import type { ChargeNote, HowPaid } from './charge';

const METHODS = {
  cash: 'cash',
  transfer: 'bank transfer',
  cheque: 'cheque',
  other: 'another way',
  account: 'credit on account',
  voucher: 'gift voucher',
} as const;

/** How money came, for the desk. */
export const howPaidText = (how: HowPaid): string =>
  how.by === 'card' ? how.card : [METHODS[how.by], how.reference].filter(Boolean).join(', ');

/** What stands beside a charge's state, for the desk; empty for nothing. */
export function chargeNoteText(note: ChargeNote | null): string {
  switch (note?.code) {
    case 'by-hand':
      return `by ${note.by}`;
    case 'first-period-free':
      return 'the first period is free';
    case 'plan-ended':
      return 'the plan was cancelled';
    case 'nothing-due':
      return 'nothing was due any more';
    case 'paid':
      return howPaidText(note.how);
    case 'missed':
      return 'missed while nothing was charged';
    case 'not-billed':
      return note.problem;
    case undefined:
      return '';
  }
}
