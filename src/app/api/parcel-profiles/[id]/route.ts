import { desk, Nothing } from '@/app/answer';
import { keepProfile, removeProfile } from '@/flows/parcel/profiles';
import { ParcelProfileInput } from '@/input/parcel-input';

export const PUT = desk(ParcelProfileInput, async (actor, { input, params }) => ({
  id: await keepProfile(actor, params.id ?? '', { ...input }),
}));

export const DELETE = desk(Nothing, (actor, { params }) => removeProfile(actor, params.id ?? ''));
