import { Nothing, open } from '@/app/answer';
import { forgottenWork } from '@/flows/house/forgotten';

export const GET = open(Nothing, () => forgottenWork());
