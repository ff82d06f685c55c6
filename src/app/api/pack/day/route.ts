import { desk } from '@/app/answer';
import { changeMailDay } from '@/flows/parcel/pack';
import { MailDayInput } from '@/input/parcel-input';

export const POST = desk(MailDayInput, (actor, { input }) => changeMailDay(actor, input.ids ?? null, input.mailOn));
