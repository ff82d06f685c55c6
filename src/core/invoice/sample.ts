import { minorDigits } from '../money/currency';
import { newLine, type PaperLine } from '../paper/paper';

/** A line that shows how one looks, with what it would come to in minor units. It is no part of any paper. */
export type SampleLine = { readonly line: PaperLine; readonly netMinor: bigint };

const SAMPLES = [
  { unit: 'hour', what: 'Two hours of work', quantity: 2, price: 60 },
  { unit: 'piece', what: 'What was used for it', quantity: 1, price: 45 },
] as const;

/** What stands beside the first paper, in a currency. @param freshId makes ids that are unique on the paper */
export function sampleLines(currency: string, freshId: () => string): readonly SampleLine[] {
  const scale = 10n ** BigInt(minorDigits(currency));
  return SAMPLES.map(({ unit, what, quantity, price }) => ({
    line: newLine(freshId(), unit, { what, quantity: String(quantity), price: String(price) }),
    netMinor: BigInt(quantity * price) * scale,
  }));
}
