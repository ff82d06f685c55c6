import type { PrintedSums } from '../invoice/printed';
import type { PartnersPart } from '../ledger/movements';
import { powerOfTen, roundedQuotient, scaledDecimal } from '../money/decimal';
import { type Part, split } from '../share/split';
import type { Offer } from './offer';
import type { PrintedOrder } from './order';
import { priceIn, priceMinor } from './price';

/** What the partners of an offer get of a payment, in order; none where it is not shared. */
export type OrderShares = { readonly parts: readonly Part[]; readonly all: PartnersPart };

const NO_SHARES: OrderShares = { parts: [], all: { shareMinor: 0n, feeMinor: 0n } };

const RATE_SCALE = 4;
const WHOLE = 100n * powerOfTen(RATE_SCALE);

/** The sums of a paper that say how much of it is tax and delivery. */
export type SharedSums = Pick<PrintedSums, 'total' | 'taxTotal' | 'delivery' | 'taxes' | 'pricesIncludeTax' | 'exempt'>;

/** What of a paper's total is tax and delivery, each once; minor units. Delivery with tax inside counts without it. */
export function setAside({ taxTotal, delivery, taxes, pricesIncludeTax, exempt }: SharedSums): bigint {
  const amount = BigInt(delivery?.amount ?? 0);
  if (!pricesIncludeTax || exempt || amount === 0n) return BigInt(taxTotal) + amount;
  const rates = taxes
    .filter(({ id }) => delivery?.taxIds.includes(id))
    .reduce((sum, { rate }) => sum + scaledDecimal(rate, RATE_SCALE, 'bad_rate', 'rate'), 0n);
  return BigInt(taxTotal) + roundedQuotient(amount * WHOLE, WHOLE + rates);
}

/** What of a sum paid for a paper is shared where tax and delivery are not: they are taken out in proportion, exactly once all is paid. */
const leftOf = (paid: bigint, sums: SharedSums): bigint =>
  sums.total > 0 ? paid - roundedQuotient(paid * setAside(sums), BigInt(sums.total)) : paid;

/**
 * What partners get of a payment for an order, first or later (`calculation.md` 10). Where a sum is paid in parts, each part adds what is
 * missing to what they get of all that is paid with it, so that a sum that the business keeps first is kept once.
 *
 * @param paidMinor paid now, without tip @param beforeMinor paid of the same sum before
 * @param sums those of what is paid: a later payment's invoice, else the order
 */
export function sharesOfPayment(
  { offer, printed }: { readonly offer: Offer; readonly printed: Pick<PrintedOrder, 'currency' | 'rate'> & SharedSums },
  {
    paidMinor,
    beforeMinor = 0n,
    feeMinor,
    sums = printed,
  }: {
    readonly paidMinor: bigint;
    readonly beforeMinor?: bigint;
    readonly feeMinor: bigint;
    readonly sums?: SharedSums;
  },
): OrderShares {
  const terms = offer.split;
  if (!terms || terms.partners.length === 0) return NO_SHARES;
  const rate = printed.rate?.rate ?? null;
  const kept = terms.keep
    ? priceIn({ [offer.currency]: terms.keep }, printed.currency, offer.currency, () => rate)
    : null;
  const keep = terms.keep ? priceMinor(kept ?? '0', printed.currency) : null;
  const shared = (amount: bigint) => (terms.of === 'net' ? leftOf(amount, sums) : amount);
  const of = (amount: bigint, fee: bigint) =>
    split({
      amount: shared(amount),
      fee,
      partners: terms.partners,
      ...(keep === null ? {} : { keep }),
      feeFrom: terms.feeFrom,
    }).partners;
  const before = beforeMinor > 0n ? of(beforeMinor, 0n) : [];
  const parts = of(beforeMinor + paidMinor, feeMinor).map(({ share, fee }, at): Part => {
    const now = share - (before[at]?.share ?? 0n);
    return { share: now, fee, net: now - fee };
  });
  const sum = (part: (one: Part) => bigint) => parts.reduce((all, one) => all + part(one), 0n);
  return { parts, all: { shareMinor: sum(({ share }) => share), feeMinor: sum(({ fee }) => fee) } };
}
