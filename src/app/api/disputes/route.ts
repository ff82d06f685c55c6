import { jsonDispute } from '@/app/(desk)/money/disputes/json-dispute';
import { desk } from '@/app/answer';
import { disputePage } from '@/flows/dispute/dispute-sheet';
import { DisputePageInput } from '@/input/dispute-input';

export const GET = desk(DisputePageInput, async (actor, { input: { key, id } }) => {
  const { rows, next, business } = await disputePage(actor, { key, id });
  return { rows: rows.map((row) => jsonDispute(row, business)), next };
});
