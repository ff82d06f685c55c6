import type { Context } from '@/flows/door/operation';
import { type CardOnFile, putOnFile } from '@/flows/plan/cards-on-file';
import { withKeptCard } from '@/flows/plan/claim-card';

/** Puts a card on file for the demo, tests and measurements, which write the authorisation with the plan that they start. */
export const keepCard = (
  ctx: Context,
  customerId: string,
  { token, key, byName }: { readonly token: string; readonly key: string; readonly byName: string },
): Promise<CardOnFile> => withKeptCard(ctx, { token, key }, (tx, kept) => putOnFile(tx, customerId, kept, byName));
