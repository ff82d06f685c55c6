/** What plans charge as their days come, and what becomes of what is refused. */
import { randomUUID } from 'node:crypto';
import { describe, expect, test } from 'vitest';
import { cardsOf } from '@/db/cards';
import { ledgerTroubles } from '@/db/ledger';
import { readBusiness } from '@/db/transaction';
import { programContext } from '@/flows/door/program';
import { takePayment } from '@/flows/payment/take-payment';
import { asSuperuser } from '../../../tests/support/database';
import { watchedPlans } from '../../../tests/support/plan-house';
import { planTerms, runningPlan } from '../../../tests/support/plans';
import { cardToken, foundHouse, sharedWorkshop } from '../../../tests/support/workshop';
import { pausePlan } from './change-plan';

const workshop = await sharedWorkshop();
const house = await foundHouse();
const { clock, due, charges, plan, told, policy, playUntil, kinds } = watchedPlans(workshop, house);

describe('what is due is charged once', () => {
  test('a membership: every month, with receipt, payment, invoice and ledger; two who charge at once charge once', async () => {
    await clock('2026-01-31');
    const { id } = await runningPlan(house, workshop.standIns, planTerms(house, '2026-01-31'));
    await Promise.all([due(), due(), due()]);
    expect(await told(id, 3)).toEqual([
      'charged 2026-01-31 2200',
      'upcoming 2026-02-28 2200',
      'upcoming 2026-03-31 2200',
    ]);
    await clock('2026-02-28', '08:59');
    await due();
    expect(await told(id, 2)).toEqual(['charged 2026-01-31 2200', 'upcoming 2026-02-28 2200']);
    await clock('2026-02-28');
    await due();
    expect(await plan(id)).toMatchObject({
      chargedCount: 2,
      chargedMinor: 4400n,
      nextOn: '2026-03-31',
      plannedCount: null,
    });
    const rows = await asSuperuser<{ channel: string; due: string; receipt: string | null }>(
      workshop.admin,
      `select payments.channel, invoices.due_minor as due, receipts.number as receipt from payments
         join invoices on invoices.id = payments.invoice_id left join receipts on receipts.payment_id = payments.id
         join charges on charges.payment_id = payments.id where charges.plan_id = $1`,
      [id],
    );
    expect(rows).toMatchObject([
      { channel: 'plan', due: '0' },
      { channel: 'plan', due: '0' },
    ]);
    expect(rows.every(({ receipt }) => receipt !== null)).toBe(true);
  });

  test('parts of a balance: one invoice over the whole, a deposit at once, and the plan is finished with the last', async () => {
    await clock('2026-03-02');
    const terms = planTerms(house, '2026-03-10', {
      kind: 'instalments',
      price: '100.00',
      deposit: '20%',
      schedule: { ends: { after: 3 } },
    });
    const { id } = await runningPlan(house, workshop.standIns, terms);
    await due();
    // 110.00 less 22.00 over three: 29.34, 29.33, 29.33.
    expect(await told(id)).toEqual([
      'charged 2026-03-02 2200',
      'upcoming 2026-03-10 2934',
      'upcoming 2026-04-10 2933',
      'upcoming 2026-05-10 2933',
    ]);
    const { invoiceId } = await plan(id);
    await clock('2026-05-10');
    await due();
    expect(await plan(id)).toMatchObject({ state: 'finished', chargedMinor: 11_000n, plannedMinor: 11_000n });
    expect(await asSuperuser(workshop.admin, 'select due_minor from invoices where id = $1', [invoiceId])).toEqual([
      { due_minor: '0' },
    ]);
  });

  test('the first now, a set-up fee, the first period free, an end; a weekend moves the day', async () => {
    await clock('2026-04-01');
    const terms = planTerms(house, '2026-04-04', {
      firstNow: true,
      freeFirst: true,
      setUp: '5.00',
      schedule: { ends: { after: 3 }, shift: 'next' },
    });
    const { id } = await runningPlan(house, workshop.standIns, terms);
    await due();
    // 4 April is a Saturday, but the first is charged when the plan begins; 4 July is one too.
    expect(await told(id)).toEqual(['charged 2026-04-01 550', 'upcoming 2026-05-04 2200', 'upcoming 2026-06-04 2200']);
    expect(await plan(id)).toMatchObject({ plannedCount: 3, plannedMinor: 4950n });
  });

  test('the first now does not wait for the hour of charging, the first on its day does', async () => {
    await clock('2026-04-01', '01:00');
    const now = await runningPlan(house, workshop.standIns, planTerms(house, '2026-04-01', { firstNow: true }));
    const onDay = await runningPlan(house, workshop.standIns, planTerms(house, '2026-04-01'));
    await due();
    expect((await told(now.id))[0]).toBe('charged 2026-04-01 2200');
    expect((await told(onDay.id))[0]).toBe('upcoming 2026-04-01 2200');
    await clock('2026-04-01');
    await due();
    expect((await told(onDay.id))[0]).toBe('charged 2026-04-01 2200');
    expect((await told(now.id))[1]).toBe('upcoming 2026-05-01 2200');
  });

  test('without a card every period is an invoice by mail, and its payment is followed', async () => {
    await clock('2026-04-01');
    const { id } = await runningPlan(house, workshop.standIns, planTerms(house, '2026-04-01', { pay: 'invoice' }), []);
    await due();
    const [first] = await charges(id);
    expect(first).toMatchObject({ state: 'billed', amountMinor: 2200n });
    const [row] = await asSuperuser<{ link_token: string }>(
      workshop.admin,
      'select link_token from invoices where id = $1',
      [first?.invoiceId],
    );
    const attempt = {
      attemptKey: randomUUID(),
      amountMinor: 2200n,
      cardToken: await cardToken(workshop.standIns, 'lumen-good'),
    };
    await takePayment(row?.link_token ?? '', attempt, '203.0.113.9');
    expect((await charges(id))[0]).toMatchObject({ state: 'charged', note: null });
  });
});

describe('what is refused', () => {
  test('the second card is tried at once; a blocked one is never tried again', async () => {
    await policy({});
    await clock('2026-05-01');
    const { id, customerId } = await runningPlan(house, workshop.standIns, planTerms(house, '2026-05-01'), [
      'corvid-blocked',
      'lumen-good',
    ]);
    await due();
    expect((await charges(id))[0]).toMatchObject({ state: 'charged', attempts: 2, lastReason: 'card-blocked' });
    const cards = await readBusiness(programContext(house.business.id), (db) => cardsOf(db, customerId));
    expect(cards.map(({ state }) => state)).toEqual(['refusing', 'good']);
    await clock('2026-06-01');
    await due();
    expect((await charges(id))[1]).toMatchObject({ state: 'charged', attempts: 1 });
  });

  test('it is tried again on the policy’s days, then the plan pauses; the customer is told first and last', async () => {
    await policy({ retryDays: [3, 5] });
    await clock('2026-05-04');
    const { id } = await runningPlan(house, workshop.standIns, planTerms(house, '2026-05-04'), ['corvid-poor']);
    await playUntil('2026-05-04', '2026-05-12');
    expect((await charges(id))[0]).toMatchObject({ state: 'refused', attempts: 3, round: 2, actAt: null });
    expect(await plan(id)).toMatchObject({ state: 'paused', refusedCount: 1, nextOn: null });
    expect((await kinds(id)).filter((kind) => kind === 'charge-refused')).toHaveLength(2);
    const days = await asSuperuser<{ day: string }>(
      workshop.admin,
      `select to_char(started_at at time zone $2, 'MM-DD') as day from payments join charges on charges.id = payments.charge_id
        where charges.plan_id = $1 order by started_at`,
      [id, house.business.zone],
    );
    expect(days.map(({ day }) => day)).toEqual(['05-04', '05-07', '05-09']);
  });

  test('money that the customer pays by the link recovers it; a card that works the second time too', async () => {
    await policy({});
    await clock('2026-06-02');
    const byLink = await runningPlan(house, workshop.standIns, planTerms(house, '2026-06-02'), ['corvid-silent']);
    const byTime = await runningPlan(house, workshop.standIns, planTerms(house, '2026-06-02'), ['corvid-second']);
    await due();
    const [refused] = await charges(byLink.id);
    const [row] = await asSuperuser<{ link_token: string }>(
      workshop.admin,
      'select link_token from invoices where id = $1',
      [refused?.invoiceId],
    );
    const attempt = {
      attemptKey: randomUUID(),
      amountMinor: 2200n,
      cardToken: await cardToken(workshop.standIns, 'lumen-good'),
    };
    await takePayment(row?.link_token ?? '', attempt, '203.0.113.9');
    expect((await charges(byLink.id))[0]).toMatchObject({ state: 'otherwise', actAt: null });
    expect(await plan(byLink.id)).toMatchObject({ refusedCount: 0, chargedCount: 1 });
    await clock('2026-06-05');
    await due();
    expect((await charges(byTime.id))[0]).toMatchObject({ state: 'charged', attempts: 2 });
  });

  test('afterwards the plan is cancelled, or goes on', async () => {
    await policy({ retryDays: [], afterwards: 'cancel' });
    await clock('2026-07-01');
    const ends = await runningPlan(house, workshop.standIns, planTerms(house, '2026-07-01'), ['corvid-poor']);
    await due();
    expect(await plan(ends.id)).toMatchObject({ state: 'cancelled' });
    expect(await told(ends.id)).toEqual(['refused 2026-07-01 2200']);
    await policy({ retryDays: [], afterwards: 'carry-on' });
    const goes = await runningPlan(house, workshop.standIns, planTerms(house, '2026-07-01'), ['corvid-poor']);
    await due();
    expect(await plan(goes.id)).toMatchObject({ state: 'active', nextOn: '2026-08-01', refusedCount: 1 });
    await policy({});
  });
});

test('the books balance, and no reader or other business reaches a plan', async () => {
  expect(await readBusiness(programContext(house.business.id), (db) => ledgerTroubles(db))).toEqual([]);
  const other = await foundHouse('Elsewhere');
  const [row] = await asSuperuser<{ id: string }>(workshop.admin, 'select id from plans limit 1');
  await expect(pausePlan(other.owner, row?.id ?? '')).rejects.toThrow('not here');
  await expect(pausePlan(house.reader, row?.id ?? '')).rejects.toThrow('not change');
});
