import { sellerOf } from '@/core/business/business';
import { addressLines, isNoAddress } from '@/core/place/address';
import { handoversOfSale } from '@/db/handovers';
import { readyLetter } from '@/documents/mail/ready-letter';
import { leftAtCounter } from '@/flows/counter/collect';
import { customerLink, type Subject, type Written } from './subject';

/** Tells whoever bought something that it can be fetched; nothing where it was fetched, or given back, meanwhile. */
export async function readyMail(subject: Subject): Promise<Written | null> {
  const { ctx, business, invoice, order } = subject;
  const saleId = invoice?.id ?? order?.id;
  const sales = saleId ? await ctx.read((db) => handoversOfSale(db, saleId)) : [];
  const lines = sales.filter(({ counter }) => counter === 'open').flatMap(leftAtCounter);
  if (lines.length === 0) return null;
  const locale = (invoice?.printed ?? order?.printed)?.locale || business.paperLocale;
  return {
    ...readyLetter({
      locale,
      seller: sellerOf(business),
      accent: business.accent,
      number: sales[0]?.number ?? '',
      lines,
      where: isNoAddress(business.place) ? [] : addressLines(business.place, business.country, locale),
      link: customerLink(subject),
    }),
    files: [],
  };
}
