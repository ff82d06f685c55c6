import { expect, test } from 'vitest';
import { workList } from '@/core/today/work';
import type { QueueItem, TodayView } from '@/flows/day/today';
import { workItem } from '@/flows/day/work-items';
import { shownRow } from './work-words';

const view = {
  business: { deskLocale: 'en-US', zone: 'America/New_York', currency: 'USD' },
  today: '2027-03-05',
} as unknown as TodayView;
const charge = (id: string, more: object, needsCard: boolean): QueueItem =>
  ({
    kind: 'charge',
    needsCard,
    asked: null,
    charge: {
      id,
      planId: `plan ${id}`,
      customerId: 'petra',
      customer: 'Petra Poor',
      email: 'petra@poor.example',
      plan: 'Care club',
      chargedOn: '2027-03-02',
      amountMinor: 2200n,
      currency: 'USD',
      note: null,
      lastReason: null,
      actAt: null,
      ...more,
    },
  }) as unknown as QueueItem;
const shown = (items: readonly QueueItem[], role: 'owner' | 'reader' = 'owner') => {
  const { groups, waits } = workList(items.map((item) => workItem(item, { since: new Date(0) })));
  const rows = [...groups, { group: 'waits' as const, rows: waits }];
  return rows.flatMap((one) =>
    one.rows.map((row) => ({ group: one.group, ...shownRow(row, view, { role, extra: [] }) })),
  );
};

test('a row’s action is the one that its group is called by, for all of the person’s things of that group', () => {
  const retried = { actAt: new Date('2027-03-08T14:00:00Z'), lastReason: 'card-expired' };
  expect(shown([charge('a', retried, true)])).toMatchObject([
    { group: 'card', act: { do: 'card', customerIds: ['petra'], to: 'petra@poor.example' } },
  ]);
  // Without an address the link cannot go by mail: what is left is to look.
  expect(shown([charge('a', { email: '' }, true)])).toMatchObject([{ group: 'card', act: { do: 'open' } }]);
  const [row] = shown([charge('a', {}, false), charge('b', { currency: 'EUR' }, false)]);
  expect(row).toMatchObject({
    group: 'charge',
    act: { do: 'charge', chargeIds: ['a', 'b'] },
    sums: [
      { currency: 'USD', minor: 2200 },
      { currency: 'EUR', minor: 2200 },
    ],
    lines: [{ act: null }],
  });
});

test('who may only look is offered nothing else', () => {
  expect(shown([charge('a', {}, false), charge('b', {}, true)], 'reader')).toMatchObject([
    { act: { do: 'open' }, lines: [{ act: null }] },
  ]);
});
