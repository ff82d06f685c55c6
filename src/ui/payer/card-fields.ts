import type { PayWords } from './pay-words';

/** How high the frame is: with the choice between a card and an account it needs a line more. */
export const fieldsClass = (fieldsUrl: string): string =>
  fieldsUrl.includes('take=both') ? 'card-fields with-choice' : 'card-fields';

/** Asks the frame of card fields for a token; null where the holder has to complete something first. */
export function tokenise(
  frame: HTMLIFrameElement,
  origin: string,
  words: Pick<PayWords, 'processorAway' | 'cardSilent'>,
): Promise<{ token: string } | { trouble: string | null }> {
  return new Promise((resolve) => {
    const id = crypto.randomUUID();
    const end = (result: { token: string } | { trouble: string | null }) => {
      window.removeEventListener('message', hear);
      clearTimeout(timer);
      resolve(result);
    };
    const hear = (event: MessageEvent) => {
      if (event.origin !== origin || event.data?.from !== 'card-fields' || event.data.id !== id) return;
      if (event.data.kind === 'token') end({ token: event.data.token });
      if (event.data.kind === 'incomplete') end({ trouble: null });
      if (event.data.kind === 'unreachable') end({ trouble: words.processorAway });
    };
    const timer = setTimeout(() => end({ trouble: words.cardSilent }), 10_000);
    window.addEventListener('message', hear);
    frame.contentWindow?.postMessage({ to: 'card-fields', kind: 'tokenise', id }, origin);
  });
}
