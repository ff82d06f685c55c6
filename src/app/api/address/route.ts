import { desk, Nothing } from '@/app/answer';
import { askNewAddress, keepAddress } from '@/flows/house/new-address';
import { MailAddressInput } from '@/input/people-input';

export const POST = desk(MailAddressInput, (actor, { input }) => askNewAddress(actor, input.email));

export const DELETE = desk(Nothing, (actor) => keepAddress(actor));
