import { isQuiet } from '@/core/business/business';
import { addDays } from '@/core/dates/calendar-date';
import { clockTime } from '@/core/dates/date-text';
import { instantInZone } from '@/core/dates/zone';
import { partReminder } from '@/core/plan/dunning';
import { payBy } from '@/core/plan/plan';
import { businessById } from '@/db/businesses';
import { cardsToAskFor, markAsked } from '@/db/cards';
import { claimNotices, claimOpenParts, markNoticed } from '@/db/charges';
import { customerById } from '@/db/customers';
import { announce } from '@/db/jobs';
import { claimLapsed, claimWaiting, markReminded, planById } from '@/db/plans';
import { insertHappening } from '@/db/timeline';
import { inBusiness } from '@/db/transaction';
import { found } from '../access';
import { queueMessage } from '../queue-message';
import { refreshCard } from './cards-on-file';
import { askToCharge } from './charge-plans';
import { todayOf } from './plan-setting';
import { endPlan } from './plan-state';

const AT_ONCE = 50;

/**
 * What the clock brings to a business's plans: charges to be made, notices before charges, reminders of links that nobody
 * followed and of parts that nobody paid, plans that lapse, cards that are about to expire. Every message has a key, so that it goes out once.
 */
export async function planMinute(businessId: string, now: Date): Promise<void> {
  await inBusiness(businessId, (tx) => askToCharge(tx, businessId));
  await lapse(businessId, now);
  const quiet = await inBusiness(businessId, async (tx) => {
    const business = await businessById(tx, businessId);
    return isQuiet(business, clockTime(now, business.zone));
  });
  if (quiet) return;
  await tellBefore(businessId, now);
  await remindWaiting(businessId, now);
  await remindOfParts(businessId, now);
  await askForCards(businessId, now);
}

/** Tells customers of charges as many days before as their plans say. */
export async function tellBefore(businessId: string, now: Date): Promise<void> {
  for (;;) {
    const told = await inBusiness(businessId, async (tx) => {
      const business = await businessById(tx, businessId);
      const due = await claimNotices(tx, businessId, todayOf(business, now), AT_ONCE);
      for (const { id, planId, customerId } of due) {
        const customer = found(await customerById(tx, businessId, customerId));
        await markNoticed(tx, businessId, id, now);
        if (!customer.email) continue;
        const to = { toName: customer.name, toAddress: customer.email };
        const about = { kind: 'charge-notice', planId, customerId, details: { chargeId: id } } as const;
        await queueMessage(tx, businessId, { ...about, ...to, key: `charge-notice:${id}` }, now);
      }
      return due.length;
    });
    if (told < AT_ONCE) return;
  }
}

async function remindWaiting(businessId: string, now: Date): Promise<void> {
  await inBusiness(businessId, async (tx) => {
    const { charging } = await businessById(tx, businessId);
    const before = new Date(now.getTime() - charging.remindDays * 86_400_000);
    for (const plan of await claimWaiting(tx, businessId, before, AT_ONCE)) {
      const customer = found(await customerById(tx, businessId, plan.customerId));
      await markReminded(tx, businessId, plan.id, now);
      if (!customer.email) continue;
      const to = { toName: customer.name, toAddress: customer.email };
      const about = { kind: 'plan-reminder', planId: plan.id, customerId: customer.id } as const;
      await queueMessage(tx, businessId, { ...about, ...to, key: `plan-reminder:${plan.id}` }, now);
      const happening = { kind: 'plan-deed', lead: 'Reminded', note: customer.email } as const;
      await insertHappening(tx, businessId, { planId: plan.id }, happening, 'Dahlia', now);
    }
  });
}

/** Reminds of parts that were asked for by invoice, as the business reminds of invoices. Each is looked at once a day. */
export async function remindOfParts(businessId: string, now: Date): Promise<void> {
  for (;;) {
    const claimed = await inBusiness(businessId, async (tx) => {
      const business = await businessById(tx, businessId);
      if (business.reminders.length === 0) return 0;
      const today = todayOf(business, now);
      const parts = await claimOpenParts(tx, businessId, instantInZone(today, '00:00', business.zone), AT_ONCE, now);
      for (const { id, planId, customerId, chargedOn } of parts) {
        const { terms } = found(await planById(tx, businessId, planId));
        const days = partReminder(business.reminders, { askedOn: chargedOn, payBy: payBy(terms, chargedOn) }, today);
        const customer = found(await customerById(tx, businessId, customerId));
        if (days === null || !customer.email) continue;
        const details = { chargeId: id, offset: days };
        const about = { kind: 'part-due', planId, customerId, details, key: `part-due:${id}:${days}` } as const;
        await queueMessage(tx, businessId, { ...about, toName: customer.name, toAddress: customer.email }, now);
      }
      return parts.length;
    });
    if (claimed < AT_ONCE) return;
  }
}

async function lapse(businessId: string, now: Date): Promise<void> {
  await inBusiness(businessId, async (tx) => {
    const business = await businessById(tx, businessId);
    const lapsed = await claimLapsed(tx, businessId, todayOf(business, now), AT_ONCE);
    for (const plan of lapsed)
      await endPlan(tx, business, plan, 'cancelled', 'Nobody followed the link in time', 'Dahlia', now);
    if (lapsed.length > 0) await announce(tx, businessId);
  });
}

/** Asks holders for a new card in good time; the processor is asked first, since schemes replace cards silently. */
export async function askForCards(businessId: string, now: Date): Promise<void> {
  const { month, due } = await inBusiness(businessId, async (tx) => {
    const business = await businessById(tx, businessId);
    const month = addDays(todayOf(business, now), business.charging.expiryDays).slice(0, 7);
    return { month, due: await cardsToAskFor(tx, businessId, month, AT_ONCE) };
  });
  for (const { id } of due) await refreshCard(businessId, id);
  if (due.length === 0) return;
  await inBusiness(businessId, async (tx) => {
    // Those that are over all the same.
    for (const card of await cardsToAskFor(tx, businessId, month, AT_ONCE)) {
      const customer = found(await customerById(tx, businessId, card.customerId));
      await markAsked(tx, businessId, card.id);
      if (!customer.email) continue;
      const to = { toName: customer.name, toAddress: customer.email };
      const details = { subject: `${card.scheme} ·${card.last4}`, to: card.expires };
      const about = { kind: 'card-asked', customerId: customer.id, details } as const;
      await queueMessage(tx, businessId, { ...about, ...to, key: `card-asked:${card.id}:${card.expires}` }, now);
    }
    await announce(tx, businessId);
  });
}
