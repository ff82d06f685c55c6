import { dateInZone } from '@/core/dates/zone';
import { rateAge } from '@/core/money/rates';
import { businessById } from '@/db/businesses';
import { type KeptRates, keepRates, ratesOn } from '@/db/rates';
import { desk } from '@/flows/door/operation';
import { Refusal } from '@/flows/door/refusal';
import { readSafely } from '@/flows/file/read-safely';

/** The rates that hold today, and how many days old they are where that is too old; null where none were imported. */
export const ratesToday = desk('see').read(
  async (db): Promise<(KeptRates & { readonly age: number | null }) | null> => {
    const { zone } = await businessById(db);
    const today = dateInZone(db.now, zone);
    const rates = await ratesOn(db, today);
    return rates && { ...rates, age: rateAge(rates.on, today) };
  },
);

/** Keeps the rates of a file, all days in it. Returns how many days, and the latest. @throws Refusal `rates-not-read`, `file-too-heavy` */
export const importRates = desk('settings').run(
  async (ctx, name: string, text: string): Promise<{ days: number; latest: string; currencies: number }> => {
    const tables = await readSafely('rates', text);
    const [latest] = tables;
    if (!latest) throw new Refusal('rates-not-read');
    await ctx.write(async (tx) => {
      for (const table of tables.slice(0, 400)) await keepRates(tx, table, name.slice(0, 120));
    });
    return { days: tables.length, latest: latest.on, currencies: Object.keys(latest.perEuro).length };
  },
);
