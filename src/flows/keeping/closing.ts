/** Closing a business: what is open is dealt with first, data taken along, kept as long as the law says, then erased. */
import type { CalendarDate } from '@/core/dates/calendar-date';
import { dateInZone } from '@/core/dates/zone';
import { eraseOn, keepingRule, TAKEN_ALONG_DAYS } from '@/core/keeping/keeping';
import { OF_BUSINESS, type OpenThing, openThings } from '@/core/keeping/open-things';
import { businessById } from '@/db/businesses';
import { endOwnDoings, keepingState, openCounts, updateClosed } from '@/db/keeping';
import { everybodyHere } from '@/db/people';
import type { Db } from '@/db/pool';
import { desk, type Writing } from '@/flows/door/operation';
import { Refusal } from '@/flows/door/refusal';
import { noteChange } from '@/flows/log/log';
import { queueMessages } from '@/flows/message/queue-message';

export type ClosingView = {
  readonly name: string;
  readonly open: readonly OpenThing[];
  readonly takenAlongAt: Date | null;
  /** Whether it was taken along lately enough to close. */
  readonly isTakenAlong: boolean;
  readonly closedAt: Date | null;
  /** The day on which it is erased: as closed, or where it were closed today. */
  readonly eraseOn: CalendarDate;
};

const DAY_MS = 86_400_000;

async function viewOf(db: Db): Promise<ClosingView> {
  const { name, country, zone } = await businessById(db);
  const state = await keepingState(db);
  const { takenAlongAt, closedAt } = state;
  return {
    name,
    open: openThings(await openCounts(db, null), OF_BUSINESS),
    takenAlongAt,
    isTakenAlong: takenAlongAt !== null && db.now.getTime() - takenAlongAt.getTime() < TAKEN_ALONG_DAYS * DAY_MS,
    closedAt,
    eraseOn: state.eraseOn ?? eraseOn(dateInZone(db.now, zone), keepingRule(state.kept, country)),
  };
}

export const closingView = desk('people').read((db): Promise<ClosingView> => viewOf(db));

/** Since when a business is closed, and when it is erased, for everybody who works in it; null while it is open. */
export const closedSince = desk('own').read(
  async (db): Promise<{ readonly closedAt: Date; readonly eraseOn: CalendarDate } | null> => {
    const { closedAt, eraseOn: on } = await keepingState(db);
    return closedAt && on ? { closedAt, eraseOn: on } : null;
  },
);

async function tellEverybody(tx: Writing, until: CalendarDate | null): Promise<void> {
  const people = await everybodyHere(tx);
  await queueMessages(
    tx,
    people.map((one) => ({
      kind: 'business-closed' as const,
      key: `business-closed:${tx.now.getTime()}:${one.id}`,
      toName: one.name,
      toAddress: one.email,
      details: until ? { until } : {},
    })),
  );
}

/**
 * Closes the business: nothing is written in it any more, what it offers is closed, and its data is kept until the law lets go.
 *
 * @param typed its name, typed by whoever closes it
 * @throws Refusal `name-differs`, `still-open` with what is open, `take-along-first`, `prove-again`
 */
export const closeBusiness = desk('people', { again: true }).turn(async (tx, typed: string): Promise<void> => {
  const view = await viewOf(tx);
  if (typed.trim().toLowerCase() !== view.name.trim().toLowerCase()) throw new Refusal('name-differs');
  if (view.open.length > 0)
    throw new Refusal(
      'still-open',
      view.open.map(({ kind, words }) => ({ field: kind, words: `${words}.` })),
    );
  if (!view.isTakenAlong) throw new Refusal('take-along-first');
  await endOwnDoings(tx);
  await updateClosed(tx, view.eraseOn);
  await noteChange(tx, 'closed', [{ what: 'Erased on', from: '', to: view.eraseOn }]);
  await tellEverybody(tx, view.eraseOn);
});

/** Opens it again, before it is erased; what was ended stays ended. @throws Refusal `prove-again` */
export const reopenBusiness = desk('people', { again: true, whenClosed: true }).turn(async (tx): Promise<void> => {
  const { closedAt, eraseOn: on } = await keepingState(tx);
  if (!closedAt) return;
  await updateClosed(tx, null);
  await noteChange(tx, 'reopened', [{ what: 'Erased on', from: on ?? '', to: '' }]);
  await tellEverybody(tx, null);
});
