import { dateInZone } from '@/core/dates/zone';
import { type Business, businessById } from '@/db/businesses';
import { type PaymentRow, paymentRow } from '@/db/payments';
import { desk } from '@/flows/door/operation';
import { found } from '@/flows/door/rights';

export type { PaymentRow };

/** The business with its day, for screens that show dates. */
export const businessToday = desk('own').run(
  async (ctx): Promise<{ business: Business; today: ReturnType<typeof dateInZone>; now: Date }> => {
    const business = await ctx.read((db) => businessById(db));
    return { business, today: dateInZone(ctx.now, business.zone), now: ctx.now };
  },
);

/** One payment. @throws Refusal `not-found` */
export const onePayment = desk('see').run(async (ctx, id: string): Promise<PaymentRow> => {
  return found(await ctx.read((db) => paymentRow(db, id)));
});
