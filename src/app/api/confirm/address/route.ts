import { desk } from '@/app/answer';
import { correctAddress } from '@/flows/house/confirm';
import { MailAddressInput } from '@/input/people-input';

export const PUT = desk(MailAddressInput, (actor, { input, address }) => correctAddress(actor, input.email, address));
