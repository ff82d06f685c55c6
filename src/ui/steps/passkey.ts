/** Passkeys in the browser: its own dialog asks, and its answer is handed to the server. */
import type {
  PublicKeyCredentialCreationOptionsJSON,
  PublicKeyCredentialRequestOptionsJSON,
} from '@simplewebauthn/browser';
import { type Answer, send } from '../kit/send';

const browser = () => import('@simplewebauthn/browser');

/** Whether this browser knows passkeys. */
export const knowsPasskeys = async (): Promise<boolean> => (await browser()).browserSupportsWebAuthn();

const LEFT: Answer<never> = {
  ok: false,
  code: 'passkey-left',
  words: 'No passkey was chosen. Try again, or take another way.',
  fields: [],
};
const THERE: Answer<never> = { ...LEFT, code: 'passkey-there', words: 'This device has a passkey of yours already.' };

type Asked<Options> = { readonly options: Options; readonly seal: string };

/** Asks for a passkey. @param path where the question comes from @param body sent along */
export async function askedPasskey(
  path: string,
  body: object,
): Promise<Answer<{ readonly seal: string; readonly response: object }>> {
  const asked = await send<Asked<PublicKeyCredentialRequestOptionsJSON>>('POST', path, body);
  if (!asked.ok) return asked;
  const { options, seal } = asked.value;
  try {
    const response = await (await browser()).startAuthentication({ optionsJSON: options });
    return { ok: true, value: { seal, response } };
  } catch {
    return LEFT;
  }
}

/** Has a passkey made. */
export async function madePasskey(): Promise<Answer<{ readonly seal: string; readonly response: object }>> {
  const asked = await send<Asked<PublicKeyCredentialCreationOptionsJSON>>('POST', '/api/steps/passkeys/options', {});
  if (!asked.ok) return asked;
  const { options, seal } = asked.value;
  try {
    const response = await (await browser()).startRegistration({ optionsJSON: options });
    return { ok: true, value: { seal, response } };
  } catch (error) {
    return error instanceof Error && error.name === 'InvalidStateError' ? THERE : LEFT;
  }
}
