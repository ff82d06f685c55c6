/** Houses with something of everything, to be attacked. */

import { passwordHash } from '@/flows/house/password';
import { takePayment } from '@/flows/payment/take-payment';
import { asSuperuser } from '../database';
import { paidOrder, placedOffer } from '../offers';
import { planTerms, runningPlan } from '../plans';
import { signIn } from '../signed-in';
import { cardToken, foundHouse, type House, keptDraft, sentInvoice, type Workshop } from '../workshop';
import type { Attacked } from './fuzz';

const PASSWORD = 'chisel and mallet';

async function furnished(house: House, workshop: Workshop): Promise<void> {
  const sent = await sentInvoice(house);
  await sentInvoice(house);
  await keptDraft(house);
  const token = await cardToken(workshop.standIns, 'corvid-good');
  await takePayment(sent.link, { attemptKey: crypto.randomUUID(), cardToken: token, amountMinor: 11_000n }, 'a');
  const { called } = await placedOffer(house, { kind: 'sum', prices: { USD: '12' }, currency: 'USD' });
  await placedOffer(house, { kind: 'sum', prices: { USD: '12' }, currency: 'USD' }, 'page');
  await paidOrder(workshop, called);
  await runningPlan(house, workshop.standIns, planTerms(house, '2027-01-04'));
}

/** Two businesses in a running stack, and the session of the first one's owner. */
export async function attackedHouse(web: string, workshop: Workshop): Promise<Attacked> {
  const mine = await foundHouse('Sallow Joinery', await passwordHash(PASSWORD));
  const theirs = await foundHouse('Other Joinery');
  await furnished(mine, workshop);
  await furnished(theirs, workshop);
  const tables = await asSuperuser<{ name: string }>(
    workshop.admin,
    `select table_name as name from information_schema.columns join information_schema.tables using (table_schema, table_name)
     where table_schema = 'public' and table_type = 'BASE TABLE' and column_name = 'id' and data_type = 'uuid'`,
  );
  const [ids] = await asSuperuser<{ ids: string[] }>(
    workshop.admin,
    `select array_agg(id) as ids from (${tables.map(({ name }) => `(select id::text from ${name} limit 12)`).join(' union all ')}
     union all (select attempt_key::text from payments limit 12)) as of`,
  );
  const [links] = await asSuperuser<{ links: string[] }>(
    workshop.admin,
    `select array_agg(link) as links from (select link_token as link from invoices where link_token is not null
     union all select public_id from offers union all select link_token from plans union all select token from orders) as of`,
  );
  let tries = 0;
  return {
    web,
    ids: ids?.ids ?? [],
    links: (links?.links ?? []).filter(Boolean),
    session: async () => {
      const email = `owner-${mine.business.id.slice(0, 8)}@sallow.example`;
      const { token } = await signIn(email, PASSWORD, `attacker ${tries++}`);
      return `dahlia_session=${token}`;
    },
  };
}
