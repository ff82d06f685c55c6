import type { Business } from '@/core/business/business';
import { addDays, isCalendarDate } from '@/core/dates/calendar-date';
import { after, type Charge, type ChargeEvent, can } from '@/core/plan/charge';
import { chargeInstant } from '@/core/plan/days';
import type { TimelineEvent } from '@/core/timeline/timeline';
import { businessById } from '@/db/businesses';
import { chargeById, deleteUpcoming, markCarried, updateCharges } from '@/db/charges';
import { type Plan, planById } from '@/db/plans';
import { addToTimeline } from '@/db/timeline';
import { desk, type Writing } from '@/flows/door/operation';
import { Refusal } from '@/flows/door/refusal';
import { found } from '@/flows/door/rights';
import { askToCharge } from './charge-now';
import { planAhead } from './plan-ahead';

/** What a person decides about a charge, how it is told, and the plan as it is with that, where it changes too. */
type Decision = { readonly event: ChargeEvent; readonly told: TimelineEvent; readonly plan?: Plan };

/** Changes one charge that is not made yet, by hand. @throws Refusal `charge-settled` */
async function change(
  tx: Writing,
  chargeId: string,
  decide: (charge: Charge, plan: Plan, business: Business) => Decision,
): Promise<void> {
  const { planId } = found(await chargeById(tx, chargeId));
  const business = await businessById(tx);
  const plan = found(await planById(tx, planId, true));
  const charge = found(await chargeById(tx, chargeId, true));
  const { event, told, plan: changed } = decide(charge, plan, business);
  if (!can(charge, event.kind)) throw new Refusal('charge-settled');
  await updateCharges(tx, [after(charge, event)]);
  // Where the dates after it change, they are planned anew.
  if (changed) await deleteUpcoming(tx, planId);
  await addToTimeline(tx, { planId }, told, tx.name);
  await planAhead(tx, business, changed ?? plan);
}

/** Leaves one charge out: of a membership that period, of parts of a balance that date, whose part comes at the end. */
export const skipCharge = desk('take').turn((tx, chargeId: string) =>
  change(tx, chargeId, (charge, plan) => {
    if (charge.part === 'deposit' || charge.invoiceId !== plan.invoiceId) throw new Refusal('charge-settled');
    return {
      event: { kind: 'skipped', by: tx.name, at: tx.now },
      told: { kind: 'charge-skipped', on: charge.chargedOn },
      // What comes after it is planned anew: dates keep their sums, the last one comes later.
      plan: { ...plan, pauses: [...plan.pauses, { from: charge.nominal, to: charge.nominal }] },
    };
  }),
);

/** Gives a charge up for good: it is not asked for any more. The invoice, where there is one, is credited by hand. */
export const waiveCharge = desk('take').turn((tx, chargeId: string) =>
  change(tx, chargeId, (charge) => ({
    event: { kind: 'waived', by: tx.name, at: tx.now },
    told: { kind: 'charge-waived', on: charge.chargedOn },
  })),
);

/** Charges on another day; the dates after it stay. @throws Refusal `no-such-day` */
export const moveCharge = desk('take').turn((tx, chargeId: string, to: string) =>
  change(tx, chargeId, (charge, { terms }, business) => {
    if (!isCalendarDate(to)) throw new Refusal('no-such-day');
    const at = chargeInstant(business, to);
    const due = at <= tx.now;
    const noticeOn = terms.noticeDays === null ? null : addDays(to, -terms.noticeDays);
    return {
      event: { kind: 'moved', on: to, noticeOn, actAt: due ? tx.now : at },
      told: { kind: 'charge-moved', from: charge.chargedOn, to },
    };
  }).then(() => askToCharge(tx)),
);

/** Charges one charge again at once, with a chosen card or the next of the customer's. @throws Refusal `charge-settled` */
export const chargeAgain = desk('take').turn(hurry);

async function hurry(tx: Writing, chargeId: string, cardId: string | null): Promise<void> {
  const charge = found(await chargeById(tx, chargeId, true));
  if (!can(charge, 'hurried')) throw new Refusal('charge-settled');
  await updateCharges(tx, [after(charge, { kind: 'hurried', cardId, at: tx.now })]);
  const told = { kind: 'charge-hurried', on: charge.chargedOn } as const;
  await addToTimeline(tx, { planId: charge.planId }, told, tx.name);
  await askToCharge(tx);
}

/** Charges several refused ones again; those that are dealt with meanwhile are left. Returns how many. */
export const chargeManyAgain = desk('take').run(async (ctx, ids: readonly string[]): Promise<number> => {
  let charged = 0;
  for (const id of ids) {
    try {
      await ctx.turn((tx) => hurry(tx, id, null));
      charged += 1;
    } catch (error) {
      if (!(error instanceof Refusal)) throw error;
    }
  }
  return charged;
});

/** Marks charges as carried over into other books, with the day and the person. Returns how many are new. */
export const carryOver = desk('ask').turn((tx, ids: readonly string[]) => markCarried(tx, ids, tx.name));
