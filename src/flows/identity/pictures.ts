/** Pictures of documents and faces: encrypted before they are written down, opened for owners and for the office alone. */
import type { Side } from '@/core/identity/identity';
import { sealedPicture } from '@/db/identity';
import type { Db } from '@/db/pool';
import { decrypted, encrypted } from '@/outside/sealing';

export type Which = { readonly memberId: string; readonly side: Side };

// Bound to whose and which it is: moved to another row it does not open.
const bound = (businessId: string, { memberId, side }: Which): string => `${businessId} ${memberId} ${side}`;

export const closedPicture = (businessId: string, which: Which, bytes: Buffer): Buffer =>
  encrypted('identity-picture', bound(businessId, which), bytes);

/** A picture as it was given, JPEG; null where there is none. */
export async function openPicture(db: Db, which: Which): Promise<Buffer | null> {
  const sealed = await sealedPicture(db, which);
  return sealed && decrypted('identity-picture', bound(db.businessId, which), sealed);
}
