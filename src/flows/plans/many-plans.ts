import { createHash, randomUUID } from 'node:crypto';
import { newCustomer } from '@/core/customer/customer';
import { PLAN_COLUMNS, type PlanRowRead, readPlanRow } from '@/core/plan/rows';
import { dateTrouble, planReading } from '@/core/plan/sums';
import { businessById } from '@/db/businesses';
import { customerByEmail, insertCustomer } from '@/db/customers';
import type { Actor } from '@/db/people';
import { planById } from '@/db/plans';
import { inBusiness, readBusiness } from '@/db/transaction';
import { tableOf } from '@/documents/csv/read';
import { services } from '@/outside/services';
import { requireRight } from '../access';
import { paperSetting } from '../paper-setting';
import { Refusal } from '../refusal';
import { planContext, todayOf } from './plan-setting';
import { sendPlanNow, writePlan } from './plans';

export const MOST_ROWS = 1000;

/** A row of the table, checked; `known` where its address is a customer's already. Sums in minor units, with tax. */
export type CheckedRow = {
  readonly at: number;
  readonly email: string;
  readonly name: string;
  readonly plan: string;
  readonly minor: number;
  readonly currency: string;
  readonly known: boolean;
  readonly trouble: string;
};

function rowsOf(text: string): PlanRowRead[] {
  const rows = tableOf(text, PLAN_COLUMNS);
  if (rows.length === 0) throw new Refusal('table-not-read');
  return rows.slice(0, MOST_ROWS).map((row) => readPlanRow(row, randomUUID()));
}

/** Looks at every row before anything is written. @throws Refusal `table-not-read` */
export async function checkPlans(actor: Actor, text: string): Promise<CheckedRow[]> {
  requireRight(actor, 'ask');
  const rows = rowsOf(text);
  return readBusiness(actor.businessId, async (db) => {
    const now = await services().clock.now();
    const business = await businessById(db, actor.businessId);
    const checked: CheckedRow[] = [];
    for (const [at, row] of rows.entries()) {
      const customer = row.email ? await customerByEmail(db, actor.businessId, row.email) : null;
      const reading = row.terms && planReading(row.terms, await paperSetting(db, business, customer));
      const context = planContext(business, { startsOn: null, pauses: [] }, todayOf(business, now));
      const trouble =
        row.trouble ||
        (customer || row.name ? '' : 'Nobody has this address yet: write the name too.') ||
        reading?.problems[0]?.words ||
        (row.terms && reading ? dateTrouble(row.terms, reading.sums, context) : '') ||
        '';
      checked.push({
        at,
        email: row.email,
        name: customer?.name ?? row.name,
        plan: row.terms?.name ?? '',
        minor: Number(reading?.sums.eachMinor ?? 0n),
        currency: reading?.currency ?? business.currency,
        known: customer !== null,
        trouble,
      });
    }
    return checked;
  });
}

/** An id that is the same for the same row of the same press. */
const idOf = (key: string, at: number): string => {
  const hex = createHash('sha256').update(`${key} ${at}`).digest('hex');
  return `${hex.slice(0, 8)}-${hex.slice(8, 12)}-4${hex.slice(13, 16)}-8${hex.slice(17, 20)}-${hex.slice(20, 32)}`;
};

/**
 * Makes the plans of all rows that are right, and sends each customer the link to agree and enter the card. Each row is a
 * step of its own; the same press again goes on where it was broken off.
 *
 * @param key made by the screen for one press
 */
export async function makePlans(actor: Actor, text: string, key: string): Promise<{ sent: number }> {
  const checked = await checkPlans(actor, text);
  const rows = rowsOf(text);
  const now = await services().clock.now();
  let sent = 0;
  for (const { at, trouble } of checked) {
    const row = rows[at];
    if (trouble || !row?.terms) continue;
    const { terms } = row;
    const id = idOf(key, at);
    await inBusiness(actor.businessId, async (tx) => {
      if (await planById(tx, actor.businessId, id)) return;
      const business = await businessById(tx, actor.businessId);
      const known = await customerByEmail(tx, actor.businessId, row.email);
      const customer = known ?? { id: randomUUID(), ...newCustomer(row.name, { email: row.email }) };
      if (!known) await insertCustomer(tx, actor.businessId, customer, now);
      const words = {
        terms: { ...terms, paper: { ...terms.paper, customerId: customer.id } },
        memo: '',
        reference: row.reference,
      };
      const currency = customer.currency || business.currency;
      await writePlan(tx, actor, words, customer.id, currency, null, now, id);
      await sendPlanNow(tx, actor, id, 'mail', now);
    });
    sent += 1;
  }
  return { sent };
}
