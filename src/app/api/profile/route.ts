import { desk } from '@/app/answer';
import { keepProfile } from '@/flows/records/profile';
import { ProfileInput } from '@/input/profile-input';

export const PUT = desk(ProfileInput, (actor, { input }) =>
  keepProfile(actor, {
    ...input,
    logoId: input.logoId ?? null,
    termsId: input.termsId ?? null,
    ways: input.ways ? { ...input.ways, tip: input.ways.tip ?? null } : null,
  }),
);
