import { randomInt, randomUUID } from 'node:crypto';
import { money } from '@/core/money/money';
import {
  accountsToAct,
  type BankAccount,
  bankAccountById,
  bankAccounts,
  checkedAccount,
  insertBankAccount,
  leaveOthers,
  lockedBankAccount,
  updateAccountAct,
  updateBankAccount,
} from '@/db/bank-accounts';
import { businessById } from '@/db/businesses';
import { countAttempt } from '@/db/limits';
import { partnerById } from '@/db/partners';
import { PARTNER_LINK, type PartnerOpened } from '@/flows/door/links';
import { byLink, type Context, desk, type Writing } from '@/flows/door/operation';
import { Refusal } from '@/flows/door/refusal';
import { found } from '@/flows/door/rights';
import { noteSettings } from '@/flows/log/log';
import type { KnownAccount } from '@/outside/bank';
import { services } from '@/outside/services';
import { sendReturnedAgain } from './pay-again';

/** The two sums are below one unit of most currencies. */
const MOST_CREDIT = 99;
const MOST_TRIES = 3;
const LOOK_AGAIN_MS = 3 * 3_600_000;
const SILENT_MS = 5 * 60_000;

/** An account that somebody gives: whose (`partnerId` null for the business's own), for which currency. */
export type GivenAccount = { readonly partnerId: string | null; readonly currency: string; readonly number: string };

/** An account as it is shown: its small sums are a secret of the bank statement. */
export type ShownAccount = Omit<BankAccount, 'credits'>;

const shown = ({ credits: _, ...account }: BankAccount): ShownAccount => account;

/** Accounts that are in use, or were refused; of the business, or of one partner. */
export const payoutAccounts = desk('see').read(
  async (db, partnerId: string | null): Promise<ShownAccount[]> => (await bankAccounts(db, partnerId)).map(shown),
);

/** @throws Refusal `account-unknown`, `account-closed`, `bank-silent` */
async function knownAccount(typed: string): Promise<KnownAccount> {
  const account = await services().bank.accountOf(typed.replace(/\s/g, '').toUpperCase());
  if (account === null) throw new Refusal('bank-silent');
  if (account === 'unknown') throw new Refusal('account-unknown');
  if (!account.open) throw new Refusal('account-closed');
  return account;
}

/** Whose an account is, for the form in which its number is typed. @throws Refusal as when it is given */
export const accountHolder = desk('settings').run(
  async (_ctx, typed: string): Promise<string> => (await knownAccount(typed)).holder,
);

/** In words for the log: whose account, and which. */
async function called(
  tx: Writing,
  { partnerId, currency }: Pick<BankAccount, 'partnerId' | 'currency'>,
): Promise<string> {
  const partner = partnerId ? found(await partnerById(tx, partnerId)).name : '';
  return [`Account for payouts in ${currency}`, partner ? `of ${partner}` : ''].filter(Boolean).join(' ');
}

/** Writes an account down; two small sums go to it, which are then to be typed in. */
async function give(ctx: Context, given: GivenAccount): Promise<ShownAccount> {
  const known = await knownAccount(given.number);
  return ctx.turn(async (tx) => {
    const payee = given.partnerId ?? tx.businessId;
    const what = await called(tx, given);
    const inUse = await checkedAccount(tx, payee, given.currency);
    if (inUse?.number === known.number) throw new Refusal('account-in-use');
    const first = randomInt(1, MOST_CREDIT + 1);
    // Another sum than the first, so that two differ.
    const second = ((first + randomInt(1, MOST_CREDIT) - 1) % MOST_CREDIT) + 1;
    const account = {
      id: randomUUID(),
      partnerId: given.partnerId,
      currency: given.currency,
      number: known.number,
      holder: known.holder,
      credits: [BigInt(first), BigInt(second)],
      state: 'checking' as const,
      tries: 0,
      reason: '',
      madeAt: tx.now,
    };
    await leaveOthers(tx, account, ['checking', 'refused']);
    await insertBankAccount(tx, account);
    await noteSettings(tx, 'bank-account', [
      { what: `${what}, to be confirmed`, from: inUse?.number ?? '', to: `${known.number} (${known.holder})` },
    ]);
    return shown(account);
  });
}

/**
 * Gives an account to which money is to be paid out; the one that was confirmed before stays in use until this one is.
 *
 * @throws Refusal `account-unknown`, `account-closed`, `account-in-use`, `bank-silent`, `not-found`
 */
export const giveAccount = desk('settings', { again: true }).run(give);

const GIVEN = { name: 'partner-accounts', attempts: 5, seconds: 3600 };

/** A partner gives an account by the link to their page. @throws Refusal likewise, `asked-too-often` */
export const giveOwnAccount = byLink(PARTNER_LINK).run(
  async (ctx, { partnerId, over }: PartnerOpened, given: Omit<GivenAccount, 'partnerId'>): Promise<ShownAccount> => {
    if (over) throw new Refusal('not-found');
    if ((await countAttempt(GIVEN, partnerId)) > 0) throw new Refusal('asked-too-often');
    return give(ctx, { ...given, partnerId });
  },
);

/** Whether two sums are the two, in any order. */
const areTheTwo = (sums: readonly bigint[], credits: readonly bigint[]): boolean =>
  sums.length === credits.length && [...sums].sort().join() === [...credits].sort().join();

/** Confirms an account by the two small sums; what came back before goes there now. What it came to. */
async function confirm(
  tx: Writing,
  account: BankAccount,
  sums: readonly bigint[],
): Promise<'checked' | 'differ' | 'refused'> {
  if (account.state === 'checked') return 'checked';
  if (account.state !== 'checking') throw new Refusal('account-not-checking');
  if (!areTheTwo(sums, account.credits)) {
    const tries = account.tries + 1;
    const over = tries >= MOST_TRIES;
    await updateBankAccount(tx, account.id, {
      state: over ? 'refused' : 'checking',
      tries,
      reason: over ? 'credits' : '',
    });
    return over ? 'refused' : 'differ';
  }
  const before = await checkedAccount(tx, account.partnerId ?? tx.businessId, account.currency);
  await leaveOthers(tx, account, ['checked', 'refused']);
  await updateBankAccount(tx, account.id, { state: 'checked', tries: account.tries });
  await noteSettings(tx, 'bank-account', [
    { what: await called(tx, account), from: before?.number ?? '', to: account.number },
  ]);
  await sendReturnedAgain(tx, account);
  return 'checked';
}

const WRONG = { differ: 'credits-differ', refused: 'credits-refused' } as const;

/**
 * Confirms an account by the two small sums that came to it, in minor units; three times wrong, and it is not used.
 *
 * @throws Refusal `credits-differ`, `credits-refused`, `account-not-checking`, `not-found`
 */
export const confirmAccount = desk('settings', { again: true }).run(
  async (ctx, id: string, sums: readonly bigint[]): Promise<void> => {
    const result = await ctx.turn(async (tx) => confirm(tx, found(await lockedBankAccount(tx, id)), sums));
    if (result !== 'checked') throw new Refusal(WRONG[result]);
  },
);

/** The same by the partner themselves. @throws Refusal likewise */
export const confirmOwnAccount = byLink(PARTNER_LINK).run(
  async (ctx, { partnerId, over }: PartnerOpened, id: string, sums: readonly bigint[]): Promise<void> => {
    const result = await ctx.turn(async (tx) => {
      const account = found(await lockedBankAccount(tx, id));
      if (over || account.partnerId !== partnerId) throw new Refusal('not-found');
      return confirm(tx, account, sums);
    });
    if (result !== 'checked') throw new Refusal(WRONG[result]);
  },
);

/** Nothing is paid out to an account any more; what is on its way stays so. @throws Refusal `not-found` */
export const leaveAccount = desk('settings', { again: true }).turn(async (tx, id: string): Promise<void> => {
  const account = found(await lockedBankAccount(tx, id));
  if (account.state === 'left') return;
  await updateBankAccount(tx, id, { state: 'left', tries: account.tries });
  await noteSettings(tx, 'bank-account', [{ what: await called(tx, account), from: account.number, to: '' }]);
});

const creditKey = (businessId: string, account: BankAccount, at: number): string =>
  `${businessId}.${account.id}.${at + 1}`;

/** Lets the bank bring the small sums to accounts that are to be confirmed, and looks whether they came back. */
export async function sendCredits(ctx: Context): Promise<void> {
  const { accounts, business } = await ctx.read(async (db) => ({
    accounts: await accountsToAct(db),
    business: await businessById(db),
  }));
  for (const account of accounts) {
    const states = await Promise.all(
      account.credits.map((minor, at) =>
        services().bank.transfer({
          key: creditKey(ctx.businessId, account, at),
          to: account.number,
          amount: money(minor, account.currency),
          words: `${business.name}: sum ${at + 1} of 2 to confirm this account`,
          reference: '',
          from: PAYER,
        }),
      ),
    );
    const back = states.find((state) => state?.kind === 'returned');
    const reason = back?.kind === 'returned' ? back.reason : '';
    const silent = states.includes(null);
    const waits = states.some((state) => state?.kind === 'waiting');
    const next = silent ? SILENT_MS : waits ? LOOK_AGAIN_MS : null;
    await ctx.write(async (tx) => {
      const now = await bankAccountById(tx, account.id);
      if (now?.state !== 'checking') return;
      if (reason) await updateBankAccount(tx, account.id, { state: 'refused', tries: now.tries, reason });
      else await updateAccountAct(tx, account.id, next === null ? null : new Date(tx.now.getTime() + next));
    });
  }
}

/** Who pays out, as it stands on the payee's statement: the processor. */
export const PAYER = 'Corvid Clearing';
