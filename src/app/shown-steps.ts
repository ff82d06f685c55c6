import { clockTime, shortDate } from '@/core/dates/date-text';
import { dateInZone } from '@/core/dates/zone';
import { lostUntil } from '@/core/person/steps';
import type { Actor } from '@/flows/door/rights';
import { mySteps } from '@/flows/house/steps/set-up';
import type { ShownSteps } from '@/ui/steps/steps-panel';

/** One's second step as the screens show it, with its times written. */
export async function shownSteps(
  actor: Actor,
  { zone, deskLocale: locale }: { readonly zone: string; readonly deskLocale: string },
): Promise<ShownSteps & { readonly email: string }> {
  const { email, confirmed, required, steps, appSince, passkeys } = await mySteps(actor);
  const day = (at: Date) => shortDate(dateInZone(at, zone), locale, { year: true });
  const until = steps.lostAt && lostUntil(steps.lostAt);
  return {
    email,
    confirmed,
    required,
    appSince: appSince ? day(appSince) : '',
    passkeys: passkeys.map(({ id, name, madeAt, usedAt }) => ({
      id,
      name,
      words: `since ${day(madeAt)}${usedAt ? `, last used ${day(usedAt)}` : ', not used yet'}`,
    })),
    codesLeft: steps.codesLeft,
    lostUntil: until ? `on ${day(until)} at ${clockTime(until, zone)}` : '',
  };
}
