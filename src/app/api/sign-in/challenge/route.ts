import { open } from '@/app/answer';
import { signInWork } from '@/flows/house/sign-in';
import { SignInWorkInput } from '@/input/people-input';

export const GET = open(SignInWorkInput, ({ input }) => signInWork(input.email));
