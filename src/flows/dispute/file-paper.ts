import { disputeById } from '@/db/disputes';
import { documentOf } from '@/db/documents';
import { bound } from '@/documents/pdf/bound';
import { paymentFilePdf } from '@/documents/pdf/draw';
import { zipOf } from '@/documents/zip';
import { type Context, desk } from '@/flows/door/operation';
import { found } from '@/flows/door/rights';
import { type File, picturesOf } from '@/flows/file/kept-files';
import { type Gathered, gatherFile } from './gather-file';

/** A payment's file as one PDF: what is known, then the papers behind. */
export async function answerPdf(ctx: Context, gathered: Gathered): Promise<Buffer> {
  const first = await paymentFilePdf(gathered.paper, await picturesOf(ctx, gathered.logoId));
  return (await bound(first, gathered.papers)).bytes;
}

/** The answer to a dispute as it would go out now, or as it was sent. @throws Refusal `not-found` */
export const disputeFile = desk('see').run(async (ctx, id: string, sent: boolean): Promise<File> => {
  const { dispute, kept } = await ctx.read(async (db) => ({
    dispute: found(await disputeById(db, id)),
    kept: sent ? found(await documentOf(db, 'dispute-file', id, 1)) : null,
  }));
  const bytes = kept?.bytes ?? (await answerPdf(ctx, await gatherFile(ctx, dispute.paymentId)));
  return { name: 'answer.pdf', bytes, type: 'application/pdf' };
});

/** All that is known of any payment, as a zip: one PDF to read, every paper by itself, and what is known as JSON. @throws Refusal `not-found` */
export const paymentFile = desk('see').run(async (ctx, paymentId: string): Promise<File> => {
  const gathered = await gatherFile(ctx, paymentId, false);
  const files = [{ name: 'Payment.pdf', bytes: await answerPdf(ctx, gathered) }];
  const names = new Set(['Payment.pdf', 'payment.json']);
  for (const { name, bytes, part } of gathered.papers) {
    const plain = name.replace(/[^\p{L}\p{N}._ -]+/gu, '-');
    // Two papers of one name both go in.
    const own = names.has(plain) ? `${names.size} ${plain}` : plain;
    names.add(own);
    files.push({ name: part === 'added' ? `added/${own}` : own, bytes: Buffer.from(bytes) });
  }
  const { title, facts, payer, words, parts, madeOn } = gathered.paper;
  const known = { title, madeOn, facts, payer, words, parts };
  files.push({ name: 'payment.json', bytes: Buffer.from(`${JSON.stringify(known, null, 2)}\n`) });
  return { name: `payment-${paymentId.slice(0, 8)}.zip`, bytes: await zipOf(files), type: 'application/zip' };
});
