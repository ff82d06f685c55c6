import { desk } from '@/app/answer';
import { importRates } from '@/flows/records/rates';
import { RatesInput } from '@/input/offer-records-input';

export const POST = desk(RatesInput, (actor, { input }) => importRates(actor, input.name, input.text));
