import { type DemoPerson, demoPeople } from '@/db/people';
import { outsideBusiness } from '@/db/transaction';

/** The demo's people with their password, for its sign-in page; null anywhere but in the demo. */
export async function demoOffer(): Promise<{ people: readonly DemoPerson[]; password: string } | null> {
  const password = process.env.DAHLIA_DEMO_PASSWORD;
  return password ? { people: await outsideBusiness(demoPeople), password } : null;
}
