import { clockTime, shortDate } from '@/core/dates/date-text';
import { dateInZone } from '@/core/dates/zone';
import { mayDo } from '@/core/person/rights';
import type { Actor } from '@/flows/door/rights';
import { firstDay, type HalfWritten } from '@/flows/house/first-day';
import type { ShownFirstDay } from '@/ui/house/what-opens';

/** How the first days stand, with times as the business writes them; null where they are over. */
export async function shownFirstDay(
  actor: Actor,
  { zone, deskLocale: locale }: { readonly zone: string; readonly deskLocale: string },
): Promise<(ShownFirstDay & { readonly draft: HalfWritten | null }) | null> {
  const found = await firstDay(actor);
  if (!found) return null;
  const { mail, signedUpAt } = found;
  return {
    steps: found.steps,
    since: `${shortDate(dateInZone(signedUpAt, zone), locale, { weekday: true })}, ${clockTime(signedUpAt, zone)}`,
    isFirst: found.isFirst,
    draft: found.draft,
    mail: mail && { email: mail.email, sent: mail.sentAt ? clockTime(mail.sentAt, zone) : '' },
    maySet: mayDo(actor, 'settings'),
    mayDecide: mayDo(actor, 'people'),
  };
}
