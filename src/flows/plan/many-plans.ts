import { randomUUID } from 'node:crypto';
import { newCustomer } from '@/core/customer/customer';
import { decimalSignOf } from '@/core/money/typed';
import { todayOf } from '@/core/plan/days';
import { PLAN_COLUMNS, type PlanRowRead, readPlanRow } from '@/core/plan/rows';
import { dateTrouble, planReading } from '@/core/plan/sums';
import { businessById } from '@/db/businesses';
import { customerByEmail, insertCustomer } from '@/db/customers';
import { planById, plansOfCustomer } from '@/db/plans';
import { idFor } from '@/flows/door/id-for';
import { type Context, desk } from '@/flows/door/operation';
import { Refusal } from '@/flows/door/refusal';
import { readSafely } from '@/flows/file/read-safely';
import { paperSetting } from '@/flows/invoice/paper-setting';
import { planContext } from './plan-setting';
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

async function rowsOf(ctx: Context, text: string): Promise<PlanRowRead[]> {
  const rows = await readSafely('table', text, PLAN_COLUMNS);
  if (rows.length === 0) throw new Refusal('table-not-read');
  const { deskLocale: locale } = await ctx.read((db) => businessById(db));
  const sign = decimalSignOf(locale);
  return rows.slice(0, MOST_ROWS).map((row) => readPlanRow(row, randomUUID(), sign));
}

/** Looks at every row before anything is written. @throws Refusal `table-not-read` */
export const checkPlans = desk('ask').run(async (ctx, text: string): Promise<CheckedRow[]> => {
  const rows = await rowsOf(ctx, text);
  return ctx.read(async (db) => {
    const business = await businessById(db);
    const checked: CheckedRow[] = [];
    for (const [at, row] of rows.entries()) {
      const customer = row.email ? await customerByEmail(db, row.email) : null;
      const reading = row.terms && planReading(row.terms, await paperSetting(db, business, customer, row.terms.paper));
      const context = planContext(business, { startsOn: null, pauses: [] }, todayOf(business, ctx.now));
      const isThere =
        customer && row.terms
          ? (await plansOfCustomer(db, customer.id)).some(
              ({ terms, state }) =>
                ['waiting', 'active', 'paused'].includes(state) &&
                terms.name === row.terms?.name &&
                terms.schedule.start === row.terms.schedule.start,
            )
          : false;
      const trouble =
        row.trouble ||
        (isThere ? 'A plan of this name with this first day is there already.' : '') ||
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
});

/**
 * Makes the plans of all rows that are right, and sends each customer the link to agree and enter the card. Each row is a
 * step of its own; the same press again goes on where it was broken off.
 *
 * @param key made by the screen for one press
 */
export const makePlans = desk('ask').run(async (ctx, text: string, key: string): Promise<{ sent: number }> => {
  const checked = await checkPlans(ctx.actor, text);
  const rows = await rowsOf(ctx, text);
  let sent = 0;
  for (const { at, trouble } of checked) {
    const row = rows[at];
    const id = idFor(`${key} ${at}`);
    // Made by this very press before.
    if (await ctx.read((db) => planById(db, id))) sent += 1;
    else if (!trouble && row?.terms) {
      await make(ctx, id, row, row.terms);
      sent += 1;
    }
  }
  return { sent };
});

/** Writes one plan down, with its customer where nobody has the address, and sends its link. */
async function make(
  ctx: Context,
  id: string,
  row: PlanRowRead,
  terms: NonNullable<PlanRowRead['terms']>,
): Promise<void> {
  await ctx.write(async (tx) => {
    if (await planById(tx, id)) return;
    const business = await businessById(tx);
    const known = await customerByEmail(tx, row.email);
    const customer = known ?? { id: randomUUID(), ...newCustomer(row.name, { email: row.email }) };
    if (!known) await insertCustomer(tx, customer);
    const words = {
      terms: { ...terms, paper: { ...terms.paper, customerId: customer.id } },
      memo: '',
      reference: row.reference,
    };
    const currency = customer.currency || business.currency;
    await writePlan(tx, words, { id, customerId: customer.id, currency });
    await sendPlanNow(tx, id, 'mail');
  });
}
