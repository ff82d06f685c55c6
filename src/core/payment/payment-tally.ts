import { percentOf } from '../tally/tally';

/** A figure of a payment's sheet whose tally can be looked at. */
export type PaymentFigure =
  | { readonly of: 'paid' | 'tax' | 'fee' | 'left' }
  /** A partner's, by the order of the shares. */
  | { readonly of: 'part'; readonly at: number };

export const isSameFigure = (a: PaymentFigure | null, b: PaymentFigure): boolean =>
  a !== null && a.of === b.of && (a.of !== 'part' || b.of !== 'part' || a.at === b.at);

/** A payment as its sheet shows it; minor units. */
export type TalliedPayment = {
  /** What it paid for, as a person calls it. */
  readonly called: string;
  readonly amountMinor: bigint;
  readonly tipMinor: bigint;
  /** 0 where a void gave it back. */
  readonly feeMinor: bigint;
  readonly refundedMinor: bigint;
  readonly taxes: readonly { readonly name: string; readonly rate: string; readonly minor: bigint }[];
  readonly shares: readonly {
    readonly name: string;
    readonly shareMinor: bigint;
    readonly feeMinor: bigint;
    readonly reversedMinor: bigint;
  }[];
  /** What of the refunded a payer's bank took back of a debit, and its fee. */
  readonly returned: { readonly takenMinor: bigint; readonly feeMinor: bigint } | null;
  readonly dispute: { readonly takenMinor: bigint; readonly feeMinor: bigint } | null;
  /** The line of the tariff by which its fee is agreed; null without one. */
  readonly agreed: { readonly percent: string; readonly fixedMinor: bigint } | null;
};

/** A line of a tally: what comes on is positive, what goes off negative; minor units. */
export type PaymentTallyLine = { readonly label: string; readonly minor: bigint };

const partOf = ({ shareMinor, feeMinor, reversedMinor }: TalliedPayment['shares'][number]): bigint =>
  shareMinor - feeMinor - reversedMinor;

/** What a figure of a payment's sheet is made of; the lines add up to it. The fee and what partners get are below 0 there. */
export function paymentTally(payment: TalliedPayment, figure: PaymentFigure): PaymentTallyLine[] {
  const { amountMinor, tipMinor, feeMinor, refundedMinor, shares, returned, dispute, agreed } = payment;
  const lines = (list: readonly (readonly [label: string, minor: bigint])[]): PaymentTallyLine[] =>
    list.filter(([, minor]) => minor !== 0n).map(([label, minor]) => ({ label, minor }));
  const charged = amountMinor + tipMinor;
  switch (figure.of) {
    case 'paid':
      return lines([
        [payment.called, amountMinor],
        ['Tip', tipMinor],
      ]);
    case 'tax':
      return lines(payment.taxes.map(({ name, rate, minor }) => [`${name}, ${rate} %`, minor] as const));
    case 'fee': {
      if (!agreed || feeMinor === 0n) return lines([['Taken by the processor', -feeMinor]]);
      const percent = percentOf(charged, agreed.percent, 'percent');
      return lines([
        [`${agreed.percent} % of what was charged`, -percent],
        ['Fixed amount', -agreed.fixedMinor],
        ['Not as agreed', percent + agreed.fixedMinor - feeMinor],
      ]);
    }
    case 'part': {
      const share = shares[figure.at];
      if (!share) return [];
      return lines([
        ['Share of the payment', -share.shareMinor],
        ['Borne of the fee', share.feeMinor],
        ['Taken back', share.reversedMinor],
      ]);
    }
    case 'left':
      return lines([
        ['Paid', charged],
        ['Refunded', (returned?.takenMinor ?? 0n) - refundedMinor],
        ['Came back', -(returned?.takenMinor ?? 0n)],
        ['The bank’s fee for that', -(returned?.feeMinor ?? 0n)],
        ['Disputed', -(dispute?.takenMinor ?? 0n)],
        ['Fee for the dispute', -(dispute?.feeMinor ?? 0n)],
        ['Processor’s fee', -feeMinor],
        ...shares.map((share) => [`${share.name}’s part`, -partOf(share)] as const),
      ]);
  }
}
