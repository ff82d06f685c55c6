import type { Business } from '@/core/business/business';
import { addDays, isCalendarDate } from '@/core/dates/calendar-date';
import { jsonMinor } from '@/core/money/money';
import { after, type Charge, type ChargeEvent, can } from '@/core/plan/charge';
import { chargeInstant } from '@/core/plan/days';
import { dateKey, decided, termsOn } from '@/core/plan/decisions';
import type { TimelineEvent } from '@/core/timeline/timeline';
import { businessById } from '@/db/businesses';
import { cardsOf } from '@/db/cards';
import { chargeById, chargesOfPlan, deleteUpcoming, markCarried, updateCharges } from '@/db/charges';
import { type Plan, planById } from '@/db/plans';
import { addToTimeline } from '@/db/timeline';
import { desk, type Writing } from '@/flows/door/operation';
import { Refusal } from '@/flows/door/refusal';
import { found } from '@/flows/door/rights';
import { askToCharge } from './charge-now';
import { creditCharges } from './credit-charges';
import { planAhead } from './plan-ahead';
import { readPlan } from './plan-setting';

/**
 * What a person decides about a charge, how it is told, and the plan as it is with that, where it changes too; `replan` where the dates
 * after it change with it.
 */
type Decided = {
  readonly event: ChargeEvent;
  readonly told: TimelineEvent;
  readonly plan?: Plan;
  readonly replan?: boolean;
};

/** Changes one charge that is not made yet, by hand. @throws Refusal `charge-settled` */
async function change(
  tx: Writing,
  chargeId: string,
  decide: (charge: Charge, plan: Plan, business: Business) => Decided | Promise<Decided>,
): Promise<void> {
  const { planId } = found(await chargeById(tx, chargeId));
  const business = await businessById(tx);
  const plan = found(await planById(tx, planId, true));
  const charge = found(await chargeById(tx, chargeId, true));
  const { event, told, plan: changed, replan } = await decide(charge, plan, business);
  if (!can(charge, event.kind)) throw new Refusal('charge-settled');
  await updateCharges(tx, [after(charge, event)]);
  if (replan) await deleteUpcoming(tx, planId);
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
      replan: true,
    };
  }),
);

/**
 * Gives a charge up for good: it is not asked for any more, and leaves what is owed by a credit note over its invoice, where there is one.
 *
 * @throws Refusal `charge-settled`, `payment-under-way`
 */
export const waiveCharge = desk('take').turn((tx, chargeId: string) =>
  change(tx, chargeId, async (charge) => {
    await creditCharges(tx, [charge], 'Waived');
    return {
      event: { kind: 'waived', by: tx.name, at: tx.now },
      told: { kind: 'charge-waived', on: charge.chargedOn },
    };
  }),
);

/**
 * Charges on another day; the dates after it stay, and so does this one whatever else of the plan changes.
 *
 * @param sure that it is charged at once where the day is not to come any more
 * @throws Refusal `no-such-day`, `charges-now`
 */
export const moveCharge = desk('take').turn((tx, chargeId: string, to: string, sure: boolean = false) =>
  change(tx, chargeId, (charge, plan, business) => {
    if (!isCalendarDate(to)) throw new Refusal('no-such-day');
    const at = chargeInstant(business, to);
    const due = at <= tx.now;
    if (due && !sure) throw new Refusal('charges-now');
    const { noticeDays } = plan.terms;
    const noticeOn = noticeDays === null ? null : addDays(to, -noticeDays);
    return {
      event: { kind: 'moved', on: to, noticeOn, actAt: due ? tx.now : at },
      told: { kind: 'charge-moved', from: charge.chargedOn, to },
      plan: { ...plan, decisions: decided(plan.decisions, charge, { on: to }) },
    };
  }).then(() => askToCharge(tx)),
);

/**
 * Charges another sum on one date: the price of the first line, this once. Nothing else of the plan changes, nor this date with it.
 *
 * @throws Refusal `plan-not-ready` for what is no price, `plan-of-another-kind`, `charge-settled`
 */
export const priceOnce = desk('take').turn((tx, chargeId: string, price: string) =>
  change(tx, chargeId, async (charge, plan, business) => {
    if (plan.terms.kind !== 'membership' || charge.part !== 'period') throw new Refusal('plan-of-another-kind');
    if (charge.state !== 'upcoming') throw new Refusal('charge-settled');
    const changed = { ...plan, decisions: decided(plan.decisions, charge, { price }) };
    const { problems } = await readPlan(tx, business, { ...changed, terms: termsOn(plan.terms, { price }) });
    if (problems.length > 0) throw new Refusal('plan-not-ready', problems);
    const { sums } = await readPlan(tx, business, changed);
    const before = (await readPlan(tx, business, plan)).sums;
    const whole = before.onceMinor?.[dateKey(charge)] ?? before.eachMinor;
    const amountMinor = charge.amountMinor - whole + (sums.onceMinor?.[dateKey(charge)] ?? sums.eachMinor);
    return {
      event: { kind: 'repriced', amountMinor },
      told: { kind: 'charge-repriced', on: charge.chargedOn, amount: jsonMinor(amountMinor) },
      plan: changed,
    };
  }),
);

/** Charges one charge again at once, with a chosen card or the next of the customer's. @throws Refusal `charge-settled`, `not-found` */
export const chargeAgain = desk('take').turn(hurry);

async function hurry(tx: Writing, chargeId: string, cardId: string | null): Promise<void> {
  const charge = found(await chargeById(tx, chargeId, true));
  if (!can(charge, 'hurried')) throw new Refusal('charge-settled');
  // Nobody's but their own card.
  if (cardId) found((await cardsOf(tx, charge.customerId)).find(({ id }) => id === cardId));
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

/**
 * Decides about a plan's charges that were missed: all are charged now, or the last one, or none; those that are not charged are left out.
 *
 * @throws Refusal `charge-settled` where somebody has decided already
 */
export const settleMissed = desk('take').turn(
  async (tx, planId: string, which: 'all' | 'last' | 'none'): Promise<void> => {
    const business = await businessById(tx);
    const plan = found(await planById(tx, planId, true));
    const missed = (await chargesOfPlan(tx, planId))
      .filter(({ state, note, actAt }) => state === 'upcoming' && note?.code === 'missed' && actAt === null)
      .sort((a, b) => (a.chargedOn < b.chargedOn ? -1 : 1));
    if (missed.length === 0) throw new Refusal('charge-settled');
    const charged = which === 'all' ? missed : which === 'last' ? missed.slice(-1) : [];
    await updateCharges(
      tx,
      missed.map((charge) =>
        charged.includes(charge)
          ? after(charge, { kind: 'hurried', cardId: null, at: tx.now })
          : after(charge, { kind: 'missed-out', at: tx.now }),
      ),
    );
    for (const charge of missed) {
      const kind = charged.includes(charge) ? 'charge-hurried' : 'charge-skipped';
      await addToTimeline(tx, { planId }, { kind, on: charge.chargedOn }, tx.name);
    }
    await planAhead(tx, business, plan);
    await askToCharge(tx);
  },
);

/** Marks charges as carried over into other books, with the day and the person. Returns how many are new. */
export const carryOver = desk('ask').turn((tx, ids: readonly string[]) => markCarried(tx, ids, tx.name));
