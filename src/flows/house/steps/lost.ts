/** Who lost app, passkeys and recovery codes: after three days, in which whoever it really is can stop it, the password alone is enough. */
import { asksForStep, lostUntil } from '@/core/person/steps';
import { personWithEmail } from '@/db/people';
import { setStepsLost } from '@/db/sign-in-steps';
import { anybody, desk } from '@/flows/door/operation';
import { Refusal } from '@/flows/door/refusal';
import { found } from '@/flows/door/rights';
import { openByLink, readLink, sendProof, takeByLink } from '@/flows/house/mail-proof';
import { noteAccess } from '@/flows/log/log';
import { queueMessage } from '@/flows/message/queue-message';
import { openHalf } from './half';
import { ownSteps } from './own-steps';

/** Sends whoever is half signed in a link by mail: they have to have the mailbox too. @throws Refusal `half-over`, `mails-too-often` */
export const askLostSteps = anybody().run(async (house, half: string): Promise<void> => {
  const seal = await openHalf(house, half);
  const within = house.within(seal.b);
  const { email } = found(await within.read((db) => personWithEmail(db, seal.p)));
  await sendProof(within, 'lost-steps', { personId: seal.p, email });
});

/** Whose second step a link is about; null for a link that is over. */
export const lookAtLostLink = anybody({ tells: false }).run(
  async (house, token: string): Promise<{ readonly email: string } | null> => {
    const seal = readLink('lost-steps', token);
    return seal && house.within(seal.b).read((db) => openByLink(db, 'lost-steps', seal));
  },
);

/** Begins the wait, and writes to its person. @returns until when @throws Refusal `link-over` */
export const beginLost = anybody().run(async (house, token: string, address: string): Promise<Date> => {
  const seal = readLink('lost-steps', token);
  if (!seal) throw new Refusal('link-over');
  return house.within(seal.b).turn(async (tx) => {
    const proof = await takeByLink(tx, 'lost-steps', seal);
    const { name, email } = found(await personWithEmail(tx, seal.p));
    // The address is another by now, or there is nothing to lose.
    if (proof.email !== email || !asksForStep(await ownSteps(tx, email))) throw new Refusal('link-over');
    await setStepsLost(tx, email, tx.now);
    await noteAccess(tx, 'steps-lost', { personId: seal.p, name }, address);
    const until = lostUntil(tx.now);
    await queueMessage(tx, {
      kind: 'steps-lost',
      key: `steps-lost:${seal.p}:${proof.nonce}`,
      toName: name,
      toAddress: email,
      details: { until: until.toISOString() },
    });
    return until;
  });
});

/** Stops the wait: the steps stay. */
export const keepSteps = desk('own', { bare: true }).write(async (tx, address: string): Promise<void> => {
  const { email } = found(await personWithEmail(tx, tx.personId));
  if ((await ownSteps(tx, email)).lostAt === null) return;
  await setStepsLost(tx, email, null);
  await noteAccess(tx, 'steps-kept', tx, address);
});
