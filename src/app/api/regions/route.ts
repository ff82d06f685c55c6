import { open } from '@/app/answer';
import { regionsOf } from '@/flows/records/places';
import { CountryInput } from '@/input/customer-input';

export const GET = open(CountryInput, async ({ input }) => regionsOf(input.country ?? ''));
