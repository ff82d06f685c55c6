import { dateInZone } from '@/core/dates/zone';
import { businessById } from '@/db/businesses';
import { announce } from '@/db/jobs';
import type { Actor } from '@/db/people';
import { type KeptRates, keepRates, ratesOn } from '@/db/rates';
import { inBusiness, readBusiness } from '@/db/transaction';
import { readRates } from '@/documents/rates/read';
import { services } from '@/outside/services';
import { requireRight } from './access';
import { Refusal } from './refusal';

/** The rates that hold today; null where none were imported. */
export async function ratesToday(actor: Actor): Promise<KeptRates | null> {
  requireRight(actor, 'read');
  const now = await services().clock.now();
  return readBusiness(actor.businessId, async (db) => {
    const { zone } = await businessById(db, actor.businessId);
    return ratesOn(db, actor.businessId, dateInZone(now, zone));
  });
}

/** Keeps the rates of a file, all days in it. Returns how many days, and the latest. @throws Refusal `rates-not-read` */
export async function importRates(
  actor: Actor,
  name: string,
  text: string,
): Promise<{ days: number; latest: string; currencies: number }> {
  requireRight(actor, 'ask');
  const tables = readRates(text);
  const [latest] = tables;
  if (!latest) throw new Refusal('rates-not-read');
  await inBusiness(actor.businessId, async (tx) => {
    for (const table of tables.slice(0, 400)) await keepRates(tx, actor.businessId, table, name.slice(0, 120));
    await announce(tx, actor.businessId);
  });
  return { days: tables.length, latest: latest.on, currencies: Object.keys(latest.perEuro).length };
}
