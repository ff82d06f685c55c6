'use client';
import { type Ref, useImperativeHandle, useRef } from 'react';
import { fieldsClass, tokenise } from '../payer/card-fields';

/** What a form asks of the card fields: a token, or why there is none (null where the holder has to complete something). */
export type CardEntryHandle = { readonly token: () => Promise<{ token: string } | { trouble: string | null }> };

const WORDS = {
  cardFields: 'Card fields',
  processorAway: 'The card processor cannot be reached. Try again in a moment.',
  cardSilent: 'The card fields do not answer. Reload the page and try again.',
};

/** The processor's own card fields, in a frame; a number never reaches this page. */
export function CardEntry({
  fieldsUrl,
  words = WORDS,
  handle,
}: {
  fieldsUrl: string;
  words?: typeof WORDS;
  handle: Ref<CardEntryHandle>;
}) {
  const frame = useRef<HTMLIFrameElement>(null);
  useImperativeHandle(handle, () => ({
    token: async () =>
      frame.current ? tokenise(frame.current, new URL(fieldsUrl).origin, words) : { trouble: words.cardSilent },
  }));
  return <iframe ref={frame} title={words.cardFields} src={fieldsUrl} className={fieldsClass(fieldsUrl)} />;
}
