import { desk } from '@/app/answer';
import type { Found } from '@/core/find/found';
import { jsonMinor } from '@/core/money/money';
import { findAll } from '@/flows/house/find';
import { WordsInput } from '@/input/people-input';
import type { JsonFound } from '@/ui/find/json-found';

const jsonFound = ({ amountMinor, at: _, ...one }: Found): JsonFound => ({
  ...one,
  minor: amountMinor === null ? null : jsonMinor(amountMinor),
});

export const GET = desk(WordsInput, async (actor, { input }) => {
  const { deeds, found } = await findAll(actor, input.words);
  return [
    ...deeds.map(({ deed, found: one }) => ({ deed, ...jsonFound(one) })),
    ...found.map((one) => ({ deed: null, ...jsonFound(one) })),
  ];
});
