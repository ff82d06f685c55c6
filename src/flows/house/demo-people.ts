import { type DemoPerson, demoPeople } from '@/db/people';
import { anybody } from '@/flows/door/operation';

/** The demo's people with their password, for its sign-in page; null anywhere but in the demo. */
export const demoOffer = anybody().run(
  async (house): Promise<{ people: readonly DemoPerson[]; password: string } | null> => {
    const password = process.env.DAHLIA_DEMO_PASSWORD;
    return password ? { people: await house.outside(demoPeople), password } : null;
  },
);
