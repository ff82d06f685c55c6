import { desk } from '@/app/answer';
import { keepFronts } from '@/flows/records/profile';
import { FrontsInput } from '@/input/profile-input';

export const PUT = desk(FrontsInput, (actor, { input }) =>
  keepFronts(actor, {
    tradingNames: input.tradingNames.map((one) => ({ ...one, logoId: one.logoId ?? null })),
    locations: input.locations,
  }),
);
