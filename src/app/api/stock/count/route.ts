import { desk } from '@/app/answer';
import { countStock } from '@/flows/stock/change-stock';
import { CountInput } from '@/input/stock-input';

/** Answers what was not booked, since it moved meanwhile. */
export const POST = desk(CountInput, async (actor, { input: { requestKey, lines, why } }) => ({
  moved: await countStock(
    actor,
    requestKey,
    lines.map(({ itemId, optionId, counted, expected }) => ({ itemId, optionId: optionId ?? null, counted, expected })),
    why,
  ),
}));
