/** What somebody shows by mail: its link, and its six figures. Neither stands in the database; both are worked out with a key. */
import { randomBytes } from 'node:crypto';
import type { MessageKind } from '@/core/message/kinds';
import { countAttempt, type Limit } from '@/db/limits';
import { askForProof, countWrong, type MailProof, markProofUsed, type ProofPurpose, proofOf } from '@/db/mail-proofs';
import type { Context, Reading, Writing } from '@/flows/door/operation';
import { Refusal } from '@/flows/door/refusal';
import { isSigned, sealed, signatureOf, unsealed } from '@/flows/door/signing';
import { queueMessage } from '@/flows/message/queue-message';

const HOUR_MS = 3_600_000;
/** How long each is good. */
export const GOOD_HOURS: Readonly<Record<ProofPurpose, number>> = {
  confirm: 24,
  password: 1,
  'lost-steps': 24,
  'old-address': 24,
  'new-address': 24,
};
/** So often wrong figures are typed before there must be new ones: a guess is right once in a hundred and twenty-five thousand. */
const MOST_WRONG = 8;
const MAILS_OF_PERSON: Limit = { name: 'proof-mails', attempts: 5, seconds: 3600 };
const MAILS_TO_ADDRESS: Limit = { name: 'proof-mails-to', attempts: 12, seconds: 86_400 };

const KIND = {
  confirm: 'confirm-address',
  password: 'password-link',
  'lost-steps': 'lost-steps-link',
  'old-address': 'address-link',
  'new-address': 'address-link',
} as const satisfies Readonly<Record<ProofPurpose, MessageKind>>;

/** The six figures of a proof. */
export function figuresOf(businessId: string, proof: Pick<MailProof, 'personId' | 'nonce'>): string {
  const digest = Buffer.from(signatureOf('figures', `${businessId} ${proof.personId} ${proof.nonce}`), 'base64url');
  return String(digest.readUIntBE(0, 6) % 1_000_000).padStart(6, '0');
}

/** What a link says: business, person, and which proof of theirs. */
export type ProofSeal = { readonly b: string; readonly p: string; readonly n: string };

/** What stands in the link of a proof. */
export const linkOf = (
  purpose: ProofPurpose,
  businessId: string,
  proof: Pick<MailProof, 'personId' | 'nonce'>,
): string => sealed(purpose, { b: businessId, p: proof.personId, n: proof.nonce } satisfies ProofSeal);

/** Whose a link is; null for one that is not ours. */
export const readLink = (purpose: ProofPurpose, token: string): ProofSeal | null => unsealed<ProofSeal>(purpose, token);

/**
 * Asks a person for a proof and sends them its mail; what was sent before is good no longer.
 *
 * @throws Refusal `mails-too-often`
 */
export async function sendProof(
  ctx: Context,
  purpose: ProofPurpose,
  to: { readonly personId: string; readonly email: string },
): Promise<void> {
  await requireFewMails(to.personId, to.email);
  await ctx.write((tx) => queueProof(tx, purpose, to));
}

/** Counts a mail to a person and to an address. @throws Refusal `mails-too-often` */
export async function requireFewMails(personId: string, email: string): Promise<void> {
  const waits = await Promise.all([
    countAttempt(MAILS_OF_PERSON, personId),
    countAttempt(MAILS_TO_ADDRESS, email.toLowerCase()),
  ]);
  if (waits.some((seconds) => seconds > 0)) throw new Refusal('mails-too-often');
}

/** The same within a transaction of its caller's, which has counted it. */
export async function queueProof(
  tx: Writing,
  purpose: ProofPurpose,
  { personId, email }: { readonly personId: string; readonly email: string },
): Promise<void> {
  const nonce = randomBytes(12).toString('base64url');
  const goodUntil = new Date(tx.now.getTime() + GOOD_HOURS[purpose] * HOUR_MS);
  await askForProof(tx, purpose, { personId, email, nonce, goodUntil });
  const key = `${purpose}:${personId}:${nonce}`;
  // Their name as they typed it is not said: the address may be anybody's.
  await queueMessage(tx, { kind: KIND[purpose], key, toName: '', toAddress: email, details: { personId, purpose } });
}

/** Whether a proof is still to be given. */
const isOpen = (proof: MailProof | null, now: Date): proof is MailProof =>
  proof !== null && proof.usedAt === null && proof.goodUntil > now;

/** The proof that a link asks for, where it is still to be given; null for one that is over. */
export async function openByLink(db: Reading, purpose: ProofPurpose, seal: ProofSeal): Promise<MailProof | null> {
  const proof = await proofOf(db, purpose, seal.p);
  return isOpen(proof, db.now) && proof.nonce === seal.n ? proof : null;
}

/** Takes a proof by its link, once. @throws Refusal `link-over` */
export async function takeByLink(tx: Writing, purpose: ProofPurpose, seal: ProofSeal): Promise<MailProof> {
  const proof = await proofOf(tx, purpose, seal.p, true);
  if (!isOpen(proof, tx.now) || proof.nonce !== seal.n) throw new Refusal('link-over');
  await markProofUsed(tx, purpose, seal.p);
  return proof;
}

/** Ends a proof that was asked for: its link opens nothing any more. */
export async function endProof(tx: Writing, purpose: ProofPurpose, personId: string): Promise<void> {
  const proof = await proofOf(tx, purpose, personId, true);
  if (isOpen(proof, tx.now)) await askForProof(tx, purpose, { ...proof, nonce: '', goodUntil: tx.now });
}

/** Takes a proof by its figures. @returns the proof, or why it was not taken: what is counted stays counted */
export async function takeByFigures(
  tx: Writing,
  purpose: ProofPurpose,
  personId: string,
  typed: string,
): Promise<MailProof | 'figures-differ' | 'figures-over'> {
  const proof = await proofOf(tx, purpose, personId, true);
  if (!isOpen(proof, tx.now) || proof.wrong >= MOST_WRONG) return 'figures-over';
  // Compared as signatures are, in constant time.
  const right = isSigned('figures', typed.replace(/\D/g, ''), signatureOf('figures', figuresOf(tx.businessId, proof)));
  if (!right) return (await countWrong(tx, purpose, personId)) >= MOST_WRONG ? 'figures-over' : 'figures-differ';
  await markProofUsed(tx, purpose, personId);
  return proof;
}
