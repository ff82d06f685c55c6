import type { ItemInput } from '@/input/item-input';

const count = (typed: string | null | undefined): string | null => (typed ? typed.replace(',', '.') : null);

/** An item as kept: what is optional at the door is null within. */
export const completeItem = (input: ItemInput) => ({
  ...input,
  onHand: count(input.onHand),
  lowAt: count(input.lowAt),
  pictureId: input.pictureId ?? null,
  options: input.options.map((option) => ({ ...option, onHand: count(option.onHand), lowAt: count(option.lowAt) })),
});
