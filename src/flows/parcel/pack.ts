/** What is done on the paper: sales are put on it as parcels, changed, taken off again. */
import { randomUUID } from 'node:crypto';
import type { CustomsPart, LineCustoms } from '@/core/customs/declaration';
import type { CalendarDate } from '@/core/dates/calendar-date';
import { dateInZone } from '@/core/dates/zone';
import { decimalText, scaledDecimal } from '@/core/money/decimal';
import { allocate } from '@/core/money/money';
import { blockOf, type Recipient, unpackedQuantity } from '@/core/parcel/handover';
import { byDoor } from '@/core/parcel/lot';
import { type Notice, nextMailDay } from '@/core/parcel/notice';
import { businessById } from '@/db/businesses';
import { customerById } from '@/db/customers';
import {
  addPacked,
  type Handover,
  handoversByIds,
  updateChargedOn,
  updateHandoverState,
  updateRecipient,
} from '@/db/handovers';
import { deliverSettings } from '@/db/parcel-profiles';
import {
  deleteParcelLines,
  insertParcelLines,
  insertParcels,
  MOST_ON_PAPER,
  type NewParcel,
  onThePaper,
  type PackingPart,
  type Parcel,
  type ParcelLine,
  parcelsByIds,
  updatePacking,
} from '@/db/parcels';
import type { Tx } from '@/db/pool';
import { holdStock } from '@/db/stock';
import { desk, type Writing } from '@/flows/door/operation';
import { Refusal } from '@/flows/door/refusal';
import { found } from '@/flows/door/rights';
import { reviseWaiting } from '@/flows/stock/wait-for-stock';
import { askRates } from './ask-rates';
import { inOwnCurrency, packingTable, profileByRule } from './packing-setting';
import { takeParcelsOff } from './unpack';

const SCALE = 4;
const scaled = (text: string): bigint => scaledDecimal(text, SCALE, 'bad_quantity', 'quantity');

/** By what a parcel is found: whom it is for and where, the sales in it, and what it holds. */
const searchOf = (
  recipient: Recipient,
  numbers: readonly string[],
  lines: readonly { readonly what: string }[],
): string =>
  [recipient.name, recipient.address.city, recipient.address.postalCode, ...numbers, ...lines.map(({ what }) => what)]
    .join(' ')
    .toLowerCase()
    .slice(0, 1000);

/** What is left to pack of sales, as lines of a parcel; worths in the business's currency. */
function leftOf(handovers: readonly Handover[], own: (minor: bigint, currency: string) => bigint | null): ParcelLine[] {
  const lines = handovers.flatMap((handover) =>
    handover.lines.flatMap((line) => {
      const left = unpackedQuantity(line);
      if (line.handed !== 'posted' || left <= 0n) return [];
      const [worth = 0n] = allocate(line.valueMinor, [left, scaled(line.quantity) - left]);
      return [
        {
          handoverId: handover.id,
          line: line.line,
          what: line.what,
          itemId: line.itemId,
          optionId: line.optionId,
          quantity: decimalText(left, SCALE),
          valueMinor: own(worth, handover.currency) ?? 0n,
          customs: null,
        },
      ];
    }),
  );
  return lines.map((line, place) => ({ ...line, place }));
}

/** What was charged for the delivery of sales that does not count on another parcel yet; null where it cannot be converted. */
function chargedOf(
  handovers: readonly Handover[],
  own: (minor: bigint, currency: string) => bigint | null,
): bigint | null {
  const sums = handovers
    .filter(({ chargedOn }) => chargedOn === null)
    .map(({ chargedMinor, currency }) => own(chargedMinor, currency));
  return sums.some((sum) => sum === null) ? null : sums.reduce<bigint>((all, sum) => all + (sum ?? 0n), 0n);
}

const lineMoves = (lines: readonly ParcelLine[]) =>
  lines.flatMap(({ handoverId, line, quantity }) =>
    handoverId !== null && line !== null ? [{ handoverId, line, quantity }] : [],
  );

/** On which day parcels leave that are put on the paper now: with those that lie there, else on the next day on which any do. */
function mailDay(paper: readonly Parcel[], today: CalendarDate, mailDays: readonly number[]): CalendarDate {
  const before = paper.map(({ mailOn }) => mailOn).filter((day) => day >= today);
  return before[0] ?? nextMailDay(today, mailDays);
}

async function putOn(tx: Writing, handoverIds: readonly string[]): Promise<void> {
  const business = await businessById(tx);
  const settings = await deliverSettings(tx);
  const paper = await onThePaper(tx, true);
  const held = await handoversByIds(tx, handoverIds, true);
  const open = held.filter(({ state, block }) => state === 'open' && block === '');
  if (open.length === 0) return;
  if (paper.length + open.length > MOST_ON_PAPER) throw new Refusal('paper-full');
  const own = await inOwnCurrency(tx, business, tx.now);
  const mailOn = mailDay(paper, dateInZone(tx.now, business.zone), settings.mailDays);
  const fresh: (NewParcel & { handovers: readonly Handover[] })[] = [];
  for (const group of byDoor(open)) {
    const [first] = group;
    const lines = leftOf(group, own);
    if (!first || lines.length === 0) continue;
    fresh.push({
      id: randomUUID(),
      customerId: first.customerId,
      recipient: first.recipient,
      profileId: null,
      byRule: true,
      service: '',
      mailOn,
      notice: settings.usual,
      currency: business.currency,
      paidMinor: chargedOf(group, own),
      customs: null,
      lines,
      search: searchOf(
        first.recipient,
        group.map(({ number }) => number),
        lines,
      ),
      handovers: group,
    });
  }
  const table = await packingTable(tx, business, fresh);
  await insertParcels(
    tx,
    fresh.map(({ handovers, ...parcel }) => ({
      ...parcel,
      profileId: profileByRule(table, parcel, handovers.map(({ wish }) => wish).join('\n')),
    })),
  );
  await addPacked(
    tx,
    fresh.flatMap(({ lines }) => lineMoves(lines)),
  );
  await updateHandoverState(
    tx,
    open.map(({ id }) => id),
    'done',
  );
  for (const { id, handovers } of fresh)
    await updateChargedOn(
      tx,
      handovers.filter(({ chargedOn }) => chargedOn === null).map((one) => one.id),
      id,
    );
}

/**
 * Puts sales on the paper: what is left of each goes into a parcel, those of one customer for one door together. What cannot go, or
 * lies there already, is left out. Then the carrier is asked what they cost.
 */
export const putOnPaper = desk('pack').run(async (ctx, handoverIds: readonly string[]): Promise<void> => {
  await ctx.turn((tx) => putOn(tx, handoverIds));
  await askRates(await ctx.later());
});

/** A parcel with something that nobody bought: samples, a repair that goes home, what was forgotten. */
export type FreeParcel = {
  readonly customerId: string | null;
  readonly recipient: Recipient;
  readonly lines: readonly {
    readonly what: string;
    readonly itemId: string | null;
    readonly optionId: string | null;
    readonly quantity: string;
    readonly valueMinor: bigint;
    readonly customs?: LineCustoms | null;
  }[];
  readonly customs?: CustomsPart | null;
};

/** The same of goods that are sent without a sale, or once more. Returns the parcel's id. @throws Refusal `not-found` */
export async function putFree(tx: Writing, free: FreeParcel): Promise<string> {
  const id = randomUUID();
  const business = await businessById(tx);
  const settings = await deliverSettings(tx);
  if (free.customerId) found(await customerById(tx, free.customerId));
  const paper = await onThePaper(tx);
  const lines = free.lines.map(({ what, itemId, optionId, quantity, valueMinor, customs = null }, place) => ({
    ...{ what, itemId, optionId, quantity, valueMinor, customs, place },
    handoverId: null,
    line: null,
  }));
  const parcel: NewParcel = {
    id,
    customerId: free.customerId,
    recipient: free.recipient,
    profileId: null,
    byRule: true,
    service: '',
    mailOn: mailDay(paper, dateInZone(tx.now, business.zone), settings.mailDays),
    notice: settings.usual,
    currency: business.currency,
    paidMinor: 0n,
    customs: free.customs ?? null,
    lines,
    search: searchOf(free.recipient, [], lines),
  };
  const table = await packingTable(tx, business, [parcel]);
  await insertParcels(tx, [{ ...parcel, profileId: profileByRule(table, parcel, '') }]);
  return id;
}

/** Puts a parcel without any sale on the paper. @throws Refusal `address-not-whole`, `not-found` */
export const putFreeParcel = desk('pack').run(async (ctx, free: FreeParcel): Promise<string> => {
  if (blockOf(free.recipient) !== '') throw new Refusal('address-not-whole');
  const id = await ctx.turn((tx) => putFree(tx, free));
  await askRates(await ctx.later());
  return id;
});

/** Takes parcels off the paper: their sales can be packed again. @param ids null for all that lie there without a label asked for */
export const takeOffPaper = desk('pack').turn(async (tx, ids: readonly string[] | null): Promise<void> => {
  const paper = await onThePaper(tx, true);
  await takeParcelsOff(
    tx,
    paper.filter(({ id }) => ids === null || ids.includes(id)),
  );
});

/** What of a parcel on the paper is changed. */
export type ParcelChange = {
  /** A profile by hand; null gives the choice back to the rules. */
  readonly profileId?: string | null;
  readonly grams?: number | null;
  readonly service?: string;
  readonly notice?: Extract<Notice, 'on-day' | 'first-scan' | 'held'>;
  readonly recipient?: Recipient;
};

/** A parcel that can still be changed, held. @throws Refusal `label-asked-for`, `not-found` */
export async function packingParcel(tx: Tx, id: string): Promise<Parcel> {
  const parcel = found((await parcelsByIds(tx, [id], true))[0]);
  if (parcel.state !== 'packing') throw new Refusal('label-asked-for');
  return parcel;
}

/** The wish of whoever the sales in a parcel are for. */
async function wishOf(tx: Tx, parcel: Parcel): Promise<string> {
  const ids = [...new Set(parcel.lines.flatMap(({ handoverId }) => (handoverId ? [handoverId] : [])))];
  return (await handoversByIds(tx, ids)).map(({ wish }) => wish).join('\n');
}

/** Changes a parcel on the paper, and asks the carrier anew. @throws Refusal `label-asked-for`, `address-not-whole`, `not-found` */
export const changeParcel = desk('pack').run(async (ctx, id: string, change: ParcelChange): Promise<void> => {
  await ctx.turn(async (tx) => {
    const parcel = await packingParcel(tx, id);
    const business = await businessById(tx);
    const part: Record<string, unknown> = { trouble: '' };
    if (change.recipient) {
      if (!['', 'no-number'].includes(blockOf(change.recipient))) throw new Refusal('address-not-whole');
      part.recipient = change.recipient;
      part.search = searchOf(change.recipient, [], parcel.lines);
    }
    if (change.grams !== undefined) part.grams = change.grams;
    if (change.service !== undefined) part.service = change.service;
    if (change.notice) part.notice = change.notice;
    if (change.profileId !== undefined || (change.recipient && parcel.byRule)) {
      const table = await packingTable(tx, business, [parcel]);
      const byRule = !change.profileId;
      if (change.profileId && !table.profiles.some((profile) => profile.id === change.profileId))
        throw new Refusal('not-found');
      part.byRule = byRule;
      part.profileId = byRule
        ? profileByRule(
            table,
            { ...parcel, ...(change.recipient ? { recipient: change.recipient } : {}) },
            await wishOf(tx, parcel),
          )
        : change.profileId;
    }
    await updatePacking(tx, id, part as PackingPart);
  });
  await askRates(await ctx.later());
});

/** One profile for many, by hand; null lets the rules choose for each. */
export const changeProfiles = desk('pack').run(
  async (ctx, ids: readonly string[] | null, profileId: string | null): Promise<void> => {
    await ctx.turn(async (tx) => {
      const paper = await onThePaper(tx, true);
      const own = paper.filter(({ id, state }) => state === 'packing' && (ids === null || ids.includes(id)));
      const table = await packingTable(tx, await businessById(tx), own);
      if (profileId && !table.profiles.some(({ id }) => id === profileId)) throw new Refusal('not-found');
      for (const parcel of own)
        await updatePacking(tx, parcel.id, {
          profileId: profileId ?? profileByRule(table, parcel, await wishOf(tx, parcel)),
          byRule: profileId === null,
          trouble: '',
        });
    });
    await askRates(await ctx.later());
  },
);

/** The day on which parcels on the paper leave. @param ids null for all */
export const changeMailDay = desk('pack').run(
  async (ctx, ids: readonly string[] | null, mailOn: CalendarDate): Promise<void> => {
    await ctx.turn(async (tx) => {
      const paper = await onThePaper(tx, true);
      for (const { id, state } of paper)
        if (state === 'packing' && (ids === null || ids.includes(id))) await updatePacking(tx, id, { mailOn });
    });
    await askRates(await ctx.later());
  },
);

/**
 * Leaves some of a parcel out: it can be packed later, or goes at once in a parcel of its own. All of it is not left out: then the
 * parcel is taken off.
 *
 * @param out how many of which places, decimals
 * @param apart whether they go in a parcel of their own
 * @throws Refusal `label-asked-for`, `more-than-there-is`, `nothing-left-in-it`
 */
export const leaveOut = desk('pack').run(
  async (
    ctx,
    id: string,
    out: readonly { readonly place: number; readonly quantity: string }[],
    apart: boolean,
  ): Promise<void> => {
    await ctx.turn(async (tx) => {
      const parcel = await packingParcel(tx, id);
      const wanted = new Map(out.map(({ place, quantity }) => [place, scaled(quantity)]));
      const kept: ParcelLine[] = [];
      const left: ParcelLine[] = [];
      for (const line of parcel.lines) {
        const there = scaled(line.quantity);
        const gone = wanted.get(line.place) ?? 0n;
        if (gone > there) throw new Refusal('more-than-there-is');
        const [goneMinor = 0n, keptMinor = 0n] = allocate(line.valueMinor, [gone, there - gone]);
        if (there > gone) kept.push({ ...line, quantity: decimalText(there - gone, SCALE), valueMinor: keptMinor });
        if (gone > 0n) left.push({ ...line, quantity: decimalText(gone, SCALE), valueMinor: goneMinor });
      }
      if (left.length === 0) return;
      if (kept.length === 0) throw new Refusal('nothing-left-in-it');
      const placed = (lines: readonly ParcelLine[]) => lines.map((line, place) => ({ ...line, place }));
      await deleteParcelLines(tx, [id]);
      await insertParcelLines(
        tx,
        placed(kept).map((line) => ({ ...line, parcelId: id })),
      );
      const business = await businessById(tx);
      const table = await packingTable(tx, business, [parcel]);
      const wish = await wishOf(tx, parcel);
      if (parcel.byRule)
        await updatePacking(tx, id, { profileId: profileByRule(table, { ...parcel, lines: placed(kept) }, wish) });
      if (apart) {
        const lines = placed(left);
        const { customerId, recipient, service, mailOn, notice, currency, customs } = parcel;
        await insertParcels(tx, [
          {
            ...{
              id: randomUUID(),
              customerId,
              recipient,
              service,
              mailOn,
              currency,
              customs,
              lines,
              byRule: true,
              paidMinor: 0n,
            },
            notice: notice === 'told' ? 'on-day' : notice,
            profileId: profileByRule(table, { ...parcel, lines }, wish),
            search: searchOf(recipient, [], lines),
          },
        ]);
      } else {
        const back = lineMoves(left);
        await addPacked(
          tx,
          back.map((move) => ({ ...move, quantity: `-${move.quantity}` })),
        );
        await updateHandoverState(tx, [...new Set(back.map(({ handoverId }) => handoverId))], 'open');
      }
    });
    await askRates(await ctx.later());
  },
);

/** Puts right where a sale goes that cannot go yet, or says that it goes as it is. @throws Refusal `address-not-whole`, `not-found` */
export const correctRecipient = desk('pack').turn(
  async (tx, handoverId: string, recipient: Recipient): Promise<void> => {
    const { lines } = found((await handoversByIds(tx, [handoverId]))[0]);
    const items = [...new Set(lines.flatMap(({ itemId }) => itemId ?? []))];
    await holdStock(
      tx,
      items.map((itemId) => ({ itemId, optionId: null })),
    );
    const block = blockOf(recipient);
    // Some houses have no number: whoever knows the house says so by saving it as it is.
    if (block !== '' && block !== 'no-number') throw new Refusal('address-not-whole');
    await updateRecipient(tx, handoverId, recipient, '');
    await reviseWaiting(tx, items);
  },
);

/** Asks the carrier again what the paper costs, where it did not answer before. */
export const askRatesAgain = desk('pack').run((ctx): Promise<void> => askRates(ctx));
