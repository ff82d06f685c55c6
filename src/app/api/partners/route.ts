import { desk } from '@/app/answer';
import { storePartner } from '@/flows/records/partners';
import { PartnerInput } from '@/input/offer-records-input';

export const POST = desk(PartnerInput, (actor, { input }) => storePartner(actor, null, input));
