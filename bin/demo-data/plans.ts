/** The demo's billing plans: rentals, a care club, lessons, instruments in instalments; charged day by day as they came due. */
import { randomUUID } from 'node:crypto';
import { addDays } from '@/core/dates/calendar-date';
import { dateInZone } from '@/core/dates/zone';
import { completePaper, newLine } from '@/core/paper/paper';
import { USUAL_POLICY } from '@/core/plan/dunning';
import type { PlanTerms } from '@/core/plan/plan';
import { planById } from '@/db/plans';
import { readBusiness } from '@/db/transaction';
import { chargeDue } from '@/flows/charging/charge-due';
import { programContext } from '@/flows/door/program';
import type { Actor } from '@/flows/door/rights';
import { withdrawAuthorisation } from '@/flows/plan/authorise';
import { keepCharging } from '@/flows/plan/charging-policy';
import { acceptPlan, keepPlan, sendPlan, startAtDesk } from '@/flows/plan/plans';
import { keepCard } from '../stack/card-on-file';
import { BUSINESS } from './thistlewood';

export type PlanStage = {
  readonly actor: Actor;
  readonly token: (card: string) => Promise<string>;
  readonly customer: (name: string) => string;
  /** The instant at which the history stands. */
  readonly now: () => Date;
  /** Tells the stand-ins of it. */
  readonly setClock: () => Promise<unknown>;
  readonly mail: () => Promise<void>;
};

type Told = Partial<Omit<PlanTerms, 'paper' | 'schedule' | 'name'>> & {
  readonly schedule?: Partial<PlanTerms['schedule']>;
  /** The first day, so many days from the day on which the plan is made. */
  readonly startIn?: number;
  readonly reference?: string;
  readonly memo?: string;
};

function terms(stage: PlanStage, customer: string, name: string, price: string, told: Told): PlanTerms {
  const { schedule = {}, startIn = 0, reference: _r, memo: _m, ...rest } = told;
  const start = addDays(dateInZone(stage.now(), BUSINESS.zone), startIn);
  const line = newLine(randomUUID(), 'piece', {
    what: name,
    quantity: '1',
    price,
    taxesBy: 'place',
    taxClass: 'standard',
  });
  return {
    kind: 'membership',
    name,
    paper: completePaper({ customerId: stage.customer(customer), lines: [line] }),
    schedule: { unit: 'month', every: 1, start, ends: 'never', ...schedule },
    firstNow: false,
    setUp: '',
    freeFirst: false,
    deposit: '',
    leftover: 'even',
    pay: 'card',
    receipts: true,
    noticeDays: null,
    ...rest,
  };
}

async function kept(stage: PlanStage, customer: string, name: string, price: string, told: Told): Promise<string> {
  const words = {
    terms: terms(stage, customer, name, price, told),
    memo: told.memo ?? '',
    reference: told.reference ?? '',
  };
  return (await keepPlan(stage.actor, null, words)).id;
}

/** A plan that begins at the desk with these cards. */
async function started(
  stage: PlanStage,
  customer: string,
  [name, price]: readonly [name: string, price: string],
  cards: readonly string[],
  told: Told = {},
) {
  await stage.setClock();
  const id = await kept(stage, customer, name, price, told);
  const customerId = stage.customer(customer);
  const onFile = [];
  for (const card of cards)
    onFile.push(
      await keepCard(programContext(BUSINESS.id, stage.now()), customerId, {
        token: await stage.token(card),
        key: randomUUID(),
        byName: stage.actor.name,
      }),
    );
  const given = { how: 'telephone', givenBy: customer, fileId: null } as const;
  await startAtDesk(stage.actor, id, onFile[0] ? { cardId: onFile[0].id } : null, onFile[0] ? given : null);
  await stage.mail();
  return id;
}

/** A plan that the customer begins by the link. */
async function accepted(
  stage: PlanStage,
  customer: string,
  [name, price]: readonly [name: string, price: string],
  card: string,
  told: Told = {},
) {
  await stage.setClock();
  const id = await kept(stage, customer, name, price, told);
  await sendPlan(stage.actor, id, 'mail');
  await stage.mail();
  const plan = await readBusiness(programContext(BUSINESS.id, stage.now()), (db) => planById(db, id));
  const cardToken = await stage.token(card);
  await acceptPlan(
    plan?.linkToken ?? '',
    { cardToken, key: randomUUID(), name: customer, agrees: true },
    '203.0.113.24',
  );
  await stage.mail();
  return id;
}

const HOLIDAYS = [
  ['2026-11-26', 'Thanksgiving'],
  ['2026-12-25', 'Christmas Day'],
  ['2027-01-01', 'New Year’s Day'],
].map(([on = '', name = '']) => ({ on, name }));

/** The plans' part of the demo, as what happens how many days ago at which hour. */
export function planPlans(stage: PlanStage): [daysAgo: number, hour: number, work: () => Promise<void>][] {
  const run = (work: () => Promise<unknown>) => async () => void (await work());
  const charge = async () => {
    await stage.setClock();
    await chargeDue(BUSINESS.id);
    await stage.mail();
  };
  const made: [number, number, () => Promise<void>][] = [
    [176, 9, run(() => keepCharging(stage.actor, { ...USUAL_POLICY, retryDays: [3, 7, 14], holidays: HOLIDAYS }))],
    [
      171,
      10,
      run(() =>
        started(stage, 'Tobias Wrenfield', ['Cello rental, Larkspur No. 7', '62.00'], ['corvid-good'], {
          startIn: 5,
          schedule: { monthDays: ['last'], shift: 'previous' },
          reference: 'cello 7',
        }),
      ),
    ],
    [
      165,
      11,
      run(() => accepted(stage, 'Celia Monk', ['Care club', '9.50'], 'lumen-good', { setUp: '15.00', firstNow: true })),
    ],
    [
      158,
      10,
      run(() =>
        started(stage, 'Edda Tolliver', ['Lessons with Ada, Tuesdays', '38.00'], ['corvid-good', 'lumen-good'], {
          schedule: { unit: 'week', weekdays: [2], ends: { after: 30 } },
          receipts: false,
        }),
      ),
    ],
    [
      131,
      12,
      run(() =>
        accepted(stage, 'Rosalind Achterberg', ['Violin, Larkspur workshop No. 31', '1860.00'], 'lumen-replaced', {
          kind: 'instalments',
          deposit: '20%',
          startIn: 20,
          schedule: { monthDays: [31], ends: { after: 10 }, shift: 'previous' },
          noticeDays: 3,
        }),
      ),
    ],
    [
      122,
      9,
      run(() =>
        started(stage, 'Philippa Goldacre', ['Bow, silver mounted, in three parts', '420.00'], ['corvid-good'], {
          kind: 'instalments',
          firstNow: true,
          schedule: { ends: { after: 3 } },
        }),
      ),
    ],
    [96, 10, run(() => started(stage, 'Rufus Yarrow', ['Care club', '9.50'], ['corvid-second']))],
    [88, 14, run(() => accepted(stage, 'Theodora Vance', ['Care club', '9.50'], 'corvid-good', { freeFirst: true }))],
    [74, 10, run(() => started(stage, 'Quentin Marsh', ['Viola rental, No. 12', '48.00'], ['corvid-poor']))],
    [
      66,
      10,
      run(() =>
        started(stage, 'Fenwick Primary School', ['Six violins on loan', '168.00'], [], {
          pay: 'invoice',
          reference: 'PO 4471',
        }),
      ),
    ],
    [
      57,
      15,
      run(() =>
        started(stage, 'Marguerite Öystad', ['Cello bow, in four parts', '960.00'], [], {
          kind: 'instalments',
          pay: 'invoice',
          schedule: { ends: { after: 4 } },
        }),
      ),
    ],
    [
      52,
      9,
      run(async () => {
        await accepted(stage, 'Zofia Merriwether', ['Care club', '9.50'], 'lumen-good');
      }),
    ],
    [
      44,
      10,
      run(() => started(stage, 'Kester Loveday', ['Violin rental, No. 3', '34.00'], ['lumen-ending'], { startIn: 8 })),
    ],
    [40, 10, run(() => started(stage, 'Petra Lindqvist', ['Care club', '9.50'], ['account-good']))],
    [
      38,
      10,
      run(() =>
        started(stage, 'Sunniva Hauge-Bellweather', ['Cello rental, No. 9', '74.00'], ['corvid-blocked', 'lumen-good']),
      ),
    ],
    [
      19,
      11,
      run(() =>
        programContext(BUSINESS.id, stage.now())
          .named('Zofia Merriwether')
          .write((tx) => withdrawAuthorisation(tx, stage.customer('Zofia Merriwether'), null)),
      ),
    ],
    [4, 10, run(() => started(stage, 'Calder Nwosu', ['Double bass rental, No. 2', '96.00'], ['corvid-silent']))],
    [
      3,
      15,
      run(async () => {
        const id = await kept(stage, 'Ismay Thorncroft', 'Cello, Larkspur workshop No. 44', '4860.00', {
          kind: 'instalments',
          deposit: '860',
          startIn: 10,
          schedule: { monthDays: [31], ends: { after: 12 }, shift: 'previous' },
          memo: 'She tried three; this is the one with the darker voice.',
        });
        await sendPlan(stage.actor, id, 'mail');
        await stage.mail();
      }),
    ],
    [
      1,
      12,
      run(() =>
        kept(stage, 'Nadia Vasterling', 'Lessons with Bram, Thursdays', '36.00', {
          schedule: { unit: 'week', weekdays: [4] },
          startIn: 6,
        }),
      ),
    ],
  ];
  for (let daysAgo = 175; daysAgo >= 0; daysAgo--) made.push([daysAgo, daysAgo === 0 ? 9 : 17, charge]);
  return made;
}
