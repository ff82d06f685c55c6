import type { Words } from '@/core/words/words';

/** Where customers read what is kept of them. @param token of whatever link of the business they have */
export const KeptLink = ({ token, words }: { token: string; words: Pick<Words, 'keeping'> }) => (
  <a
    className="mt-1 block font-sans text-[13.5px] not-italic text-soft underline decoration-edge underline-offset-3"
    href={`/kept/${token}`}
  >
    {words.keeping.seeWhat}
  </a>
);
