import { randomUUID } from 'node:crypto';
import { fileStanding } from '@/core/paper/approval';
import { insertApproval, latestApprovals } from '@/db/approvals';
import { businessById } from '@/db/businesses';
import { fileById } from '@/db/files';
import { type Invoice, invoiceById, lockedInvoice, updateTermsAccepted } from '@/db/invoices';
import { countAttempt } from '@/db/limits';
import type { Tx } from '@/db/pool';
import { insertQuestion } from '@/db/questions';
import { addToTimeline } from '@/db/timeline';
import { INVOICE_LINK } from '@/flows/door/links';
import { byLink } from '@/flows/door/operation';
import { Refusal } from '@/flows/door/refusal';
import { found } from '@/flows/door/rights';
import { queueMessage } from '@/flows/message/queue-message';
import { approverOf } from './approvers';

/**
 * Makes sure that everything which has to be agreed to before paying is agreed to: files marked so, and the terms. Terms
 * accepted with this press are kept with their version.
 *
 * @throws Refusal `approve-first`, `accept-first`
 */
export async function requireConsent(tx: Tx, invoice: Invoice, acceptsTerms: boolean): Promise<void> {
  const { files, terms, payer } = found(invoice.printed);
  if (files.some(({ approve }) => approve)) {
    const decisions = (await latestApprovals(tx, invoice.id)).map((one) => ({ ...one, at: one.at.toISOString() }));
    if (files.some((file) => fileStanding(file, decisions).isOpen)) throw new Refusal('approve-first');
  }
  if (!terms || invoice.termsAccepted?.versionId === terms.versionId) return;
  if (!acceptsTerms) throw new Refusal('accept-first');
  const accepted = { versionId: terms.versionId, version: terms.version, at: tx.now.toISOString() };
  await updateTermsAccepted(tx, invoice.id, accepted);
  await addToTimeline(tx, invoice.id, { kind: 'terms-accepted', version: terms.version }, payer.name);
}

/** Writes down what the customer decided about a file, with the checksum of what was looked at, and tells the business. */
export const decideFile = byLink(INVOICE_LINK).write(
  async (
    tx,
    invoiceId: string,
    fileId: string,
    {
      approver: sign,
      ...decision
    }: {
      decision: 'approved' | 'change';
      comment: string;
      byName: string;
      /** The sign of an approver's own link; empty for the invoice's. */
      approver?: string;
    },
  ): Promise<void> => {
    const invoice = found(await lockedInvoice(tx, invoiceId));
    const file = found(invoice.printed?.files.find(({ id, approve }) => id === fileId && approve));
    if (invoice.stage !== 'sent') throw new Refusal('invoice-not-payable');
    const { sha256 } = found(await fileById(tx, fileId));
    const named = sign ? approverOf({ invoiceId, printed: found(invoice.printed) }, sign) : null;
    const { approvers = [] } = file;
    // Asked by name, only they decide, each with their own link.
    if (approvers.length > 0 && !approvers.some(({ id: mine }) => mine === named?.id)) throw new Refusal('not-asked');
    const byName = named?.name.trim() || decision.byName.trim() || found(invoice.printed).payer.name;
    const approverId = approvers.length > 0 ? (named?.id ?? null) : null;
    const id = randomUUID();
    await insertApproval(tx, invoiceId, { id, fileId, approverId, ...decision, byName, sha256, at: tx.now });
    const kind = decision.decision === 'approved' ? 'file-approved' : 'change-asked';
    const event = { kind, name: file.name, comment: decision.comment } as const;
    await addToTimeline(tx, invoiceId, event, byName);
    const verb = decision.decision === 'approved' ? 'approved' : 'asks for a change of';
    await tell(tx, invoice, `decision:${id}`, `${byName} ${verb} ${file.name}`, decision.comment);
  },
);

const QUESTIONS = { name: 'question', attempts: 10, seconds: 3600 } as const;

/** Takes a question of the customer's: to the business by mail, and onto the timeline. */
export const askQuestion = byLink(INVOICE_LINK).run(
  async (ctx, invoiceId: string, question: { text: string; byName: string }, address: string): Promise<void> => {
    const waits = await Promise.all([countAttempt(QUESTIONS, invoiceId), countAttempt(QUESTIONS, address)]);
    if (waits.some((seconds) => seconds > 0)) throw new Refusal('asked-too-often');
    await ctx.write(async (tx) => {
      const invoice = found(await invoiceById(tx, invoiceId));
      const byName = question.byName.trim() || found(invoice.printed).payer.name;
      const id = randomUUID();
      const text = question.text.trim();
      await insertQuestion(tx, { id, invoiceId, text, byName, askedAt: tx.now, answer: null });
      await addToTimeline(tx, invoiceId, { kind: 'question', text }, byName);
      const business = await businessById(tx);
      const from = found(invoice.printed).payer.email;
      await queueMessage(tx, {
        kind: 'question',
        key: `question:${id}`,
        invoiceId,
        toName: business.name,
        toAddress: business.email,
        details: { text, subject: `${byName} asks about invoice ${invoice.number}`, ...(from ? { from } : {}) },
      });
    });
  },
);

async function tell(tx: Tx, invoice: Invoice, key: string, subject: string, text: string): Promise<void> {
  const business = await businessById(tx);
  const details = { subject: `${subject}, invoice ${invoice.number}`, text: text || `${subject}.` };
  const to = { toName: business.name, toAddress: business.email };
  await queueMessage(tx, { kind: 'notice', key, invoiceId: invoice.id, details, ...to });
}
