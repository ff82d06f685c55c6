import type { PartnerMovement } from '@/db/payouts';
import { csvText, momentCell, sumCell } from '@/documents/csv/write';

const HEADINGS = ['day', 'at', 'kind', 'customer', 'for', 'of', 'amount', 'currency', 'payment'];

/** A partner's movements as rows of a file. @param zone the business's */
export const partnerCsv = (movements: readonly PartnerMovement[], zone: string): string =>
  csvText(
    HEADINGS,
    movements.map((one) => [
      one.day,
      momentCell(one.at, zone),
      one.kind,
      one.payer,
      one.subject,
      one.paymentId ? sumCell(one.ofMinor, one.currency) : '',
      sumCell(one.minor, one.currency),
      one.currency,
      one.paymentId ?? '',
    ]),
  );
