import type { CustomsPart, LineCustoms } from '@/core/customs/declaration';
import type { CalendarDate } from '@/core/dates/calendar-date';
import type { Recipient } from '@/core/parcel/handover';
import type { Notice } from '@/core/parcel/notice';
import type { BoughtLabel, KeptCheck, KeptRates } from '@/core/parcel/packed';
import type { DeliveryProof } from '@/core/parcel/proof';
import type { ParcelState, ScanLine, Settled } from '@/core/parcel/shipment';
import type { Db, Tx } from './pool';
import { many, most, NONE, records, run, type Statement, sql } from './sql';

/** What is in a parcel, of which line of which sale; none for what is sent without one. Worth in minor units of the parcel's currency. */
export type ParcelLine = {
  readonly place: number;
  readonly handoverId: string | null;
  readonly line: number | null;
  readonly what: string;
  readonly itemId: string | null;
  readonly optionId: string | null;
  readonly quantity: string;
  readonly valueMinor: bigint;
  /** What customs are told of it, where that is not as its item says. */
  readonly customs: LineCustoms | null;
};

/** A parcel, from being packed until it is there. Money in minor units of `currency`, the balance's at the carrier. */
export type Parcel = {
  readonly id: string;
  readonly customerId: string | null;
  readonly state: ParcelState;
  readonly recipient: Recipient;
  readonly profileId: string | null;
  readonly byRule: boolean;
  readonly grams: number | null;
  readonly service: string;
  readonly mailOn: CalendarDate;
  readonly notice: Notice;
  readonly toldAt: Date | null;
  readonly rates: KeptRates | null;
  readonly checked: KeptCheck | null;
  readonly trouble: string;
  readonly tries: number;
  readonly label: BoughtLabel | null;
  readonly number: string;
  readonly currency: string;
  readonly rateMinor: bigint | null;
  readonly insuranceMinor: bigint | null;
  readonly packagingMinor: bigint | null;
  readonly paidMinor: bigint | null;
  readonly boughtAt: Date | null;
  readonly byName: string;
  readonly promisedOn: CalendarDate | null;
  readonly actAt: Date | null;
  readonly lookAt: Date | null;
  readonly scannedAt: Date | null;
  readonly lateAt: Date | null;
  readonly endedAt: Date | null;
  readonly proof: DeliveryProof | null;
  readonly settled: Settled;
  readonly madeAt: Date;
  readonly customs: CustomsPart | null;
  readonly lines: readonly ParcelLine[];
};

/** The columns of a parcel `p` with its lines. */
export const PARCEL_COLUMNS = sql`p.id, p.customer_id as "customerId", p.state, p.recipient, p.profile_id as "profileId", p.by_rule as "byRule", p.grams,
  p.service, p.mail_on as "mailOn", p.notice, p.told_at as "toldAt", p.rates, p.checked, p.trouble, p.tries, p.label, p.number, p.currency,
  p.rate_minor as "rateMinor", p.insurance_minor as "insuranceMinor", p.packaging_minor as "packagingMinor", p.paid_minor as "paidMinor",
  p.bought_at as "boughtAt", p.by_name as "byName", p.promised_on as "promisedOn", p.act_at as "actAt", p.look_at as "lookAt",
  p.scanned_at as "scannedAt", p.late_at as "lateAt", p.ended_at as "endedAt", p.proof, p.settled, p.made_at as "madeAt", p.customs,
  coalesce((select jsonb_agg(jsonb_build_object('place', l.place, 'handoverId', l.handover_id, 'line', l.line, 'what', l.what,
      'itemId', l.item_id, 'optionId', l.option_id, 'quantity', trim_scale(l.quantity)::text, 'valueMinor', l.value_minor::text, 'customs', l.customs) order by l.place)
    from parcel_lines l where l.business_id = p.business_id and l.parcel_id = p.id), '[]') as lines`;

/** A parcel as the database gives it. */
export type ParcelRow = Omit<Parcel, 'lines'> & { lines: (Omit<ParcelLine, 'valueMinor'> & { valueMinor: string })[] };
/** Parcels with their worths as integers. */
export const wholeParcels = (rows: readonly ParcelRow[]): Parcel[] =>
  rows.map((row) => ({ ...row, lines: row.lines.map((line) => ({ ...line, valueMinor: BigInt(line.valueMinor) })) }));

export type NewParcel = Pick<
  Parcel,
  | 'id'
  | 'customerId'
  | 'recipient'
  | 'profileId'
  | 'byRule'
  | 'service'
  | 'mailOn'
  | 'notice'
  | 'currency'
  | 'paidMinor'
  | 'customs'
> & { readonly lines: readonly ParcelLine[]; readonly search: string };

/** Puts parcels on the paper. */
export async function insertParcels(tx: Tx, parcels: readonly NewParcel[]): Promise<void> {
  if (parcels.length === 0) return;
  const heads = parcels.map(({ lines: _, ...head }) => head);
  await run(
    tx,
    sql`insert into parcels (business_id, id, customer_id, state, recipient, profile_id, by_rule, service, mail_on, notice, currency,
          paid_minor, made_at, by_name, search, customs)
        select ${tx.businessId}, id, "customerId", 'packing', recipient, "profileId", "byRule", service, "mailOn", notice, currency,
          "paidMinor", ${tx.now}, '', search, customs
        from jsonb_to_recordset(${records(heads)}::jsonb) as given (id uuid, "customerId" uuid, recipient jsonb, "profileId" uuid,
          "byRule" boolean, service text, "mailOn" date, notice text, currency text, "paidMinor" bigint, search text, customs jsonb)`,
  );
  await insertParcelLines(
    tx,
    parcels.flatMap(({ id, lines }) => lines.map((line) => ({ ...line, parcelId: id }))),
  );
}

export const insertParcelLines = (
  tx: Tx,
  lines: readonly (ParcelLine & { readonly parcelId: string })[],
): Promise<number> =>
  run(
    tx,
    sql`insert into parcel_lines (business_id, parcel_id, place, handover_id, line, what, item_id, option_id, quantity, value_minor, customs)
        select ${tx.businessId}, "parcelId", place, "handoverId", line, what, "itemId", "optionId", quantity, "valueMinor", customs
        from jsonb_to_recordset(${records(lines)}::jsonb) as given ("parcelId" uuid, place smallint, "handoverId" uuid, line smallint,
          what text, "itemId" uuid, "optionId" uuid, quantity numeric, "valueMinor" bigint, customs jsonb)`,
  );

export const deleteParcelLines = (tx: Tx, parcelIds: readonly string[]): Promise<number> =>
  run(
    tx,
    sql`delete from parcel_lines where business_id = ${tx.businessId} and parcel_id = any(${[...parcelIds]}::uuid[])`,
  );

/** Takes parcels off the paper that have no label. */
export const deleteParcels = (tx: Tx, ids: readonly string[]): Promise<number> =>
  run(
    tx,
    sql`delete from parcels where business_id = ${tx.businessId} and id = any(${[...ids]}::uuid[]) and state = 'packing'`,
  );

/** Parcels by id. @param hold nobody else changes them until the transaction ends */
export const parcelsByIds = async (db: Db, ids: readonly string[], hold = false): Promise<Parcel[]> =>
  wholeParcels(
    await many<ParcelRow>(
      db,
      sql`select ${PARCEL_COLUMNS} from parcels p where p.business_id = ${db.businessId} and p.id = any(${[...ids]}::uuid[])
          order by p.id ${hold ? sql`for update of p` : NONE}`,
    ),
  );

/** What lies on the paper: being packed, or its label asked for; the oldest first. */
export const onThePaper = async (db: Db, hold = false): Promise<Parcel[]> =>
  wholeParcels(
    await many<ParcelRow>(
      db,
      sql`select ${PARCEL_COLUMNS} from parcels p where p.business_id = ${db.businessId} and p.state in ('packing', 'buying')
          order by p.made_at, lower(p.recipient->>'name'), p.id limit ${most(MOST_ON_PAPER)} ${hold ? sql`for update of p` : NONE}`,
    ),
  );

/** How many parcels lie on the paper at most. */
export const MOST_ON_PAPER = 1000;

/** What is written of a parcel while it is packed. */
export type PackingPart = Partial<
  Pick<
    Parcel,
    | 'recipient'
    | 'profileId'
    | 'byRule'
    | 'grams'
    | 'service'
    | 'mailOn'
    | 'notice'
    | 'rates'
    | 'trouble'
    | 'paidMinor'
    | 'customs'
  > & {
    readonly search: string;
  }
>;

const NAMES: Readonly<Record<keyof PackingPart, Statement>> = {
  recipient: sql`recipient`,
  profileId: sql`profile_id`,
  byRule: sql`by_rule`,
  grams: sql`grams`,
  service: sql`service`,
  mailOn: sql`mail_on`,
  notice: sql`notice`,
  rates: sql`rates`,
  trouble: sql`trouble`,
  paidMinor: sql`paid_minor`,
  search: sql`search`,
  customs: sql`customs`,
};

/** Changes a parcel that has no label yet. */
export const updatePacking = (tx: Tx, id: string, part: PackingPart): Promise<number> => {
  const sets = (Object.keys(part) as (keyof PackingPart)[]).map((key) => {
    const value = part[key];
    return sql`${NAMES[key]} = ${value !== null && typeof value === 'object' ? JSON.stringify(value) : value}`;
  });
  if (sets.length === 0) return Promise.resolve(0);
  return run(
    tx,
    sql`update parcels set ${sets.reduce((all, one) => sql`${all}, ${one}`)}
        where business_id = ${tx.businessId} and id = ${id} and state = 'packing'`,
  );
};

/** Keeps what the carrier answered, parcel by parcel. */
export const updateRates = (
  tx: Tx,
  rates: readonly { readonly id: string; readonly rates: KeptRates }[],
): Promise<number> =>
  run(
    tx,
    sql`update parcels p set rates = given.rates from jsonb_to_recordset(${records(rates)}::jsonb) as given (id uuid, rates jsonb)
        where p.business_id = ${tx.businessId} and p.id = given.id and p.state = 'packing'`,
  );

/** Keeps what the carrier says of addresses, parcel by parcel. */
export const updateChecked = (
  tx: Tx,
  checks: readonly { readonly id: string; readonly checked: KeptCheck }[],
): Promise<number> =>
  run(
    tx,
    sql`update parcels p set checked = given.checked from jsonb_to_recordset(${records(checks)}::jsonb) as given (id uuid, checked jsonb)
        where p.business_id = ${tx.businessId} and p.id = given.id and p.state = 'packing'`,
  );

/** Labels are asked for now: each try has its own key at the carrier, and what is wanted is fixed. */
export const updateBuying = (
  tx: Tx,
  wanted: readonly {
    readonly id: string;
    readonly label: BoughtLabel;
    readonly packagingMinor: bigint;
    readonly tries: number;
  }[],
): Promise<number> =>
  run(
    tx,
    sql`update parcels p set state = 'buying', tries = given.tries, trouble = '', label = given.label,
          packaging_minor = given."packagingMinor", by_name = given."byName"
        from jsonb_to_recordset(${records(wanted)}::jsonb) as given (id uuid, label jsonb, "packagingMinor" bigint, tries smallint, "byName" text)
        where p.business_id = ${tx.businessId} and p.id = given.id and p.state = 'packing'`,
  );

/** A label as the carrier sold it. */
export type SoldLabel = {
  readonly id: string;
  readonly number: string;
  readonly rateMinor: bigint;
  readonly insuranceMinor: bigint;
  readonly promisedOn: CalendarDate;
  readonly label: BoughtLabel;
  readonly actAt: Date | null;
  readonly lookAt: Date | null;
};

export const updateBought = (tx: Tx, sold: readonly SoldLabel[]): Promise<number> =>
  run(
    tx,
    sql`update parcels p set state = 'bought', number = given.number, rate_minor = given."rateMinor",
          insurance_minor = given."insuranceMinor", promised_on = given."promisedOn", label = given.label, bought_at = ${tx.now},
          act_at = given."actAt", look_at = given."lookAt", search = lower(given.number || ' ' || p.search)
        from jsonb_to_recordset(${records(sold)}::jsonb) as given (id uuid, number text, "rateMinor" bigint, "insuranceMinor" bigint,
          "promisedOn" date, label jsonb, "actAt" timestamptz, "lookAt" timestamptz)
        where p.business_id = ${tx.businessId} and p.id = given.id and p.state = 'buying'`,
  );

/** Labels that were refused: their parcels lie on the paper again, with the reason. */
export const updateNotBought = (
  tx: Tx,
  refused: readonly { readonly id: string; readonly trouble: string }[],
): Promise<number> =>
  run(
    tx,
    sql`update parcels p set state = 'packing', label = null, packaging_minor = null, trouble = given.trouble
        from jsonb_to_recordset(${records(refused)}::jsonb) as given (id uuid, trouble text)
        where p.business_id = ${tx.businessId} and p.id = given.id and p.state = 'buying'`,
  );

/** A label was given back: the parcel is none any more. */
export const updateVoided = (tx: Tx, id: string): Promise<number> =>
  run(
    tx,
    sql`update parcels set state = 'voided', act_at = null, look_at = null, ended_at = ${tx.now}
        where business_id = ${tx.businessId} and id = ${id} and state = 'bought'`,
  );

/** When its notice goes out, and when the carrier or the notice is due next. */
export const updateNotice = (
  tx: Tx,
  id: string,
  { mailOn, notice, toldAt, actAt }: Pick<Parcel, 'mailOn' | 'notice' | 'toldAt' | 'actAt'>,
): Promise<number> =>
  run(
    tx,
    sql`update parcels set mail_on = ${mailOn}, notice = ${notice}, told_at = ${toldAt}, act_at = ${actAt}
        where business_id = ${tx.businessId} and id = ${id}`,
  );

/** Notes what was done about a parcel that needed a look, once. */
export const updateSettled = (tx: Tx, id: string, settled: Settled): Promise<number> =>
  run(
    tx,
    sql`update parcels set settled = ${settled}, settled_at = ${tx.now}
        where business_id = ${tx.businessId} and id = ${id} and settled = ''`,
  );

/** Notes that labels were printed. */
export const updatePrinted = (tx: Tx, ids: readonly string[]): Promise<number> =>
  run(
    tx,
    sql`update parcels set printed_at = ${tx.now}
        where business_id = ${tx.businessId} and id = any(${[...ids]}::uuid[]) and printed_at is null`,
  );

/** When it is promised, as the carrier says after its day was moved. */
export const updatePromised = (
  tx: Tx,
  promised: readonly { readonly id: string; readonly promisedOn: CalendarDate }[],
): Promise<number> =>
  run(
    tx,
    sql`update parcels p set promised_on = given."promisedOn"
        from jsonb_to_recordset(${records(promised)}::jsonb) as given (id uuid, "promisedOn" date)
        where p.business_id = ${tx.businessId} and p.id = given.id`,
  );

/** How far a parcel has come. */
export type Progress = Pick<
  Parcel,
  'id' | 'state' | 'notice' | 'toldAt' | 'actAt' | 'lookAt' | 'scannedAt' | 'lateAt' | 'endedAt' | 'proof'
>;

export const updateProgress = (tx: Tx, progress: readonly Progress[]): Promise<number> =>
  run(
    tx,
    sql`update parcels p set state = given.state, notice = given.notice, told_at = given."toldAt", act_at = given."actAt",
          look_at = given."lookAt", scanned_at = given."scannedAt", late_at = given."lateAt", ended_at = given."endedAt", proof = given.proof
        from jsonb_to_recordset(${records(progress)}::jsonb) as given (id uuid, state text, notice text, "toldAt" timestamptz,
          "actAt" timestamptz, "lookAt" timestamptz, "scannedAt" timestamptz, "lateAt" timestamptz, "endedAt" timestamptz, proof jsonb)
        where p.business_id = ${tx.businessId} and p.id = given.id`,
  );

/** Parcels whose notice goes out or that the carrier is asked about by now; locked, others' left out. */
export const duePackages = async (tx: Tx, limit: number): Promise<Parcel[]> =>
  wholeParcels(
    await many<ParcelRow>(
      tx,
      sql`select ${PARCEL_COLUMNS} from parcels p where p.business_id = ${tx.businessId} and p.act_at <= ${tx.now}
          order by p.act_at, p.id limit ${most(limit)} for update of p skip locked`,
    ),
  );

/** Scans, each once. Returns those that are new. */
export const insertScans = (
  tx: Tx,
  scans: readonly (ScanLine & { readonly parcelId: string })[],
): Promise<{ parcelId: string; scan: ScanLine['scan'] }[]> =>
  many(
    tx,
    sql`insert into parcel_scans (business_id, parcel_id, at, scan, place, words)
        select ${tx.businessId}, "parcelId", at, scan, place, words
        from jsonb_to_recordset(${records(scans)}::jsonb) as given ("parcelId" uuid, at timestamptz, scan text, place text, words text)
        on conflict do nothing returning parcel_id as "parcelId", scan`,
  );

/** All scans of parcels, in their order. */
export const scansOf = (db: Db, parcelIds: readonly string[]): Promise<(ScanLine & { parcelId: string })[]> =>
  many(
    db,
    sql`select parcel_id as "parcelId", at, scan, place, words from parcel_scans
        where business_id = ${db.businessId} and parcel_id = any(${[...parcelIds]}::uuid[]) order by at`,
  );
