import { desk, Nothing } from '@/app/answer';
import { removePartner, storePartner } from '@/flows/records/partners';
import { PartnerInput } from '@/input/offer-records-input';

export const PUT = desk(PartnerInput, (actor, { input, params }) => storePartner(actor, params.id ?? '', input));

export const DELETE = desk(Nothing, (actor, { params }) => removePartner(actor, params.id ?? ''));
