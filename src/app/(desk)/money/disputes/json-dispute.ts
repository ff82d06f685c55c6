import { monthText, shortDate } from '@/core/dates/date-text';
import { dateInZone } from '@/core/dates/zone';
import { DISPUTE_STATE_WORDS } from '@/core/dispute/dispute-words';
import { jsonMinor } from '@/core/money/money';
import type { DisputeRow } from '@/flows/dispute/dispute-sheet';
import type { ListRow } from '@/ui/list/list-row';
import type { RosetteState } from '@/ui/rosette-geometry';

export const DISPUTE_ROSETTES: Readonly<Record<DisputeRow['state'], RosetteState>> = {
  open: 'Disputed',
  sending: 'Sent',
  sent: 'Sent',
  won: 'Paid',
  lost: 'Dispute lost',
};

type Reader = { readonly deskLocale: string; readonly currency: string; readonly zone: string };

/** A dispute as its list shows it; an open one with the last day to answer. */
export function jsonDispute(dispute: DisputeRow, { deskLocale: locale, currency, zone }: Reader): ListRow {
  const { state, cardScheme, cardLast4 } = dispute;
  const at = state === 'open' ? dispute.answerBy : (dispute.settledAt ?? dispute.bookedAt);
  const on = dateInZone(at, zone);
  return {
    id: dispute.id,
    href: `/money/disputes/${dispute.id}`,
    name: dispute.customer,
    under: [
      state === 'open' ? 'Answer by then' : DISPUTE_STATE_WORDS[state],
      cardLast4 ? `${cardScheme} ·${cardLast4}` : '',
      dispute.invoiceId ? `Invoice ${dispute.subject}` : dispute.subject,
    ]
      .filter(Boolean)
      .join(' · '),
    state: DISPUTE_ROSETTES[state],
    share: state === 'won' ? 1 : 0,
    minor: jsonMinor(dispute.amountMinor),
    currency: dispute.currency,
    foreign: dispute.currency !== currency,
    when: shortDate(on, locale, { weekday: true }),
    late: state === 'open' || state === 'lost',
    group:
      state === 'open' ? DISPUTE_STATE_WORDS.open : monthText(dateInZone(dispute.bookedAt, zone).slice(0, 7), locale),
  };
}
