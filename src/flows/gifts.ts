import { sellerOf } from '@/core/business/business';
import type { Customer } from '@/core/customer/customer';
import { type GiftLetter, giftSum } from '@/core/statement/gifts';
import { type Business, businessById } from '@/db/businesses';
import { customerById } from '@/db/customers';
import { type Donor, donorsOf, giftsOf } from '@/db/gifts';
import { announce } from '@/db/jobs';
import type { Actor } from '@/db/people';
import type { Db } from '@/db/pool';
import { inBusiness, readBusiness } from '@/db/transaction';
import { giftMail } from '@/documents/mail/letters';
import { giftPdf } from '@/documents/pdf/draw';
import { services } from '@/outside/services';
import { found, requireRight } from './access';
import { type File, picturesOf } from './files';
import { localeOf, payerOf } from './paper-setting';
import { queueMessage } from './queue-message';

export type { Donor };

/** What a customer gave in each year, in each currency; minor units. */
export type GiftYear = {
  readonly year: number;
  readonly currency: string;
  readonly minor: number;
  readonly count: number;
};

/** The years in which a customer gave something, latest first. */
export async function giftYears(actor: Actor, customerId: string): Promise<GiftYear[]> {
  requireRight(actor, 'read');
  const gifts = await readBusiness(actor.businessId, (db) => giftsOf(db, actor.businessId, customerId));
  const years = new Map<string, GiftYear>();
  for (const { on, currency, minor } of gifts) {
    const year = Number(on.slice(0, 4));
    const known = years.get(`${year} ${currency}`) ?? { year, currency, minor: 0, count: 0 };
    years.set(`${year} ${currency}`, { ...known, minor: known.minor + minor, count: known.count + 1 });
  }
  return [...years.values()].sort((a, b) => b.year - a.year);
}

/** Everybody who gave something in a year. */
export function donors(actor: Actor, year: number): Promise<Donor[]> {
  requireRight(actor, 'read');
  return readBusiness(actor.businessId, (db) => donorsOf(db, actor.businessId, year));
}

async function letterOver(
  db: Db,
  business: Business,
  customer: Customer,
  year: number,
  currency: string,
): Promise<GiftLetter> {
  const gifts = (await giftsOf(db, business.id, customer.id)).filter(
    (gift) => gift.currency === currency && Number(gift.on.slice(0, 4)) === year,
  );
  const letter = {
    year,
    currency,
    locale: localeOf(business, customer),
    seller: sellerOf(business),
    payer: payerOf(customer, business),
    gifts,
    style: business.receiptStyle,
    accent: business.accent,
    logoId: business.logoId,
  };
  if (giftSum(letter) === 0) found(null);
  return letter;
}

const letterPdf = async (businessId: string, letter: GiftLetter): Promise<File> => ({
  name: `gifts-${letter.year}.pdf`,
  bytes: await giftPdf(letter, await picturesOf(businessId, letter.logoId, letter.style)),
  type: 'application/pdf',
});

/** The letter over a year's gifts, as a PDF. @throws Refusal `not-found` where nothing was given */
export async function giftLetter(actor: Actor, customerId: string, year: number, currency: string): Promise<File> {
  requireRight(actor, 'read');
  const { businessId } = actor;
  const letter = await readBusiness(businessId, async (db) => {
    const customer = found(await customerById(db, businessId, customerId));
    return letterOver(db, await businessById(db, businessId), customer, year, currency);
  });
  return letterPdf(businessId, letter);
}

/** The mail with which a donor gets the letter, with its PDF. @throws Refusal `not-found` where nothing is left of the gifts */
export async function writtenGiftLetter(business: Business, customerId: string, year: number, currency: string) {
  const letter = await readBusiness(business.id, async (db) =>
    letterOver(db, business, found(await customerById(db, business.id, customerId)), year, currency),
  );
  return { ...giftMail(letter), files: [await letterPdf(business.id, letter)] };
}

/**
 * Mails the letters over a year's gifts to donors; one letter for each currency somebody gave in.
 *
 * @param requestKey makes it one mail to each, however often it is asked for
 * @returns how many letters were queued; donors without an e-mail address get none
 */
export async function mailGiftLetters(
  actor: Actor,
  year: number,
  customerIds: readonly string[],
  requestKey: string,
): Promise<number> {
  requireRight(actor, 'ask');
  const { businessId } = actor;
  const now = await services().clock.now();
  return inBusiness(businessId, async (tx) => {
    let queued = 0;
    for (const donor of await donorsOf(tx, businessId, year)) {
      if (!customerIds.includes(donor.customerId) || !donor.email) continue;
      const fresh = await queueMessage(
        tx,
        businessId,
        {
          kind: 'gift-letter',
          key: `gift-letter:${donor.customerId}:${year}:${donor.currency}:${requestKey}`,
          customerId: donor.customerId,
          toName: donor.name,
          toAddress: donor.email,
          details: { from: String(year), subject: donor.currency },
        },
        now,
      );
      if (fresh) queued++;
    }
    await announce(tx, businessId);
    return queued;
  });
}
