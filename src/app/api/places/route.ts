import { desk } from '@/app/answer';
import { CountryInput } from '@/app/input/customer-input';
import { placesFor } from '@/flows/records/places';

export const GET = desk(CountryInput, (actor, { input }) => placesFor(actor, input.country ?? ''));
