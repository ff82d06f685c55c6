import type { CalendarDate } from '../dates/calendar-date';

/** What the carrier says of a parcel's way. */
export const SCANS = [
  'accepted',
  'moved',
  'delayed',
  'at-door',
  'waiting',
  'not-met',
  'delivered',
  'damaged',
  'lost',
  'turned-back',
  'returned',
] as const;
export type Scan = (typeof SCANS)[number];

/** What a scan says, in words for a paper. */
export const SCAN_WORDS: Readonly<Record<Scan, string>> = {
  accepted: 'Taken over by the carrier',
  moved: 'Passed on',
  delayed: 'Delayed',
  'at-door': 'Out for delivery',
  waiting: 'Waits to be fetched',
  'not-met': 'Nobody was there',
  delivered: 'Delivered',
  damaged: 'Damaged',
  lost: 'Lost',
  'turned-back': 'Turned back',
  returned: 'Came back',
};

export const isScan = (text: string): text is Scan => SCANS.some((one) => one === text);

/** One scan; `at` an instant, `place` as the carrier names it. */
export type ScanLine = { readonly at: Date; readonly scan: Scan; readonly place: string; readonly words: string };

/** How a parcel stands. */
export const PARCEL_STATES = [
  'packing',
  'buying',
  'bought',
  'moving',
  'door',
  'waiting',
  'delivered',
  'lost',
  'damaged',
  'back',
  'returned',
  'voided',
] as const;
export type ParcelState = (typeof PARCEL_STATES)[number];

/** States in which nothing more is heard of it. */
export const ENDED = ['delivered', 'lost', 'returned', 'voided'] as const satisfies readonly ParcelState[];
/** States of a parcel that is on its way, or was: it has its label. */
export const SHIPPED = [
  'bought',
  'moving',
  'door',
  'waiting',
  'delivered',
  'lost',
  'damaged',
  'back',
  'returned',
] as const satisfies readonly ParcelState[];

export const STATE_WORDS: Readonly<Record<ParcelState, string>> = {
  packing: 'Being packed',
  buying: 'Label asked for',
  bought: 'Label bought',
  moving: 'On its way',
  door: 'Goes to the door today',
  waiting: 'Waits to be fetched',
  delivered: 'Delivered',
  lost: 'Lost',
  damaged: 'Damaged',
  back: 'On its way back',
  returned: 'Came back',
  voided: 'Label given back',
};

/** What a scan makes of a parcel; what says nothing of its state leaves it. */
const AFTER: Readonly<Record<Scan, ParcelState>> = {
  accepted: 'moving',
  moved: 'moving',
  delayed: 'moving',
  'at-door': 'door',
  waiting: 'waiting',
  'not-met': 'moving',
  delivered: 'delivered',
  damaged: 'damaged',
  lost: 'lost',
  'turned-back': 'back',
  returned: 'returned',
};

/** Scans, each once and in the order of their instants: the carrier may tell one twice, or late. */
export const inOrder = (scans: readonly ScanLine[]): ScanLine[] => {
  const seen = new Map(scans.map((one) => [`${one.at.getTime()} ${one.scan} ${one.place}`, one]));
  return [...seen.values()].sort(
    (one, other) => one.at.getTime() - other.at.getTime() || SCANS.indexOf(one.scan) - SCANS.indexOf(other.scan),
  );
};

/**
 * How a parcel stands by its scans. On its way back it stays so until it has come back; what is damaged and goes on is on its way.
 *
 * @param bought how it stands without a scan
 */
export function stateAfter(scans: readonly ScanLine[], bought: ParcelState): ParcelState {
  let state = bought;
  for (const { scan } of inOrder(scans)) {
    if (state === 'back' && scan !== 'returned' && scan !== 'lost' && scan !== 'delivered') continue;
    state = AFTER[scan];
  }
  return state;
}

/** What is on its way and should be at the door: the promised day is over. */
export const isLate = (
  { state, promisedOn }: { readonly state: ParcelState; readonly promisedOn: CalendarDate | null },
  today: CalendarDate,
): boolean => promisedOn !== null && promisedOn < today && ['moving', 'door', 'damaged'].includes(state);

/** What lies still: on its way without a scan for so many days. */
export const STILL_DAYS = 4;

/** What was done about a parcel that needed a look; empty while nothing was. */
export type Settled = '' | 'sent-again' | 'taken-back' | 'left';

export const SETTLED_WORDS: Readonly<Record<Exclude<Settled, ''>, string>> = {
  'sent-again': 'It is sent again.',
  'taken-back': 'What was in it lies in stock again.',
  left: 'Nothing more is done about it.',
};

/** What needs a look, and why; null where nothing does. */
export type Look = 'late' | 'lost' | 'damaged' | 'back' | 'returned' | 'waiting' | 'not-handed-over';

/**
 * Why a parcel needs a look.
 *
 * @param handedOver days since its mailing date without a first scan are counted from it
 */
export function lookAt(
  parcel: {
    readonly state: ParcelState;
    readonly promisedOn: CalendarDate | null;
    readonly mailOn: CalendarDate;
    readonly settled?: Settled;
  },
  today: CalendarDate,
): Look | null {
  const { state } = parcel;
  if (parcel.settled) return null;
  if (state === 'lost' || state === 'damaged' || state === 'back' || state === 'returned' || state === 'waiting')
    return state;
  if (isLate(parcel, today)) return 'late';
  return state === 'bought' && parcel.mailOn < today ? 'not-handed-over' : null;
}

export const LOOK_WORDS: Readonly<Record<Look, string>> = {
  late: 'Late',
  lost: 'Lost',
  damaged: 'Damaged',
  back: 'On its way back',
  returned: 'Came back',
  waiting: 'Waits to be fetched',
  'not-handed-over': 'Not handed over yet',
};

/** What the customer's page calls a state. */
export type CustomerState = 'packed' | 'moving' | 'door' | 'waiting' | 'delivered' | 'late' | 'trouble' | 'back';

/** A parcel as whom it is for reads of it; number and days are empty before they are told that it left. */
export type CustomersParcel = {
  readonly state: CustomerState;
  readonly lines: readonly { readonly what: string; readonly quantity: string }[];
  readonly number: string;
  readonly service: string;
  readonly promisedOn: CalendarDate | null;
  readonly arrivedOn: CalendarDate | null;
  readonly takenBy: string;
  readonly lastPlace: string;
};

/** Something that was fetched, or waits to be. */
export type CustomersFetched = {
  readonly waits: readonly { readonly what: string; readonly quantity: string }[];
  readonly fetched: readonly { readonly on: CalendarDate; readonly name: string; readonly what: readonly string[] }[];
};

/**
 * How a customer reads of a parcel: nothing before they are told that it left.
 *
 * @param told whether its notice is out, or the carrier has it
 */
export function customerState(
  parcel: { readonly state: ParcelState; readonly promisedOn: CalendarDate | null },
  told: boolean,
  today: CalendarDate,
): CustomerState {
  const { state } = parcel;
  if (state === 'packing' || state === 'buying' || state === 'voided' || (state === 'bought' && !told)) return 'packed';
  if (state === 'lost' || state === 'damaged') return 'trouble';
  if (state === 'back' || state === 'returned') return 'back';
  if (isLate(parcel, today)) return 'late';
  return state === 'bought' ? 'moving' : state;
}

/** One row of the way: a place, and from when to when the parcel was there. */
export type WayPlace = {
  readonly place: string;
  readonly from: Date | null;
  readonly to: Date | null;
  readonly scan: Scan | null;
};

/** The way as places one below the other, each where it was scanned first; what comes after the last scan has no times. */
export function wayOf(scans: readonly ScanLine[], ahead: readonly string[]): WayPlace[] {
  const lines = inOrder(scans);
  const been: WayPlace[] = [];
  for (const [at, line] of lines.entries()) {
    if (line.place === '' || line.place === been.at(-1)?.place) continue;
    const next = lines.slice(at + 1).find(({ place }) => place !== '' && place !== line.place);
    been.push({ place: line.place, from: line.at, to: next?.at ?? null, scan: line.scan });
  }
  const known = new Set(been.map(({ place }) => place));
  return [
    ...been,
    ...ahead.filter((place) => !known.has(place)).map((place) => ({ place, from: null, to: null, scan: null })),
  ];
}
