import { isQuiet } from '@/core/business/business';
import { clockTime } from '@/core/dates/date-text';
import { businessById } from '@/db/businesses';
import type { Db } from '@/db/pool';

/** Whether these are hours in which the business writes to nobody by itself. */
export async function isQuietNow(db: Db): Promise<boolean> {
  const business = await businessById(db);
  return isQuiet(business, clockTime(db.now, business.zone));
}
