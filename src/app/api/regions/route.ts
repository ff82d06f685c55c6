import { open } from '@/app/answer';
import { CountryInput } from '@/app/input/customer-input';
import { regionsOf } from '@/flows/records/places';

export const GET = open(CountryInput, async ({ input }) => regionsOf(input.country ?? ''));
