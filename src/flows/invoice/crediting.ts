import { creditedSoFar } from '@/core/refund/printed-document';
import type { Crediting } from '@/core/tally/credit-steps';
import { creditsOf } from '@/db/credit-notes';
import type { Invoice } from '@/db/invoices';
import type { Db } from '@/db/pool';
import { found } from '@/flows/door/rights';

/** How far an invoice is credited by the notes written of it. */
export async function creditingOf(db: Db, invoice: Pick<Invoice, 'id' | 'printed'>): Promise<Crediting> {
  const notes = await creditsOf(db, invoice.id);
  return creditedSoFar(
    found(invoice.printed),
    notes.map(({ step }) => step),
  );
}
