import { sellerOf } from '@/core/business/business';
import type { ToldOf } from '@/core/parcel/notice';
import { parcelsByIds } from '@/db/parcels';
import { parcelLetter } from '@/documents/mail/parcel-letters';
import { customerLink, type Subject, type Written } from './subject';

/** Tells whom a parcel is for how it stands. A label that was given back meanwhile is told of no more. */
export const parcelMail =
  (what: ToldOf) =>
  async (subject: Subject): Promise<Written | null> => {
    const { ctx, business, message, invoice, order } = subject;
    const [parcel] = await ctx.read((db) => parcelsByIds(db, message.parcelId ? [message.parcelId] : []));
    if (!parcel?.promisedOn || parcel.state === 'voided') return null;
    const { recipient, number, label, promisedOn, lines } = parcel;
    const locale = recipient.locale || business.paperLocale;
    return {
      ...parcelLetter({
        what,
        locale,
        seller: sellerOf(business),
        accent: business.accent,
        number,
        service: label?.serviceName ?? '',
        promisedOn,
        lines,
        link: invoice || order ? customerLink(subject) : '',
      }),
      files: [],
    };
  };
