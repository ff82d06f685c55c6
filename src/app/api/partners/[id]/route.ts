import { desk, Nothing } from '@/app/answer';
import { PartnerInput } from '@/app/input/offer-records-input';
import { removePartner, storePartner } from '@/flows/records/partners';

export const PUT = desk(PartnerInput, (actor, { input, params }) => storePartner(actor, params.id ?? '', input));

export const DELETE = desk(Nothing, (actor, { params }) => removePartner(actor, params.id ?? ''));
