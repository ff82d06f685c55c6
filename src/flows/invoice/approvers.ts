import type { PrintedInvoice } from '@/core/invoice/printed';
import { filesByApprover } from '@/core/paper/approval';
import type { Approver } from '@/core/paper/paper';
import { isSigned, signatureOf } from '@/flows/door/signing';
import type { Outgoing } from '@/flows/message/queue-message';

/** What makes an invoice's link one approver's own. */
export const approverSign = (invoiceId: string, approverId: string): string =>
  `${approverId}.${signatureOf('approver', `${invoiceId} ${approverId}`)}`;

/** The approver in a sign; null for one that is not ours, or of another invoice. */
export function approverOf(
  { invoiceId, printed }: { readonly invoiceId: string; readonly printed: PrintedInvoice },
  sign: string,
): Approver | null {
  const [id = '', signature = '', ...more] = sign.split('.');
  if (more.length > 0 || !isSigned('approver', `${invoiceId} ${id}`, signature)) return null;
  return filesByApprover(printed.files).find(({ approver }) => approver.id === id)?.approver ?? null;
}

/** The requests to approve that go out with an invoice: one for each who is named, however often it is changed. */
export const approvalMessages = (invoiceId: string, printed: PrintedInvoice): Outgoing[] =>
  filesByApprover(printed.files).map(({ approver: { id, name, email } }) => ({
    kind: 'approval-asked',
    key: `approve:${invoiceId}:${id}`,
    invoiceId,
    toName: name.trim(),
    toAddress: email.trim(),
    details: { approverId: id },
  }));
