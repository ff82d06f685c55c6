import { sellerOf } from '@/core/business/business';
import { addDays, type CalendarDate } from '@/core/dates/calendar-date';
import { dateInZone } from '@/core/dates/zone';
import type { Seller } from '@/core/invoice/printed';
import { bankAccounts } from '@/db/bank-accounts';
import { businessById } from '@/db/businesses';
import { countAttempt } from '@/db/limits';
import { partnerById } from '@/db/partners';
import { type PayoutRow, payoutRows } from '@/db/payouts';
import { PARTNER_LINK, type PartnerOpened, type PartnerSeal } from '@/flows/door/links';
import { byLink, desk, orNull, type Writing } from '@/flows/door/operation';
import { Refusal } from '@/flows/door/refusal';
import { found } from '@/flows/door/rights';
import { sealed } from '@/flows/door/signing';
import type { File } from '@/flows/file/kept-files';
import { servedPath } from '@/flows/file/served-file';
import { queueMessage } from '@/flows/message/queue-message';
import { services } from '@/outside/services';
import type { ShownAccount } from './accounts';
import { partnerFiles, partnerMonths } from './partner-statements';

/** A link lives until after the next one has come with the monthly statement. */
const DAYS_GOOD = 40;
const DAYS_SHOWN = 92;
const MOST_PAYOUTS = 24;

/** The address of a partner's own page, good for forty days from `now`. */
export const partnerLink = (businessId: string, partnerId: string, now: Date): string =>
  `${services().publicUrl}/partner/${sealed('partner-page', {
    b: businessId,
    p: partnerId,
    until: now.getTime() + DAYS_GOOD * 86_400_000,
  } satisfies PartnerSeal)}`;

/** A partner's own page; sums in minor units. */
export type PartnerPage = {
  readonly over: boolean;
  readonly seller: Seller;
  readonly accent: string;
  readonly logo: string | null;
  readonly locale: string;
  readonly currency: string;
  readonly name: string;
  readonly from: CalendarDate;
  readonly to: CalendarDate;
  readonly months: Awaited<ReturnType<typeof partnerMonths>>;
  readonly payouts: readonly PayoutRow[];
  readonly accounts: readonly ShownAccount[];
};

/** A partner's page by its link: parts, payouts, accounts; null for a link that opens nothing. */
export const partnerPage = orNull(
  byLink(PARTNER_LINK).read(async (db, { partnerId, over }: PartnerOpened): Promise<PartnerPage> => {
    const business = await businessById(db);
    const partner = found(await partnerById(db, partnerId));
    const to = dateInZone(db.now, business.zone);
    const from = addDays(to, -DAYS_SHOWN);
    return {
      over,
      seller: sellerOf(business),
      accent: business.accent,
      logo: business.logoId && servedPath(db, business.logoId),
      locale: business.paperLocale,
      currency: business.currency,
      name: over ? '' : partner.name,
      from,
      to,
      months: over ? [] : await partnerMonths(db, partner, from, to),
      payouts: over ? [] : await payoutRows(db, MOST_PAYOUTS, null, partnerId),
      accounts: over ? [] : (await bankAccounts(db, partnerId)).map(({ credits: _, ...account }) => account),
    };
  }),
);

/** What the page shows, as a file: all movements as CSV. @throws Refusal `not-found` */
export const partnerPageCsv = byLink(PARTNER_LINK).run(
  async (ctx, { partnerId, over }: PartnerOpened): Promise<File> => {
    if (over) throw new Refusal('not-found');
    const { zone } = await ctx.read(businessById);
    const to = dateInZone(ctx.now, zone);
    const { files } = await partnerFiles(ctx, partnerId, addDays(to, -DAYS_SHOWN), to);
    return found(files.at(-1));
  },
);

async function queueLink(tx: Writing, partnerId: string, press: string, asked: string): Promise<void> {
  const partner = found(await partnerById(tx, partnerId));
  if (!partner.email) throw new Refusal('customer-without-email');
  await queueMessage(tx, {
    kind: 'partner-page',
    key: `partner-page:${press}`,
    toName: partner.name,
    toAddress: partner.email,
    details: { partnerId, ...(asked ? { text: asked } : {}) },
  });
}

/**
 * Mails a partner the link to their page. @param asked in words, what they are to do there; empty for nothing in particular
 *
 * @param press one press, one mail @throws Refusal `customer-without-email`, `not-found`
 */
export const mailPartnerLink = desk('settings').write(
  (tx, partnerId: string, press: string, asked: string): Promise<void> => queueLink(tx, partnerId, press, asked),
);

const LINKS = { name: 'partner-links', attempts: 5, seconds: 3600 };

/** A new link for whoever holds an old one; it goes to the partner's own address only. @throws Refusal `asked-too-often` */
export const askPartnerLink = byLink(PARTNER_LINK).run(async (ctx, { partnerId }: PartnerOpened): Promise<void> => {
  if ((await countAttempt(LINKS, partnerId)) > 0) throw new Refusal('asked-too-often');
  await ctx.write((tx) => queueLink(tx, partnerId, `${partnerId}:${tx.now.getTime()}`, ''));
});
