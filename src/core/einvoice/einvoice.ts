import type { PrintedInvoice } from '../invoice/printed';
import { minorDigits } from '../money/currency';
import { decimalText, powerOfTen, roundedQuotient, scaledDecimal } from '../money/decimal';

/** A tax category of EN 16931 (BT-151): standard, zero rated, exempt, reverse charge, outside the scope. */
export type Category = 'S' | 'Z' | 'E' | 'AE' | 'O';

/** A combination of category and rate; rates in percent as decimal strings. */
export type TaxGroup = {
  readonly category: Category;
  readonly rate: string;
  /** Taxable amount and tax, minor units. */
  readonly base: bigint;
  readonly amount: bigint;
  readonly reason: string;
};

/** The figures of an e-invoice (EN 16931, BG-22, 23, 25), minor units; what the business rules are checked on. */
export type EInvoice = {
  readonly currency: string;
  readonly lines: readonly {
    readonly name: string;
    readonly quantity: string;
    readonly unit: string;
    /** Price of one without tax, a decimal string. */
    readonly price: string;
    readonly allowance: bigint;
    readonly net: bigint;
    readonly category: Category;
    readonly rate: string;
    readonly note: string;
    readonly on: string;
  }[];
  readonly allowances: readonly {
    readonly amount: bigint;
    readonly category: Category;
    readonly rate: string;
    readonly reason: string;
  }[];
  readonly charges: readonly {
    readonly amount: bigint;
    readonly category: Category;
    readonly rate: string;
    readonly reason: string;
  }[];
  readonly groups: readonly TaxGroup[];
  readonly sumOfLines: bigint;
  readonly allowanceTotal: bigint;
  readonly chargeTotal: bigint;
  readonly withoutTax: bigint;
  readonly taxTotal: bigint;
  readonly withTax: bigint;
  readonly paid: bigint;
  readonly due: bigint;
};

/** A rule that does not hold, by its name in the standard. */
export type BrokenRule = { readonly rule: string; readonly words: string };

const sum = (list: readonly bigint[]): bigint => list.reduce((a, b) => a + b, 0n);

/** `rate` percent of a base, rounded half away from zero to the minor unit. */
const taxOn = (base: bigint, rate: string): bigint =>
  roundedQuotient(base * scaledDecimal(rate, 4, 'bad_rate', 'rate'), 1_000_000n);

/**
 * The sums' rules of EN 16931-1 (6.4.2, conditions and integrity constraints) that apply to invoices without rounding and
 * prepaid parts of other kinds.
 */
export const SUM_RULES: Readonly<
  Record<string, { readonly words: string; readonly holds: (of: EInvoice) => boolean }>
> = {
  'BR-CO-10': {
    words: 'The sum of line net amounts is the sum of all lines.',
    holds: (of) => of.sumOfLines === sum(of.lines.map(({ net }) => net)),
  },
  'BR-CO-11': {
    words: 'The sum of allowances is the sum of all allowances on the document.',
    holds: (of) => of.allowanceTotal === sum(of.allowances.map(({ amount }) => amount)),
  },
  'BR-CO-12': {
    words: 'The sum of charges is the sum of all charges on the document.',
    holds: (of) => of.chargeTotal === sum(of.charges.map(({ amount }) => amount)),
  },
  'BR-CO-13': {
    words: 'The total without tax is lines less allowances plus charges.',
    holds: (of) => of.withoutTax === of.sumOfLines - of.allowanceTotal + of.chargeTotal,
  },
  'BR-CO-14': {
    words: 'The tax total is the sum of the tax of all categories.',
    holds: (of) => of.taxTotal === sum(of.groups.map(({ amount }) => amount)),
  },
  'BR-CO-15': {
    words: 'The total with tax is the total without plus the tax.',
    holds: (of) => of.withTax === of.withoutTax + of.taxTotal,
  },
  'BR-CO-16': {
    words: 'The amount due is the total with tax less what was paid.',
    holds: (of) => of.due === of.withTax - of.paid,
  },
  'BR-CO-17': {
    words: 'The tax of a category is its taxable amount times its rate, rounded.',
    holds: (of) => of.groups.every(({ base, rate, amount }) => amount === taxOn(base, rate)),
  },
  'BR-CO-18': {
    words: 'There is at least one tax breakdown.',
    holds: (of) => of.groups.length > 0,
  },
  'BR-S-08': {
    words: 'The taxable amount of a category and rate is the sum of its lines less its allowances plus its charges.',
    holds: (of) =>
      of.groups.every(({ category, rate, base }) => {
        const own = <T extends { category: Category; rate: string }>(list: readonly T[]) =>
          list.filter((one) => one.category === category && one.rate === rate);
        const worth =
          sum(own(of.lines).map(({ net }) => net)) -
          sum(own(of.allowances).map(({ amount }) => amount)) +
          sum(own(of.charges).map(({ amount }) => amount));
        return base === worth;
      }),
  },
};

/** The rules that the figures break; empty for a good e-invoice. */
export const brokenRules = (of: EInvoice): BrokenRule[] =>
  Object.entries(SUM_RULES)
    .filter(([, { holds }]) => !holds(of))
    .map(([rule, { words }]) => ({ rule, words }));

/** Unit codes of UN/ECE recommendation 20. */
export const UNIT_CODES = {
  piece: 'H87',
  hour: 'HUR',
  day: 'DAY',
  week: 'WEE',
  month: 'MON',
  night: 'C62',
  kilogram: 'KGM',
  metre: 'MTR',
  litre: 'LTR',
  flat: 'LS',
} as const;

/** A share of a discount on one group, so that each group's base is what it was taxed on. */
type Weighed = { readonly key: string; readonly minor: bigint };

function groupOf(invoice: PrintedInvoice, taxIds: readonly string[]): { category: Category; rate: string } {
  if (invoice.exempt) return { category: 'E', rate: '0' };
  const rates = invoice.taxes
    .filter((tax) => taxIds.includes(tax.id))
    .map((tax) => scaledDecimal(tax.rate, 4, 'bad_rate', 'rate'));
  if (rates.length === 0) return { category: 'O', rate: '0' };
  const rate = decimalText(sum(rates), 4);
  return { category: rate === '0' ? 'Z' : 'S', rate };
}

const keyOf = (group: { category: Category; rate: string }): string => `${group.category} ${group.rate}`;

/** The price of one without the tax of its group, to 6 digits: an e-invoice states prices without tax. */
function priceWithout(price: string, rate: string): string {
  const scaled = scaledDecimal(price, 6, 'bad_price', 'price');
  return decimalText(roundedQuotient(scaled * 1_000_000n, 1_000_000n + scaledDecimal(rate, 4, 'bad_rate', 'rate')), 6);
}

/**
 * A printed invoice's figures as EN 16931 wants them: prices without tax, one tax breakdown for each category and rate, and
 * the discount on the document shared out over them as it was for the taxes.
 *
 * The standard works the tax out of each group's rounded base, so where several taxes meet on a line, or the prices hold the
 * tax, a unit may be left between its total and ours; it is then stated as a charge or an allowance outside the scope of tax
 * named "Rounding", and the total stays what the customer pays.
 *
 * @param paidMinor what has been paid and credited, minor units
 */
export function eInvoiceOf(invoice: PrintedInvoice, paidMinor = 0n): EInvoice {
  const inside = invoice.pricesIncludeTax;
  const lines = invoice.lines.map((line) => {
    const group = groupOf(invoice, line.taxIds ?? []);
    const net = BigInt(line.net);
    const without = inside ? net - taxInside(net, group.rate) : net;
    return { line, group, net: without };
  });
  const weights: Weighed[] = lines.map(({ group, line }) => ({ key: keyOf(group), minor: BigInt(line.net) }));
  const groups = new Map<string, { category: Category; rate: string }>();
  for (const { group } of lines) groups.set(keyOf(group), group);
  const shares = discountShares(BigInt(invoice.discount), weights);
  const allowances = [...shares].flatMap(([key, minor]) => {
    const group = groups.get(key);
    if (!group || minor === 0n) return [];
    return [{ amount: inside ? minor - taxInside(minor, group.rate) : minor, ...group, reason: 'Discount' }];
  });
  const charge = (minor: number, taxIds: readonly string[], reason: string) => {
    const group = groupOf(invoice, taxIds);
    groups.set(keyOf(group), group);
    const whole = BigInt(minor);
    return { amount: inside ? whole - taxInside(whole, group.rate) : whole, ...group, reason };
  };
  const charges = [
    ...(invoice.delivery && invoice.delivery.amount > 0
      ? [charge(invoice.delivery.amount, invoice.delivery.taxIds, 'Delivery')]
      : []),
    ...invoice.fees.map((fee) => charge(fee.amount, fee.taxIds, fee.name)),
    // A flat tax has no rate: it is stated as a charge that no other tax is on.
    ...invoice.flatTaxes.map((tax) => charge(tax.amount, [], tax.name)),
  ];
  const parts = { lines, groups, paid: paidMinor };
  const worked = withTotals(invoice, { ...parts, allowances, charges });
  const left = BigInt(invoice.total) - worked.withTax;
  if (left === 0n) return worked;
  const outside = { category: invoice.exempt ? ('E' as const) : ('O' as const), rate: '0', reason: 'Rounding' };
  groups.set(keyOf(outside), outside);
  return left > 0n
    ? withTotals(invoice, { ...parts, allowances, charges: [...charges, { ...outside, amount: left }] })
    : withTotals(invoice, { ...parts, allowances: [...allowances, { ...outside, amount: -left }], charges });
}

/** The tax held in a sum at a rate, rounded as for prices with tax inside (`calculation.md` 5). */
const taxInside = (minor: bigint, rate: string): bigint => {
  const scaled = scaledDecimal(rate, 4, 'bad_rate', 'rate');
  return minor - roundedQuotient(minor * 1_000_000n, 1_000_000n + scaled);
};

/** The discount shared out over the groups by what their lines come to: floors, then the rest to the largest remainders. */
function discountShares(discount: bigint, weights: readonly Weighed[]): Map<string, bigint> {
  const whole = sum(weights.map(({ minor }) => minor));
  const shares = new Map<string, bigint>();
  if (discount === 0n || whole === 0n) return shares;
  const parts = weights.map(({ key, minor }, at) => ({
    key,
    at,
    floor: (discount * minor) / whole,
    rest: (discount * minor) % whole,
  }));
  let left = discount - sum(parts.map(({ floor }) => floor));
  for (const part of [...parts].sort((a, b) => (a.rest === b.rest ? a.at - b.at : a.rest > b.rest ? -1 : 1))) {
    const more = left > 0n ? 1n : 0n;
    left -= more;
    shares.set(part.key, (shares.get(part.key) ?? 0n) + part.floor + more);
  }
  return shares;
}

type Worked = {
  readonly line: PrintedInvoice['lines'][number];
  readonly group: { category: Category; rate: string };
  readonly net: bigint;
};

/** What an e-invoice is summed from; `paid` in minor units. */
type Parts = Pick<EInvoice, 'allowances' | 'charges' | 'paid'> & {
  readonly lines: readonly Worked[];
  readonly groups: ReadonlyMap<string, { category: Category; rate: string }>;
};

function withTotals(invoice: PrintedInvoice, { lines, allowances, charges, groups, paid }: Parts): EInvoice {
  const own = <T extends { category: Category; rate: string }>(list: readonly T[], key: string) =>
    list.filter((one) => keyOf(one) === key);
  const breakdown = [...groups].map(([key, group]): TaxGroup => {
    const base =
      sum(lines.filter((line) => keyOf(line.group) === key).map(({ net }) => net)) -
      sum(own(allowances, key).map(({ amount }) => amount)) +
      sum(own(charges, key).map(({ amount }) => amount));
    const reason = group.category === 'E' ? invoice.exempt : group.category === 'O' ? 'Not subject to tax' : '';
    return { ...group, base, amount: taxOn(base, group.rate), reason };
  });
  const sumOfLines = sum(lines.map(({ net }) => net));
  const allowanceTotal = sum(allowances.map(({ amount }) => amount));
  const chargeTotal = sum(charges.map(({ amount }) => amount));
  const withoutTax = sumOfLines - allowanceTotal + chargeTotal;
  const taxTotal = sum(breakdown.map(({ amount }) => amount));
  return {
    currency: invoice.currency,
    lines: lines.map(({ line, group, net }) => {
      const price = invoice.pricesIncludeTax ? priceWithout(line.unitPrice, group.rate) : line.unitPrice;
      return {
        name: line.what,
        quantity: line.quantity,
        unit: UNIT_CODES[line.unit],
        price,
        allowance: grossOf(line.quantity, price, invoice.currency) - net,
        net,
        ...group,
        note: line.note ?? '',
        on: line.on ?? '',
      };
    }),
    allowances,
    charges,
    groups: breakdown,
    sumOfLines,
    allowanceTotal,
    chargeTotal,
    withoutTax,
    taxTotal,
    withTax: withoutTax + taxTotal,
    paid,
    due: withoutTax + taxTotal - paid,
  };
}

/** Quantity × price, rounded to the minor unit. */
const grossOf = (quantity: string, price: string, currency: string): bigint =>
  roundedQuotient(
    scaledDecimal(quantity, 4, 'bad_quantity', 'quantity') * scaledDecimal(price, 6, 'bad_price', 'price'),
    powerOfTen(10 - minorDigits(currency)),
  );
