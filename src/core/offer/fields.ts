import { isCalendarDate } from '../dates/calendar-date';
import { typedDecimal } from '../money/typed';
import type { Asked, Offer, OfferField } from './offer';

/** Seconds that people take, measured on forms of this length: an estimate, said as one. */
const SECONDS: Readonly<Record<OfferField['kind'], number>> = {
  text: 8,
  number: 5,
  choice: 4,
  date: 6,
  tick: 2,
  file: 25,
};
const ALWAYS = 35; // name, e-mail address, card
const LONG_SECONDS = 90;

const asking = (asked: Asked, seconds: number): number =>
  asked === 'must' ? seconds : asked === 'may' ? seconds / 3 : 0;

/** About how long the form takes to fill in, in seconds, and whether that is long. */
export function fillTime(offer: Offer): { seconds: number; long: boolean } {
  const own = offer.fields.reduce((sum, field) => sum + SECONDS[field.kind] / (field.required ? 1 : 2), 0);
  const items = offer.kind === 'items' ? offer.items.length * 3 : offer.kind === 'sum' ? 0 : 4;
  const seconds =
    ALWAYS +
    own +
    items +
    asking(offer.phone, 6) +
    asking(offer.billing, 20) +
    (offer.delivery ? 20 : 0) +
    (offer.tip ? 3 : 0) +
    (offer.termsId ? 4 : 0);
  return { seconds: Math.round(seconds / 5) * 5, long: seconds > LONG_SECONDS };
}

/** What is wrong with an answer. */
export type AnswerProblem = 'field-needed' | 'field-number' | 'field-date' | 'field-choice';

/** Looks at an answer as typed; null where it can be kept. */
export function answerProblem(field: OfferField, answer: string): AnswerProblem | null {
  const text = answer.trim();
  if (text === '' || (field.kind === 'tick' && text !== 'yes')) return field.required ? 'field-needed' : null;
  if (field.kind === 'number' && typedDecimal(text.replace(/^-/, '')) === null) return 'field-number';
  if (field.kind === 'date' && !isCalendarDate(text)) return 'field-date';
  if (field.kind === 'choice' && !field.choices.includes(text)) return 'field-choice';
  return null;
}
