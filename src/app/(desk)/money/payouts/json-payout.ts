import { monthText, shortDate } from '@/core/dates/date-text';
import { jsonMinor } from '@/core/money/money';
import { returnWords } from '@/core/payout/return-reasons';
import type { Gathering } from '@/flows/payout/gathering';
import type { PayoutRow } from '@/flows/payout/payout-list';
import type { ListRow } from '@/ui/list/list-row';
import type { RosetteState } from '@/ui/rosette-geometry';

type Reader = { readonly deskLocale: string; readonly currency: string };

/** How a payout stands, in words. */
export const PAYOUT_WORDS: Readonly<Record<PayoutRow['state'], string>> = {
  made: 'On its way',
  sent: 'On its way',
  arrived: 'Arrived',
  returned: 'Came back',
  'given-up': 'Paid by hand',
};

/** The mark beside it. */
export const PAYOUT_ROSETTES: Readonly<Record<PayoutRow['state'], RosetteState>> = {
  made: 'Sent',
  sent: 'Sent',
  arrived: 'Paid',
  returned: 'Refused',
  'given-up': 'Closed',
};

const CAME_BACK = 'Came back';
const NEXT = 'Next';
const ON_ITS_WAY = 'On its way';

/** A payout as its list shows it. */
export function jsonPayout(payout: PayoutRow, { deskLocale: locale, currency }: Reader): ListRow {
  const { state, partner, number, accountNumber } = payout;
  const where = state === 'returned' ? returnWords(payout.reason) : `to ·${accountNumber.slice(-4)}`;
  const isOnItsWay = state === 'made' || state === 'sent';
  return {
    id: payout.id,
    href: `/money/payouts/${payout.id}`,
    name: partner || `Payout ${number}`,
    under: [partner ? `Payout ${number}` : '', PAYOUT_WORDS[state], where].filter(Boolean).join(' · '),
    state: PAYOUT_ROSETTES[state],
    share: state === 'arrived' ? 1 : 0,
    minor: jsonMinor(payout.amountMinor),
    currency: payout.currency,
    foreign: payout.currency !== currency,
    when: shortDate(payout.settledOn ?? payout.madeOn, locale, { weekday: true }),
    late: state === 'returned',
    group: state === 'returned' ? CAME_BACK : isOnItsWay ? ON_ITS_WAY : monthText(payout.madeOn.slice(0, 7), locale),
  };
}

/** Where what gathers for a currency, or for a partner in it, is seen. */
export const gatheringId = ({ currency, partnerId }: Pick<Gathering, 'currency' | 'partnerId'>): string =>
  ['next', currency, partnerId].filter(Boolean).join('.');

/** What gathers, as the list shows it. */
export function jsonGathering(gathering: Gathering, { deskLocale: locale, currency }: Reader): ListRow {
  const { partner, minor, days, on, tooLittle, hasAccount } = gathering;
  const id = gatheringId(gathering);
  const counted = days.length === 1 ? '1 day' : `${days.length} days`;
  const why = hasAccount ? (tooLittle ? 'too little to pay out yet' : '') : 'no confirmed account';
  return {
    id,
    href: `/money/payouts/${id}`,
    name: partner || (gathering.currency === currency ? 'Next payout' : `Next payout in ${gathering.currency}`),
    under: [`Gathering · ${counted}`, why].filter(Boolean).join(' · '),
    state: hasAccount ? 'Open' : 'Pending',
    share: 0,
    minor: jsonMinor(minor),
    currency: gathering.currency,
    foreign: gathering.currency !== currency,
    when: on ? shortDate(on, locale, { weekday: true }) : 'by hand',
    late: false,
    group: NEXT,
  };
}
