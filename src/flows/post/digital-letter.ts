import { sellerOf } from '@/core/business/business';
import { digitalLetter } from '@/documents/mail/digital-letter';
import { givenThings } from '@/flows/digital/grants';
import { customerLink, type Subject, type Written } from './subject';

/** Tells whoever bought something that it can be downloaded; nothing where it was given back meanwhile. */
export async function digitalMail(subject: Subject): Promise<Written | null> {
  const { ctx, business, invoice, order } = subject;
  const saleId = invoice?.id ?? order?.id;
  const things = saleId ? await ctx.read((db) => givenThings(db, saleId)) : [];
  if (things.length === 0) return null;
  const locale = (invoice?.printed ?? order?.printed)?.locale || business.paperLocale;
  return {
    ...digitalLetter({
      locale,
      seller: sellerOf(business),
      accent: business.accent,
      things,
      zone: business.zone,
      link: customerLink(subject),
    }),
    files: [],
  };
}
