import { desk, Nothing } from '@/app/answer';
import { removePerson, setRights } from '@/flows/house/people';
import { HoldsInput } from '@/input/people-input';

export const PUT = desk(HoldsInput, (actor, { input, params }) => setRights(actor, params.id ?? '', input));
export const DELETE = desk(Nothing, (actor, { params }) => removePerson(actor, params.id ?? ''));
