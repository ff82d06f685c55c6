import type { Business } from '@/core/business/business';
import { USUAL_CUSTOMS } from '@/core/customs/declaration';
import { clockTime, shortDate } from '@/core/dates/date-text';
import { dateInZone } from '@/core/dates/zone';
import { jsonMinor } from '@/core/money/money';
import { type LotCost, leftOver, totalCost } from '@/core/parcel/cost';
import { BLOCK_WORDS } from '@/core/parcel/handover';
import { contentWords } from '@/core/parcel/lot';
import { type Measures, sizeText, weightText } from '@/core/parcel/measure';
import { spacedNumber } from '@/core/parcel/number';
import { checkOf, type PackingFault } from '@/core/parcel/packed';
import { REFUSED_WORDS, rateTotal } from '@/core/parcel/service';
import { ENDED, LOOK_WORDS, STATE_WORDS } from '@/core/parcel/shipment';
import type { ShipmentList, ShipmentRow } from '@/flows/parcel/shipments';
import type { PackedRow, PaperCosts, ToPack } from '@/flows/parcel/to-pack';
import { CUSTOMS_ASK, type CustomsShown, type PackRowShown, type PaperRowShown } from '@/ui/pack/shown';
import type { ShipmentRowShown } from '@/ui/shipment/shown';

/** A sale that waits, as the list shows it. */
export const jsonToPack = ({ readyAt, block, ...row }: ToPack): PackRowShown => ({
  ...row,
  readyAt: readyAt.toISOString(),
  block,
  kept: block === '' ? '' : block === 'no-stock' ? `${BLOCK_WORDS[block]}: ${row.what}` : BLOCK_WORDS[block],
});

const FAULT_WORDS: Readonly<Record<Exclude<PackingFault, 'refused'>, string>> = {
  'no-profile': 'No rule knows it: choose a profile',
  'not-fitting': 'Does not fit into this box',
  'too-heavy': 'Heavier than this box bears',
  'not-weighed': 'Weight not known: reckoned without',
  'no-service': 'No service takes it',
  'not-known': 'Cost not known yet',
  customs: CUSTOMS_ASK,
};

const faultWords = ({ faults, refusedBecause }: PackedRow): string[] =>
  faults.map((fault) => (fault === 'refused' ? capital(REFUSED_WORDS[refusedBecause ?? 'other']) : FAULT_WORDS[fault]));

const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);

const WARNINGS = {
  past: 'Its mailing date has passed',
  'no-mail-day': 'No parcels leave on that day',
  'after-wanted': 'Comes later than it was wanted',
} as const;

/** What customs are told, as it is changed; null where no border asks. @param sums whether it may say what it is worth */
function customsShown({ parcel, customsProblems, going, isDeclared }: PackedRow, sums: boolean): CustomsShown | null {
  if (!isDeclared) return null;
  return {
    part: parcel.customs ?? USUAL_CUSTOMS,
    problems: customsProblems,
    lines: parcel.lines.map(({ place, what, quantity, valueMinor, customs }, at) => ({
      ...{ place, what, quantity },
      declaredAs: customs?.declaredAs ?? '',
      hsCode: customs?.hsCode || going[at]?.hsCode || '',
      origin: customs?.origin || going[at]?.origin || '',
      netGrams: customs?.netGrams ?? going[at]?.grams ?? 0,
      minor: sums ? jsonMinor(valueMinor) : null,
    })),
  };
}

/** A parcel on the paper; what it costs only for who sees sums. */
export function jsonPaperRow(
  row: PackedRow,
  costs: PaperCosts | null,
  { locale, measures }: { locale: string; measures: Measures },
): PaperRowShown {
  const { parcel, profile } = row;
  const cost = costs?.parcels[parcel.id];
  const left = cost ? leftOver(cost) : null;
  const total = cost ? totalCost(cost) : null;
  const check = checkOf(parcel);
  const json = (minor: bigint | null) => (minor === null ? null : jsonMinor(minor));
  return {
    id: parcel.id,
    state: parcel.state === 'buying' ? 'buying' : 'packing',
    name: parcel.recipient.name,
    recipient: parcel.recipient,
    what: row.what,
    where: [parcel.recipient.address.city, parcel.recipient.address.region.replace(/^[A-Z]{2}-/, '')]
      .filter(Boolean)
      .join(', '),
    abroad: parcel.recipient.address.country,
    profileId: profile?.id ?? '',
    profile: profile?.name ?? '',
    size: profile ? sizeText(profile, measures, locale) : '',
    sides: profile ? { lengthMm: profile.lengthMm, widthMm: profile.widthMm } : null,
    byRule: parcel.byRule,
    grams: row.grams,
    weight: weightText(row.grams, measures, locale),
    weighed: parcel.grams !== null,
    service: parcel.service,
    serviceName: row.serviceName,
    promised: row.promisedOn ? shortDate(row.promisedOn, locale, { weekday: true }) : '',
    mailOn: parcel.mailOn,
    notice: parcel.notice === 'told' ? 'on-day' : parcel.notice,
    faults: faultWords(row),
    // What holds for a day stands once above the lot.
    warnings: [
      ...(row.warnings.includes('after-wanted') ? [WARNINGS['after-wanted']] : []),
      ...(check?.says === 'unknown' ? ['The carrier does not know this address'] : []),
      ...(check?.says === 'proposal' ? ['The carrier writes the address otherwise'] : []),
    ],
    proposal: check?.address ?? null,
    dayWarnings: row.warnings.filter((warning) => warning !== 'after-wanted').map((warning) => WARNINGS[warning]),
    trouble: parcel.trouble,
    isBuyable: row.isBuyable,
    lines: parcel.lines.map(({ place, what, quantity, itemId }) => ({ place, what, quantity, itemId })),
    shelves: row.shelves,
    sales: row.sales.map(({ number, invoiceId, orderId, offer }) => ({ number, invoiceId, orderId, offer })),
    customs: customsShown(row, costs !== null),
    wish: row.sales
      .map(({ wish }) => wish)
      .filter(Boolean)
      .join('\n'),
    wantedBy:
      row.sales.flatMap(({ wantedBy }) => (wantedBy ? [shortDate(wantedBy, locale, { weekday: true })] : []))[0] ?? '',
    cost: cost
      ? {
          paid: json(cost.paidMinor),
          rate: json(cost.rateMinor),
          packaging: jsonMinor(cost.packagingMinor),
          insurance: jsonMinor(cost.insuranceMinor),
          total: json(total),
          left: json(left),
          rates: cost.rates.map((rate) => ({
            service: rate.service,
            name: rate.name,
            minor: rateTotal(rate),
            promised: shortDate(rate.promisedOn, locale, { weekday: true }),
          })),
        }
      : null,
  };
}

/** What the lot comes to, as JSON. */
export const jsonLot = (lot: LotCost) => ({
  paid: jsonMinor(lot.paidMinor),
  rate: jsonMinor(lot.rateMinor),
  packaging: jsonMinor(lot.packagingMinor),
  insurance: jsonMinor(lot.insuranceMinor),
  cost: jsonMinor(lot.costMinor),
  left: jsonMinor(lot.leftMinor),
  carrier: jsonMinor(lot.carrierMinor),
  unknown: lot.unknown,
});

/** A shipment as a list shows it: grouped by what there is to do, then by how far it is. */
export function jsonShipment(
  { parcel, look }: ShipmentRow,
  { business, today }: { business: Business; today: ShipmentList['today'] },
): ShipmentRowShown {
  const { deskLocale: locale, zone } = business;
  const day = (on: Parameters<typeof shortDate>[0]) => shortDate(on, locale, { weekday: true });
  const ended = ENDED.some((one) => one === parcel.state);
  const endedOn = parcel.endedAt ? dateInZone(parcel.endedAt, zone) : null;
  const group = look
    ? 'Needs a look'
    : parcel.state === 'bought'
      ? parcel.mailOn > today
        ? `Not handed over, for ${day(parcel.mailOn)}`
        : 'To be handed over today'
      : parcel.state === 'voided'
        ? 'Labels given back'
        : ended
          ? 'At the door'
          : 'On its way';
  return {
    id: parcel.id,
    href: `/deliver/shipments/${parcel.id}`,
    name: parcel.recipient.name,
    under: `${look ? LOOK_WORDS[look] : STATE_WORDS[parcel.state]} · ${contentWords(parcel.lines)}`,
    state: parcel.state,
    look,
    right:
      look === 'late' && parcel.promisedOn
        ? 'late'
        : parcel.state === 'bought'
          ? parcel.notice === 'told'
            ? 'told'
            : 'not told yet'
          : parcel.state === 'voided'
            ? ''
            : (parcel.recipient.address.city ?? ''),
    when:
      ended && endedOn
        ? `${day(endedOn)}${parcel.state === 'delivered' && parcel.scannedAt ? ` ${clockTime(parcel.scannedAt, zone)}` : ''}`
        : parcel.promisedOn
          ? day(parcel.promisedOn)
          : '',
    number: spacedNumber(parcel.number),
    notTold: parcel.state === 'bought' && parcel.notice !== 'told',
    group,
  };
}
