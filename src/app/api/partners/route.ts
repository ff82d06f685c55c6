import { desk } from '@/app/answer';
import { PartnerInput } from '@/app/input/offer-records-input';
import { storePartner } from '@/flows/records/partners';

export const POST = desk(PartnerInput, (actor, { input }) => storePartner(actor, null, input));
