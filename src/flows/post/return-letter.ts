import { sellerOf } from '@/core/business/business';
import { handoversOfSale } from '@/db/handovers';
import { returnsOf } from '@/db/returns';
import { returnLetter } from '@/documents/mail/return-letter';
import { customerLink, type Subject, type Written } from './subject';

/** Tells a customer what was answered about what they want to send back; nothing where none was. */
export async function returnMail(subject: Subject): Promise<Written | null> {
  const { ctx, business, invoice, order } = subject;
  const saleId = invoice?.id ?? order?.id ?? '';
  const { sales, returns } = await ctx.read(async (db) => {
    const own = await handoversOfSale(db, saleId);
    return {
      sales: own,
      returns: await returnsOf(
        db,
        own.map(({ id }) => id),
      ),
    };
  });
  const answered = returns.filter(({ state }) => state !== 'asked').at(-1);
  if (!answered) return null;
  const whats = new Map(sales.flatMap(({ lines }) => lines.map(({ line, what }) => [line, what])));
  return {
    ...returnLetter({
      locale: (invoice?.printed ?? order?.printed)?.locale || business.paperLocale,
      seller: sellerOf(business),
      accent: business.accent,
      allowed: answered.state !== 'refused',
      answer: answered.answer,
      hasLabel: answered.state === 'allowed' && answered.label !== null,
      lines: answered.lines.map(({ line, quantity }) => ({ what: whats.get(line) ?? '', quantity })),
      link: customerLink(subject),
    }),
    files: [],
  };
}
