import { roundedQuotient, scaledDecimal } from '../money/decimal';
import { inRange } from '../money/money';
import { RuleError } from '../rule-error';
import type { TallyDocument } from './document';
import { QUANTITY_SCALE, worked } from './tally';

/**
 * One step of crediting a document: some of its lines by quantity, with or without its delivery, fees (by index) and flat taxes;
 * a sum in minor units; or all that is left.
 */
export type CreditStep =
  | {
      readonly lines: readonly { readonly index: number; readonly quantity: string }[];
      readonly delivery?: boolean;
      readonly fees?: readonly number[];
      readonly flatTaxes?: boolean;
    }
  | { readonly amount: bigint }
  | { readonly all: true };

/**
 * What a step credits, in minor units: a tax's part may be below 0 by a unit. Of a line its net, and what of that the document's
 * discount takes; taxes and flat taxes in the document's order.
 */
export type Credited = {
  readonly lines: readonly { readonly index: number; readonly net: bigint; readonly apportioned: bigint }[];
  readonly taxes: readonly { readonly id: string; readonly base: bigint; readonly amount: bigint }[];
  readonly flatTaxes: readonly bigint[];
  readonly total: bigint;
};

/** What is credited so far. Quantities scaled by 10^4. */
type SoFar = {
  readonly quantities: readonly bigint[];
  readonly fees: readonly boolean[];
  readonly delivery: boolean;
  readonly flat: boolean;
};

type TaxSum = { readonly id: string; readonly base: bigint; readonly amount: bigint };

/** Sums so far: lines before the document's discount and after it, taxes, flat taxes, all together. */
type Sums = {
  readonly nets: readonly bigint[];
  readonly worths: readonly bigint[];
  readonly taxes: readonly TaxSum[];
  readonly flatTaxes: readonly bigint[];
  readonly total: bigint;
};

/** How a document has been credited until now: it goes on in that way. */
export type CreditWay = 'lines' | 'sum' | null;

/** A document that is credited step by step (`calculation.md` 15). */
export type Crediting = {
  readonly way: CreditWay;
  readonly mayByLines: boolean;
  /** What is left to credit, minor units. */
  readonly left: bigint;
  /** What of each line's quantity is left, scaled by 10^4; by sum, all of it. */
  readonly quantitiesLeft: readonly bigint[];
  readonly feesLeft: readonly boolean[];
  readonly deliveryLeft: boolean;
  readonly flatTaxesLeft: boolean;
  /** @throws RuleError `bad_input`, `bad_quantity`, `refund_too_large` */
  readonly credit: (step: CreditStep, path?: string) => { readonly credited: Credited; readonly next: Crediting };
};

/** Whether two workings of a document come to the same. */
const agree = (a: DocumentSums, b: DocumentSums): boolean =>
  a.total === b.total &&
  a.taxes.length === b.taxes.length &&
  a.taxes.every(({ id, amount }, at) => id === b.taxes[at]?.id && amount === b.taxes[at]?.amount) &&
  a.flatTaxes.every((amount, at) => amount === b.flatTaxes[at]);

const sum = (amounts: readonly bigint[]): bigint => inRange(amounts.reduce((a, b) => a + b, 0n));
const bad = (path: string, words: string) => new RuleError('bad_input', `${path}: ${words}`);
const tooLarge = (path: string) => new RuleError('refund_too_large', `${path}: more than is left`);

/** What a document came to as it was printed, in minor units. */
export type DocumentSums = {
  readonly taxes: readonly TaxSum[];
  readonly flatTaxes: readonly bigint[];
  readonly total: bigint;
};

/**
 * Begins to credit a document of which nothing is credited.
 *
 * @param printed what it came to where that was worked out elsewhere; by lines it is credited only where the two agree
 * @throws RuleError as `tally`
 */
export function crediting(document: TallyDocument, printed?: DocumentSums): Crediting {
  const whole = worked(document);
  const wanted = document.lines.map(({ quantity }, at) =>
    scaledDecimal(quantity, QUANTITY_SCALE, 'bad_quantity', `lines[${at}].quantity`),
  );

  /** Everything that is credited by quantities so far (`calculation.md` 15, by lines). */
  function byLines(now: SoFar): Sums {
    const part = (minor: bigint, at: number) => roundedQuotient(minor * (now.quantities[at] ?? 0n), wanted[at] ?? 1n);
    const taxed = [
      ...whole.taxedLines.map(({ worth, taxes }, at) => ({ worth: part(worth, at), taxes })),
      ...whole.taxedFees.filter((_, at) => now.fees[at]),
      ...(whole.taxedDelivery && now.delivery ? [whole.taxedDelivery] : []),
    ];
    const taxes = whole.taxesOf(taxed);
    const flatTaxes = whole.flatTaxes.map(({ amount }) => (now.flat ? amount : 0n));
    const onTop = document.pricesIncludeTax ? [] : taxes.map(({ amount }) => amount);
    return {
      nets: whole.lines.map(({ net }, at) => part(net, at)),
      worths: whole.taxedLines.map(({ worth }, at) => part(worth, at)),
      taxes,
      flatTaxes,
      total: sum([...taxed.map(({ worth }) => worth), ...flatTaxes, ...onTop]),
    };
  }

  const all: SoFar = {
    quantities: wanted,
    fees: whole.taxedFees.map(() => true),
    delivery: whole.taxedDelivery !== null,
    flat: whole.flatTaxes.length > 0,
  };
  const none: SoFar = {
    quantities: wanted.map(() => 0n),
    fees: whole.taxedFees.map(() => false),
    delivery: false,
    flat: false,
  };
  const counted = byLines(all);
  const full: Sums = { ...counted, ...printed };
  const mayByLines = !printed || agree(counted, printed);

  /** What is credited of the document when so much of its total is (by sum). */
  const bySum = (credited: bigint): Sums => {
    const part = (minor: bigint) => (full.total === 0n ? 0n : roundedQuotient(minor * credited, full.total));
    return {
      nets: full.nets.map(() => 0n),
      worths: full.nets.map(() => 0n),
      taxes: full.taxes.map(({ id, base, amount }) => ({ id, base: part(base), amount: part(amount) })),
      flatTaxes: full.flatTaxes.map(part),
      total: credited,
    };
  };

  /** The difference that one step books. @param shown the lines that are named in the answer */
  const between = (before: Sums, after: Sums, shown: readonly number[]): Credited => ({
    lines: shown.map((index) => {
      const net = (after.nets[index] ?? 0n) - (before.nets[index] ?? 0n);
      return { index, net, apportioned: net - (after.worths[index] ?? 0n) + (before.worths[index] ?? 0n) };
    }),
    taxes: after.taxes.map(({ id, base, amount }, at) => ({
      id,
      base: base - (before.taxes[at]?.base ?? 0n),
      amount: amount - (before.taxes[at]?.amount ?? 0n),
    })),
    flatTaxes: after.flatTaxes.map((amount, at) => amount - (before.flatTaxes[at] ?? 0n)),
    total: after.total - before.total,
  });

  /** What is credited after a step by lines. */
  function withStep(now: SoFar, step: Extract<CreditStep, { lines: unknown }>, path: string): SoFar {
    const { lines, delivery = false, fees = [], flatTaxes = false } = step;
    if (lines.length + fees.length === 0 && !delivery && !flatTaxes) throw bad(path, 'name what is given back');
    const quantities = [...now.quantities];
    const seen = new Set<number>();
    for (const { index, quantity } of lines) {
      const most = wanted[index];
      if (most === undefined || seen.has(index)) throw bad(`${path}.lines`, `line ${index} is none, or named twice`);
      seen.add(index);
      const more = scaledDecimal(quantity, QUANTITY_SCALE, 'bad_quantity', `${path}.lines`);
      if (more === 0n) throw new RuleError('bad_quantity', `${path}.lines: a quantity is above 0`);
      const given = (now.quantities[index] ?? 0n) + more;
      if (given > most) throw tooLarge(`${path}.lines`);
      quantities[index] = given;
    }
    const given = [...now.fees];
    for (const index of fees) {
      if (given[index] === undefined || fees.indexOf(index) !== fees.lastIndexOf(index))
        throw bad(`${path}.fees`, `fee ${index} is none, or named twice`);
      if (given[index]) throw tooLarge(`${path}.fees`);
      given[index] = true;
    }
    if (delivery && !whole.taxedDelivery) throw bad(`${path}.delivery`, 'the document has none');
    if (delivery && now.delivery) throw tooLarge(`${path}.delivery`);
    if (flatTaxes && whole.flatTaxes.length === 0) throw bad(`${path}.flatTaxes`, 'the document has none');
    if (flatTaxes && now.flat) throw tooLarge(`${path}.flatTaxes`);
    const after = { quantities, fees: given, delivery: now.delivery || delivery };
    const nothingElse =
      quantities.every((quantity, at) => quantity === wanted[at]) &&
      given.every(Boolean) &&
      after.delivery === all.delivery;
    return { ...after, flat: now.flat || flatTaxes || (nothingElse && all.flat) };
  }

  const next = (way: CreditWay, now: SoFar, before: Sums): Crediting => ({
    way,
    mayByLines: mayByLines && way !== 'sum',
    left: full.total - before.total,
    quantitiesLeft: wanted.map((quantity, at) => quantity - (now.quantities[at] ?? 0n)),
    feesLeft: now.fees.map((given) => !given),
    deliveryLeft: all.delivery && !now.delivery,
    flatTaxesLeft: all.flat && !now.flat,
    credit: (step, path = 'step') => {
      const answer = (credited: Credited, after: Crediting) => ({ credited, next: after });
      if ('amount' in step) {
        if (way === 'lines') throw bad(path, 'what was begun by lines goes on by lines');
        if (step.amount < 1n) throw bad(`${path}.amount`, 'a sum is at least 1');
        if (step.amount > full.total - before.total) throw tooLarge(`${path}.amount`);
        const after = bySum(before.total + step.amount);
        return answer(between(before, after, []), next('sum', now, after));
      }
      if ('all' in step) {
        if (way === 'sum' || !mayByLines) {
          const after = bySum(full.total);
          return answer(between(before, after, []), next('sum', now, after));
        }
        const left = wanted.flatMap((quantity, at) => (quantity > (now.quantities[at] ?? 0n) ? [at] : []));
        return answer(between(before, full, left), next(way, all, full));
      }
      if (way === 'sum') throw bad(path, 'what was begun by sum goes on by sum');
      if (!mayByLines) throw bad(path, 'its lines do not come to what was printed: give a sum');
      const after = withStep(now, step, path);
      const sums = byLines(after);
      const shown = step.lines.map(({ index }) => index).sort((a, b) => a - b);
      return answer(between(before, sums, shown), next('lines', after, sums));
    },
  });
  return next(null, none, byLines(none));
}

/** Credits a document in steps. Returns what each credits, and where it stands then. @throws RuleError as `Crediting.credit` */
export function creditInSteps(
  document: TallyDocument,
  steps: readonly CreditStep[],
  printed?: DocumentSums,
): { readonly steps: readonly Credited[]; readonly now: Crediting } {
  let now = crediting(document, printed);
  const credited = steps.map((step, at) => {
    const done = now.credit(step, `steps[${at}]`);
    now = done.next;
    return done.credited;
  });
  return { steps: credited, now };
}
