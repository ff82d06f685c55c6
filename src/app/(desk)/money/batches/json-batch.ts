import type { CalendarDate } from '@/core/dates/calendar-date';
import { monthText, shortDate } from '@/core/dates/date-text';
import { jsonMinor, money } from '@/core/money/money';
import { moneyText } from '@/core/money/money-text';
import { type BatchDifference, dayTotals } from '@/core/payment/day-batch';
import type { ListedBatch } from '@/flows/day/day-batches';
import type { ListRow } from '@/ui/list/list-row';
import type { RosetteState } from '@/ui/rosette-geometry';

/** How a batch stands, in words. */
export function batchState({ checkedAt, differences, settledBy, sums }: Omit<ListedBatch, 'day'>): string {
  if (!checkedAt) return sums.length > 0 ? 'Open' : 'No cards';
  if (differences.length === 0) return 'Agrees';
  return settledBy ? 'Looked into' : differences.length === 1 ? '1 difference' : `${differences.length} differences`;
}

const ROSETTES: Readonly<Record<string, RosetteState>> = {
  Open: 'Open',
  'No cards': 'Paid',
  Agrees: 'Paid',
  'Looked into': 'Paid',
};

/** The mark beside it. */
export const batchRosette = (batch: Omit<ListedBatch, 'day'>): RosetteState => ROSETTES[batchState(batch)] ?? 'Refused';

/** A day as its list shows it: what it comes to in the business's currency, or the only one that it holds; partners' parts are in it. */
export function jsonBatch(
  batch: ListedBatch,
  { deskLocale: locale, currency }: { deskLocale: string; currency: string },
  today: CalendarDate,
): ListRow {
  const state = batchState(batch);
  const totals = dayTotals(batch.sums, batch.byHand, new Map());
  const shown = totals.find((sum) => sum.currency === currency) ?? totals[0];
  const cards = batch.sums.reduce((all, sum) => all + sum.sales, 0);
  const hand = batch.byHand.reduce((all, sum) => all + sum.count, 0);
  const counted = [
    cards > 0 || hand === 0 ? (cards === 1 ? '1 card payment' : `${cards || 'no'} card payments`) : '',
    hand > 0 ? `${hand} by hand` : '',
  ].filter(Boolean);
  const rosette = batchRosette(batch);
  return {
    id: batch.day,
    href: `/money/batches/${batch.day}`,
    name: shortDate(batch.day, locale, { weekday: true }),
    under: `${[state === 'No cards' ? '' : state, ...counted].filter(Boolean).join(' · ')}${totals
      .filter((sum) => sum !== shown && sum.allMinor !== 0n)
      .map(({ allMinor, currency: other }) => {
        const size = moneyText(money(allMinor < 0n ? -allMinor : allMinor, other), locale);
        return allMinor < 0n ? ` − ${size}` : ` + ${size}`;
      })
      .join('')}`,
    state: rosette,
    share: rosette === 'Paid' ? 1 : 0,
    minor: jsonMinor(shown?.allMinor ?? 0n),
    currency: shown?.currency ?? currency,
    foreign: shown !== undefined && shown.currency !== currency,
    when: '',
    late: rosette === 'Refused',
    group: batch.day === today ? 'Today' : monthText(batch.day.slice(0, 7), locale),
  };
}

/** What a difference means, and what to do about it. */
export const DIFFERENCE_WORDS: Readonly<Record<BatchDifference['kind'], { what: string; todo: string }>> = {
  'only-here': {
    what: 'Paid here, not with the processor',
    todo: 'Ask the processor; until it is found, this money does not arrive.',
  },
  'only-there': {
    what: 'Taken by the processor, not paid here',
    todo: 'Look for the payer, and record the payment or refund it at the processor.',
  },
  amount: {
    what: 'Another amount with the processor',
    todo: 'Compare with the receipt, and ask the processor for the difference.',
  },
  fee: { what: 'Another fee with the processor', todo: 'The payout differs by it; compare with your contract.' },
  'back-only-here': {
    what: 'Refunded here, not with the processor',
    todo: 'The payer has not got it: ask the processor to refund it.',
  },
  'back-only-there': {
    what: 'Refunded by the processor, not here',
    todo: 'Ask the processor who refunded it, and write a credit note.',
  },
  'dispute-only-here': {
    what: 'A dispute here, not so with the processor',
    todo: 'Compare sum and fee with the processor’s notice of the dispute.',
  },
  'dispute-only-there': {
    what: 'A dispute with the processor, not here',
    todo: 'Compare again: it is asked for once a day. If it stays, ask the processor.',
  },
};
