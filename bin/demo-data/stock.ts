/** What came into the demo's workshop, was counted and broke. */
import { randomUUID } from 'node:crypto';
import type { Item } from '@/core/item/item';
import type { Actor } from '@/db/people';
import { countStock, receiveStock, throwAway } from '@/flows/stock/change-stock';
import { countList } from '@/flows/stock/stock-desk';

type Task = { readonly daysAgo: number; readonly hour: number; readonly work: () => Promise<void> };

/** A delivery: code of the item or its option, how many, and what one cost. */
const DELIVERIES: readonly (readonly [
  daysAgo: number,
  supplier: string,
  paper: string,
  lines: readonly (readonly [code: string, quantity: string, cost: string])[],
])[] = [
  [
    150,
    'Larkspur String Works',
    'LS 20871',
    [
      ['VLN-L', '24', '30.40'],
      ['VLN-M', '24', '30.40'],
      ['CLO-M', '12', '68.50'],
    ],
  ],
  [96, 'Hesper Resins', '7-1140', [['ROS-D', '36', '4.35']]],
  [
    71,
    'Larkspur String Works',
    'LS 22406',
    [
      ['VLN-M', '12', '32.10'],
      ['VLN-H', '12', '33.00'],
      ['CLO-H', '6', '71.80'],
    ],
  ],
  [
    40,
    'Fenn & Marchbank',
    'D-5521',
    [
      ['REST', '6', '18.90'],
      ['CASE-V', '4', '91.50'],
    ],
  ],
  [
    16,
    'Larkspur String Works',
    'LS 23977',
    [
      ['VLN-L', '12', '32.10'],
      ['CLO-M', '6', '71.80'],
    ],
  ],
];

/** Deliveries, a count along the shelves and two losses, each on its day. */
export function stockWork(actor: Actor, items: readonly Item[]): Task[] {
  const thing = (code: string) => {
    for (const item of items) {
      const option = item.options.find((one) => one.code === code);
      if (option) return { itemId: item.id, optionId: option.id };
      if (item.code === code) return { itemId: item.id, optionId: null };
    }
    throw new Error(`Nothing has the code ${code}`);
  };
  return [
    ...DELIVERIES.map(([daysAgo, supplier, paper, lines]) => ({
      ...{ daysAgo, hour: 10 },
      work: () =>
        receiveStock(
          actor,
          randomUUID(),
          lines.map(([code, quantity, cost]) => ({ ...thing(code), quantity, cost })),
          { supplier, paper, fileId: null },
        ),
    })),
    {
      ...{ daysAgo: 60, hour: 18 },
      work: async () => {
        const lies = await countList(actor, '');
        await countStock(
          actor,
          randomUUID(),
          lies
            .filter(({ lies: count }) => !count.startsWith('-'))
            .map(({ itemId, optionId, code, lies: count }) => ({
              ...{ itemId, optionId, expected: count },
              counted: code === 'ROS-D' ? String(Math.max(0, Number(count) - 2)) : count,
            })),
          'Count along the shelves',
        );
      },
    },
    {
      daysAgo: 33,
      hour: 11,
      work: () => throwAway(actor, randomUUID(), thing('CASE-V'), '1', 'Its lid was cracked in transit'),
    },
    { daysAgo: 9, hour: 16, work: () => throwAway(actor, randomUUID(), thing('ROS-D'), '2', 'Used at our own bench') },
  ];
}
