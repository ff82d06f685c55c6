import { longDate } from '../dates/date-text';
import { dateInZone } from '../dates/zone';
import type { DigitalGrant, GrantState } from './grant';

/** Something that was given, as a page shows it: `left` downloads (null without a limit), `until` when in words (empty without). */
export type GivenShown = {
  readonly id: string;
  readonly what: string;
  readonly words: string;
  readonly file: string;
  readonly state: GrantState;
  readonly left: number | null;
  readonly until: string;
};

type Given = Pick<DigitalGrant, 'downloads' | 'mostDownloads' | 'expiresAt'> & Omit<GivenShown, 'left' | 'until'>;

/** @param zone IANA name, by which its last day is told */
export const shownGiven = (
  { id, what, words, file, state, downloads, mostDownloads, expiresAt }: Given,
  locale: string,
  zone: string,
): GivenShown => ({
  ...{ id, what, words, file, state },
  left: mostDownloads === null ? null : Math.max(0, mostDownloads - downloads),
  until: expiresAt ? longDate(dateInZone(expiresAt, zone), locale) : '',
});
