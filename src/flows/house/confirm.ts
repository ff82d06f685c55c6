import { businessById, openSending, updateBusiness } from '@/db/businesses';
import { changeUnconfirmed, claimName, isUnconfirmed, personWithEmail, signInCandidates } from '@/db/people';
import { anybody, desk, type Writing } from '@/flows/door/operation';
import { Refusal } from '@/flows/door/refusal';
import { found } from '@/flows/door/rights';
import { noteAccess } from '@/flows/log/log';
import { openByLink, queueProof, readLink, requireFewMails, sendProof, takeByFigures, takeByLink } from './mail-proof';

/**
 * Makes the address a person's own, and opens sending. @throws Refusal `address-signs-in` where somebody else has confirmed it
 * meanwhile
 */
export async function nowConfirmed(tx: Writing, personId: string, email: string, address: string): Promise<void> {
  if (!(await isUnconfirmed(tx, personId))) return;
  if (!(await claimName(tx, personId, email))) throw new Refusal('address-signs-in');
  await openSending(tx);
  const { name } = found(await personWithEmail(tx, personId));
  await noteAccess(tx, 'address-confirmed', { personId, name }, address);
}

/** Confirms one's address by the six figures of the mail. @throws Refusal `figures-differ`, `figures-over`, `address-signs-in` */
export const confirmByFigures = desk('own').run(async (ctx, typed: string, address: string): Promise<void> => {
  const { personId } = ctx;
  const outcome = await ctx.turn(async (tx) => {
    if (!(await isUnconfirmed(tx, personId))) return null;
    const taken = await takeByFigures(tx, 'confirm', personId, typed);
    if (typeof taken !== 'string') await nowConfirmed(tx, personId, taken.email, address);
    return typeof taken === 'string' ? taken : null;
  });
  if (outcome) throw Refusal.at('figures', outcome);
});

/** What a link to confirm is about; null for one that is over. */
export const lookAtConfirmLink = anybody({ tells: false }).run(
  async (house, token: string): Promise<{ readonly email: string; readonly business: string } | null> => {
    const seal = readLink('confirm', token);
    if (!seal) return null;
    return house.within(seal.b).read(async (db) => {
      const proof = await openByLink(db, 'confirm', seal);
      return proof && { email: proof.email, business: (await businessById(db)).name };
    });
  },
);

/** Confirms an address by the link of the mail; whoever has it open at the desk sees it at once. @throws Refusal `link-over` */
export const confirmByLink = anybody().run(async (house, token: string, address: string): Promise<void> => {
  const seal = readLink('confirm', token);
  if (!seal) throw new Refusal('link-over');
  await house.within(seal.b).turn(async (tx) => {
    const proof = await takeByLink(tx, 'confirm', seal);
    await nowConfirmed(tx, seal.p, proof.email, address);
  });
});

/** Sends link and figures again; those of before are good no longer. @throws Refusal `mails-too-often`, `address-confirmed` */
export const sendConfirmAgain = desk('own').run(async (ctx): Promise<void> => {
  const person = found(await ctx.read((db) => personWithEmail(db, ctx.personId)));
  if (!(await ctx.read((db) => isUnconfirmed(db, ctx.personId)))) throw new Refusal('address-confirmed');
  await sendProof(ctx, 'confirm', { personId: ctx.personId, email: person.email });
});

/**
 * Corrects an address that is not confirmed yet, and sends link and figures there.
 *
 * @throws Refusal `address-signs-in`, `address-confirmed`, `mails-too-often`
 */
export const correctAddress = desk('own').run(async (ctx, email: string, address: string): Promise<void> => {
  const holders = await ctx.outside((db) => signInCandidates(db, email));
  if (holders.some(({ confirmed }) => confirmed)) throw Refusal.at('email', 'address-signs-in');
  await requireFewMails(ctx.personId, email);
  await ctx.turn(async (tx) => {
    const person = found(await personWithEmail(tx, tx.personId));
    if (!(await isUnconfirmed(tx, tx.personId))) throw new Refusal('address-confirmed');
    await changeUnconfirmed(tx, tx.personId, email);
    const business = await businessById(tx);
    if (business.email === person.email) await updateBusiness(tx, { ...business, email });
    await noteAccess(tx, 'address-changed', tx, address);
    await queueProof(tx, 'confirm', { personId: tx.personId, email });
  });
});
