import { type Business, sellerOf } from '@/core/business/business';
import type { Customer } from '@/core/customer/customer';
import type { CalendarDate } from '@/core/dates/calendar-date';
import { longDate } from '@/core/dates/date-text';
import { dateInZone } from '@/core/dates/zone';
import { asFront } from '@/core/front/front';
import { jsonMinor } from '@/core/money/money';
import type { AuthorisationPaper } from '@/core/plan/authorisation-paper';
import { todayOf } from '@/core/plan/days';
import { firstCharges } from '@/core/plan/plan';
import { heldText } from '@/core/plan/shown-card';
import { wordsOf } from '@/core/words/words';
import { authorisationById } from '@/db/authorisations';
import { businessById } from '@/db/businesses';
import { cardById } from '@/db/cards';
import { customerById } from '@/db/customers';
import { fileById } from '@/db/files';
import { type Plan, planById } from '@/db/plans';
import type { Db } from '@/db/pool';
import { authorisationPdf } from '@/documents/pdf/draw';
import { type Context, desk } from '@/flows/door/operation';
import { found } from '@/flows/door/rights';
import { type File, picturesOf } from '@/flows/file/kept-files';
import { localeOf, payerOf } from '@/flows/invoice/paper-setting';
import { agreementOf } from './agreement';
import { planContext, readPlan } from './plan-setting';

const SHOWN = 24;

async function paperOf(
  db: Db,
  business: Business,
  customer: Customer,
  plan: Plan | null,
  text: string,
): Promise<AuthorisationPaper & { readonly logoId: string | null }> {
  const front = asFront(business, plan?.terms.paper ?? {});
  const reading = plan ? await readPlan(db, business, plan) : null;
  const charges: { on: CalendarDate; minor: number }[] = [];
  if (plan && reading && reading.problems.length === 0) {
    const context = planContext(business, { ...plan, pauses: [] }, todayOf(business, db.now));
    for (const charge of firstCharges(plan.terms, reading.sums, context, SHOWN).charges)
      charges.push({ on: charge.chargedOn, minor: jsonMinor(charge.amountMinor) });
  }
  return {
    locale: localeOf(business, customer),
    currency: reading?.currency ?? business.currency,
    seller: sellerOf(front),
    accent: front.accent,
    logoId: front.logoId,
    payer: payerOf(customer, business),
    text,
    charges,
    given: [],
    withdrawn: '',
  };
}

/** The paper that a customer signs before a plan begins, or for single purchases. @throws Refusal `not-found` */
export const paperToSign = desk('see').run(
  async (ctx, of: { readonly plan?: string | undefined; readonly customer?: string | undefined }): Promise<File> => {
    const { logoId, ...paper } = await ctx.read(async (db) => {
      const business = await businessById(db);
      const plan = of.plan ? found(await planById(db, of.plan)) : null;
      const customer = found(await customerById(db, plan?.customerId ?? of.customer ?? ''));
      const { text } = await agreementOf(db, business, customer, plan ? [plan] : []);
      return paperOf(db, business, customer, plan, text);
    });
    const bytes = await authorisationPdf(paper, await picturesOf(ctx, logoId));
    return { name: 'authorisation.pdf', bytes, type: 'application/pdf' };
  },
);

/** An authorisation as it was given, with the signature, for filing. @throws Refusal `not-found` */
export const authorisationFile = desk('see').run(async (ctx, id: string): Promise<File> => authorisationPaper(ctx, id));

/** The same, for another operation. */
export async function authorisationPaper(ctx: Context, id: string): Promise<File> {
  const { paper, logoId, signature } = await ctx.read(async (db) => {
    const business = await businessById(db);
    const given = found(await authorisationById(db, id));
    const customer = found(await customerById(db, given.customerId));
    const plan = given.planId ? await planById(db, given.planId) : null;
    const card = given.cardId ? await cardById(db, given.cardId) : null;
    const file = given.fileId ? await fileById(db, given.fileId) : null;
    const { plan: words } = wordsOf(localeOf(business, customer));
    const day = (at: Date) => longDate(dateInZone(at, business.zone), localeOf(business, customer));
    const { logoId, ...base } = await paperOf(db, business, customer, plan, given.text);
    return {
      paper: {
        ...base,
        given: [
          words.givenOn(day(given.givenAt), given.givenBy, words.how[given.how]),
          ...(card ? [`${words.yourCard}: ${heldText(card, localeOf(business, customer), words)}`] : []),
          [given.takenBy, given.givenFrom, `v${given.textVersion}`].filter(Boolean).join(' · '),
        ],
        withdrawn: given.withdrawnAt ? words.withdrawnOn(day(given.withdrawnAt)) : '',
      },
      logoId,
      signature: file?.type.startsWith('image/') ? { fileId: file.id, heightMm: 22, at: 'left' as const } : null,
    };
  });
  const bytes = await authorisationPdf(paper, await picturesOf(ctx, logoId, { signature }));
  return { name: 'authorisation.pdf', bytes, type: 'application/pdf' };
}
