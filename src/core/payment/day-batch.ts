import { inRange } from '../money/money';

/** A card sale that counts on a day, in minor units; `amountMinor` with the tip in it. */
export type BatchSale = {
  readonly paymentId: string;
  readonly channel: string;
  readonly currency: string;
  readonly amountMinor: bigint;
  readonly feeMinor: bigint;
  /** Taken back as a whole since; the taking back counts on its own day. */
  readonly voided: boolean;
};

/** Money given back on a day; a void gives the fee back with it, a debit that came back (`return`) costs one: then it is below 0. */
export type BatchBack = {
  readonly refundId: string;
  readonly paymentId: string;
  readonly kind: 'refund' | 'void' | 'return';
  readonly currency: string;
  readonly amountMinor: bigint;
  readonly feeBackMinor: bigint;
};

/** What a dispute took on a day with its fee, or a won one gave back; minor units. */
export type BatchDispute = {
  readonly disputeId: string;
  readonly paymentId: string;
  readonly kind: 'disputed' | 'dispute-won';
  readonly currency: string;
  readonly amountMinor: bigint;
  readonly feeMinor: bigint;
};

/** What a day's batch comes to in one currency, in minor units. */
export type BatchSum = {
  readonly currency: string;
  readonly sales: number;
  readonly salesMinor: bigint;
  readonly backs: number;
  readonly backMinor: bigint;
  /** Less what voids gave back. */
  readonly feesMinor: bigint;
  /** Disputes that were opened or won, and what they took less what they gave back, the fees apart. */
  readonly disputes: number;
  readonly disputedMinor: bigint;
  readonly disputeFeesMinor: bigint;
  /** What the processor pays out for this day: sales − given back − fees − disputed with its fees. */
  readonly netMinor: bigint;
  readonly channels: readonly { readonly channel: string; readonly sales: number; readonly salesMinor: bigint }[];
};

/** Money that came another way than by card and counts on a day, in minor units; below 0 what was given back so. */
export type ByHand = {
  readonly paymentId: string;
  readonly method: string;
  readonly currency: string;
  readonly amountMinor: bigint;
};

/** What a day brought in one currency by one such way, in minor units. */
export type ByHandSum = {
  readonly currency: string;
  readonly method: string;
  readonly count: number;
  readonly minor: bigint;
};

const WAYS = ['cash', 'cheque', 'transfer'];
const wayOf = (method: string): number => (WAYS.includes(method) ? WAYS.indexOf(method) : WAYS.length);

/** What a day brought another way than by card: by currency in the order in which they first come, cash before cheques and transfers. */
export function byHandSums(list: readonly ByHand[]): ByHandSum[] {
  const sums = new Map<string, ByHandSum>();
  const currencies = [...new Set(list.map(({ currency }) => currency))];
  for (const { currency, method, amountMinor } of list) {
    const key = `${currency} ${method}`;
    const { count, minor } = sums.get(key) ?? { count: 0, minor: 0n };
    sums.set(key, { currency, method, count: count + 1, minor: inRange(minor + amountMinor) });
  }
  return [...sums.values()].sort(
    (a, b) => currencies.indexOf(a.currency) - currencies.indexOf(b.currency) || wayOf(a.method) - wayOf(b.method),
  );
}

/** What a day came to in one currency after fees: by card, whose it is, and another way; minor units. */
export type DayTotal = {
  readonly currency: string;
  /** Of the processor's payout: what partners get, and the business's own part. */
  readonly partnersMinor: bigint;
  readonly ownMinor: bigint;
  readonly byHandMinor: bigint;
  /** All that the day came to after fees, partners' parts in it. */
  readonly allMinor: bigint;
};

/**
 * What a day came to, currency by currency: those of the cards first.
 *
 * @param partnersMinor what partners got of the day's card payments, less what giving back took from them, by currency
 */
export function dayTotals(
  sums: readonly BatchSum[],
  byHand: readonly ByHandSum[],
  partnersMinor: ReadonlyMap<string, bigint>,
): DayTotal[] {
  const currencies = [...new Set([...sums, ...byHand].map(({ currency }) => currency))];
  return currencies.map((currency) => {
    const net = sums.find((sum) => sum.currency === currency)?.netMinor ?? 0n;
    const partners = partnersMinor.get(currency) ?? 0n;
    const hand = byHand.filter((sum) => sum.currency === currency).reduce((all, { minor }) => all + minor, 0n);
    const own = net - partners;
    return {
      currency,
      partnersMinor: partners,
      ownMinor: inRange(own),
      byHandMinor: inRange(hand),
      allMinor: inRange(net + hand),
    };
  });
}

/** What several days come to in one currency, in minor units; partners' parts are in it. */
export type DaysSum = {
  readonly currency: string;
  readonly cardsMinor: bigint;
  readonly backMinor: bigint;
  readonly feesMinor: bigint;
  /** With their fees. */
  readonly disputedMinor: bigint;
  readonly byHandMinor: bigint;
  readonly allMinor: bigint;
};

/** The sums of several days together, currency by currency in the order in which they first come. */
export function sumOfDays(
  days: readonly { readonly sums: readonly BatchSum[]; readonly byHand: readonly ByHandSum[] }[],
): DaysSum[] {
  const sums = days.flatMap((day) => day.sums);
  const hand = days.flatMap((day) => day.byHand);
  return [...new Set([...sums, ...hand].map(({ currency }) => currency))].map((currency) => {
    const own = sums.filter((sum) => sum.currency === currency);
    const all = (of: (sum: BatchSum) => bigint) => inRange(own.reduce((total, sum) => total + of(sum), 0n));
    const byHandMinor = hand.filter((sum) => sum.currency === currency).reduce((total, { minor }) => total + minor, 0n);
    return {
      currency,
      cardsMinor: all(({ salesMinor }) => salesMinor),
      backMinor: all(({ backMinor }) => backMinor),
      feesMinor: all(({ feesMinor }) => feesMinor),
      disputedMinor: all(({ disputedMinor, disputeFeesMinor }) => disputedMinor + disputeFeesMinor),
      byHandMinor: inRange(byHandMinor),
      allMinor: inRange(all(({ netMinor }) => netMinor) + byHandMinor),
    };
  });
}

/** The sums of a day's batch, currencies and channels in the order in which they first come. */
export function batchSums(
  sales: readonly BatchSale[],
  backs: readonly BatchBack[],
  disputes: readonly BatchDispute[],
): BatchSum[] {
  const currencies = [...new Set([...sales, ...backs, ...disputes].map(({ currency }) => currency))];
  return currencies.map((currency) => {
    const sold = sales.filter((sale) => sale.currency === currency);
    const back = backs.filter((one) => one.currency === currency);
    const sum = (of: readonly { amountMinor: bigint }[]) => of.reduce((all, one) => all + one.amountMinor, 0n);
    const feesMinor =
      sold.reduce((all, one) => all + one.feeMinor, 0n) - back.reduce((all, one) => all + one.feeBackMinor, 0n);
    const disputed = disputes.filter((one) => one.currency === currency);
    const taken = (of: (one: BatchDispute) => bigint) =>
      disputed.reduce((all, one) => all + (one.kind === 'disputed' ? of(one) : -of(one)), 0n);
    const disputedMinor = taken(({ amountMinor }) => amountMinor);
    const disputeFeesMinor = taken(({ feeMinor }) => feeMinor);
    const channels = [...new Set(sold.map(({ channel }) => channel))].map((channel) => {
      const own = sold.filter((sale) => sale.channel === channel);
      return { channel, sales: own.length, salesMinor: inRange(sum(own)) };
    });
    return {
      currency,
      sales: sold.length,
      salesMinor: inRange(sum(sold)),
      backs: back.length,
      backMinor: inRange(sum(back)),
      feesMinor: inRange(feesMinor),
      disputes: disputed.length,
      disputedMinor: inRange(disputedMinor),
      disputeFeesMinor: inRange(disputeFeesMinor),
      netMinor: inRange(sum(sold) - sum(back) - feesMinor - disputedMinor - disputeFeesMinor),
      channels,
    };
  });
}

/** A sale as the processor's own book has it, in minor units. */
export type BookSale = {
  readonly paymentId: string;
  /** What the holder reads at the bank, and the card. */
  readonly words: string;
  readonly status: string;
  readonly currency: string;
  readonly amountMinor: bigint;
  readonly feeMinor: bigint;
  readonly backs: readonly {
    readonly refundId: string;
    readonly amountMinor: bigint;
    /** What it cost; 0 but for a debit that came back. */
    readonly feeMinor: bigint;
    readonly at: Date;
  }[];
  readonly at: Date;
  /** What was disputed of it and when, and when that was given back; null where nothing is. */
  readonly dispute: BookDispute | null;
};

/** A dispute as the processor's own book has it, in minor units. */
export type BookDispute = {
  readonly disputeId: string;
  readonly amountMinor: bigint;
  readonly feeMinor: bigint;
  readonly at: Date;
  readonly won: { readonly at: Date; readonly feeBackMinor: bigint } | null;
};

/** Where our book and the processor's say different things; a side that has nothing says 0. */
export type BatchDifference = {
  readonly kind:
    | 'only-here'
    | 'only-there'
    | 'amount'
    | 'fee'
    | 'back-only-here'
    | 'back-only-there'
    | 'dispute-only-here'
    | 'dispute-only-there';
  readonly paymentId: string;
  readonly currency: string;
  /** How the processor calls it; empty where it has nothing. */
  readonly words: string;
  readonly oursMinor: bigint;
  readonly theirsMinor: bigint;
};

type BookMove = { readonly at: Date; readonly minor: bigint };

/** How what a dispute moved is named among what is known here. */
export const moveKey = (kind: BatchDispute['kind'], disputeId: string): string => `${kind} ${disputeId}`;

/**
 * Compares a day of our book with the processor's.
 *
 * @param ours what counts on the day here
 * @param theirs every sale that the processor has of these payments, and every one that it made on the day
 * @param known the payments that went through here on any day, the refunds, and what disputes moved: the two clocks may differ around
 *   midnight
 * @param isDay whether an instant lies on the day
 */
export function batchDifferences(
  ours: {
    readonly sales: readonly BatchSale[];
    readonly backs: readonly BatchBack[];
    readonly disputes: readonly BatchDispute[];
  },
  theirs: readonly BookSale[],
  known: ReadonlySet<string>,
  isDay: (at: Date) => boolean,
): BatchDifference[] {
  const book = new Map(theirs.map((sale) => [sale.paymentId, sale]));
  const differences: BatchDifference[] = [];
  const add = (
    kind: BatchDifference['kind'],
    { paymentId, currency }: { paymentId: string; currency: string },
    oursMinor: bigint,
    theirsMinor: bigint,
  ) =>
    differences.push({
      kind,
      paymentId,
      currency,
      words: book.get(paymentId)?.words ?? '',
      oursMinor,
      theirsMinor,
    });
  for (const sale of ours.sales) {
    const there = book.get(sale.paymentId);
    const status = sale.voided ? 'voided' : 'accepted';
    if (there?.status !== status) add('only-here', sale, sale.amountMinor, 0n);
    else if (there.amountMinor !== sale.amountMinor || there.currency !== sale.currency)
      add('amount', sale, sale.amountMinor, there.amountMinor);
    else if (!sale.voided && there.feeMinor !== sale.feeMinor) add('fee', sale, sale.feeMinor, there.feeMinor);
  }
  for (const back of ours.backs) {
    const there = book.get(back.paymentId);
    const given =
      back.kind === 'void'
        ? there?.status === 'voided'
        : there?.backs.some(
            (one) =>
              one.refundId === back.refundId &&
              one.amountMinor === back.amountMinor &&
              one.feeMinor === -back.feeBackMinor,
          );
    if (!given) add('back-only-here', back, back.amountMinor, 0n);
  }
  const movedBy = ({ dispute }: BookSale): (BookMove & { key: string })[] =>
    dispute
      ? [
          {
            key: moveKey('disputed', dispute.disputeId),
            at: dispute.at,
            minor: dispute.amountMinor + dispute.feeMinor,
          },
          ...(dispute.won
            ? [
                {
                  key: moveKey('dispute-won', dispute.disputeId),
                  at: dispute.won.at,
                  minor: dispute.amountMinor + dispute.won.feeBackMinor,
                },
              ]
            : []),
        ]
      : [];
  for (const one of ours.disputes) {
    const there = book.get(one.paymentId);
    const minor = one.amountMinor + one.feeMinor;
    const key = moveKey(one.kind, one.disputeId);
    if (!there || !movedBy(there).some((move) => move.key === key && move.minor === minor))
      add('dispute-only-here', one, minor, 0n);
  }
  for (const sale of theirs) {
    if (sale.status === 'accepted' && isDay(sale.at) && !known.has(sale.paymentId))
      add('only-there', sale, 0n, sale.amountMinor);
    for (const back of sale.backs)
      if (isDay(back.at) && !known.has(back.refundId)) add('back-only-there', sale, 0n, back.amountMinor);
    for (const { key, at, minor } of movedBy(sale))
      if (isDay(at) && !known.has(key)) add('dispute-only-there', sale, 0n, minor);
  }
  return differences;
}
