import { randomUUID } from 'node:crypto';
import { insertApproval, latestApprovals } from '@/db/approvals';
import { businessById } from '@/db/businesses';
import { fileById } from '@/db/files';
import { type Invoice, invoiceById, linkHolder, lockedInvoice, updateTermsAccepted } from '@/db/invoices';
import { announce } from '@/db/jobs';
import { countAttempt } from '@/db/limits';
import type { Tx } from '@/db/pool';
import { insertQuestion } from '@/db/questions';
import { insertHappening } from '@/db/timeline';
import { inBusiness, outsideBusiness } from '@/db/transaction';
import { services } from '@/outside/services';
import { found } from './access';
import { queueMessage } from './queue-message';
import { Refusal } from './refusal';

/**
 * Makes sure that everything which has to be agreed to before paying is agreed to: files marked so, and the terms. Terms
 * accepted with this press are kept with their version.
 *
 * @throws Refusal `approve-first`, `accept-first`
 */
export async function requireConsent(
  tx: Tx,
  businessId: string,
  invoice: Invoice,
  acceptsTerms: boolean,
  now: Date,
): Promise<void> {
  const { files, terms, payer } = found(invoice.printed);
  const waiting = files.filter(({ approve }) => approve);
  if (waiting.length > 0) {
    const approved = new Set(
      (await latestApprovals(tx, businessId, invoice.id))
        .filter(({ decision }) => decision === 'approved')
        .map(({ fileId }) => fileId),
    );
    if (waiting.some(({ id }) => !approved.has(id))) throw new Refusal('approve-first');
  }
  if (!terms || invoice.termsAccepted?.versionId === terms.versionId) return;
  if (!acceptsTerms) throw new Refusal('accept-first');
  const accepted = { versionId: terms.versionId, version: terms.version, at: now.toISOString() };
  await updateTermsAccepted(tx, businessId, invoice.id, accepted);
  await insertHappening(
    tx,
    businessId,
    invoice.id,
    { kind: 'terms-accepted', version: terms.version },
    payer.name,
    now,
  );
}

async function opened(link: string): Promise<{ businessId: string; invoiceId: string }> {
  return found(await outsideBusiness((db) => linkHolder(db, link)));
}

/** Writes down what the customer decided about a file, with the checksum of what was looked at, and tells the business. */
export async function decideFile(
  link: string,
  fileId: string,
  decision: { decision: 'approved' | 'change'; comment: string; byName: string },
): Promise<void> {
  const { businessId, invoiceId } = await opened(link);
  const now = await services().clock.now();
  await inBusiness(businessId, async (tx) => {
    const invoice = found(await lockedInvoice(tx, businessId, invoiceId));
    const file = found(invoice.printed?.files.find(({ id, approve }) => id === fileId && approve));
    if (invoice.stage !== 'sent') throw new Refusal('invoice-not-payable');
    const { sha256 } = found(await fileById(tx, businessId, fileId));
    const byName = decision.byName.trim() || found(invoice.printed).payer.name;
    const id = randomUUID();
    await insertApproval(tx, businessId, invoiceId, { id, fileId, ...decision, byName, sha256, at: now });
    const kind = decision.decision === 'approved' ? 'file-approved' : 'change-asked';
    const happening = { kind, name: file.name, comment: decision.comment } as const;
    await insertHappening(tx, businessId, invoiceId, happening, byName, now);
    const verb = decision.decision === 'approved' ? 'approved' : 'asks for a change of';
    await tell(tx, businessId, invoice, `decision:${id}`, `${byName} ${verb} ${file.name}`, decision.comment, now);
    await announce(tx, businessId);
  });
}

const QUESTIONS = { name: 'question', attempts: 10, seconds: 3600 } as const;

/** Takes a question of the customer's: to the business by mail, and onto the timeline. */
export async function askQuestion(
  link: string,
  question: { text: string; byName: string },
  address: string,
): Promise<void> {
  const { businessId, invoiceId } = await opened(link);
  const waits = await Promise.all([countAttempt(QUESTIONS, invoiceId), countAttempt(QUESTIONS, address)]);
  if (waits.some((seconds) => seconds > 0)) throw new Refusal('asked-too-often');
  const now = await services().clock.now();
  await inBusiness(businessId, async (tx) => {
    const invoice = found(await invoiceById(tx, businessId, invoiceId));
    const byName = question.byName.trim() || found(invoice.printed).payer.name;
    const id = randomUUID();
    const text = question.text.trim();
    await insertQuestion(tx, businessId, { id, invoiceId, text, byName, askedAt: now, answer: null });
    await insertHappening(tx, businessId, invoiceId, { kind: 'question', text }, byName, now);
    const business = await businessById(tx, businessId);
    const from = found(invoice.printed).payer.email;
    await queueMessage(
      tx,
      businessId,
      {
        kind: 'question',
        key: `question:${id}`,
        invoiceId,
        toName: business.name,
        toAddress: business.email,
        details: { text, subject: `${byName} asks about invoice ${invoice.number}`, ...(from ? { from } : {}) },
      },
      now,
    );
    await announce(tx, businessId);
  });
}

async function tell(
  tx: Tx,
  businessId: string,
  invoice: Invoice,
  key: string,
  subject: string,
  text: string,
  now: Date,
): Promise<void> {
  const business = await businessById(tx, businessId);
  const details = { subject: `${subject}, invoice ${invoice.number}`, text: text || `${subject}.` };
  const to = { toName: business.name, toAddress: business.email };
  await queueMessage(tx, businessId, { kind: 'notice', key, invoiceId: invoice.id, details, ...to }, now);
}
