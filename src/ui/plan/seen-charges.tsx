import type { CalendarDate } from '@/core/dates/calendar-date';
import { shortDate } from '@/core/dates/date-text';
import { money } from '@/core/money/money';
import { moneyText } from '@/core/money/money-text';
import type { Words } from '@/core/words/words';

/** A charge as its customer sees it; `minor` in minor units. */
export type SeenCharge = {
  readonly part: 'deposit' | 'period';
  readonly nominal: string;
  readonly chargedOn: string;
  readonly minor: number;
  readonly reasons: readonly { readonly kind: string; readonly minor?: number }[];
};

function because(charge: SeenCharge, words: Words['plan'], text: (minor: number) => string): string {
  const said: Readonly<Record<string, string>> = {
    'month-end': words.monthEnd,
    weekend: words.weekend,
    holiday: words.holiday,
    'at-start': words.atStart,
    deposit: words.deposit,
    free: words.free,
  };
  return charge.reasons
    .map((reason) => (reason.kind === 'set-up' ? words.setUp(text(reason.minor ?? 0)) : (said[reason.kind] ?? '')))
    .filter(Boolean)
    .join(', ');
}

/** Every date and sum of a plan, as its customer is told them before agreeing. */
export function SeenCharges({
  charges,
  endless,
  totalMinor,
  currency,
  locale,
  words,
}: {
  charges: readonly SeenCharge[];
  endless: boolean;
  totalMinor: number;
  currency: string;
  locale: string;
  words: Words['plan'];
}) {
  const text = (minor: number) => moneyText(money(BigInt(minor), currency), locale);
  return (
    <section aria-label={words.whatIsCharged}>
      <h2 className="border-b border-ink pb-1 font-serif text-[19px]/7 font-semibold">
        {endless ? words.nextDates : words.everyDate}
      </h2>
      <ol>
        {charges.map((charge) => (
          <li
            key={`${charge.part} ${charge.nominal}`}
            className="flex flex-wrap items-baseline gap-x-3 border-b border-rule py-2 text-[15px]"
          >
            <span className="flex-1">
              {shortDate(charge.chargedOn as CalendarDate, locale, { weekday: true, year: true })}
              {because(charge, words, text) ? (
                <span className="ml-2 text-[13.5px] text-soft">{because(charge, words, text)}</span>
              ) : null}
            </span>
            <span className="font-serif text-[16px]">{charge.minor === 0 ? words.free : text(charge.minor)}</span>
          </li>
        ))}
      </ol>
      {endless ? (
        <p className="mt-2 text-[15px] text-soft">{words.goesOn}</p>
      ) : (
        <p className="flex items-baseline justify-between border-b-[3px] border-double border-ink py-2 font-serif text-[18px] font-semibold">
          <span>
            {words.inAll}, {words.count(charges.filter(({ minor }) => minor > 0).length)}
          </span>
          <span>{text(totalMinor)}</span>
        </p>
      )}
    </section>
  );
}
