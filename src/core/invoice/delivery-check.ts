import { minorDigits } from '../money/currency';
import type { PaperDelivery } from '../paper/paper';
import { typedMinor } from './read-paper';

/** What delivery costs against what the customer pays for it; minor units. `short` is what the business pays itself. */
export type DeliveryCheck = { readonly charged: bigint; readonly cost: bigint; readonly short: bigint };

/** Compares postage and packaging with what is charged; null while one of them cannot be read, or nothing is known of the cost. */
export function deliveryCheck(delivery: PaperDelivery, currency: string): DeliveryCheck | null {
  const digits = minorDigits(currency);
  const [charged, postage, packaging] = [delivery.charged, delivery.postage, delivery.packaging].map((typed) =>
    typedMinor(typed, digits),
  );
  if (typeof charged !== 'bigint' || typeof postage !== 'bigint' || typeof packaging !== 'bigint') return null;
  const cost = postage + packaging;
  return cost === 0n ? null : { charged, cost, short: cost > charged ? cost - charged : 0n };
}
