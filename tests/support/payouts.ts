/** Accounts at the stand-in bank, and what is in its book. */
import { randomUUID } from 'node:crypto';
import type { CalendarDate } from '@/core/dates/calendar-date';
import { instantInZone } from '@/core/dates/zone';
import { bankAccountById } from '@/db/bank-accounts';
import { inBusiness } from '@/db/transaction';
import { programContext } from '@/flows/door/program';
import { confirmAccount, giveAccount } from '@/flows/payout/accounts';
import type { BookLine } from '../../standins/bank/book';
import { playMinute } from './minute';
import { setClock } from './plans';
import type { House, Workshop } from './workshop';

type StandIns = Pick<Workshop, 'standIns'>;

async function bank<T>({ standIns }: StandIns, path: string, body?: object): Promise<T> {
  const answer = await fetch(`${standIns}/bank/api/${path}`, {
    method: body ? 'POST' : 'GET',
    headers: { authorization: `Bearer ${process.env.BANK_API_KEY}`, 'content-type': 'application/json' },
    ...(body ? { body: JSON.stringify(body) } : {}),
  });
  return (await answer.json()) as T;
}

/** Opens an account at the bank; its number. */
export const openAccount = async (workshop: StandIns, holder: string): Promise<string> =>
  (await bank<{ number: string }>(workshop, 'accounts', { holder })).number;

export const closeAccount = (workshop: StandIns, number: string): Promise<unknown> =>
  bank(workshop, `accounts/${number}/close`, {});

/** What came to an account, as the bank has it, oldest first. */
export const bookOf = async (workshop: StandIns, number: string): Promise<BookLine[]> =>
  (await bank<{ lines: BookLine[] }>(workshop, `book/${number}`)).lines;

/** A moment of a day on the business's clock, to which the clock is set. */
export async function clockAt(workshop: StandIns, house: House, day: CalendarDate, hour: string): Promise<Date> {
  const instant = instantInZone(day, hour, house.business.zone);
  await setClock(workshop.standIns, instant);
  return instant;
}

/** An account that is given and confirmed; its number. The small sums are looked up where they are kept, without waiting for the bank. */
export async function confirmedAccount(
  workshop: StandIns,
  house: House,
  partnerId: string | null = null,
  currency = 'USD',
): Promise<string> {
  const number = await openAccount(workshop, `Account ${randomUUID().slice(0, 8)}`);
  const { id } = await giveAccount(house.owner, { partnerId, currency, number });
  const kept = await inBusiness(programContext(house.business.id), (tx) => bankAccountById(tx, id));
  await confirmAccount(house.owner, id, kept?.credits ?? []);
  return number;
}

/** The minutes after midnight of each day from one to another: days are closed, paid out and booked. What failed. */
export async function playDays(
  workshop: StandIns,
  house: House,
  days: readonly CalendarDate[],
): Promise<Awaited<ReturnType<typeof playMinute>>> {
  const failed: Awaited<ReturnType<typeof playMinute>> = [];
  for (const day of days)
    for (const hour of ['00:20', '00:21', '04:00', '15:00']) {
      await clockAt(workshop, house, day, hour);
      failed.push(...(await playMinute()));
    }
  return failed;
}
