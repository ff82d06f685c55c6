import { desk } from '@/app/answer';
import { keepDelivering } from '@/flows/parcel/profiles';
import { DeliveringInput } from '@/input/parcel-input';

export const PUT = desk(DeliveringInput, (actor, { input }) => keepDelivering(actor, { ...input }));
