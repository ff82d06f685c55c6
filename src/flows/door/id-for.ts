import { createHash } from 'node:crypto';

/** An id that is the same for the same words: what is made, or worked out, twice is known again. */
export const idFor = (words: string): string => {
  const hex = createHash('sha256').update(words).digest('hex');
  return `${hex.slice(0, 8)}-${hex.slice(8, 12)}-4${hex.slice(13, 16)}-8${hex.slice(17, 20)}-${hex.slice(20, 32)}`;
};
