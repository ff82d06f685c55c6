import { businessOfLink } from '@/db/businesses';
import { linkHolder } from '@/db/invoices';
import { offerHolder } from '@/db/offers';
import { orderHolder } from '@/db/orders';
import { planHolder } from '@/db/plans';
import { outsideBusiness } from '@/db/transaction';
import { isSigned, unsealed } from './signing';

/** A kind of link: what a token of it opens, and of which business; null for one that opens nothing. */
export type Link<Opened> = {
  readonly kind: string;
  readonly open: (token: string, now: Date) => Promise<{ businessId: string; opened: Opened } | null>;
};

/** The link of an invoice; it opens the invoice's id. */
export const INVOICE_LINK: Link<string> = {
  kind: 'invoice',
  open: async (token) => {
    const holder = await outsideBusiness((db) => linkHolder(db, token));
    return holder && { businessId: holder.businessId, opened: holder.invoiceId };
  },
};

/** The public id or short address of an offer; it opens the offer's id. */
export const OFFER_NAME: Link<string> = {
  kind: 'offer',
  open: async (called) => {
    const holder = await outsideBusiness((db) => offerHolder(db, called));
    return holder && { businessId: holder.businessId, opened: holder.offerId };
  },
};

/** What stands in an address of whatever kind, also where it opens nothing any more: it tells whose it is. */
export const ANY_LINK: Link<null> = {
  kind: 'any',
  open: async (token) => {
    const businessId = await outsideBusiness(
      async (db) => (await businessOfLink(db, token)) ?? (await offerHolder(db, token))?.businessId,
    );
    return businessId ? { businessId, opened: null } : null;
  },
};

/** The page of an order; it opens the order's id. */
export const ORDER_LINK: Link<string> = {
  kind: 'order',
  open: async (token) => {
    const holder = await outsideBusiness((db) => orderHolder(db, token));
    return holder && { businessId: holder.businessId, opened: holder.orderId };
  },
};

/** The page on which a plan is accepted; it opens the plan's id. */
export const PLAN_LINK: Link<string> = {
  kind: 'plan',
  open: async (token) => {
    const holder = await outsideBusiness((db) => planHolder(db, token));
    return holder && { businessId: holder.businessId, opened: holder.planId };
  },
};

/** What a signed link to a customer's own page says: business, customer, and until when it is good (milliseconds). */
export type OwnPageSeal = { readonly b: string; readonly c: string; readonly until: number };

/** What the link to a customer's own page opens; `over` where its time has passed. */
export type OwnPageOpened = { readonly customerId: string; readonly over: boolean };

/** A customer's own page, by a signed link. */
export const OWN_PAGE_LINK: Link<OwnPageOpened> = {
  kind: 'own page',
  open: async (token, now) => {
    const opens = unsealed<OwnPageSeal>('own-page', token);
    return opens && { businessId: opens.b, opened: { customerId: opens.c, over: opens.until < now.getTime() } };
  },
};

/** What a signed link to a partner's own page says: business, partner, and until when it is good (milliseconds). */
export type PartnerSeal = { readonly b: string; readonly p: string; readonly until: number };

/** What the link to a partner's own page opens; `over` where its time has passed. */
export type PartnerOpened = { readonly partnerId: string; readonly over: boolean };

/** A partner's own page, by a signed link. */
export const PARTNER_LINK: Link<PartnerOpened> = {
  kind: 'partner page',
  open: async (token, now) => {
    const opens = unsealed<PartnerSeal>('partner-page', token);
    return opens && { businessId: opens.b, opened: { partnerId: opens.p, over: opens.until < now.getTime() } };
  },
};

/** What a signed link to a voucher's page says: business and voucher. */
export type VoucherSeal = { readonly b: string; readonly v: string };

/** A gift voucher's own page, by a signed link; it opens the voucher's id. */
export const VOUCHER_LINK: Link<string> = {
  kind: 'voucher',
  open: async (token) => {
    const opens = unsealed<VoucherSeal>('voucher', token);
    return opens && { businessId: opens.b, opened: opens.v };
  },
};

/** What a signed address of a business's calendar says: business and version. */
export type CalendarSeal = { readonly b: string; readonly v: number };

/** A business's private calendar, by a signed address; it opens the version that the address is of. */
export const CALENDAR_LINK: Link<number> = {
  kind: 'calendar',
  open: async (secret) => {
    const opens = unsealed<CalendarSeal>('calendar', secret);
    return opens && { businessId: opens.b, opened: opens.v };
  },
};

/** What is kept of customers: by whatever link of the business they have. */
export const KEPT_LINK: Link<null> = {
  kind: 'what is kept',
  open: async (token, now) => {
    const signed = unsealed<{ b: string }>('own-page', token) ?? unsealed<{ b: string }>('voucher', token);
    return signed ? { businessId: signed.b, opened: null } : ANY_LINK.open(token, now);
  },
};

/** A file by a signed address that lapses: `BUSINESS.FILE.UNTIL.SIGNATURE`, `UNTIL` in seconds; it opens the file's id. */
export const SERVED_LINK: Link<string> = {
  kind: 'served file',
  open: async (address, now) => {
    const parts = address.split('.');
    const [businessId = '', fileId = '', until = '', given = ''] = parts;
    const genuine = parts.length === 4 && isSigned('served', `${businessId}.${fileId}.${until}`, given);
    return genuine && Number(until) * 1000 >= now.getTime() ? { businessId, opened: fileId } : null;
  },
};
