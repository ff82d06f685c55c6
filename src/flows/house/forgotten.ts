import type { Challenge } from 'altcha-lib';
import { countAttempt, type Limit } from '@/db/limits';
import { endSessionsOf, personWithEmail, signInCandidates, updatePassword } from '@/db/people';
import { anybody } from '@/flows/door/operation';
import { Refusal } from '@/flows/door/refusal';
import { found } from '@/flows/door/rights';
import { isFreshWork, setWork, type Work } from '@/flows/door/work';
import { noteAccess } from '@/flows/log/log';
import { queueMessage } from '@/flows/message/queue-message';
import { nowConfirmed } from './confirm';
import { openByLink, readLink, sendProof, takeByLink } from './mail-proof';
import { passwordHash, requireGoodPassword } from './password';

const PER_NETWORK: Limit = { name: 'forgotten-network', attempts: 20, seconds: 3600 };
const WORK_SUBJECT = 'forgotten';
const WORK_PREFIX = '00';

/** The work before somebody asks for a new password. */
export const forgottenWork = anybody({ tells: false }).run(
  async (): Promise<Challenge> => setWork(WORK_SUBJECT, WORK_PREFIX),
);

/**
 * Sends a link for a new password to whoever signs in with an address. Nobody learns whether somebody does: the answer is the same,
 * also where too many were asked for.
 *
 * @throws Refusal `not-a-robot`, `sign-up-too-often` by the network address alone
 */
export const askForPassword = anybody().run(
  async (house, email: string, work: Partial<Work>, address: string): Promise<void> => {
    if (!(await isFreshWork(WORK_SUBJECT, work))) throw new Refusal('not-a-robot');
    if ((await countAttempt(PER_NETWORK, address)) > 0) throw new Refusal('sign-up-too-often');
    const [candidate] = await house.outside((db) => signInCandidates(db, email.trim()));
    if (!candidate) return;
    const { businessId, personId } = candidate;
    const within = house.within(businessId);
    const person = found(await within.read((db) => personWithEmail(db, personId)));
    try {
      await sendProof(within, 'password', { personId, email: person.email });
      await within.write((tx) => noteAccess(tx, 'password-asked', { personId, name: person.name }, address));
    } catch (error) {
      if (!(error instanceof Refusal)) throw error;
    }
  },
);

/** Whose password a link changes; null for a link that is over. */
export const lookAtPasswordLink = anybody({ tells: false }).run(
  async (house, token: string): Promise<{ readonly email: string } | null> => {
    const seal = readLink('password', token);
    return seal && house.within(seal.b).read((db) => openByLink(db, 'password', seal));
  },
);

/**
 * Gives whoever followed the link a new password, once; all their sessions end, and a mail says so. The link came by mail, so the
 * address is theirs.
 *
 * @throws Refusal `link-over`, `password-weak`
 */
export const chooseForgotten = anybody().run(
  async (house, token: string, password: string, address: string): Promise<void> => {
    const seal = readLink('password', token);
    if (!seal) throw new Refusal('link-over');
    const within = house.within(seal.b);
    const person = found(await within.read((db) => personWithEmail(db, seal.p)));
    await requireGoodPassword('fresh', password, [person.email, person.name]);
    const hash = await passwordHash(password);
    await within.turn(async (tx) => {
      const proof = await takeByLink(tx, 'password', seal);
      await updatePassword(tx, seal.p, hash);
      await endSessionsOf(tx, seal.p);
      await nowConfirmed(tx, seal.p, proof.email, address);
      await noteAccess(tx, 'password', { personId: seal.p, name: person.name }, address);
      const key = `password-changed:${seal.p}:${proof.nonce}`;
      await queueMessage(tx, { kind: 'password-changed', key, toName: '', toAddress: person.email });
    });
  },
);
