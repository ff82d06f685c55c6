import { desk } from '@/app/answer';
import { showPicture } from '@/flows/identity/identity';
import { ShownPictureInput } from '@/input/identity-input';

export const POST = desk(
  ShownPictureInput,
  async (actor, { input, file }) => showPicture(actor, input.memberId, input.side, await file()),
  { from: 'address' },
);
