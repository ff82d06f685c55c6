/** What plans come to as the clock goes on: for the tests of what is charged, by hand and by link. */
import type { CalendarDate } from '@/core/dates/calendar-date';
import { instantInZone } from '@/core/dates/zone';
import { type ChargingPolicy, USUAL_POLICY } from '@/core/plan/dunning';
import { businessById, updateBusiness } from '@/db/businesses';
import { chargesOfPlan } from '@/db/charges';
import { ledgerTroubles } from '@/db/ledger';
import { planById } from '@/db/plans';
import { inBusiness, readBusiness } from '@/db/transaction';
import { chargeDue } from '@/flows/charging/charge-due';
import { programContext } from '@/flows/door/program';
import { asSuperuser } from './database';
import { setClock } from './plans';
import type { House, Workshop } from './workshop';

// Of every house that the tests found.
const ZONE = 'America/Los_Angeles';

/** An instant of a day in the house's zone; five past nine, when charges are due, unless said otherwise. */
export const planInstant = (on: string, hour = '09:05'): Date => instantInZone(on as CalendarDate, hour, ZONE);

/** A house whose plans are watched. */
export function watchedPlans(workshop: Workshop, house: House) {
  const read = programContext(house.business.id);
  const clock = (on: string, hour?: string) => setClock(workshop.standIns, planInstant(on, hour));
  const due = () => chargeDue(house.business.id);
  const charges = (planId: string) => readBusiness(read, (db) => chargesOfPlan(db, planId));
  return {
    clock,
    due,
    charges,
    plan: async (id: string) => {
      const one = await readBusiness(read, (db) => planById(db, id));
      if (!one) throw new Error('The plan is gone');
      return one;
    },
    /** State, day and sum of each charge, such as `charged 2026-01-31 2200`. */
    told: async (id: string, most = 5) =>
      (await charges(id)).slice(0, most).map((one) => `${one.state} ${one.chargedOn} ${one.amountMinor}`),
    policy: (change: Partial<ChargingPolicy>) =>
      inBusiness(programContext(house.business.id), async (tx) => {
        const business = await businessById(tx);
        await updateBusiness(tx, { ...business, charging: { ...USUAL_POLICY, missed: 'all', ...change } });
      }),
    playUntil: async (from: string, to: string) => {
      for (let day = Date.parse(`${from}T12:00:00Z`); day <= Date.parse(`${to}T12:00:00Z`); day += 86_400_000) {
        await clock(new Date(day).toISOString().slice(0, 10));
        await due();
      }
    },
    /** Which messages went out about a plan. */
    kinds: (planId: string) =>
      asSuperuser<{ kind: string }>(
        workshop.admin,
        'select kind from messages where plan_id = $1 order by created_at, kind',
        [planId],
      ).then((rows) => rows.map(({ kind }) => kind)),
    /** What is wrong with the books. */
    troubles: () => readBusiness(read, (db) => ledgerTroubles(db)),
  };
}
