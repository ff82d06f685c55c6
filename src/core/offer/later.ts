import type { CalendarDate } from '../dates/calendar-date';
import { minorDigits } from '../money/currency';
import { decimalText } from '../money/decimal';
import { jsonMinor } from '../money/money';
import { completePaper, newLine, type Paper, type PaperLine } from '../paper/paper';
import type { PlanTerms } from '../plan/plan';
import { type Schedule, scheduledDates } from '../schedule/schedule';
import type { Choice } from './choice';
import type { Offer } from './offer';
import type { PrintedOrder } from './order';
import type { OfferQuote } from './quote';
import type { OfferRhythm } from './repeat';

/** What a repeated payment is charged later, as it was said before the first: sums in minor units, days of the business's zone. */
export type LaterCharges = OfferRhythm & {
  /** Each later time, with tax and delivery; without the code and the tip of the first. */
  readonly each: number;
  /** Delivery within it; null where nothing is delivered. */
  readonly delivery: number | null;
  /** How many later ones; null where it goes on. */
  readonly count: number | null;
  /** The next days, at most three, and the last one where there is an end. */
  readonly dates: readonly CalendarDate[];
  readonly last: CalendarDate | null;
  /** Whether the first payment differs: by a code, a tip or delivery that is free once. */
  readonly firstDiffers: boolean;
};

const DATES_SAID = 3;

/** The days of the later charges: counted from the first payment's own, which is left out. */
const laterSchedule = (rhythm: OfferRhythm, count: number | null, start: CalendarDate): Schedule => ({
  unit: rhythm.unit,
  every: rhythm.every,
  start,
  ends: count === null ? 'never' : { after: count },
});

/** What is charged later for a quote that is repeated; null for a payment that is not. @param paidOn the day of the first */
export function laterCharges({ later, chargedMinor }: OfferQuote, paidOn: CalendarDate): LaterCharges | null {
  if (!later) return null;
  const { rhythm, count, eachMinor, deliveryMinor } = later;
  const pauses = [{ from: paidOn, to: paidOn }];
  const dates: CalendarDate[] = [];
  let last: CalendarDate | null = null;
  for (const { charged } of scheduledDates(laterSchedule(rhythm, count, paidOn), { pauses })) {
    if (dates.length < DATES_SAID) dates.push(charged);
    else if (count === null) break;
    last = charged;
  }
  return {
    unit: rhythm.unit,
    every: rhythm.every,
    each: jsonMinor(eachMinor),
    delivery: deliveryMinor === null ? null : jsonMinor(deliveryMinor),
    count,
    dates,
    last: count === null ? null : last,
    firstDiffers: chargedMinor !== eachMinor,
  };
}

/** What was ordered, as the lines that are charged again, with the taxes it was ordered with. */
function laterLines(offer: Offer, choice: Choice, printed: PrintedOrder, newId: () => string): PaperLine[] {
  const taken = offer.items.filter(({ id }) => {
    const chosen = choice.items.find((one) => one.id === id);
    return Number(chosen?.quantity ?? 0) > 0;
  });
  return printed.lines.map((line, at) => {
    const item = offer.kind === 'items' ? taken[at] : undefined;
    const optionId = choice.items.find(({ id }) => id === item?.id)?.optionId;
    return newLine(newId(), 'piece', {
      what: line.what,
      quantity: line.quantity,
      price: line.unitPrice,
      taxes: line.taxIds ?? [],
      taxesBy: 'person',
      ...(item?.itemId
        ? { itemId: item.itemId, optionId: item.options.find(({ id }) => id === optionId)?.optionId ?? null }
        : {}),
    });
  });
}

function laterPaper(offer: Offer, choice: Choice, printed: PrintedOrder, newId: () => string): Paper {
  const { currency, pricesIncludeTax, later } = printed;
  return completePaper({
    currency,
    pricesIncludeTax,
    lines: laterLines(offer, choice, printed, newId),
    exempt: printed.exempt || null,
    delivery:
      later?.delivery == null
        ? null
        : {
            charged: decimalText(BigInt(later.delivery), minorDigits(currency)),
            postage: '',
            packaging: '',
            taxes: printed.delivery?.taxIds ?? [],
          },
  });
}

/**
 * The terms of the billing plan that a repeated payment begins: what was said before the first payment, and nothing else. Days are counted from
 * the first payment's, so that a 31st stays one; the plan leaves that day itself out.
 *
 * @param startOn the day of the first payment
 */
export function laterTerms(
  { offer, choice, printed }: { readonly offer: Offer; readonly choice: Choice; readonly printed: PrintedOrder },
  later: LaterCharges,
  { startOn, newId }: { readonly startOn: CalendarDate; readonly newId: () => string },
): PlanTerms {
  return {
    kind: 'membership',
    name: offer.title,
    paper: laterPaper(offer, choice, printed, newId),
    schedule: laterSchedule(later, later.count, startOn),
    firstNow: false,
    setUp: '',
    freeFirst: false,
    deposit: '',
    leftover: 'even',
    pay: 'card',
    receipts: offer.receipt === 'auto',
    noticeDays: null,
  };
}
