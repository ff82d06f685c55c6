import type { CalendarDate } from '../dates/calendar-date';
import { minorDigits } from '../money/currency';
import { decimalText } from '../money/decimal';
import { completePaper, newLine, type Paper, type PaperLine } from '../paper/paper';
import type { PlanTerms } from '../plan/plan';
import type { LaterCharges } from '../receipt/later';
import type { Choice } from './choice';
import { laterSchedule } from './later';
import type { Offer } from './offer';
import type { PrintedOrder } from './order';

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
    tradingNameId: offer.tradingNameId,
    locationId: offer.locationId,
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
