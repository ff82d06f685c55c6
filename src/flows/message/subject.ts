import type { Message } from '@/db/messages';
import type { TimelineSubject } from '@/db/timeline';

/** Whose timeline tells of a message; null where nobody's does. */
export const subjectOfMessage = ({ invoiceId, orderId, planId, parcelId }: Message): TimelineSubject | null =>
  invoiceId ? { invoiceId } : orderId ? { orderId } : planId ? { planId } : parcelId ? { parcelId } : null;
