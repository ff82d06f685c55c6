import { desk } from '@/app/answer';
import { fetchStatementNow } from '@/flows/parcel/carrier-statements';
import { CarrierMonthInput } from '@/input/carrier-input';

export const POST = desk(CarrierMonthInput, (actor, { input: { month } }) => fetchStatementNow(actor, month));
