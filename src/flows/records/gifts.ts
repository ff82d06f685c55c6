import { sellerOf } from '@/core/business/business';
import type { Customer } from '@/core/customer/customer';
import { type GiftLetter, giftSum } from '@/core/statement/gifts';
import { businessById } from '@/db/businesses';
import { customerById } from '@/db/customers';
import { type Donor, donorsOf, giftsOf } from '@/db/gifts';
import type { Db } from '@/db/pool';
import { giftMail } from '@/documents/mail/statement-letters';
import { giftPdf } from '@/documents/pdf/draw';
import { type Context, desk } from '@/flows/door/operation';
import { found } from '@/flows/door/rights';
import { type File, picturesOf } from '@/flows/file/kept-files';
import { localeOf, payerOf } from '@/flows/invoice/paper-setting';
import { queueMessage } from '@/flows/message/queue-message';

export type { Donor };

/** What a customer gave in each year, in each currency; minor units. */
export type GiftYear = {
  readonly year: number;
  readonly currency: string;
  readonly minor: bigint;
  readonly count: number;
};

/** The years in which a customer gave something, latest first. */
export const giftYears = desk('see').run(async (ctx, customerId: string): Promise<GiftYear[]> => {
  const gifts = await ctx.read((db) => giftsOf(db, customerId));
  const years = new Map<string, GiftYear>();
  for (const { on, currency, minor } of gifts) {
    const year = Number(on.slice(0, 4));
    const known = years.get(`${year} ${currency}`) ?? { year, currency, minor: 0n, count: 0 };
    years.set(`${year} ${currency}`, { ...known, minor: known.minor + minor, count: known.count + 1 });
  }
  return [...years.values()].sort((a, b) => b.year - a.year);
});

/** Everybody who gave something in a year. */
export const donors = desk('see').read(async (db, year: number): Promise<Donor[]> => {
  return donorsOf(db, year);
});

async function letterOver(db: Db, customer: Customer, year: number, currency: string): Promise<GiftLetter> {
  const business = await businessById(db);
  const gifts = (await giftsOf(db, customer.id)).filter(
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
  if (giftSum(letter) === 0n) found(null);
  return letter;
}

const letterPdf = async (ctx: Context, letter: GiftLetter): Promise<File> => ({
  name: `gifts-${letter.year}.pdf`,
  bytes: await giftPdf(letter, await picturesOf(ctx, letter.logoId, letter.style)),
  type: 'application/pdf',
});

/** The letter over a year's gifts, as a PDF. @throws Refusal `not-found` where nothing was given */
export const giftLetter = desk('see').run(
  async (ctx, customerId: string, year: number, currency: string): Promise<File> => {
    const letter = await ctx.read(async (db) => {
      const customer = found(await customerById(db, customerId));
      return letterOver(db, customer, year, currency);
    });
    return letterPdf(ctx, letter);
  },
);

/** The mail with which a donor gets the letter, with its PDF. @throws Refusal `not-found` where nothing is left of the gifts */
export async function writtenGiftLetter(ctx: Context, customerId: string, year: number, currency: string) {
  const letter = await ctx.read(async (db) =>
    letterOver(db, found(await customerById(db, customerId)), year, currency),
  );
  return { ...giftMail(letter), files: [await letterPdf(ctx, letter)] };
}

/**
 * Mails the letters over a year's gifts to donors; one letter for each currency somebody gave in.
 *
 * @param requestKey makes it one mail to each, however often it is asked for
 * @returns how many letters were queued; donors without an e-mail address get none
 */
export const mailGiftLetters = desk('ask').write(
  async (tx, year: number, customerIds: readonly string[], requestKey: string): Promise<number> => {
    let queued = 0;
    const asked = new Set(customerIds);
    for (const donor of await donorsOf(tx, year)) {
      if (!asked.has(donor.customerId) || !donor.email) continue;
      const fresh = await queueMessage(tx, {
        kind: 'gift-letter',
        key: `gift-letter:${donor.customerId}:${year}:${donor.currency}:${requestKey}`,
        customerId: donor.customerId,
        toName: donor.name,
        toAddress: donor.email,
        details: { from: String(year), subject: donor.currency },
      });
      if (fresh) queued++;
    }
    return queued;
  },
);
