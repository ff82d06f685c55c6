import { lookOf, sellerOf } from '@/core/business/business';
import { addDays, type CalendarDate } from '@/core/dates/calendar-date';
import { dateInZone } from '@/core/dates/zone';
import { type PayoutPaper, payoutPaper } from '@/core/payout/paper';
import {
  type PayoutTable,
  type PayoutWorking,
  payoutTable,
  payoutWorking,
  type WorkedDay,
} from '@/core/payout/working';
import { REGISTER_CHANNELS } from '@/core/register/ask';
import { bankAccounts } from '@/db/bank-accounts';
import { statementDayOf } from '@/db/bank-lines';
import { type Business, businessById } from '@/db/businesses';
import { dayBatch } from '@/db/day-batches';
import { paymentRowsOf } from '@/db/payments';
import {
  feesBeyondBetween,
  type PartnerMovement,
  type PayoutDayRow,
  type PayoutRow,
  partnerMovements,
  partnersParts,
  partnersPayouts,
  payoutById,
  payoutDays,
  releasesOf,
} from '@/db/payouts';
import type { Db } from '@/db/pool';
import { DAY_HEADINGS, dayCells } from '@/documents/csv/day-rows';
import { csvText, sumCell } from '@/documents/csv/write';
import { payoutPdf } from '@/documents/pdf/draw';
import { desk } from '@/flows/door/operation';
import { found } from '@/flows/door/rights';
import { type File, picturesOf } from '@/flows/file/kept-files';
import { midnight, movements, signedMoves } from '@/flows/way/day-movements';
import { type Gathering, gatheringOf } from './gathering';
import { partnerCsv } from './partner-file';
import { payoutReference } from './pay-out-due';

/** What a partner got in a payout of the same date: torn off the business's own. */
export type Stub = {
  readonly payout: PayoutRow;
  readonly movements: readonly PartnerMovement[];
  readonly more: number;
};

/** What days come to, with all that it is worked out from; minor units. */
export type WorkedSheet = {
  readonly business: Business;
  readonly today: CalendarDate;
  readonly currency: string;
  readonly partnerId: string | null;
  readonly days: readonly PayoutDayRow[];
  readonly released: readonly PayoutDayRow[];
  /** Of the business's own. */
  readonly table: PayoutTable | null;
  readonly working: PayoutWorking | null;
  readonly partners: readonly { readonly partnerId: string; readonly name: string; readonly minor: bigint }[];
  /** Fees beyond what was agreed. */
  readonly beyondMinor: bigint;
  /** Of a partner's: what it is made of. */
  readonly movements: readonly PartnerMovement[];
};

/** A payout with all that it is worked out from. */
export type PayoutSheet = WorkedSheet & {
  readonly payout: PayoutRow;
  readonly reference: string;
  readonly stubs: readonly Stub[];
  /** On which day's statement of the bank it stands; null for none, and for a partner's. */
  readonly onStatement: Awaited<ReturnType<typeof statementDayOf>>;
  /** Whether there is a confirmed account by now, to which it could go again. */
  readonly hasAccount: boolean;
};

/** What gathers for the next payout, worked out likewise. */
export type GatheringSheet = WorkedSheet & { readonly gathering: Gathering };

const STUB_LINES = 6;

async function movementsIn(
  db: Db,
  { partnerId, currency }: Pick<PayoutRow, 'partnerId' | 'currency'>,
  days: readonly PayoutDayRow[],
): Promise<PartnerMovement[]> {
  const [first, last] = [days[0], days.at(-1)];
  if (!first || !last || !partnerId) return [];
  const inIt = new Set<string>(days.map(({ day }) => day));
  const all = await partnerMovements(db, partnerId, first.day, last.day);
  return all.filter((one) => one.currency === currency && inIt.has(one.day));
}

async function stubsOf(db: Db, payout: PayoutRow): Promise<Stub[]> {
  const stubs: Stub[] = [];
  for (const one of await partnersPayouts(db, payout.madeOn, payout.currency)) {
    const movements = await movementsIn(db, one, await payoutDays(db, one.id));
    stubs.push({
      payout: one,
      movements: movements.slice(0, STUB_LINES),
      more: Math.max(0, movements.length - STUB_LINES),
    });
  }
  return stubs;
}

/** The days of a payout with what their closings say of its currency. */
async function workedDays(db: Db, currency: string, days: readonly PayoutDayRow[]): Promise<WorkedDay[]> {
  const worked: WorkedDay[] = [];
  for (const { day } of days)
    worked.push({ day, sum: (await dayBatch(db, day))?.sums.find((one) => one.currency === currency) ?? null });
  return worked;
}

type Counted = {
  readonly currency: string;
  readonly partnerId: string | null;
  readonly days: readonly PayoutDayRow[];
  readonly released: readonly PayoutDayRow[];
  readonly reservedMinor: bigint;
  readonly releasedMinor: bigint;
};

async function workedOut(db: Db, counted: Counted): Promise<WorkedSheet> {
  const { currency, partnerId, days, released } = counted;
  const business = await businessById(db);
  const common = { business, today: dateInZone(db.now, business.zone), currency, partnerId, days, released };
  if (partnerId) {
    const movements = await movementsIn(db, counted, days);
    return { ...common, table: null, working: null, partners: [], beyondMinor: 0n, movements };
  }
  const worked = await workedDays(db, currency, days);
  const partners = await partnersParts(
    db,
    currency,
    days.map(({ day }) => day),
  );
  const partnersMinor = partners.reduce((all, { minor }) => all + minor, 0n);
  return {
    ...common,
    table: payoutTable(worked, REGISTER_CHANNELS),
    working: payoutWorking(worked, partnersMinor, counted),
    partners,
    beyondMinor: await beyondOf(db, business, currency, days),
    movements: [],
  };
}

/** By how much the fees of these days are above what was agreed; below 0 where they are less. */
async function beyondOf(db: Db, business: Business, currency: string, days: readonly PayoutDayRow[]): Promise<bigint> {
  const [first, last] = [days[0], days.at(-1)];
  if (!first || !last) return 0n;
  return feesBeyondBetween(db, currency, midnight(business, first.day), midnight(business, addDays(last.day, 1)));
}

/** @throws Refusal `not-found` */
export const payoutSheet = desk('see').read(async (db, id: string): Promise<PayoutSheet> => {
  const payout = found(await payoutById(db, id));
  const counted = { ...payout, days: await payoutDays(db, id), released: await releasesOf(db, id) };
  const accounts = await bankAccounts(db, payout.partnerId);
  return {
    ...(await workedOut(db, counted)),
    payout,
    reference: payoutReference(payout.number),
    onStatement: await statementDayOf(db, { payoutId: id }),
    stubs: payout.partnerId ? [] : await stubsOf(db, payout),
    hasAccount: accounts.some(({ state, currency }) => state === 'checked' && currency === payout.currency),
  };
});

/** What gathers in a currency for the business, or for a partner, as far as days are closed. @throws Refusal `not-found` */
export const gatheringSheet = desk('see').read(
  async (db, currency: string, partnerId: string | null): Promise<GatheringSheet> => {
    const business = await businessById(db);
    const all = await gatheringOf(db, business, await bankAccounts(db));
    const gathering = found(all.find((one) => one.currency === currency && one.partnerId === partnerId));
    const { step, days, released } = gathering;
    return {
      ...(await workedOut(db, {
        currency,
        partnerId,
        days,
        released,
        reservedMinor: step.reserved,
        releasedMinor: step.released,
      })),
      gathering,
    };
  },
);

/** Every movement of a payout as CSV, a day at a time; its last rows are what is held back, released, and partners'. */
export const payoutCsv = desk('see').run(
  async (ctx, id: string): Promise<{ name: string; parts: AsyncIterable<string> }> => {
    const sheet = await payoutSheet(ctx.actor, id);
    const { payout, business } = sheet;
    const name = `payout-${payout.number}.csv`;
    if (payout.partnerId)
      return {
        name,
        parts: (async function* () {
          yield partnerCsv(sheet.movements, business.zone);
        })(),
      };
    async function* parts(): AsyncIterable<string> {
      yield csvText(DAY_HEADINGS, []);
      for (const { day } of sheet.days) yield await ctx.read((db) => dayRows(db, business, payout.currency, day));
      const rest = [
        ...sheet.partners.map(({ name: partner, minor }) => ['partner', partner, -minor] as const),
        ...(payout.reservedMinor ? [['held back', '', -payout.reservedMinor] as const] : []),
        ...(payout.releasedMinor ? [['released', '', payout.releasedMinor] as const] : []),
      ];
      yield* rest.map(([kind, who, minor]) => {
        const row = csvText(DAY_HEADINGS, [
          [payout.madeOn, '', kind, who, '', '', '', '', '', sumCell(minor, payout.currency), payout.currency, '', ''],
        ]);
        return row.slice(row.indexOf('\r\n') + 2);
      });
    }
    return { name, parts: parts() };
  },
);

async function dayRows(db: Db, business: Business, currency: string, day: CalendarDate): Promise<string> {
  const all = signedMoves(await movements(db, business, day, day)).filter((one) => one.currency === currency);
  const rows = new Map(
    (
      await paymentRowsOf(
        db,
        all.map(({ paymentId }) => paymentId),
      )
    ).map((row) => [row.id, row]),
  );
  const text = csvText(
    DAY_HEADINGS,
    all.map(({ paymentId, ...move }) => dayCells({ ...move, day, payment: found(rows.get(paymentId)) }, business.zone)),
  );
  return text.slice(text.indexOf('\r\n') + 2);
}

/** A payout as a statement on paper. */
export const payoutStatement = desk('see').run(async (ctx, id: string): Promise<File> => {
  const sheet = await payoutSheet(ctx.actor, id);
  const { business, payout } = sheet;
  const paper: PayoutPaper = payoutPaper(sheet, sellerOf(business), lookOf(business));
  const bytes = await payoutPdf(paper, await picturesOf(ctx, business.logoId));
  return { name: `payout-${payout.number}.pdf`, bytes, type: 'application/pdf' };
});
