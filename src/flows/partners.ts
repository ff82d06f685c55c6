import { randomUUID } from 'node:crypto';
import { announce } from '@/db/jobs';
import { archivePartner, keepPartner, type Partner, type PartnerRow, partnerRows } from '@/db/partners';
import type { Actor } from '@/db/people';
import { inBusiness, readBusiness } from '@/db/transaction';
import { services } from '@/outside/services';
import { requireRight } from './access';
import { Refusal } from './refusal';

export type { PartnerRow };

/** The partners by name, with what each has earned. */
export function partnerList(actor: Actor): Promise<PartnerRow[]> {
  requireRight(actor, 'read');
  return readBusiness(actor.businessId, (db) => partnerRows(db, actor.businessId));
}

/** Keeps a partner, new or changed. @throws Refusal `not-found`, and what the bank says against the account */
export async function storePartner(actor: Actor, id: string | null, fields: Omit<Partner, 'id'>): Promise<Partner> {
  requireRight(actor, 'ask');
  const now = await services().clock.now();
  const partner = { id: id ?? randomUUID(), ...fields, account: await shareAccount(fields.account) };
  await inBusiness(actor.businessId, async (tx) => {
    if ((await keepPartner(tx, actor.businessId, partner, now)) === 0) throw new Refusal('not-found');
    await announce(tx, actor.businessId);
  });
  return partner;
}

/**
 * The number of a share account as the bank writes it; empty for none.
 *
 * @throws Refusal `account-unknown`, `account-closed`, `bank-silent`
 */
async function shareAccount(typed: string): Promise<string> {
  if (!typed) return '';
  const account = await services().bank.accountOf(typed);
  if (account === null) throw new Refusal('bank-silent');
  if (account === 'unknown') throw new Refusal('account-unknown');
  if (!account.open) throw new Refusal('account-closed');
  return account.number;
}

/** Whose a share account is, for the form in which its number is typed. @throws Refusal as when it is kept */
export async function accountHolder(actor: Actor, typed: string): Promise<string> {
  requireRight(actor, 'ask');
  const account = await services().bank.accountOf(await shareAccount(typed));
  return account && account !== 'unknown' ? account.holder : '';
}

/** Takes a partner off the list; what they were given stays theirs. */
export async function removePartner(actor: Actor, id: string): Promise<void> {
  requireRight(actor, 'ask');
  await inBusiness(actor.businessId, async (tx) => {
    if ((await archivePartner(tx, actor.businessId, id)) === 0) throw new Refusal('not-found');
    await announce(tx, actor.businessId);
  });
}
