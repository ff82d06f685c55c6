import type { ItemOption } from '@/core/item/item';
import { available } from '@/core/stock/available';

const COUNT = /^-?\d+(\.\d{1,4})?$/;

/** What can still be promised, in words; a count that cannot be read says nothing. */
export function stockWords(onHand: string | null, promised: string | undefined): string {
  if (onHand === null || !COUNT.test(onHand)) return '';
  return promised ? `${promised} promised, ${available(onHand, promised)} available` : '';
}

/** Whether both counts can be read: only then is it said that stock is low. */
export const isReadable = ({ onHand, lowAt }: Pick<ItemOption, 'onHand' | 'lowAt'>): boolean =>
  [onHand, lowAt].every((count) => count === null || COUNT.test(count));
