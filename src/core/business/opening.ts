import type { CheckState } from '../identity/identity';
import type { Business } from './business';
import { businessKind } from './kinds';

/** What is open to a business, and since when: writing always is. */
export type Opened = Pick<Business, 'mailConfirmedAt' | 'cardsSince' | 'verifiedAt'>;

/** Whether it may ask anybody for money: somebody of it has shown that their address is theirs. */
export const maySend = ({ mailConfirmedAt }: Pick<Opened, 'mailConfirmedAt'>): boolean => mailConfirmedAt !== null;

/** Whether it can be paid through the processor: it has said what it sells, and how it is called on statements. */
export const cardsOpen = ({ cardsSince }: Pick<Opened, 'cardsSince'>): boolean => cardsSince !== null;

/** How long a name on a card's statement is at most, in letters: what all schemes carry whole. */
export const STATEMENT_NAME = { least: 5, most: 22 } as const;

/** What a bank prints of a name: capital letters, figures and a few signs; accents fall away. */
export const statementName = (typed: string): string =>
  typed
    .normalize('NFD')
    .replace(/\p{M}/gu, '')
    .replaceAll('ß', 'ss')
    .toUpperCase()
    .replace(/[^A-Z0-9 .&/-]/g, ' ')
    .replace(/\s+/g, ' ')
    .trim()
    .slice(0, STATEMENT_NAME.most)
    .trim();

/** The two answers that open card payments. */
export type CardAnswers = { readonly kind: string; readonly statementName: string };

/** What is wrong with the answers, by their place; none where cards can open. */
export function answerProblems(given: CardAnswers): { field: keyof CardAnswers; words: string }[] {
  const name = statementName(given.statementName);
  const problems: { field: keyof CardAnswers; words: string }[] = [];
  if (!businessKind(given.kind))
    problems.push({ field: 'kind', words: 'Choose what comes nearest: write a word of your trade.' });
  if (name.length < STATEMENT_NAME.least || !/[A-Z]/.test(name))
    problems.push({
      field: 'statementName',
      words: `Write a name of ${STATEMENT_NAME.least} to ${STATEMENT_NAME.most} letters that your customers know.`,
    });
  return problems;
}

/** A step of the first days: what is done, and what that opens. */
export type Step = {
  readonly step: 'signed-up' | 'mail' | 'cards' | 'identity' | 'payouts';
  readonly state: 'open' | 'next' | 'later' | 'looked-at';
};

/**
 * What opens what, in order; the first that is not open is the next, others wait without hurry.
 *
 * @param account how the first bank account for payouts stands
 * @param check how it stands with who is behind the business; what is asked anew is to be done next
 */
export function steps(
  opened: Opened,
  account: 'none' | 'checking' | 'confirmed',
  check: CheckState | null,
): readonly Step[] {
  const states: readonly (readonly [Step['step'], Step['state']])[] = [
    ['signed-up', 'open'],
    ['mail', maySend(opened) ? 'open' : 'later'],
    ['cards', cardsOpen(opened) ? 'open' : 'later'],
    ['identity', opened.verifiedAt ? 'open' : check === 'checking' ? 'looked-at' : 'later'],
    ['payouts', account === 'confirmed' ? 'open' : account === 'checking' ? 'looked-at' : 'later'],
  ];
  const next = states.findIndex(([, state]) => state === 'later');
  return states.map(([step, state], at) => ({ step, state: at === next ? 'next' : state }));
}
