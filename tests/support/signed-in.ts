/** Signing in by people who have no second step. */
import type { SignedIn } from '@/flows/house/enter';
import { signIn as signInOrHalf } from '@/flows/house/sign-in';

/** The session of somebody whose password is enough. @throws Error where a second step is asked */
export async function signIn(...given: Parameters<typeof signInOrHalf>): Promise<SignedIn> {
  const answer = await signInOrHalf(...given);
  if ('half' in answer) throw new Error('A second step is asked');
  return answer;
}
