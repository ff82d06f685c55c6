import { jsonToPack } from '@/app/(desk)/deliver/json-pack';
import { desk } from '@/app/answer';
import { putOnPaper } from '@/flows/parcel/pack';
import { packPage } from '@/flows/parcel/to-pack';
import { PackPageInput, PutOnInput } from '@/input/parcel-input';

export const GET = desk(PackPageInput, async (actor, { input: { blocked, words = '', key, id } }) => {
  const after = key && id ? { at: new Date(key), id } : null;
  const { rows, next } = await packPage(actor, { blocked: blocked === 'yes', words }, after);
  return { rows: rows.map(jsonToPack), next: next && { key: next.at.toISOString(), id: next.id } };
});

export const POST = desk(PutOnInput, (actor, { input }) => putOnPaper(actor, input.ids));
