/** Another address for somebody whose address is confirmed: it is theirs once both say so, the one so far and the new one. */
import { proofOf } from '@/db/mail-proofs';
import { isUnconfirmed, personWithEmail, signInCandidates } from '@/db/people';
import { moveSignInName } from '@/db/sign-in-steps';
import { anybody, desk, type Reading, type Writing } from '@/flows/door/operation';
import { Refusal } from '@/flows/door/refusal';
import { found } from '@/flows/door/rights';
import { noteChange } from '@/flows/log/log';
import { queueMessage } from '@/flows/message/queue-message';
import { endProof, openByLink, type ProofSeal, queueProof, readLink, requireFewMails, takeByLink } from './mail-proof';

const BOTH = ['old-address', 'new-address'] as const;
type Which = (typeof BOTH)[number];
const otherOf = (which: Which): Which => (which === 'old-address' ? 'new-address' : 'old-address');

/** A change of address that waits for its links. */
export type AddressChange = { readonly to: string; readonly oldAgreed: boolean; readonly newAgreed: boolean };

const pending = async (db: Reading, personId: string, purpose: Which) => {
  const proof = await proofOf(db, purpose, personId);
  return proof && proof.goodUntil > db.now ? proof : null;
};

/** The change that somebody asked for, while it waits. */
export const myAddressChange = desk('own').read(async (db): Promise<AddressChange | null> => {
  const [before, after] = [
    await pending(db, db.personId, 'old-address'),
    await pending(db, db.personId, 'new-address'),
  ];
  if (!before || !after || (before.usedAt && after.usedAt)) return null;
  return { to: after.email, oldAgreed: before.usedAt !== null, newAgreed: after.usedAt !== null };
});

/**
 * Asks for another address: a link goes to the one so far and one to the new one.
 *
 * @throws Refusal `prove-again`, `address-signs-in`, `address-same`, `mail-not-confirmed`, `mails-too-often`
 */
export const askNewAddress = desk('own', { again: true }).run(async (ctx, email: string): Promise<void> => {
  const { personId } = ctx;
  const person = found(await ctx.read((db) => personWithEmail(db, personId)));
  if (await ctx.read((db) => isUnconfirmed(db, personId))) throw new Refusal('mail-not-confirmed');
  if (person.email.toLowerCase() === email.toLowerCase()) throw Refusal.at('email', 'address-same');
  const holders = await ctx.outside((db) => signInCandidates(db, email));
  if (holders.some(({ confirmed }) => confirmed)) throw Refusal.at('email', 'address-signs-in');
  await requireFewMails(personId, email);
  await ctx.turn(async (tx) => {
    await queueProof(tx, 'old-address', { personId, email: person.email });
    await queueProof(tx, 'new-address', { personId, email });
  });
});

/** Leaves the address as it is: both links are over. */
export const keepAddress = desk('own').turn(async (tx): Promise<void> => {
  for (const purpose of BOTH) await endProof(tx, purpose, tx.personId);
});

const read = (token: string): { readonly which: Which; readonly seal: ProofSeal } | null => {
  for (const which of BOTH) {
    const seal = readLink(which, token);
    if (seal) return { which, seal };
  }
  return null;
};

/** What a link is about; null for one that is over. */
export const lookAtAddressLink = anybody({ tells: false }).run(
  async (
    house,
    token: string,
  ): Promise<{ readonly from: string; readonly to: string; readonly which: Which } | null> => {
    const link = read(token);
    if (!link) return null;
    const { which, seal } = link;
    return house.within(seal.b).read(async (db) => {
      const open = await openByLink(db, which, seal);
      const person = open && (await personWithEmail(db, seal.p));
      const to = person && (await proofOf(db, 'new-address', seal.p));
      return person && to ? { from: person.email, to: to.email, which } : null;
    });
  },
);

async function move(tx: Writing, personId: string, to: string): Promise<void> {
  const { name, email: from } = found(await personWithEmail(tx, personId));
  if (!(await moveSignInName(tx, personId, to))) throw new Refusal('address-signs-in');
  await noteChange({ ...tx, name, personId }, 'address-moved', [{ what: name, from, to }]);
  for (const toAddress of [from, to])
    await queueMessage(tx, {
      kind: 'address-moved',
      key: `address-moved:${personId}:${toAddress}:${tx.now.getTime()}`,
      toName: '',
      toAddress,
      details: { text: to },
    });
}

/**
 * Agrees to the change by one of its links. With the second of both it is done, at all desks of the person.
 *
 * @returns whether it is done, or waits for the other one
 * @throws Refusal `link-over`, `address-signs-in` where somebody has confirmed the new one meanwhile
 */
export const agreeToAddress = anybody().run(async (house, token: string): Promise<'done' | 'waits'> => {
  const link = read(token);
  if (!link) throw new Refusal('link-over');
  const { which, seal } = link;
  return house.within(seal.b).turn(async (tx) => {
    const proof = await takeByLink(tx, which, seal);
    const other = found(await pending(tx, seal.p, otherOf(which)));
    if (!other.usedAt) return 'waits';
    await move(tx, seal.p, which === 'new-address' ? proof.email : other.email);
    return 'done';
  });
});
