import { isDeclared } from '../customs/border';
import {
  type CustomsPart,
  type CustomsProblem,
  customsProblems,
  type Declaration,
  declarationOf,
  type LineCustoms,
  USUAL_CUSTOMS,
} from '../customs/declaration';
import type { CustomsForm } from '../customs/form';
import type { CalendarDate } from '../dates/calendar-date';
import { goingOf, type Item, type ItemGoing } from '../item/item';
import type { Address } from '../place/address';
import { costOf, type ParcelCost } from './cost';
import type { Recipient } from './handover';
import {
  contentGrams,
  goesInto,
  insuredMinor,
  isTooHeavy,
  isWeighed,
  type Measured,
  type ParcelProfile,
  type ParcelRule,
  profileFor,
} from './profile';
import { cheapestFirst, type RateAnswer, type ServiceRate, type ServiceRefusal } from './service';

/** A parcel as it is described to the carrier: grams, millimetres, minor units of the balance's currency. */
export type ParcelSpec = {
  readonly name: string;
  readonly from: Address;
  readonly to: Address;
  readonly grams: number;
  readonly lengthMm: number;
  readonly widthMm: number;
  readonly heightMm: number;
  readonly insuredMinor: number;
  readonly signature: boolean;
  readonly mailOn: CalendarDate;
  /** What customs are told, where a border asks. */
  readonly customs?: Declaration;
};

/** What the carrier answered, and for what: an answer to something else says nothing. */
export type KeptRates = { readonly spec: string; readonly answer: RateAnswer };

/** What the carrier says of an address, and of which: known, on no map, or how it would write it. */
export type KeptCheck = {
  readonly of: string;
  readonly says: 'known' | 'unknown' | 'proposal';
  readonly address: Address | null;
};

/** For what a check holds. */
export const addressKey = (address: Address): string => JSON.stringify(address);

/** What the carrier says of where a parcel goes; null where it was not asked about exactly this address. */
export const checkOf = (parcel: {
  readonly recipient: Recipient;
  readonly checked: KeptCheck | null;
}): KeptCheck | null => (parcel.checked?.of === addressKey(parcel.recipient.address) ? parcel.checked : null);

/** A label as it was asked for, and with which service. */
export type BoughtLabel = {
  readonly spec: ParcelSpec;
  readonly service: string;
  readonly serviceName: string;
  readonly profile: string;
  readonly sender: string;
  /** The customs form that goes with it; none where no border asks. */
  readonly customsForm?: CustomsForm;
};

/** For what an answer holds. */
export const specKey = (spec: ParcelSpec): string => JSON.stringify(spec);

/** What is in a parcel, as far as packing needs it. */
export type PackedLine = {
  readonly what: string;
  readonly customs: LineCustoms | null;
  readonly itemId: string | null;
  readonly optionId: string | null;
  readonly quantity: string;
  readonly valueMinor: bigint;
};

/** A parcel as it lies on the paper. */
export type PackingParcel = {
  readonly recipient: Recipient;
  readonly profileId: string | null;
  readonly byRule: boolean;
  /** As somebody weighed it, with its packing; null for as reckoned. */
  readonly grams: number | null;
  readonly service: string;
  readonly mailOn: CalendarDate;
  readonly rates: KeptRates | null;
  readonly paidMinor: bigint | null;
  readonly currency: string;
  /** What was said for customs; null for as usual. */
  readonly customs: CustomsPart | null;
  readonly lines: readonly PackedLine[];
};

/** What parcels are packed with. */
export type PackingSetting = {
  readonly items: ReadonlyMap<string, Item>;
  readonly profiles: readonly ParcelProfile[];
  /** Where parcels leave from. */
  readonly from: Address;
  /** The business's own reference for customs. */
  readonly customsReference: string;
};

/** What keeps a parcel from being bought a label, or should be known before. */
export type PackingFault =
  | 'no-profile'
  | 'customs'
  | 'not-fitting'
  | 'too-heavy'
  | 'not-weighed'
  | 'refused'
  | 'no-service'
  | 'not-known';

/** Of these a label can be bought all the same. */
const MERE_WARNINGS: readonly PackingFault[] = ['not-weighed'];

/** A parcel worked out: its profile, what it weighs and costs, and what keeps it. */
export type Packing = {
  readonly profile: ParcelProfile | null;
  readonly grams: number;
  readonly spec: ParcelSpec | null;
  /** What the carrier answered for exactly this parcel; null while it was not asked. */
  readonly answer: RateAnswer | null;
  readonly rate: ServiceRate | null;
  readonly refusedBecause: ServiceRefusal | null;
  readonly cost: ParcelCost;
  readonly faults: readonly PackingFault[];
  /** What customs are told; null where no border asks. */
  readonly declaration: Declaration | null;
  readonly customsProblems: readonly CustomsProblem[];
};

const UNMEASURED: Measured = { grams: 0, lengthMm: 0, widthMm: 0, heightMm: 0 };

/** How the thing of a line goes, as its item or its option says; null for what is no item. */
export function goingOfLine(
  { itemId, optionId }: Pick<PackedLine, 'itemId' | 'optionId'>,
  items: ReadonlyMap<string, Item>,
): ItemGoing | null {
  const item = itemId ? items.get(itemId) : undefined;
  return item ? goingOf(item, item.options.find(({ id }) => id === optionId) ?? null) : null;
}

/** What is in a parcel, weighed and measured as its items say. */
export const packedOf = (
  lines: readonly Pick<PackedLine, 'itemId' | 'optionId' | 'quantity'>[],
  items: ReadonlyMap<string, Item>,
) =>
  lines.map(({ itemId, optionId, quantity }) => {
    return { itemId, quantity, one: goingOfLine({ itemId, optionId }, items) ?? UNMEASURED };
  });

/** What customs are told of what goes from one address to another; null where no border asks. */
export const declared = (
  parcel: Pick<PackingParcel, 'currency' | 'customs'> & { readonly lines: readonly PackedLine[] },
  { from, to }: { readonly from: Address; readonly to: Address },
  { items, customsReference }: Pick<PackingSetting, 'items' | 'customsReference'>,
): Declaration | null =>
  isDeclared(from, to)
    ? declarationOf(
        parcel.lines.map(({ what, quantity, valueMinor, customs, itemId, optionId }) => {
          return { what, quantity, valueMinor, customs, item: goingOfLine({ itemId, optionId }, items) };
        }),
        parcel.customs ?? USUAL_CUSTOMS,
        { currency: parcel.currency, reference: customsReference },
      )
    : null;

/** Which profile the rules choose for a parcel. @param home the business's country */
export const ruledProfile = (
  parcel: Pick<PackingParcel, 'recipient'> & { readonly lines: readonly Omit<PackedLine, 'what' | 'customs'>[] },
  wish: string,
  { items, profiles }: Pick<PackingSetting, 'items' | 'profiles'>,
  rules: readonly ParcelRule[],
  home: string,
) =>
  profileFor(
    {
      country: parcel.recipient.address.country,
      packed: packedOf(parcel.lines, items),
      valueMinor: parcel.lines.reduce((sum, { valueMinor }) => sum + valueMinor, 0n),
      wish,
    },
    rules,
    profiles,
    home,
  );

/** What the carrier is asked of a parcel; null where it has no profile. */
function specOf(
  parcel: PackingParcel,
  profile: ParcelProfile | null,
  grams: number,
  from: Address,
  customs: Declaration | null,
): ParcelSpec | null {
  if (!profile) return null;
  const valueMinor = parcel.lines.reduce((sum, line) => sum + line.valueMinor, 0n);
  const { lengthMm, widthMm, heightMm, signature } = profile;
  return {
    name: parcel.recipient.name,
    from,
    to: parcel.recipient.address,
    grams,
    lengthMm,
    widthMm,
    heightMm,
    insuredMinor: Number(insuredMinor(profile.insuring, valueMinor)),
    signature,
    mailOn: parcel.mailOn,
    ...(customs ? { customs } : {}),
  };
}

/** The rate of the service that a parcel goes with: the one chosen for it, its profile's, else the cheapest that takes it. */
function chosenRate(answer: RateAnswer, service: string): Pick<Packing, 'rate' | 'refusedBecause'> {
  if (service === '') return { rate: cheapestFirst(answer.rates)[0] ?? null, refusedBecause: null };
  const refused = answer.refused.find((one) => one.service === service);
  return {
    rate: answer.rates.find((one) => one.service === service) ?? null,
    refusedBecause: refused?.why ?? null,
  };
}

/** Works a parcel out. */
export function packing(parcel: PackingParcel, setting: PackingSetting): Packing {
  const { items, profiles, from } = setting;
  const profile = profiles.find(({ id }) => id === parcel.profileId) ?? null;
  const packed = packedOf(parcel.lines, items);
  const content = contentGrams(packed);
  // A parcel of things that nobody weighed weighs a gram at least: no carrier takes one of none.
  const grams = parcel.grams ?? Math.max(1, content + (profile?.ownGrams ?? 0));
  const declaration = declared(parcel, { from, to: parcel.recipient.address }, setting);
  const missing = declaration ? customsProblems(declaration, grams) : [];
  const spec = specOf(parcel, profile, grams, from, declaration);
  const answer = spec && parcel.rates?.spec === specKey(spec) ? parcel.rates.answer : null;
  const { rate, refusedBecause } = answer
    ? chosenRate(answer, parcel.service || profile?.service || '')
    : { rate: null, refusedBecause: null };
  const faults: PackingFault[] = [
    ...(profile ? [] : (['no-profile'] as const)),
    ...(profile && !goesInto(packed, profile) ? (['not-fitting'] as const) : []),
    ...(profile && isTooHeavy(grams - profile.ownGrams, profile) ? (['too-heavy'] as const) : []),
    ...(parcel.grams === null && !isWeighed(packed) ? (['not-weighed'] as const) : []),
    ...(missing.length > 0 ? (['customs'] as const) : []),
    ...(answer && !rate ? ([refusedBecause ? 'refused' : 'no-service'] as const) : []),
    ...(spec && !answer ? (['not-known'] as const) : []),
  ];
  return {
    profile,
    grams,
    spec,
    answer,
    rate,
    refusedBecause,
    cost: costOf(rate, { packagingMinor: profile?.packagingMinor ?? 0, paidMinor: parcel.paidMinor }),
    faults,
    declaration,
    customsProblems: missing,
  };
}

/** Whether a label can be bought for it. */
export const isBuyable = ({ faults, rate }: Packing): boolean =>
  rate !== null && faults.every((fault) => MERE_WARNINGS.includes(fault));
