import { sellerOf } from '@/core/business/business';
import type { Seller } from '@/core/invoice/printed';
import { businessById } from '@/db/businesses';
import { ANY_LINK } from '@/flows/door/links';
import { byLink, orNull } from '@/flows/door/operation';

/** Who can be asked about a link that opens nothing (any more), and in which language they write; null where nobody can be told. */
export const senderOf = orNull(
  byLink(ANY_LINK).read(async (db): Promise<{ seller: Seller; paperLocale: string; country: string }> => {
    const business = await businessById(db);
    return { seller: sellerOf(business), paperLocale: business.paperLocale, country: business.country };
  }),
);
