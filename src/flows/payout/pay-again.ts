import { randomUUID } from 'node:crypto';
import { dateInZone } from '@/core/dates/zone';
import { partnerPaidByHand, payoutMade } from '@/core/ledger/movements';
import { money } from '@/core/money/money';
import { type BankAccount, checkedAccount } from '@/db/bank-accounts';
import { businessById } from '@/db/businesses';
import { insertEntry } from '@/db/ledger';
import { insertPartnerMovements, lockedPayout, type PayoutRow, returnedTo, updatePayout } from '@/db/payouts';
import { desk, type Writing } from '@/flows/door/operation';
import { Refusal } from '@/flows/door/refusal';
import { found } from '@/flows/door/rights';

/** Sends a payout that came back on its way once more, to this account; nothing where it is no longer so. */
async function again(tx: Writing, payout: PayoutRow, account: BankAccount): Promise<boolean> {
  const attempt = payout.attempt + 1;
  const moved = await updatePayout(tx, payout, {
    state: 'made',
    attempt,
    accountId: account.id,
    actAt: tx.now,
    sentAt: null,
    settledOn: null,
    reason: '',
  });
  if (moved === 0) return false;
  const { zone } = await businessById(tx);
  await insertEntry(
    tx,
    payoutMade(dateInZone(tx.now, zone), `Payout ${payout.number} again`, money(payout.amountMinor, payout.currency)),
    { id: randomUUID(), cause: `payout:${payout.id}:${attempt}`, invoiceId: null, paymentId: null },
  );
  return true;
}

/** All that came back to this payee in this currency goes to the account that was just confirmed. */
export async function sendReturnedAgain(tx: Writing, account: BankAccount): Promise<void> {
  for (const payout of await returnedTo(tx, account.partnerId ?? tx.businessId, account.currency))
    await again(tx, payout, account);
}

/**
 * Sends a payout that came back once more, to the account that is confirmed by now.
 *
 * @throws Refusal `payout-not-returned`, `account-not-checked`, `not-found`
 */
export const payAgain = desk('settings').turn(async (tx, id: string): Promise<void> => {
  const payout = found(await lockedPayout(tx, id));
  if (payout.state !== 'returned') throw new Refusal('payout-not-returned');
  const account = await checkedAccount(tx, payout.partnerId ?? tx.businessId, payout.currency);
  if (!account) throw new Refusal('account-not-checked');
  await again(tx, payout, account);
});

/**
 * A partner was paid by hand what came back: it is owed them no longer, and what the processor holds of it is the business's.
 *
 * @throws Refusal `payout-not-returned`, `not-found`
 */
export const paidByHand = desk('settings').turn(async (tx, id: string): Promise<void> => {
  const payout = found(await lockedPayout(tx, id));
  const { partnerId, number, currency, amountMinor } = payout;
  if (payout.state !== 'returned' || !partnerId) throw new Refusal('payout-not-returned');
  if ((await updatePayout(tx, payout, { state: 'given-up', actAt: null })) === 0) return;
  const given = { partnerId, paymentId: null, payoutId: id, currency };
  await insertPartnerMovements(tx, [
    { ...given, kind: 'came-back', minor: amountMinor },
    { ...given, kind: 'by-hand', minor: -amountMinor },
  ]);
  const { zone } = await businessById(tx);
  await insertEntry(
    tx,
    partnerPaidByHand(dateInZone(tx.now, zone), `Payout ${number} paid by hand`, money(amountMinor, currency)),
    { id: randomUUID(), cause: `payout-by-hand:${id}`, invoiceId: null, paymentId: null },
  );
});
