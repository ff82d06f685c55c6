import { randomUUID } from 'node:crypto';
import type { Business } from '@/core/business/business';
import type { Customer } from '@/core/customer/customer';
import { filledPaper, freshPaper } from '@/core/invoice/placeholders';
import { sendBy } from '@/core/invoice/send-with';
import { after, type Charge } from '@/core/plan/charge';
import { dateKey, termsOn } from '@/core/plan/decisions';
import { chargedPaper } from '@/core/plan/sums';
import { wordsOf } from '@/core/words/words';
import { businessById } from '@/db/businesses';
import { chargeById, updateCharges } from '@/db/charges';
import { customerById } from '@/db/customers';
import { newToken } from '@/db/link-tokens';
import { personById } from '@/db/people';
import { type Plan, planById } from '@/db/plans';
import type { Context } from '@/flows/door/operation';
import { Refusal } from '@/flows/door/refusal';
import { found } from '@/flows/door/rights';
import { issueInvoices, type ToIssue } from '@/flows/invoice/issue-invoices';
import { localeOf } from '@/flows/invoice/paper-setting';

/** The invoice of its own that a charge is paid into. @param byName in whose name it is sent: of who made the plan */
export function invoiceOfCharge(
  business: Business,
  { plan, customer, charge }: { readonly plan: Plan; readonly customer: Customer; readonly charge: Charge },
  byName: string,
): ToIssue {
  const has = (kind: string) => charge.reasons.some((reason) => reason.kind === kind);
  const locale = localeOf(business, customer);
  const setUpWords = wordsOf(locale).plan.setUpLine;
  const terms = termsOn(plan.terms, plan.decisions[dateKey(charge)]);
  const paper = chargedPaper(terms, { setUp: has('set-up'), free: has('free'), setUpWords });
  const filled = freshPaper(filledPaper(paper, charge.nominal, locale), randomUUID);
  const byInvoice = plan.terms.pay === 'invoice';
  return {
    id: randomUUID(),
    customer,
    how: sendBy(byInvoice && customer.email ? 'mail' : 'plan'),
    byName,
    paper: {
      ...filled,
      customerId: customer.id,
      title: filled.title || plan.terms.name,
      reference: plan.reference || filled.reference,
      ...(byInvoice ? {} : { due: { kind: 'receipt' as const }, reminders: [] }),
      // Whoever pays a refused charge by its link may pay what is asked there.
      ways: { ...filled.ways, card: true, parts: true, first: '' },
    },
    fresh: { linkToken: newToken(business.id), origin: 'plan', made: { by: 'plan', byName: plan.terms.name } },
  };
}

/** Makes the invoice of a charge that is not made yet, so that it can be paid another way. Returns the invoice's id. */
export async function billCharge(ctx: Context, chargeId: string): Promise<string> {
  return ctx.turn(async (tx) => {
    const charge = found(await chargeById(tx, chargeId, true));
    if (charge.invoiceId) return charge.invoiceId;
    const business = await businessById(tx);
    const plan = found(await planById(tx, charge.planId, true));
    const customer = found(await customerById(tx, plan.customerId));
    const byName = (await personById(tx, plan.byId ?? ''))?.name ?? 'Dahlia';
    const [issued] = await issueInvoices(tx, business, [invoiceOfCharge(business, { plan, customer, charge }, byName)]);
    if (!issued || issued instanceof Refusal)
      throw new Refusal('plan-not-ready', [{ field: 'lines', words: issued?.fields[0]?.words ?? '' }]);
    const amountMinor = issued.totalMinor;
    await updateCharges(tx, [after(charge, { kind: 'invoiced', invoiceId: issued.id, amountMinor })]);
    return issued.id;
  });
}
