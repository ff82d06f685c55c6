/** What the demo's business and its partners were paid out: each Monday, to accounts that were confirmed. */
import { addDays, type CalendarDate, weekday } from '@/core/dates/calendar-date';
import { instantInZone } from '@/core/dates/zone';
import { bankAccountById } from '@/db/bank-accounts';
import { invoicesToMatch } from '@/db/bank-things';
import { partnerRows } from '@/db/partners';
import type { Actor } from '@/db/people';
import { inBusiness, readBusiness } from '@/db/transaction';
import { fetchStatements } from '@/flows/bank/import-statement';
import { programContext } from '@/flows/door/program';
import { confirmAccount, giveAccount } from '@/flows/payout/accounts';
import { payOutDue } from '@/flows/payout/pay-out-due';
import { keepPayoutPolicy } from '@/flows/payout/policy';
import { SHIPPED_ACCOUNTS } from '../../standins/bank/accounts';

type Stage = {
  readonly actor: Actor;
  readonly zone: string;
  /** The first and the last day that are played. */
  readonly from: CalendarDate;
  readonly to: CalendarDate;
  readonly standIns: string;
  /** Sets the demo's and the stand-ins' clock. */
  readonly at: (instant: Date) => Promise<void>;
  readonly mail: () => Promise<void>;
};

const numberOf = (holder: string, at = 0): string =>
  SHIPPED_ACCOUNTS.filter((account) => account.holder === holder)[at]?.number ?? '';

const form = (standIns: string, path: string, fields: Record<string, string>): Promise<Response> =>
  fetch(`${standIns}${path}`, { method: 'POST', body: new URLSearchParams(fields), redirect: 'manual' });

/** Gives an account and confirms it, as if its statement had been read. */
async function account(actor: Actor, partnerId: string | null, currency: string, number: string): Promise<void> {
  const { id } = await giveAccount(actor, { partnerId, currency, number });
  const kept = await inBusiness(programContext(actor.businessId), (tx) => bankAccountById(tx, id));
  await confirmAccount(actor, id, kept?.credits ?? []);
}

/** Plays the Mondays: paid out in the night, booked by the bank on Tuesday. A week ago a partner's account is closed. */
export async function playPayouts({ actor, zone, from, to, standIns, at, mail }: Stage): Promise<void> {
  const { businessId } = actor;
  await at(instantInZone(from, '09:00', zone));
  await form(standIns, '/cards/terms', { business: businessId, percent: '5', days: '28' });
  await keepPayoutPolicy(actor, { when: { kind: 'weekly', weekday: 1 }, smallest: { USD: '2500', EUR: '2500' } });
  await account(actor, null, 'USD', numberOf('Thistlewood Strings'));
  await account(actor, null, 'EUR', numberOf('Thistlewood Strings', 1));
  const partners = await readBusiness(programContext(businessId), partnerRows);
  for (const { id, name } of partners) if (numberOf(name)) await account(actor, id, 'USD', numberOf(name));
  const mondays: CalendarDate[] = [];
  for (let day = from; day <= to; day = addDays(day, 1)) if (weekday(day) === 1) mondays.push(day);
  for (const monday of mondays) {
    for (const [day, hour] of [
      [monday, '00:40'],
      [addDays(monday, 1), '12:00'],
    ] as const) {
      // What came to him a week ago comes back.
      if (day > addDays(to, -7) && hour === '12:00')
        await form(standIns, '/bank', { close: numberOf('Linus Oakhanger') });
      const instant = instantInZone(day, hour, zone);
      await at(instant);
      await payOutDue(programContext(businessId, instant));
    }
    await mail();
  }
  await payIn(standIns, at, instantInZone(addDays(to, -1), '11:00', zone), await openInvoices(actor));
  const end = instantInZone(addDays(to, 1), '08:00', zone);
  await at(end);
  // So many statements come at once; the next ones follow.
  for (let more = 0; more < 4; more++) await fetchStatements(programContext(businessId, end));
}

const openInvoices = (actor: Actor) =>
  readBusiness(programContext(actor.businessId), (db) => invoicesToMatch(db, 'USD'));

/** Customers pay at the bank: with the number, with only a name, two invoices together; and money of which nobody knows what for. */
async function payIn(
  standIns: string,
  at: Stage['at'],
  when: Date,
  invoices: Awaited<ReturnType<typeof openInvoices>>,
): Promise<void> {
  await at(when);
  const of = (customer: string) => invoices.filter((one) => one.customer.startsWith(customer));
  const [school, other] = of('Fenwick');
  const [chamber] = of('Alder Ferry');
  const [celia] = of('Lambert');
  const sum = (minor: bigint): string => (Number(minor) / 100).toFixed(2);
  const rows = [
    school && other
      ? {
          other: 'FENWICK PRIM SCHOOL',
          amount: sum(school.due + other.due + 1_819n),
          words: `INV ${school.number} / ${other.number} TKS`,
        }
      : null,
    chamber ? { other: 'ALDER FERRY CHAMBER SOC', amount: sum(chamber.due), words: `INVOICE ${chamber.number}` } : null,
    celia ? { other: 'Oyelaran L', amount: sum(celia.due), words: 'violin' } : null,
    { other: '', amount: '240.00', words: 'CASH PAID IN BRANCH 4' },
    { other: 'LARKSPUR WKSHP', amount: '-412.60', words: 'STRINGS 7781' },
    { other: '', amount: '-19.00', words: 'TERMINAL RENT NOV' },
  ];
  for (const row of rows)
    if (row)
      await form(standIns, `/bank/accounts/${numberOf('Thistlewood Strings')}`, {
        currency: 'USD',
        reference: '',
        otherAccount: '',
        ...row,
      });
}
