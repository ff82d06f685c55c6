import { Nothing, open } from '@/app/answer';
import { signUpWork } from '@/flows/house/sign-up';

export const GET = open(Nothing, () => signUpWork());
