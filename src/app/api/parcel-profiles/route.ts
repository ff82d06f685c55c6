import { desk } from '@/app/answer';
import { keepProfile } from '@/flows/parcel/profiles';
import { ParcelProfileInput } from '@/input/parcel-input';

export const POST = desk(ParcelProfileInput, async (actor, { input }) => ({
  id: await keepProfile(actor, null, { ...input }),
}));
