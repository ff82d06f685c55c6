import type { PartnersPart } from '../ledger/movements';
import { type Part, split } from '../share/split';
import type { Offer } from './offer';
import type { PrintedOrder } from './order';
import { priceIn, priceMinor } from './price';

/** What the partners of an offer get of a payment, in order; none where it is not shared. */
export type OrderShares = { readonly parts: readonly Part[]; readonly all: PartnersPart };

const NO_SHARES: OrderShares = { parts: [], all: { shareMinor: 0n, feeMinor: 0n } };

/**
 * What partners get of a payment for an order, first or later (`calculation.md` 10). Where a sum is paid in parts, each part adds what is
 * missing to what they get of all that is paid with it, so that a sum that the business keeps first is kept once.
 *
 * @param paidMinor paid now, without tip @param beforeMinor paid of the same sum before
 */
export function sharesOfPayment(
  { offer, printed }: { readonly offer: Offer; readonly printed: Pick<PrintedOrder, 'currency' | 'rate'> },
  {
    paidMinor,
    beforeMinor = 0n,
    feeMinor,
  }: { readonly paidMinor: bigint; readonly beforeMinor?: bigint; readonly feeMinor: bigint },
): OrderShares {
  const terms = offer.split;
  if (!terms || terms.partners.length === 0) return NO_SHARES;
  const rate = printed.rate?.rate ?? null;
  const kept = terms.keep
    ? priceIn({ [offer.currency]: terms.keep }, printed.currency, offer.currency, () => rate)
    : null;
  const keep = terms.keep ? priceMinor(kept ?? '0', printed.currency) : null;
  const of = (amount: bigint, fee: bigint) =>
    split({ amount, fee, partners: terms.partners, ...(keep === null ? {} : { keep }), feeFrom: terms.feeFrom })
      .partners;
  const before = beforeMinor > 0n ? of(beforeMinor, 0n) : [];
  const parts = of(beforeMinor + paidMinor, feeMinor).map(({ share, fee }, at): Part => {
    const now = share - (before[at]?.share ?? 0n);
    return { share: now, fee, net: now - fee };
  });
  const sum = (part: (one: Part) => bigint) => parts.reduce((all, one) => all + part(one), 0n);
  return { parts, all: { shareMinor: sum(({ share }) => share), feeMinor: sum(({ fee }) => fee) } };
}
