import type { CalendarDate } from '../dates/calendar-date';
import { longDate } from '../dates/date-text';
import { money } from '../money/money';
import { moneyText } from '../money/money-text';
import { type Forecast, isAtStart, type PlanSums, type PlanTerms } from '../plan/plan';
import type { LaterCharges } from '../receipt/later';
import { wordsOf } from './words';

type Read = { readonly currency: string; readonly locale: string };

const dayList = (dates: readonly CalendarDate[], locale: string): string =>
  dates.map((date) => longDate(date, locale)).join(', ');

/** What a repeated payment is charged later, in the payer's words: sum, rhythm, next days, and until when. */
export function laterText(later: LaterCharges, { currency, locale }: Read): string {
  const { plan, offer } = wordsOf(locale);
  const sum = moneyText(money(BigInt(later.each), currency), locale);
  return [
    plan.thenEach(sum, offer.rhythm(later.unit, later.every)),
    plan.nextOn(dayList(later.dates, locale)),
    later.count !== null && later.last
      ? plan.lastOn(plan.count(later.count), longDate(later.last, locale))
      : plan.goesOn,
    ...(later.firstDiffers ? [plan.firstOnly] : []),
  ].join(' ');
}

/**
 * What a customer of a billing plan agrees to, in their words: sum and rhythm, the first day with its sum, until when, and what all come to.
 *
 * @param refusedMinor what was refused until now, in minor units: a card that is given is charged it at once
 */
export function agreedText(
  { kind, schedule }: Pick<PlanTerms, 'kind' | 'schedule'>,
  { eachMinor }: Pick<PlanSums, 'eachMinor'>,
  { charges, endless, count, totalMinor, last }: Forecast,
  { currency, locale }: Read,
  refusedMinor = 0n,
): string {
  const { plan, offer } = wordsOf(locale);
  const text = (minor: bigint) => moneyText(money(minor, currency), locale);
  const [first] = charges.filter(({ amountMinor }) => amountMinor > 0n);
  const rhythm = offer.rhythm(schedule.unit, schedule.every);
  return [
    ...(refusedMinor > 0n ? [plan.chargedAtOnce(text(refusedMinor))] : []),
    ...(kind === 'membership' ? [plan.eachTime(text(eachMinor), rhythm)] : []),
    ...(first
      ? [
          isAtStart(first)
            ? plan.firstNow(text(first.amountMinor))
            : (refusedMinor > 0n ? plan.thenOn : plan.firstOn)(
                text(first.amountMinor),
                longDate(first.chargedOn, locale),
              ),
        ]
      : []),
    ...(endless ? [plan.goesOn] : last ? [plan.lastOn(plan.count(count), longDate(last, locale))] : []),
    ...(endless ? [] : [`${plan.inAll}: ${text(totalMinor)}.`]),
  ].join(' ');
}
