import { randomUUID } from 'node:crypto';
import type { FirstSetting } from '@/core/beginning/first-setting';
import { countAttempt, type Limit } from '@/db/limits';
import { isUnconfirmed, type OtherDesk, otherDesks, passwordHashOf, personByEmail, personWithEmail } from '@/db/people';
import { idFor } from '@/flows/door/id-for';
import { anybody, desk } from '@/flows/door/operation';
import { Refusal } from '@/flows/door/refusal';
import { found } from '@/flows/door/rights';
import { noteAccess } from '@/flows/log/log';
import { foundBusiness, newBusiness } from './found-business';
import { endPlace, type From, type OpenedSession, openSession } from './session';
import { actorOf } from './sign-in';

/** Where else whoever is signed in works. */
export const myOtherDesks = desk('own').read((db): Promise<OtherDesk[]> => otherDesks(db, db.personId));

/**
 * Goes over to another business in which the same person works: a session there, and this one ends.
 *
 * @param session the one that is left
 * @throws Refusal `not-signed-in`, `not-here`
 */
export const changeDesk = anybody({ tells: false }).run(
  async (house, session: string, businessId: string, from: From): Promise<OpenedSession> => {
    const actor = await actorOf(session);
    if (!actor) throw new Refusal('not-signed-in');
    const desks = await house.within(actor.businessId).read((db) => otherDesks(db, actor.personId));
    const there = desks.find((one) => one.businessId === businessId);
    if (!there) throw new Refusal('not-here');
    const opened = await house.within(businessId, { name: actor.name, personId: there.personId }).write(async (tx) => {
      await noteAccess(tx, 'signed-in', { personId: there.personId, name: actor.name }, from.address);
      return openSession(tx, there.personId, from, actor.provedSeconds);
    });
    await house.within(actor.businessId).write((tx) => endPlace(tx, actor.personId, session));
    return opened;
  },
);

const ANOTHER: Limit = { name: 'another-business', attempts: 4, seconds: 86_400 };

/** What is said of a further business. `key` is made by the page for one form: the same press twice founds one. */
export type Another = FirstSetting & { readonly key: string; readonly business: string };

/**
 * Founds a further business of whoever is signed in, and goes over to it. Their address is known to be theirs, so it may send at once.
 *
 * @param session the one that is left
 * @throws Refusal `not-signed-in`, `mail-not-confirmed`, `sign-up-too-often`
 */
export const foundAnother = anybody({ tells: false }).run(
  async (
    house,
    session: string,
    asked: Another,
    from: From,
  ): Promise<OpenedSession & { readonly invoiceId: string }> => {
    const actor = await actorOf(session);
    if (!actor) throw new Refusal('not-signed-in');
    const own = await house.within(actor.businessId).read(async (db) => ({
      person: found(await personWithEmail(db, actor.personId)),
      hash: found(await passwordHashOf(db, actor.personId)),
      unconfirmed: await isUnconfirmed(db, actor.personId),
    }));
    if (own.unconfirmed) throw new Refusal('mail-not-confirmed');
    const { email } = own.person;
    const businessId = idFor(`another ${actor.businessId} ${actor.personId} ${asked.key}`);
    const before = await house.within(businessId).read((db) => personByEmail(db, email));
    if (!before && (await countAttempt(ANOTHER, email.toLowerCase())) > 0) throw new Refusal('sign-up-too-often');
    const owner = { id: before?.id ?? randomUUID(), name: actor.name, email, passwordHash: own.hash };
    const opened = await house.within(businessId, { name: actor.name, personId: owner.id }).write(async (tx) => {
      const business = { ...newBusiness(businessId, { ...asked, email }, tx.now), mailConfirmedAt: tx.now };
      const invoiceId = before ? '' : await foundBusiness(tx, business, owner, from.address);
      return { ...(await openSession(tx, owner.id, from, actor.provedSeconds)), invoiceId };
    });
    await house.within(actor.businessId).write((tx) => endPlace(tx, actor.personId, session));
    return opened;
  },
);
