/** What there is to do on Today, in the order in which it is read: what nobody else will do first. */
export const WORK_GROUPS = [
  'try',
  'defend',
  'answer',
  'decide',
  'charge',
  'card',
  'remind',
  'resend',
  'deliver',
  'payout',
  'match',
  'compare',
  'order',
  'finish',
] as const;
export type WorkGroup = (typeof WORK_GROUPS)[number];

/** One thing that needs a hand, or that mends itself (`waits`). */
export type WorkItem<Of> = {
  readonly group: WorkGroup | 'waits';
  /** Whose it is; null where it is nobody's. */
  readonly who: string | null;
  /** The invoices, plans and payments that it is about: what another item is about already is not told twice. None where it stands beside them. */
  readonly things: readonly string[];
  readonly of: Of;
};

/** All there is of one person: what is done first, what more is done by the same action, and what else there is. */
export type WorkRow<Of> = {
  readonly group: WorkGroup | 'waits';
  readonly first: Of;
  readonly same: readonly Of[];
  readonly also: readonly WorkItem<Of>[];
};

export type WorkList<Of> = {
  readonly groups: readonly { readonly group: WorkGroup; readonly rows: readonly WorkRow<Of>[] }[];
  readonly waits: readonly WorkRow<Of>[];
};

/**
 * Puts what needs a hand into groups by what is done about it. Nobody is named twice, and nothing is: a thing stands where its most
 * pressing action is, and a person's other things stand in that person's row. Within a group the order stays.
 */
export function workList<Of>(items: readonly WorkItem<Of>[]): WorkList<Of> {
  const order = [...WORK_GROUPS, 'waits'] as const;
  const sorted = order.flatMap((group) => items.filter((item) => item.group === group));
  const told = new Set<string>();
  const rows: { group: WorkGroup | 'waits'; first: Of; same: Of[]; also: WorkItem<Of>[] }[] = [];
  const ofPerson = new Map<string, (typeof rows)[number]>();
  for (const item of sorted) {
    if (item.things.some((thing) => told.has(thing))) continue;
    for (const thing of item.things) told.add(thing);
    const row = item.who === null ? undefined : ofPerson.get(item.who);
    if (!row) {
      const begun = { group: item.group, first: item.of, same: [], also: [] };
      rows.push(begun);
      if (item.who !== null) ofPerson.set(item.who, begun);
    } else if (row.group === item.group) row.same.push(item.of);
    else row.also.push(item);
  }
  return {
    groups: WORK_GROUPS.flatMap((group) => {
      const own = rows.filter((row) => row.group === group);
      return own.length > 0 ? [{ group, rows: own }] : [];
    }),
    waits: rows.filter(({ group }) => group === 'waits'),
  };
}
