import { DISPUTE_ADVICE, DISPUTE_WORDS, LOST_BY_WORDS } from '@/core/dispute/dispute-words';
import { disputeById } from '@/db/disputes';
import { notice } from '@/documents/mail/letter';
import { services } from '@/outside/services';
import type { Subject, Written } from './subject';

const HEADS = {
  opened: 'A payment is disputed',
  reminder: 'A dispute waits for your answer',
  won: 'A dispute is won',
  lost: 'A dispute is lost',
} as const;

/** Of a dispute: opened, not answered yet, won or lost; to every owner. */
export async function disputeMail({ ctx, message, business }: Subject): Promise<Written | null> {
  const { subject = '', from = '', text = '' } = message.details;
  const dispute = await ctx.read((db) => disputeById(db, from));
  if (!dispute || !(text in HEADS)) return null;
  const what = text as keyof typeof HEADS;
  const words = {
    opened: `${DISPUTE_WORDS[dispute.reason]}. The bank took the sum and its fee at once; with your answer you may get them back. ${DISPUTE_ADVICE[dispute.reason]}`,
    reminder: `${DISPUTE_WORDS[dispute.reason]}. Without an answer it is lost.`,
    won: 'The sum comes back to you with the next payout, and partners get their parts again.',
    lost: `The sum stays with the holder: ${LOST_BY_WORDS[dispute.lostBy ?? 'decision']}.`,
  }[what];
  return {
    ...notice({
      seller: business,
      subject,
      lead: business.name,
      sum: HEADS[what],
      words: `${subject}. ${words}`,
      link: `${services().publicUrl}/money/disputes/${dispute.id}`,
      open: 'Open the dispute',
      foot: 'Sent to every owner by Dahlia.',
    }),
    files: [],
  };
}
