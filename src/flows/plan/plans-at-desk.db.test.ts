/** Plans changed, made and paid at the desk. */
import { randomUUID } from 'node:crypto';
import { describe, expect, test } from 'vitest';
import { cardsOf } from '@/db/cards';
import { readBusiness } from '@/db/transaction';
import { programContext } from '@/flows/door/program';
import { deskQuote, payAtDesk } from '@/flows/payment/desk-payment';
import { takeAsPaid } from '@/flows/payment/take-as-paid';
import { asSuperuser } from '../../../tests/support/database';
import { watchedPlans } from '../../../tests/support/plan-house';
import { planTerms, runningPlan } from '../../../tests/support/plans';
import { cardToken, foundHouse, sharedWorkshop } from '../../../tests/support/workshop';
import { removeAtDesk } from './cards-on-file';
import { chargeAgain, moveCharge, skipCharge, waiveCharge } from './change-charge';
import {
  cancelPlan,
  changeAmount,
  duplicatePlan,
  finishEarly,
  pausePlan,
  resumePlan,
  withdrawAtDesk,
} from './change-plan';
import { checkPlans, makePlans } from './many-plans';
import { keepPlan } from './plans';

const workshop = await sharedWorkshop();
const house = await foundHouse();
const { clock, due, charges, plan, told, policy, kinds, troubles } = watchedPlans(workshop, house);

describe('by hand', () => {
  test('made again it begins anew: a copy charges nothing of the past', async () => {
    await clock('2026-03-15');
    const { id } = await keepPlan(house.owner, null, {
      terms: planTerms(house, '2026-01-31'),
      memo: '',
      reference: '',
    });
    const copy = await plan(await duplicatePlan(house.owner, id));
    expect(copy).toMatchObject({ state: 'draft', terms: { schedule: { start: '2026-03-31' } } });
    await expect(duplicatePlan(house.reader, id)).rejects.toThrow('not change');
  });

  test('charged again with another card; taken as paid; waived; moved; skipped; at another price', async () => {
    await policy({ secondCard: false });
    await clock('2026-08-03');
    const { id, customerId } = await runningPlan(house, workshop.standIns, planTerms(house, '2026-08-03'), [
      'corvid-poor',
      'lumen-good',
    ]);
    await due();
    const [first] = await charges(id);
    const cards = await readBusiness(programContext(house.business.id), (db) => cardsOf(db, customerId));
    await chargeAgain(house.owner, first?.id ?? '', cards[1]?.id ?? '');
    await due();
    expect((await charges(id))[0]).toMatchObject({ state: 'charged' });
    await removeAtDesk(house.owner, cards[0]?.id ?? '');
    const [, second, third, fourth] = await charges(id);
    await takeAsPaid(house.owner, second?.id ?? '', 'cash', 'at the counter');
    await waiveCharge(house.owner, third?.id ?? '');
    await moveCharge(house.owner, fourth?.id ?? '', '2026-11-09');
    expect(await told(id, 4)).toEqual([
      'charged 2026-08-03 2200',
      'otherwise 2026-09-03 2200',
      'waived 2026-10-03 2200',
      'upcoming 2026-11-09 2200',
    ]);
    await skipCharge(house.owner, (await charges(id))[4]?.id ?? '');
    for (const wrong of ['', 'much', '0', '-5'])
      await expect(changeAmount(house.owner, id, wrong), wrong).rejects.toMatchObject({ code: 'plan-not-ready' });
    await changeAmount(house.owner, id, '30.00');
    const rest = (await charges(id)).filter(({ state }) => state === 'upcoming');
    expect(rest.some(({ nominal }) => nominal === '2026-12-03')).toBe(false);
    expect(new Set(rest.map(({ amountMinor }) => amountMinor))).toEqual(new Set([3300n]));
    await policy({});
  });

  test('paused and resumed: what fell into the pause is left out; parts of a balance come later, all of them', async () => {
    await clock('2026-08-10');
    const member = await runningPlan(house, workshop.standIns, planTerms(house, '2026-08-10'));
    const terms = planTerms(house, '2026-08-10', {
      kind: 'instalments',
      price: '90.00',
      schedule: { ends: { after: 3 } },
    });
    const parts = await runningPlan(house, workshop.standIns, terms);
    await due();
    for (const one of [member, parts]) await pausePlan(house.owner, one.id);
    await clock('2026-10-20');
    await due();
    for (const one of [member, parts]) await resumePlan(house.owner, one.id);
    expect(await told(member.id, 2)).toEqual(['charged 2026-08-10 2200', 'upcoming 2026-11-10 2200']);
    expect(await told(parts.id)).toEqual([
      'charged 2026-08-10 3300',
      'upcoming 2026-11-10 3300',
      'upcoming 2026-12-10 3300',
    ]);
  });

  test('cancelled at once or after the period; the rest of a balance charged early; a withdrawn authorisation ends it', async () => {
    await clock('2026-10-21');
    const start = () => runningPlan(house, workshop.standIns, planTerms(house, '2026-10-21'));
    const [now, later, withdrawn] = [await start(), await start(), await start()];
    const terms = planTerms(house, '2026-10-21', {
      kind: 'instalments',
      price: '90.00',
      schedule: { ends: { after: 3 } },
    });
    const parts = await runningPlan(house, workshop.standIns, terms);
    await due();
    await cancelPlan(house.owner, now.id, false);
    await cancelPlan(house.owner, later.id, true);
    await withdrawAtDesk(house.owner, withdrawn.id);
    await finishEarly(house.owner, parts.id);
    await due();
    expect((await plan(now.id)).state).toBe('cancelled');
    // It runs until the period that is paid for is over.
    expect(await plan(later.id)).toMatchObject({ state: 'active', endsOn: '2026-11-21' });
    expect((await plan(withdrawn.id)).state).toBe('cancelled');
    expect(await plan(parts.id)).toMatchObject({ state: 'finished', chargedMinor: 9900n });
    await clock('2026-12-01');
    await due();
    for (const one of [now, later, withdrawn]) expect(await told(one.id)).toEqual(['charged 2026-10-21 2200']);
    expect(await kinds(withdrawn.id)).toContain('plan-ended');
  });
});

test('many from a table: every row is looked at, the right ones are made and sent once, however often it is pressed', async () => {
  await clock('2027-02-01', '12:00');
  const text = [
    '\ufeffE-Mail,Name,Plan,Price,Start,Payments,Deposit',
    'new@table.example,Nell Table,Care club,9.50,2027-02-28,,',
    'perpetua@vane.example,,Viola in parts,900,2027-03-01,9,20%',
    'wrong,Somebody,Care club,9.50,2027-02-28,,',
    'other@table.example,,Care club,9.50,2027-02-28,,',
    'other@table.example,Ola,Care club,free,2027-02-28,,',
  ].join('\r\n');
  const checked = await checkPlans(house.owner, text);
  expect(checked.map(({ known, trouble }) => [known, trouble === ''])).toEqual([
    [false, true],
    [true, true],
    [false, false],
    [false, false],
    [false, false],
  ]);
  const key = randomUUID();
  await makePlans(house.owner, text, key);
  await makePlans(house.owner, text, key);
  const made = await asSuperuser(
    workshop.admin,
    `select plans.kind, plans.state, customers.name, (select count(*)::int from messages where plan_id = plans.id) as mails
     from plans join customers on customers.id = plans.customer_id where plans.name in ('Care club', 'Viola in parts')
       and plans.sent_at > '2027-01-01' order by plans.kind`,
  );
  expect(made).toEqual([
    { kind: 'instalments', state: 'waiting', name: 'Perpetua Vane', mails: 1 },
    { kind: 'membership', state: 'waiting', name: 'Nell Table', mails: 1 },
  ]);
  await expect(checkPlans(house.owner, '')).rejects.toMatchObject({ code: 'table-not-read' });
});

test('a single payment at the desk: with a card on file or a new one, one however often it is pressed, with invoice and receipt', async () => {
  const quoted = (price: string) => deskQuote(house.owner, { customerId: house.customerId, price });
  expect(await quoted('40.00')).toEqual({ currency: 'USD', totalMinor: 4400, taxMinor: 400 });
  expect(await quoted('forty')).toBeNull();
  expect(await quoted('')).toBeNull();
  const { customerId } = await runningPlan(house, workshop.standIns, planTerms(house, '2027-06-01'), ['corvid-good']);
  const [card] = await readBusiness(programContext(house.business.id), (db) => cardsOf(db, customerId));
  const asked = { customerId, what: 'A set of strings', price: '30', attemptKey: randomUUID(), cardId: card?.id };
  const answers = await Promise.all([1, 2, 3].map(() => payAtDesk(house.owner, asked)));
  expect(new Set(answers.map(({ invoiceId }) => invoiceId)).size).toBe(1);
  const rows = await asSuperuser(
    workshop.admin,
    `select payments.state, payments.channel, invoices.due_minor::int as due from payments join invoices on invoices.id = invoice_id
     where payments.attempt_key = $1`,
    [asked.attemptKey],
  );
  expect(rows).toEqual([{ state: 'paid', channel: 'desk', due: 0 }]);
  const poor = {
    ...asked,
    attemptKey: randomUUID(),
    cardId: undefined,
    cardToken: await cardToken(workshop.standIns, 'corvid-poor'),
  };
  expect(await payAtDesk(house.owner, poor)).toMatchObject({ state: 'refused' });
  await expect(
    payAtDesk(house.owner, { ...poor, attemptKey: randomUUID(), cardToken: undefined }),
  ).rejects.toMatchObject({ code: 'no-card' });
});

test('the books balance', async () => {
  expect(await troubles()).toEqual([]);
});
