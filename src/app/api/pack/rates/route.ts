import { desk, Nothing } from '@/app/answer';
import { askRatesAgain } from '@/flows/parcel/pack';

export const POST = desk(Nothing, (actor) => askRatesAgain(actor));
