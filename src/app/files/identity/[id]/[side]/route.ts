import { desk, fileAnswer, Nothing } from '@/app/answer';
import { SIDES } from '@/core/identity/identity';
import { Refusal } from '@/flows/door/refusal';
import { identityPicture } from '@/flows/identity/identity';

/** A picture of a document or a face, for owners. */
export const GET = desk(Nothing, async (actor, { params }) => {
  const side = SIDES.find((one) => one === params.side);
  if (!side) throw new Refusal('not-found');
  const bytes = await identityPicture(actor, params.id ?? '', side);
  return fileAnswer({ name: `${side}.jpg`, type: 'image/jpeg', bytes });
});
