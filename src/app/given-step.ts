import type { Way } from '@/core/person/steps';
import type { AuthenticationResponseJSON } from '@/flows/house/steps/passkeys';

type Done = {
  readonly code: string;
  readonly seal: string;
  readonly response: Partial<AuthenticationResponseJSON>;
};

/** A step as the flows take it: a passkey's answer, or a code. */
export const givenStep = <Other extends Way | 'password'>({
  way,
  code,
  seal,
  response,
}: Done & { readonly way: Other }) =>
  way === 'passkey'
    ? { way: 'passkey' as const, seal, response: response as AuthenticationResponseJSON }
    : { way: way as Exclude<Other, 'passkey'>, code };
