import type { CalendarDate } from '@/core/dates/calendar-date';
import { jsonMinor } from '@/core/money/money';
import { CHARGE_STATE_WORDS, PLAN_STATE_WORDS } from '@/core/plan/state';
import type { Actor } from '@/flows/door/rights';
import { cancelPlan, pausePlan, resumePlan } from '@/flows/plan/change-plan';
import { planPage, planSheet } from '@/flows/plan/plan-list';
import { sendPlan } from '@/flows/plan/plans';
import { upcomingCharges } from '@/flows/plan/upcoming';
import { writePlanAtOnce } from '@/flows/plan/write-plan';
import {
  ChargesAsked,
  EndingWritten,
  NothingWritten,
  PageOf,
  PauseWritten,
  PlanSendingWritten,
  PlanWritten,
} from '@/input/program-input';
import { act, BY_DAY, BY_MOMENT, create, cursorOf, cursorText, type Endpoint, get } from '../endpoint';
import { DAY, ID, list, MINOR, object, oneOfWords, orNull, page, TEXT, WHOLE } from '../schema';

const STATES = oneOfWords(Object.keys(PLAN_STATE_WORDS));
const CHARGE = object({
  id: ID,
  planId: ID,
  customerId: ID,
  on: DAY,
  state: oneOfWords(Object.keys(CHARGE_STATE_WORDS)),
  amountMinor: MINOR,
  currency: TEXT,
  invoiceId: orNull(ID),
  paymentId: orNull(ID),
});

const PLAN = object({
  id: ID,
  number: TEXT,
  name: TEXT,
  state: STATES,
  kind: TEXT,
  pay: oneOfWords(['card', 'invoice']),
  customerId: ID,
  currency: TEXT,
  reference: TEXT,
  startsOn: orNull(DAY),
  nextOn: orNull(DAY),
  chargedMinor: MINOR,
  chargedCount: WHOLE,
  refusedCount: WHOLE,
});
const WITH_CHARGES = object({
  ...(PLAN.properties as Record<string, typeof TEXT>),
  link: TEXT,
  charges: list(CHARGE),
});

type Plan = Awaited<ReturnType<typeof planSheet>>['plan'];
type Charge = Awaited<ReturnType<typeof planSheet>>['charges'][number];

const shownPlan = (plan: Plan): object => ({
  id: plan.id,
  number: plan.number,
  name: plan.terms.name,
  state: plan.state,
  kind: plan.terms.kind,
  pay: plan.terms.pay,
  customerId: plan.customerId,
  currency: plan.currency,
  reference: plan.reference,
  startsOn: plan.startsOn,
  nextOn: plan.nextOn,
  chargedMinor: jsonMinor(plan.chargedMinor),
  chargedCount: plan.chargedCount,
  refusedCount: plan.refusedCount,
});

const shownCharge = (charge: Charge): object => ({
  id: charge.id,
  planId: charge.planId,
  customerId: charge.customerId,
  on: charge.chargedOn,
  state: charge.state,
  amountMinor: jsonMinor(charge.amountMinor),
  currency: charge.currency,
  invoiceId: charge.invoiceId,
  paymentId: charge.paymentId,
});

async function one(actor: Actor, id: string): Promise<object> {
  const { plan, charges, link } = await planSheet(actor, id);
  return { ...shownPlan(plan), link, charges: charges.map(shownCharge) };
}

const BEHIND = '/plans/{id}';

export const PLANS: readonly Endpoint[] = [
  get('/plans', {
    what: 'Billing plans, newest first',
    right: 'see',
    input: PageOf,
    answers: page(PLAN),
    run: async (actor, { input: { after } }) => {
      const { rows, next } = await planPage(actor, cursorOf(after, BY_MOMENT));
      return { data: rows.map(shownPlan), next: cursorText(next) };
    },
  }),
  create('/plans', {
    what: 'Write a billing plan as a draft',
    right: 'ask',
    input: PlanWritten,
    answers: WITH_CHARGES,
    run: async (actor, { input }) => one(actor, await writePlanAtOnce(actor, input)),
  }),
  get(BEHIND, {
    what: 'A billing plan with its charges',
    right: 'see',
    input: NothingWritten,
    answers: WITH_CHARGES,
    run: (actor, { ids: [id = ''] }) => one(actor, id),
  }),
  act(`${BEHIND}/send`, {
    what: 'Send its customer the link under which it is begun',
    right: 'ask',
    input: PlanSendingWritten,
    answers: WITH_CHARGES,
    run: async (actor, { input: { way }, ids: [id = ''] }) => {
      await sendPlan(actor, id, way);
      return one(actor, id);
    },
  }),
  act(`${BEHIND}/pause`, {
    what: 'Pause a billing plan, until a day or until it is resumed',
    right: 'ask',
    input: PauseWritten,
    answers: WITH_CHARGES,
    run: async (actor, { input: { until }, ids: [id = ''] }) => {
      await pausePlan(actor, id, until);
      return one(actor, id);
    },
  }),
  act(`${BEHIND}/resume`, {
    what: 'Let a billing plan go on',
    right: 'ask',
    input: NothingWritten,
    answers: WITH_CHARGES,
    run: async (actor, { ids: [id = ''] }) => {
      await resumePlan(actor, id);
      return one(actor, id);
    },
  }),
  act(`${BEHIND}/cancel`, {
    what: 'End a billing plan, at once or after the period that is paid for',
    right: 'ask',
    input: EndingWritten,
    answers: WITH_CHARGES,
    run: async (actor, { input: { afterPeriod }, ids: [id = ''] }) => {
      await cancelPlan(actor, id, afterPeriod);
      return one(actor, id);
    },
  }),
  get('/charges', {
    what: 'Charges of all plans by date',
    right: 'see',
    input: ChargesAsked,
    answers: page(CHARGE),
    run: async (actor, { input: { after, words = '', from = '', to = '' } }) => {
      const cursor = cursorOf(after, BY_DAY);
      const place = cursor && { on: cursor.key as CalendarDate, id: cursor.id };
      const { rows, next } = await upcomingCharges(actor, { words, state: '', from, to, notCarried: false }, place);
      return { data: rows.map(shownCharge), next: cursorText(next && { key: next.on, id: next.id }) };
    },
  }),
];
