import { desk } from '@/app/answer';
import { RatesInput } from '@/app/input/offer-records-input';
import { importRates } from '@/flows/records/rates';

export const POST = desk(RatesInput, (actor, { input }) => importRates(actor, input.name, input.text));
