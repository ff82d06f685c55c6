import { type Business, sellerOf } from '@/core/business/business';
import type { Customer } from '@/core/customer/customer';
import type { CalendarDate } from '@/core/dates/calendar-date';
import { longDate } from '@/core/dates/date-text';
import { dateInZone } from '@/core/dates/zone';
import type { AuthorisationPaper } from '@/core/plan/authorisation-paper';
import { firstCharges } from '@/core/plan/plan';
import { wordsOf } from '@/core/words/words';
import { authorisationById } from '@/db/authorisations';
import { businessById } from '@/db/businesses';
import { customerById } from '@/db/customers';
import { fileById } from '@/db/files';
import type { Actor } from '@/db/people';
import { type Plan, planById } from '@/db/plans';
import type { Db } from '@/db/pool';
import { readBusiness } from '@/db/transaction';
import { authorisationPdf } from '@/documents/pdf/draw';
import { services } from '@/outside/services';
import { found, requireRight } from '../access';
import { type File, picturesOf } from '../files';
import { localeOf, payerOf } from '../paper-setting';
import { authorisationText } from './authorise';
import { planContext, planStanding, todayOf } from './plan-setting';

const SHOWN = 24;

async function paperOf(
  db: Db,
  business: Business,
  customer: Customer,
  plan: Plan | null,
  text: string,
  now: Date,
): Promise<AuthorisationPaper> {
  const standing = plan ? await planStanding(db, business, plan) : null;
  const charges: { on: CalendarDate; minor: number }[] = [];
  if (plan && standing && standing.problems.length === 0) {
    const context = planContext(business, { ...plan, pauses: [] }, todayOf(business, now));
    for (const charge of firstCharges(plan.terms, standing.sums, context, SHOWN).charges)
      charges.push({ on: charge.chargedOn, minor: Number(charge.amountMinor) });
  }
  return {
    locale: localeOf(business, customer),
    currency: standing?.currency ?? business.currency,
    seller: sellerOf(business),
    accent: business.accent,
    payer: payerOf(customer, business),
    text,
    charges,
    given: [],
    withdrawn: '',
  };
}

/** The paper that a customer signs before a plan begins, or for single purchases. @throws Refusal `not-found` */
export async function paperToSign(
  actor: Actor,
  of: { readonly plan?: string | undefined; readonly customer?: string | undefined },
): Promise<File> {
  requireRight(actor, 'read');
  const now = await services().clock.now();
  const { paper, logoId } = await readBusiness(actor.businessId, async (db) => {
    const business = await businessById(db, actor.businessId);
    const plan = of.plan ? found(await planById(db, actor.businessId, of.plan)) : null;
    const customer = found(await customerById(db, actor.businessId, plan?.customerId ?? of.customer ?? ''));
    const { text } = await authorisationText(db, business, customer, plan?.terms.name ?? 'purchases that I order');
    return { paper: await paperOf(db, business, customer, plan, text, now), logoId: business.logoId };
  });
  const bytes = await authorisationPdf(paper, await picturesOf(actor.businessId, logoId));
  return { name: 'authorisation.pdf', bytes, type: 'application/pdf' };
}

/** An authorisation as it was given, with the signature, for filing. @throws Refusal `not-found` */
export async function authorisationFile(actor: Actor, id: string): Promise<File> {
  requireRight(actor, 'read');
  const now = await services().clock.now();
  const { businessId } = actor;
  const { paper, logoId, signature } = await readBusiness(businessId, async (db) => {
    const business = await businessById(db, businessId);
    const given = found(await authorisationById(db, businessId, id));
    const customer = found(await customerById(db, businessId, given.customerId));
    const plan = given.planId ? await planById(db, businessId, given.planId) : null;
    const file = given.fileId ? await fileById(db, businessId, given.fileId) : null;
    const { plan: words } = wordsOf(localeOf(business, customer));
    const day = (at: Date) => longDate(dateInZone(at, business.zone), localeOf(business, customer));
    const base = await paperOf(db, business, customer, plan, given.text, now);
    return {
      paper: {
        ...base,
        given: [
          words.givenOn(day(given.givenAt), given.givenBy, words.how[given.how]),
          [given.takenBy, given.givenFrom, `v${given.textVersion}`].filter(Boolean).join(' · '),
        ],
        withdrawn: given.withdrawnAt ? words.withdrawnOn(day(given.withdrawnAt)) : '',
      },
      logoId: business.logoId,
      signature: file?.type.startsWith('image/') ? { fileId: file.id, heightMm: 22, at: 'left' as const } : null,
    };
  });
  const bytes = await authorisationPdf(paper, await picturesOf(businessId, logoId, { signature }));
  return { name: 'authorisation.pdf', bytes, type: 'application/pdf' };
}
