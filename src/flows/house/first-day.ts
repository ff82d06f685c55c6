import { changedBetween, openingSettings } from '@/core/business/money-settings';
import { answerProblems, type CardAnswers, type Step, statementName, steps } from '@/core/business/opening';
import { bankAccounts } from '@/db/bank-accounts';
import { businessById, hasAsked, openCards } from '@/db/businesses';
import { customerById } from '@/db/customers';
import { latestCheck } from '@/db/identity';
import { invoiceById, latestDraft } from '@/db/invoices';
import { proofOf } from '@/db/mail-proofs';
import { isUnconfirmed, personWithEmail } from '@/db/people';
import type { Db } from '@/db/pool';
import { desk, type Reading } from '@/flows/door/operation';
import { Refusal } from '@/flows/door/refusal';
import { found } from '@/flows/door/rights';
import { noteSettings } from '@/flows/log/log';

/** What stands on the first paper so far. */
export type HalfWritten = {
  readonly id: string;
  readonly customer: string;
  readonly lines: readonly string[];
  readonly totalMinor: bigint;
  readonly currency: string;
};

async function halfWritten(db: Db): Promise<HalfWritten | null> {
  const latest = await latestDraft(db);
  const draft = latest && (await invoiceById(db, latest.id));
  if (!draft) return null;
  const customer = draft.customerId ? await customerById(db, draft.customerId) : null;
  return {
    id: draft.id,
    customer: customer?.name ?? '',
    lines: draft.paper.lines.map(({ what }) => what.trim()).filter(Boolean),
    totalMinor: draft.totalMinor,
    currency: draft.currency,
  };
}

/** The first days of a business that signed up, while something is not open yet or nobody was asked for money. */
export type FirstDay = {
  readonly steps: readonly Step[];
  readonly signedUpAt: Date;
  /** Whether nobody was asked for money yet. */
  readonly isFirst: boolean;
  /** The half-written invoice, while it is there. */
  readonly draft: HalfWritten | null;
  /** The address of whoever looks, and since when its figures are on their way; null where it is confirmed. */
  readonly mail: { readonly email: string; readonly sentAt: Date | null } | null;
};

async function accountStanding(db: Db): Promise<'none' | 'checking' | 'confirmed'> {
  const states = (await bankAccounts(db, null)).map(({ state }) => state);
  return states.includes('checked') ? 'confirmed' : states.includes('checking') ? 'checking' : 'none';
}

/** How the first days stand; null where all is open and the first money was asked for, and for a business that a program founded. */
export async function readFirstDay(db: Reading): Promise<FirstDay | null> {
  const business = await businessById(db);
  const { signedUpAt } = business;
  if (!signedUpAt) return null;
  const all = steps(business, await accountStanding(db), (await latestCheck(db))?.state ?? null);
  const isFirst = !(await hasAsked(db));
  if (!isFirst && all.every(({ state }) => state === 'open')) return null;
  const person = found(await personWithEmail(db, db.personId));
  const proof = await proofOf(db, 'confirm', db.personId);
  return {
    steps: all,
    signedUpAt,
    isFirst,
    draft: isFirst ? await halfWritten(db) : null,
    mail: (await isUnconfirmed(db, db.personId)) ? { email: person.email, sentAt: proof?.madeAt ?? null } : null,
  };
}

export const firstDay = desk('see').read(readFirstDay);

/** The two answers as they stand. */
export const cardAnswers = desk('see').read(
  async (db): Promise<CardAnswers & { readonly since: Date | null; readonly proposed: string }> => {
    const { kind, statementName: called, cardsSince, name } = await businessById(db);
    return { kind, statementName: called, since: cardsSince, proposed: statementName(name) };
  },
);

/** Keeps the two answers, which open card payments. @throws Refusal `cards-not-answered` with the places */
export const answerForCards = desk('settings').write(async (tx, given: CardAnswers): Promise<void> => {
  const problems = answerProblems(given);
  if (problems.length > 0) throw new Refusal('cards-not-answered', problems);
  const before = await businessById(tx);
  const after = { kind: given.kind, statementName: statementName(given.statementName) };
  await openCards(tx, after);
  await noteSettings(tx, 'profile', changedBetween(openingSettings(before), openingSettings(after)));
});
