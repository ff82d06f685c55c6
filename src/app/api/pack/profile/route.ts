import { desk } from '@/app/answer';
import { changeProfiles } from '@/flows/parcel/pack';
import { ProfilesInput } from '@/input/parcel-input';

export const POST = desk(ProfilesInput, (actor, { input }) =>
  changeProfiles(actor, input.ids ?? null, input.profileId ?? null),
);
