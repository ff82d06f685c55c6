import type { CalendarDate } from '@/core/dates/calendar-date';
import type { Seller } from '@/core/invoice/printed';
import type { ToldOf } from '@/core/parcel/notice';
import { spacedNumber } from '@/core/parcel/number';
import { wordsOf } from '@/core/words/words';
import { day, type Letter, letter } from './letter';

/** What a letter about a parcel is made of. */
export type ParcelTold = {
  readonly what: ToldOf;
  readonly locale: string;
  readonly seller: Seller;
  readonly accent: string;
  readonly number: string;
  readonly service: string;
  readonly promisedOn: CalendarDate;
  readonly lines: readonly { readonly what: string; readonly quantity: string }[];
  /** Where it can be followed; empty for what has no page. */
  readonly link: string;
};

/** The letter with which a customer hears of a parcel: what it is leads, the day it should be there stands under it. */
export function parcelLetter(told: ParcelTold): Letter {
  const { what, locale, seller, accent, number, service, promisedOn, lines, link } = told;
  const words = wordsOf(locale);
  const { parcel } = words;
  const on = day(promisedOn, locale);
  const sentence = what === 'left' || what === 'late' ? parcel.words[what](on) : parcel.words[what];
  return letter({
    locale,
    seller,
    accent,
    subject: parcel.subjects[what](seller.name),
    lead: seller.name,
    sum: parcel.leads[what],
    under: what === 'late' ? parcel.expectedWas(on) : what === 'delivered' ? '' : parcel.expected(on),
    words: [sentence],
    rows: [
      ...lines.map((line) => ({ label: line.what, value: line.quantity })),
      { label: `${parcel.number}, ${service}`, value: spacedNumber(number) },
    ],
    ...(link ? { button: { words: parcel.see, link } } : {}),
    last: words.answerThis(seller.name),
  });
}
