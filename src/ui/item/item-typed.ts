import { GOES_AS_USUAL, type Item } from '@/core/item/item';

/** An item while it is written. */
export type ItemTyped = Omit<Item, 'id'>;

export const BLANK_ITEM: ItemTyped = {
  code: '',
  name: '',
  description: '',
  kind: 'goods',
  unit: 'piece',
  prices: {},
  cost: '',
  taxClass: 'standard',
  onHand: null,
  lowAt: null,
  pictureId: null,
  going: GOES_AS_USUAL,
  options: [],
};

const filled = (prices: Readonly<Record<string, string>>): Record<string, string> =>
  Object.fromEntries(Object.entries(prices).filter(([, price]) => price.trim()));

/** What is sent: without the prices that nobody wrote. */
export function itemTyped({ prices, options, ...rest }: ItemTyped): ItemTyped {
  const { id: _, ...body } = { id: '', ...rest };
  return {
    ...body,
    prices: filled(prices),
    options: options.map((option) => ({ ...option, prices: filled(option.prices) })),
  };
}
