import { eventWords, type LineSetting, type TimelineEvent } from '../timeline/timeline';

/** A line that somebody hears of, with what it is about. */
export type NewsLine = {
  readonly event: TimelineEvent;
  readonly byName: string;
  readonly customer: string;
  /** The number of the invoice or plan, or the name of the offer. */
  readonly about: string;
  readonly invoiceId: string | null;
  readonly planId: string | null;
  readonly offerId: string | null;
  readonly placement: string | null;
};

const PLACES: Readonly<Record<string, string>> = { link: '/ask/links', page: '/ask/pages', button: '/ask/buttons' };

/** Where it stands at the desk. */
export function newsPath({ invoiceId, planId, offerId, placement }: NewsLine): string {
  if (invoiceId) return `/ask/invoices/${invoiceId}`;
  if (planId) return `/ask/plans/${planId}`;
  return `${PLACES[placement ?? ''] ?? '/ask/links'}/${offerId}`;
}

const MOST_LETTERS = 160;
const cut = (text: string): string => (text.length > MOST_LETTERS ? `${text.slice(0, MOST_LETTERS - 1)}…` : text);

/** It in words: what happened, whom and what it is about, and what belongs to it. */
export function newsWords(
  line: NewsLine,
  setting: LineSetting,
): { readonly what: string; readonly about: string; readonly note: string } {
  const { lead, rest, note } = eventWords(line.event, line.byName, setting);
  const named = line.about && line.invoiceId ? `invoice ${line.about}` : line.about;
  // Who did it says nothing where it is whom it is about.
  const isBy = rest.startsWith('by ') || rest === '';
  return {
    what: isBy ? lead : `${lead} ${rest}`,
    about: [line.customer, named].filter(Boolean).join(', '),
    note: note === `By ${line.byName}` ? '' : cut(note),
  };
}
