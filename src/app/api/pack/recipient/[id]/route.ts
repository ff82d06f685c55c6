import { desk } from '@/app/answer';
import { correctRecipient } from '@/flows/parcel/pack';
import { RecipientInput } from '@/input/parcel-input';

export const POST = desk(RecipientInput, (actor, { input, params }) => correctRecipient(actor, params.id ?? '', input));
