/** Whatever falls upon paying out and reading statements: each cent once, and what the bank has is what the books say. */
import { randomUUID } from 'node:crypto';
import { afterEach, expect, test, vi } from 'vitest';
import { addDays, type CalendarDate } from '@/core/dates/calendar-date';
import { USUAL_WAYS } from '@/core/paper/paper';
import { bankAccounts } from '@/db/bank-accounts';
import { accountBalances, ledgerTroubles } from '@/db/ledger';
import { inBusiness } from '@/db/transaction';
import { closeDays } from '@/flows/day/close-days';
import { acceptDispute, sendAnswer } from '@/flows/dispute/answer-dispute';
import { disputeList } from '@/flows/dispute/dispute-sheet';
import { lookForDisputes } from '@/flows/dispute/hear-disputes';
import { programContext } from '@/flows/door/program';
import { Refusal } from '@/flows/door/refusal';
import { lookForDebits } from '@/flows/payment/hear-debits';
import { payByVoucherAtDesk, voucherAtDesk } from '@/flows/payment/pay-by-voucher';
import { refundPayment } from '@/flows/payment/refund-payment';
import { takePayment } from '@/flows/payment/take-payment';
import { paidByHand, payAgain } from '@/flows/payout/pay-again';
import { payOutDue } from '@/flows/payout/pay-out-due';
import { payoutList } from '@/flows/payout/payout-list';
import { keepPayoutPolicy } from '@/flows/payout/policy';
import { storePartner } from '@/flows/records/partners';
import { voucherList } from '@/flows/voucher/vouchers';
import { services } from '@/outside/services';
import { asSuperuser } from '../../../tests/support/database';
import { decideDebit } from '../../../tests/support/debits';
import { decideDispute, disputePayment } from '../../../tests/support/disputes';
import { underTheKnife } from '../../../tests/support/knife';
import { paidOrder, placedOffer } from '../../../tests/support/offers';
import { bookOf, clockAt, closeAccount, confirmedAccount, playDays } from '../../../tests/support/payouts';
import { back, backOf } from '../../../tests/support/refunds';
import { seeded } from '../../../tests/support/seeded';
import {
  cardToken,
  foundHouse,
  type House,
  plainPaper,
  sentInvoice,
  sharedWorkshop,
} from '../../../tests/support/workshop';
import { bankPage } from './bank-page';
import { fetchStatements, importStatement } from './import-statement';
import { takeMatch, undoMatch } from './take-match';
import { takeSure } from './take-sure';

// A Monday.
const DAY = '2027-03-01' as CalendarDate;
const workshop = await sharedWorkshop();
afterEach(() => {
  vi.restoreAllMocks();
});

const CURRENCIES = ['USD', 'EUR'] as const;
/** What partners were given and gave back; what came back and was paid by hand apart. */
const MOVED = ['share', 'reversal', 'by-hand', 'disputed', 'dispute-won'] as const;
const of = <T>(house: House, work: Parameters<typeof inBusiness<T>>[1]) =>
  inBusiness(programContext(house.business.id), work);
const balance = async (
  house: House,
  account: Parameters<typeof accountBalances>[1],
  currency: string,
): Promise<bigint> =>
  (await of(house, (tx) => accountBalances(tx, account))).find((sum) => sum.currency === currency)?.minor ?? 0n;
const pick = <T>(chance: () => number, list: readonly T[]): T => list[Math.floor(chance() * list.length)] as T;
/** What a rule refuses is no fault; anything else is. */
const orRefused = async (work: Promise<unknown>): Promise<void> => {
  await work.catch((error: unknown) => {
    if (!(error instanceof Refusal)) throw error;
  });
};

/** What came to accounts under payouts, by currency. */
async function paidInto(numbers: readonly string[], currency: string): Promise<bigint> {
  let sum = 0n;
  for (const number of numbers)
    for (const line of await bookOf(workshop, number))
      if (line.currency === currency && line.words.includes('payout')) sum += BigInt(line.minor);
  return sum;
}

/** A business with a partner, whose offer is shared, and the accounts of both, which may be closed and given anew. */
async function stage() {
  const house = await foundHouse();
  await clockAt(workshop, house, addDays(DAY, -3), '10:00');
  const partner = await storePartner(house.owner, null, { name: 'Selma Quist', email: '' });
  const split = {
    partners: [{ partnerId: partner.id, percent: '37.5' }],
    keep: '',
    feeFrom: 'all',
    of: 'net',
  } as const;
  const offer = await placedOffer(house, {
    prices: { USD: '40', EUR: '35' },
    currencies: ['EUR'],
    tip: ['10'],
    split,
  });
  await keepPayoutPolicy(house.owner, { when: { kind: 'daily' }, smallest: { USD: '1000' } });
  const numbers = { own: [] as string[], partner: [] as string[] };
  const give = async (whose: 'own' | 'partner', currency: string) => {
    const id = whose === 'own' ? null : partner.id;
    numbers[whose].push(await confirmedAccount(workshop, house, id, currency));
  };
  for (const currency of CURRENCIES) {
    await give('own', currency);
    await give('partner', currency);
  }
  return { house, called: offer.called, numbers, give };
}

/** So many Mondays to Fridays on which nothing is sold any more: all that can be paid out is. */
const playOut = (house: House, from: CalendarDate, days: number) =>
  playDays(
    workshop,
    house,
    Array.from({ length: days }, (_, at) => addDays(from, at)),
  );

test.each([3, 11])(
  'whatever happens in whatever order, the bank has what the books say, to the cent (seed %i)',
  async (seed) => {
    const chance = seeded(seed);
    const { house, called, numbers, give } = await stage();
    const paid: string[] = [];
    // The attempts of debits; those of vouchers, and the orders they paid, in the order in which they were made.
    const debits: string[] = [];
    const used: string[] = [];
    const madeBy = async (method: string, key: string | undefined) =>
      (
        await asSuperuser<{ id: string; state: string }>(
          workshop.admin,
          `select id, state from payments where method = $1
           and (attempt_key = $2 or order_id = (select order_id from payments where id::text = $2))`,
          [method, key ?? null],
        )
      )[0];
    const lines = async () => (await bankPage(house.owner, '', '')).lines;
    const sells = await placedOffer(house, {
      kind: 'open',
      ownAmount: true,
      currencies: ['EUR'],
      title: 'A voucher',
      voucher: true,
    });
    const aVoucher = async () => pick(chance, (await voucherList(house.owner, { words: '', after: '' })).rows);
    const acts: readonly (() => Promise<unknown>)[] = [
      async () =>
        paid.push(
          await paidOrder(workshop, called, {
            currency: pick(chance, CURRENCIES),
            ...(chance() < 0.5 ? { tip: '10%' } : {}),
          }),
        ),
      async () => {
        const { link } = await sentInvoice(house);
        const card = await cardToken(workshop.standIns, 'corvid-good');
        await takePayment(link, { attemptKey: randomUUID(), cardToken: card, amountMinor: 11_000n }, randomUUID());
      },
      async () => {
        const ways = { ...USUAL_WAYS, debit: true, tip: ['10'] };
        const { link } = await sentInvoice(house, plainPaper(house, { ways, currency: pick(chance, CURRENCIES) }));
        const account = await cardToken(workshop.standIns, pick(chance, ['account-good', 'account-short']));
        const asked = { attemptKey: randomUUID(), cardToken: account, amountMinor: 11_000n };
        debits.push(asked.attemptKey);
        await takePayment(link, chance() < 0.5 ? { ...asked, tipMinor: 1_100n } : asked, randomUUID());
      },
      async () => {
        const one = await madeBy('debit', pick(chance, debits));
        if (!one) return;
        if (one.state === 'paid' && chance() < 0.3)
          await refundPayment(
            house.owner,
            one.id,
            backOf(2_000n, { method: pick(chance, ['debit', 'cash'] as const) }),
          );
        await decideDebit(workshop, one.id, pick(chance, ['', 'AM04', 'MD06', 'MD01']));
        await lookForDebits(programContext(house.business.id));
      },
      async () => {
        if (paid.length > 0)
          await refundPayment(
            house.owner,
            pick(chance, paid),
            chance() < 0.3 ? back({ by: 'void' }) : backOf(BigInt(1 + Math.floor(chance() * 4_000))),
          );
      },
      async () => {
        if (paid.length > 0) await disputePayment(workshop, pick(chance, paid));
      },
      async () =>
        paid.push(
          await paidOrder(workshop, sells.called, {
            currency: pick(chance, CURRENCIES),
            amount: pick(chance, ['20', '75']),
          }),
        ),
      // A voucher pays an order, alone or beside a card that may be refused; or what it can of an invoice.
      async () => {
        const voucher = await aVoucher();
        if (!voucher) return;
        const more = { currency: voucher.currency, voucher: voucher.code, ...(chance() < 0.5 ? { tip: '10%' } : {}) };
        used.push(await paidOrder(workshop, called, more, pick(chance, ['corvid-good', 'corvid-poor', ''])));
        paid.push(used.at(-1) ?? '');
      },
      async () => {
        const voucher = await aVoucher();
        if (!voucher) return;
        const { id } = await sentInvoice(house, plainPaper(house, { currency: voucher.currency }));
        const { paysMinor } = await voucherAtDesk(house.owner, id, voucher.code);
        const press = { code: voucher.code, paysMinor: BigInt(paysMinor), requestKey: randomUUID() };
        await payByVoucherAtDesk(house.owner, id, press);
        used.push(press.requestKey);
      },
      async () => {
        const one = await madeBy('voucher', pick(chance, used));
        if (one?.state === 'paid')
          await refundPayment(
            house.owner,
            one.id,
            backOf(BigInt(1 + Math.floor(chance() * 2_000)), { method: pick(chance, ['voucher', 'cash'] as const) }),
          );
      },
      async () => {
        const [one] = (await disputeList(house.owner)).open;
        if (!one) return;
        return chance() < 0.5 ? acceptDispute(house.owner, one.id) : sendAnswer(house.owner, one.id);
      },
      async () => {
        const { open, rows } = await disputeList(house.owner);
        const one = pick(chance, [...open, ...rows]);
        if (one) await decideDispute(workshop, one.key, chance() < 0.5);
        await lookForDisputes(programContext(house.business.id));
      },
      async () => {
        const open = await of(house, (tx) => bankAccounts(tx));
        const account = pick(
          chance,
          open.filter(({ state }) => state === 'checked'),
        );
        if (account) await closeAccount(workshop, account.number);
      },
      async () => {
        const [payout] = (await payoutList(house.owner)).returned;
        if (!payout) return;
        if (payout.partnerId && chance() < 0.4) return paidByHand(house.owner, payout.id);
        await give(payout.partnerId ? 'partner' : 'own', payout.currency);
        return payAgain(house.owner, payout.id);
      },
      async () => {
        const line = pick(chance, await lines());
        if (line) await undoMatch(house.owner, line.id);
      },
      async () => {
        const line = pick(chance, await lines());
        const parts = line?.proposals[0]?.parts ?? [{ kind: 'aside' as const, id: 'other', minor: line?.amount ?? 0n }];
        if (line)
          await takeMatch(house.owner, line.id, {
            parts,
            rest: 'credit',
            note: '',
            always: false,
            press: randomUUID(),
          });
      },
    ];
    for (const currency of CURRENCIES) await disputePayment(workshop, await paidOrder(workshop, called, { currency }));
    let day = DAY;
    for (let step = 0; step < 12; step++, day = addDays(day, 1)) {
      await clockAt(workshop, house, day, '11:00');
      for (let act = 0; act < 6; act++) await orRefused(pick(chance, acts)());
      expect(await playDays(workshop, house, [addDays(day, 1)])).toEqual([]);
      expect(await of(house, ledgerTroubles)).toEqual([]);
    }
    // All that came back is dealt with, and all that gathers goes out: enough is sold that nothing is left below 0.
    await clockAt(workshop, house, day, '11:00');
    // A few cents that a dispute won gives back go out too, and do not wait for more.
    await keepPayoutPolicy(house.owner, { when: { kind: 'daily' }, smallest: {} });
    for (const currency of CURRENCIES) for (let at = 0; at < 8; at++) await paidOrder(workshop, called, { currency });
    for (let round = 0; round < 4; round++) {
      const { accounts, returned } = await payoutList(house.owner);
      for (const whose of ['own', 'partner'] as const)
        for (const currency of CURRENCIES) {
          const isOf = (one: (typeof accounts)[number]) =>
            (one.partnerId === null) === (whose === 'own') && one.currency === currency;
          if (!accounts.some((one) => isOf(one) && one.state === 'checked')) await give(whose, currency);
        }
      for (const { id } of returned) await orRefused(payAgain(house.owner, id));
      expect(await playOut(house, addDays(day, 1), 5)).toEqual([]);
      day = addDays(day, 5);
    }
    expect((await payoutList(house.owner)).returned).toEqual([]);
    const { open, rows } = await disputeList(house.owner);
    expect(open.length + rows.length).toBeGreaterThan(1);
    expect(await of(house, ledgerTroubles)).toEqual([]);
    const moved = await asSuperuser<{ kind: string; currency: string; minor: string }>(
      workshop.admin,
      `select kind, currency, sum(minor)::text as minor from partner_movements where business_id = $1 group by 1, 2`,
      [house.business.id],
    );
    const movedOf = (currency: string, ...kinds: string[]): bigint =>
      moved
        .filter((one) => one.currency === currency && kinds.includes(one.kind))
        .reduce((sum, { minor }) => sum + BigInt(minor), 0n);
    for (const currency of CURRENCIES) {
      expect([
        await balance(house, 'processor-clearing', currency),
        await balance(house, 'on-the-way', currency),
      ]).toEqual([0n, 0n]);
      expect(await balance(house, 'partners', currency)).toBe(0n);
      // What partners were given and did not get by hand came to their accounts; what else the processor held came to ours.
      expect(await paidInto(numbers.partner, currency)).toBe(movedOf(currency, ...MOVED));
      const own = await paidInto(numbers.own, currency);
      expect(own).toBeGreaterThan(0n);
      const [sold] = await asSuperuser<{ minor: string }>(
        workshop.admin,
        `select coalesce(sum((sum->>'netMinor')::bigint), 0)::text as minor from day_batches, jsonb_array_elements(sums) as sum
       where business_id = $1 and sum->>'currency' = $2`,
        [house.business.id, currency],
      );
      expect(own).toBe(BigInt(sold?.minor ?? '0') - movedOf(currency, ...MOVED));
    }
  },
);

test('killed at any step of paying out, each payout goes out once and is booked once', async () => {
  const chance = seeded(5);
  const { house, called, numbers } = await stage();
  const outside = [
    { of: services().bank, calls: ['transfer', 'transferOf', 'statements'] },
    { of: services().cards, calls: ['payoutTerms'] },
  ];
  let kills = 0;
  for (let round = 0; round < 14; round++) {
    const day = addDays(DAY, round);
    await clockAt(workshop, house, day, '11:00');
    await paidOrder(workshop, called);
    // The day is closed; paying out is killed again and again, each time a little later, until it comes to its end.
    await asSuperuser(workshop.admin, 'update businesses set payouts_made_to = $2 where business_id = $1', [
      house.business.id,
      day,
    ]);
    await playDays(workshop, house, []);
    for (const hour of ['00:40', '08:00', '15:00']) {
      const now = await clockAt(workshop, house, addDays(day, 1), hour);
      await closeDays(programContext(house.business.id, now));
      const work = async () => {
        const context = programContext(house.business.id, now);
        await payOutDue(context);
        await fetchStatements(context);
      };
      for (let steps = 2 + Math.floor(chance() * 6); steps < 60; steps += 3 + Math.floor(chance() * 14))
        if (await underTheKnife(work, { steps, heard: chance() < 0.5, outside })) kills++;
      await work();
    }
  }
  expect(kills).toBeGreaterThan(100);
  await playOut(house, addDays(DAY, 15), 8);
  expect(await of(house, ledgerTroubles)).toEqual([]);
  expect(await balance(house, 'processor-clearing', 'USD')).toBe(0n);
  expect(await paidInto(numbers.own, 'USD')).toBe(await balance(house, 'bank', 'USD'));
  const twice = await asSuperuser(
    workshop.admin,
    `select key from bank_lines where business_id = $1 group by account, currency, key having count(*) > 1`,
    [house.business.id],
  );
  expect(twice).toEqual([]);
});

test('killed at any step of reading a statement or matching it, each line is there once and matched once', async () => {
  const chance = seeded(9);
  const house = await foundHouse();
  await clockAt(workshop, house, DAY, '10:00');
  const numbers: string[] = [];
  for (let at = 0; at < 12; at++) {
    const { id } = await sentInvoice(house);
    const [row] = await asSuperuser<{ number: string }>(workshop.admin, 'select number from invoices where id = $1', [
      id,
    ]);
    numbers.push(row?.number ?? '');
  }
  const rows = numbers.map((number) => `2027-03-01,,invoice ${number},110.00`);
  const csv = Buffer.from(`Date,Name,Details,Amount\r\n${rows.join('\r\n')}\r\n`);
  const mapping = {
    columns: ['day', 'name', 'text', 'amount'] as const,
    dayOrder: 'ymd',
    decimal: '.',
    account: '77',
    currency: 'USD',
  } as const;
  const work = () => importStatement(house.owner, 'bank.csv', csv, mapping);
  const take = () => takeSure(house.owner, '77', 'USD');
  let kills = 0;
  // Few steps at a time, so that the kills meet every one of them before it comes to its end.
  for (let kill = 0; kill < 12; kill++)
    if (await underTheKnife(work, { steps: 2 + kill, heard: chance() < 0.5, outside: [] })) kills++;
  await work();
  for (let kill = 0; kill < 60; kill++)
    if (await underTheKnife(take, { steps: 4 + Math.floor(chance() * 30), heard: chance() < 0.5, outside: [] }))
      kills++;
  await take();
  expect(kills).toBeGreaterThan(10);
  const { lines } = await bankPage(house.owner, '77', 'USD');
  expect(lines.map(({ state }) => state)).toEqual(numbers.map(() => 'matched'));
  expect(await balance(house, 'bank', 'USD')).toBe(BigInt(numbers.length) * 11_000n);
  expect(await of(house, ledgerTroubles)).toEqual([]);
});
