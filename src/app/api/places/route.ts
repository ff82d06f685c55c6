import { desk } from '@/app/answer';
import { placesFor } from '@/flows/records/places';
import { CountryInput } from '@/input/customer-input';

export const GET = desk(CountryInput, (actor, { input }) => placesFor(actor, input.country ?? ''));
