import { MAIL_ADDRESS } from '../customer/mail-address';
import { addDays, type CalendarDate, isCalendarDate } from '../dates/calendar-date';

/** For whom a voucher is bought, as typed: everything empty for the payer. */
export type ChosenGift = {
  readonly toName: string;
  readonly toEmail: string;
  /** The day on which it goes out; empty for at once. */
  readonly on: string;
  readonly message: string;
};

export const NO_GIFT: ChosenGift = { toName: '', toEmail: '', on: '', message: '' };
/** A voucher is sent at most so many days later. */
export const MOST_GIFT_DAYS = 366;

/** Whether it is for somebody else. */
export const isForOther = (gift: ChosenGift | undefined): boolean =>
  gift !== undefined && [gift.toName, gift.toEmail, gift.on, gift.message].some((part) => part.trim() !== '');

export type GiftProblem = 'gift-email-wrong' | 'gift-day-wrong';

/** What is wrong with what was typed, at its places. */
export function giftProblems(
  gift: ChosenGift | undefined,
  today: CalendarDate,
): { readonly field: string; readonly code: GiftProblem }[] {
  if (!gift || !isForOther(gift)) return [];
  const { toEmail, on } = gift;
  const isDay = isCalendarDate(on) && on >= today && on <= addDays(today, MOST_GIFT_DAYS);
  return [
    ...(toEmail.trim() && !MAIL_ADDRESS.test(toEmail.trim())
      ? [{ field: 'gift.toEmail', code: 'gift-email-wrong' as const }]
      : []),
    ...(on && !isDay ? [{ field: 'gift.on', code: 'gift-day-wrong' as const }] : []),
  ];
}
