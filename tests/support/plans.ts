/** Billing plans for tests: a clock to be set, terms, and plans that run. */
import { randomUUID } from 'node:crypto';
import { newCustomer } from '@/core/customer/customer';
import type { CalendarDate } from '@/core/dates/calendar-date';
import { completePaper, newLine } from '@/core/paper/paper';
import { NO_ADDRESS } from '@/core/place/address';
import type { PlanTerms } from '@/core/plan/plan';
import { programContext } from '@/flows/door/program';
import { keepPlan, startAtDesk } from '@/flows/plan/plans';
import { addCustomer } from '@/flows/records/customers';
import { keepCard } from '../../bin/stack/card-on-file';
import { cardToken, type House } from './workshop';

/** Sets the stand-ins' clock to an instant. */
export async function setClock(standIns: string, instant: Date): Promise<void> {
  await fetch(`${standIns}/clock`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ set: instant.toISOString() }),
  });
}

type Change = Partial<Omit<PlanTerms, 'paper' | 'schedule'>> & {
  readonly price?: string;
  readonly schedule?: Partial<PlanTerms['schedule']>;
};

/** A membership of 20.00 a month from a day on, with 10 percent tax: 22.00. */
export function planTerms(
  house: House,
  start: string,
  { price = '20.00', schedule = {}, ...change }: Change = {},
): PlanTerms {
  const line = newLine(randomUUID(), 'piece', { what: 'Care club', quantity: '1', price, taxes: [house.taxId] });
  return {
    kind: 'membership',
    name: 'Care club',
    paper: completePaper({ customerId: house.customerId, lines: [line] }),
    schedule: { unit: 'month', every: 1, start: start as CalendarDate, ends: 'never', ...schedule },
    firstNow: false,
    setUp: '',
    freeFirst: false,
    deposit: '',
    leftover: 'even',
    pay: 'card',
    receipts: true,
    noticeDays: null,
    ...change,
  };
}

/** A plan that runs, of a customer of its own with these pretend cards, authorised by telephone. */
export async function runningPlan(
  house: House,
  standIns: string,
  terms: PlanTerms,
  cardNames: readonly string[] = ['corvid-good'],
  name = 'Otto Reed',
): Promise<{ id: string; customerId: string; email: string }> {
  const email = `${randomUUID().slice(0, 8)}@reed.example`;
  const billing = { ...NO_ADDRESS, lines: ['4 Kiln Road'], country: 'US' };
  const customer = await addCustomer(house.owner, newCustomer(name, { email, billing }));
  const paper = { ...terms.paper, customerId: customer.id };
  const { id } = await keepPlan(house.owner, null, { terms: { ...terms, paper }, memo: '', reference: '' });
  const cards: string[] = [];
  for (const card of cardNames) {
    const sent = { token: await cardToken(standIns, card), key: randomUUID() };
    cards.push((await keepCard(programContext(house.business.id), customer.id, { ...sent, byName: name })).id);
  }
  const given = { how: 'telephone', givenBy: name, fileId: null } as const;
  await startAtDesk(
    house.owner,
    id,
    terms.pay === 'card' ? { cardId: cards[0] ?? '' } : null,
    terms.pay === 'card' ? given : null,
  );
  return { id, customerId: customer.id, email };
}
