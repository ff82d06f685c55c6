import { type OtherDesk, otherDesks } from '@/db/people';
import { anybody, desk } from '@/flows/door/operation';
import { Refusal } from '@/flows/door/refusal';
import { noteAccess } from '@/flows/log/log';
import { endPlace, type From, type OpenedSession, openSession } from './session';
import { actorOf } from './sign-in';

/** Where else whoever is signed in works. */
export const myOtherDesks = desk('see').read((db): Promise<OtherDesk[]> => otherDesks(db, db.personId));

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
      return openSession(tx, there.personId, from);
    });
    await house.within(actor.businessId).write((tx) => endPlace(tx, actor.personId, session));
    return opened;
  },
);
