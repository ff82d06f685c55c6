import { randomUUID } from 'node:crypto';
import { makeReference } from '@/core/bank/reference';
import { bankingDays, type DaysOff } from '@/core/dates/banking-days';
import { addDays, type CalendarDate } from '@/core/dates/calendar-date';
import { dateInZone } from '@/core/dates/zone';
import { payoutArrived, payoutMade, payoutReturned } from '@/core/ledger/movements';
import { money } from '@/core/money/money';
import { moneyText } from '@/core/money/money-text';
import { payoutDates, payoutStep } from '@/core/payout/payouts';
import { type PayoutPolicy, type ProcessorTerms, smallestOf } from '@/core/payout/policy';
import { returnWords } from '@/core/payout/return-reasons';
import { type BankAccount, bankAccounts, updateBankAccount } from '@/db/bank-accounts';
import { type Business, businessById, takeNumber } from '@/db/businesses';
import { closedTo } from '@/db/day-batches';
import { insertEntry } from '@/db/ledger';
import {
  insertPayout,
  keepStep,
  type OpenDay,
  openDays,
  type PayoutRow,
  payoutSettings,
  payoutState,
  payoutsToAct,
  updateLookedAt,
  updatePayout,
} from '@/db/payouts';
import { ownersOf } from '@/db/people';
import { type Context, desk, type Writing } from '@/flows/door/operation';
import { Refusal } from '@/flows/door/refusal';
import { followIdentity } from '@/flows/identity/follow-identity';
import { queueMessages } from '@/flows/message/queue-message';
import type { TransferState } from '@/outside/bank';
import { services } from '@/outside/services';
import { PAYER, sendCredits } from './accounts';
import { queuePartnerStatements } from './partner-statements';

const LOOK_AGAIN_MS = 3 * 3_600_000;
const SILENT_MS = 5 * 60_000;
/** So many days back missed payout dates are made up for, one by one. */
const MOST_MISSED = 400;

/** Whatever paying out has to do by now: who stands behind the business, small sums to new accounts, payouts of the day, and what the bank says of those that are on their way. */
export async function payOutDue(ctx: Context): Promise<void> {
  await followIdentity(ctx);
  await sendCredits(ctx);
  await makePayouts(ctx);
  await followPayouts(ctx);
}

/** The business's days on which banks do not work. */
export const daysOffOf = ({ charging }: Business): DaysOff => ({
  holidays: charging.holidays.map(({ on }) => on as CalendarDate),
});

type Setting = { readonly business: Business; readonly policy: PayoutPolicy; readonly terms: ProcessorTerms };

/** Makes the payouts of all payout dates that were not looked at yet; while the processor does not answer, they wait. */
export async function makePayouts(ctx: Context): Promise<void> {
  const terms = await services().cards.payoutTerms(ctx.businessId);
  if (!terms) return;
  await ctx.turn(async (tx) => {
    const business = await businessById(tx);
    const { policy, madeTo } = await payoutSettings(tx);
    const today = dateInZone(tx.now, business.zone);
    const closed = await closedTo(tx);
    const oldest = addDays(today, -MOST_MISSED);
    const from = madeTo ? (madeTo < oldest ? oldest : addDays(madeTo, 1)) : today;
    if (from > today || !closed || closed < addDays(today, -1)) return;
    // Until it is known who stands behind the business, what is ready waits; the first date after that pays all of it.
    if (policy.when.kind !== 'by-hand' && business.verifiedAt) {
      const dates = payoutDates({ schedule: policy.when, ...daysOffOf(business) }, from, today);
      if (dates.length > 0) await makeOn(tx, { business, policy, terms }, dates, closed);
    }
    await queuePartnerStatements(tx, today);
    await updateLookedAt(tx, today, terms);
  });
}

/** Counts what is ready on each of these dates, and pays it out to whoever has an account; how many payouts that made. */
async function makeOn(
  tx: Writing,
  setting: Setting,
  dates: readonly CalendarDate[],
  closed: CalendarDate,
): Promise<number> {
  const banking = bankingDays(daysOffOf(setting.business));
  const open = (await openDays(tx, closed)).map((one) => ({
    ...one,
    ready: banking.after(one.day, setting.terms.lag),
  }));
  const accounts = (await bankAccounts(tx)).filter(({ state }) => state === 'checked');
  let made = 0;
  for (const account of accounts) {
    const payee = account.partnerId ?? setting.business.id;
    let waiting = open.filter((one) => one.payee === payee && one.currency === account.currency);
    for (const on of dates) {
      const ready = waiting.filter((one) => one.ready <= on);
      waiting = waiting.filter((one) => one.ready > on);
      if (await makeOne(tx, setting, account, on, ready)) made++;
    }
  }
  return made;
}

async function makeOne(
  tx: Writing,
  { business, policy, terms }: Setting,
  { id: accountId, partnerId, currency }: BankAccount,
  on: CalendarDate,
  ready: readonly OpenDay[],
): Promise<boolean> {
  const payee = partnerId ?? business.id;
  const state = await payoutState(tx, payee, currency);
  // The processor holds back of the business alone.
  const reserve = !partnerId && terms.reserve ? { reserve: terms.reserve } : {};
  const step = payoutStep(state, ready, { minimum: smallestOf(policy, currency), ...reserve }, on);
  await keepStep(tx, { payee, currency }, on, { ...step, counted: ready });
  if (!step.payout) return false;
  const { amount, carried, reserved, released } = step.payout;
  const id = randomUUID();
  const number = Number(await takeNumber(tx, 'payout'));
  await insertPayout(tx, {
    id,
    partnerId,
    number,
    currency,
    madeOn: on,
    amountMinor: amount,
    carriedMinor: carried,
    reservedMinor: reserved,
    releasedMinor: released,
    accountId,
  });
  await insertEntry(tx, payoutMade(dateInZone(tx.now, business.zone), `Payout ${number}`, money(amount, currency)), {
    id: randomUUID(),
    cause: `payout:${id}:1`,
    invoiceId: null,
    paymentId: null,
  });
  return true;
}

/**
 * Pays out now what is ready, whatever the schedule says.
 *
 * @throws Refusal `identity-first`, `no-banking-day`, `nothing-to-pay-out`, `processor-silent`
 */
export const payOutNow = desk('settings').run(async (ctx): Promise<void> => {
  const terms = await services().cards.payoutTerms(ctx.businessId);
  if (!terms) throw new Refusal('processor-silent');
  await ctx.turn(async (tx) => {
    const business = await businessById(tx);
    if (!business.verifiedAt) throw new Refusal('identity-first');
    const today = dateInZone(tx.now, business.zone);
    if (!bankingDays(daysOffOf(business)).is(today)) throw new Refusal('no-banking-day');
    const { policy } = await payoutSettings(tx);
    const closed = await closedTo(tx);
    const made = closed ? await makeOn(tx, { business, policy, terms }, [today], closed) : 0;
    if (made === 0) throw new Refusal('nothing-to-pay-out');
  });
});

/** Hands payouts to the bank that it does not have yet, and asks it for those that it has. */
async function followPayouts(ctx: Context): Promise<void> {
  const { business, payouts } = await ctx.read(async (db) => ({
    business: await businessById(db),
    payouts: await payoutsToAct(db),
  }));
  for (const payout of payouts) {
    const key = `${ctx.businessId}.${payout.id}.${payout.attempt}`;
    const asked = payout.state === 'made' ? null : await services().bank.transferOf(key);
    // What the bank has never seen is asked for again: the key makes it one.
    const state =
      payout.state === 'made' || asked === 'never-seen'
        ? await services().bank.transfer(transferOf(business, payout, key))
        : asked;
    await ctx.write(async (tx) => note(tx, business, payout, state));
  }
}

/** The payout as the bank is asked for it. */
const transferOf = (business: Business, payout: PayoutRow, key: string) => ({
  key,
  to: payout.accountNumber,
  amount: money(payout.amountMinor, payout.currency),
  words: `${business.name} payout ${payout.number}`,
  reference: payoutReference(payout.number),
  from: PAYER,
});

/** What stands on the payee's statement (ISO 11649). */
export const payoutReference = (number: number): string => makeReference(`PO${number}`).reference;

/** Writes down what the bank says of a payout, once. */
async function note(tx: Writing, business: Business, payout: PayoutRow, state: TransferState | null): Promise<void> {
  const later = (ms: number): Date => new Date(tx.now.getTime() + ms);
  const today = dateInZone(tx.now, business.zone);
  const sum = money(payout.amountMinor, payout.currency);
  const called = payout.partner ? `Payout ${payout.number} to ${payout.partner}` : `Payout ${payout.number}`;
  const booking = (what: string) => ({
    id: randomUUID(),
    cause: `${what}:${payout.id}:${payout.attempt}`,
    invoiceId: null,
    paymentId: null,
  });
  if (state === null) {
    await updatePayout(tx, payout, { state: payout.state, actAt: later(SILENT_MS) });
    return;
  }
  const sentAt = payout.sentAt ?? tx.now;
  if (state.kind === 'waiting') {
    await updatePayout(tx, payout, { state: 'sent', sentAt, actAt: later(LOOK_AGAIN_MS) });
    return;
  }
  const reason = state.kind === 'returned' ? state.reason : '';
  const settled = { state: reason ? 'returned' : 'arrived', sentAt, settledOn: state.on, reason, actAt: null } as const;
  if ((await updatePayout(tx, payout, settled)) === 0) return;
  if (!reason) {
    await insertEntry(
      tx,
      payoutArrived(today, `${called} arrived`, sum, payout.partnerId ? 'partner' : 'business'),
      booking('payout-arrived'),
    );
    return;
  }
  await insertEntry(tx, payoutReturned(today, `${called} came back`, sum), booking('payout-returned'));
  await updateBankAccount(tx, payout.accountId, { state: 'refused', tries: 0, reason });
  await tellReturned(tx, business, payout, reason);
}

/** Writes to the owners that a payout came back. */
async function tellReturned(
  tx: Writing,
  { paperLocale: locale }: Business,
  payout: PayoutRow,
  reason: string,
): Promise<void> {
  const sum = moneyText(money(payout.amountMinor, payout.currency), locale);
  const whose = payout.partner ? `${payout.partner}’s payout` : 'Your payout';
  const owners = await ownersOf(tx);
  await queueMessages(
    tx,
    owners.map((owner) => ({
      kind: 'payout-returned' as const,
      key: `payout-returned:${payout.id}:${payout.attempt}:${owner.id}`,
      toName: owner.name,
      toAddress: owner.email,
      details: { subject: `${whose} ${payout.number} of ${sum} came back: ${returnWords(reason)}`, from: payout.id },
    })),
  );
}
