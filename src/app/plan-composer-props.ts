import { houseOf } from '@/core/front/front';
import type { Actor } from '@/flows/door/rights';
import { cardFieldsUrl } from '@/flows/invoice/payer-page';
import { businessToday } from '@/flows/payment/payment-list';
import { planSetting } from '@/flows/plan/plan-list';
import type { Plan } from '@/flows/plan/plans';
import type { PlanComposerProps } from '@/ui/plan/plan-composer';
import { typedOf } from '@/ui/plan/plan-typed';

/** All that the composer of plans shows. @param plan the draft, or null for a new one for `customerId` (empty: nobody yet) */
export async function planComposerOf(
  actor: Actor,
  plan: Plan | null,
  customerId: string,
): Promise<Omit<PlanComposerProps, 'lineId'>> {
  const { business, today } = await businessToday(actor);
  const { customer, taxes } = await planSetting(actor, plan?.customerId ?? customerId);
  return {
    kept: plan && {
      id: plan.id,
      revision: plan.revision,
      typed: typedOf(plan.terms, plan.memo, plan.reference),
    },
    customer,
    taxes,
    currency: business.currency,
    pricesIncludeTax: business.pricesIncludeTax,
    house: houseOf(business),
    locale: business.deskLocale,
    today,
    holidays: business.charging.holidays.map(({ on }) => on),
    fieldsUrl: cardFieldsUrl({ take: 'both' }),
  };
}
