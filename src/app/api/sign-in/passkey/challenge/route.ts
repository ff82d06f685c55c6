import { Nothing, open } from '@/app/answer';
import { passkeyAsked } from '@/flows/house/steps/half';

export const POST = open(Nothing, () => passkeyAsked());
