'use client';
import type { Route } from 'next';
import Link from 'next/link';
import type { ReactNode } from 'react';
import type { Step } from '@/core/business/opening';
import { ConfirmHere } from './confirm-form';

/** How the first days stand, as the desk shows them: times are written already. */
export type ShownFirstDay = {
  readonly steps: readonly Step[];
  /** When somebody signed up. */
  readonly since: string;
  readonly isFirst: boolean;
  readonly mail: { readonly email: string; readonly sent: string } | null;
  /** Whether this person may change what holds for the whole business. */
  readonly maySet: boolean;
  /** Whether this person is one of its owners. */
  readonly mayDecide: boolean;
};

const DEEDS: Readonly<Record<Step['step'], readonly [deed: string, opens: string]>> = {
  'signed-up': ['Signed up', 'Writing, proof, rehearsal'],
  mail: ['Confirm your address', 'Sending'],
  cards: ['Two answers', 'Card payments'],
  identity: ['Who stands behind it', 'Payouts'],
  payouts: ['A bank account', 'Payouts'],
};

const LINES: Readonly<Record<Step['state'], string>> = {
  open: 'border-b-2 border-leaf',
  'looked-at': 'border-b-2 border-dashed border-ochre',
  next: 'border-b-2 border-dotted border-[var(--dots)]',
  later: 'border-b-2 border-dotted border-[var(--dots)]',
};

const When = ({ state }: { state: Step['state'] }) => (
  <b className="font-semibold">{state === 'next' ? 'Next.' : 'When you like.'}</b>
);

function words({ step, state }: Step, of: ShownFirstDay): ReactNode {
  if (step === 'signed-up') return <b className="font-semibold text-leaf">Open since {of.since}</b>;
  if (state === 'open') return <b className="font-semibold text-leaf">Open</b>;
  if (step === 'mail')
    return of.mail ? (
      <ConfirmHere email={of.mail.email} sent={of.mail.sent} />
    ) : (
      'Whoever signed up has yet to confirm their address.'
    );
  if (step === 'cards')
    return (
      <>
        <When state={state} /> What you sell, and your name on card statements.{' '}
        {of.maySet ? (
          <Link href="/settings/cards" className="link">
            Give the answers
          </Link>
        ) : (
          'An owner gives them.'
        )}
      </>
    );
  if (step === 'identity')
    return state === 'looked-at' ? (
      <>
        <b className="font-semibold text-ochre">The office is looking.</b> It takes a day or two; a mail says what came
        of it.
      </>
    ) : (
      <>
        <When state={state} /> Names, a document, your face. Nothing is paid out before.{' '}
        {of.mayDecide ? (
          <Link href="/settings/identity" className="link">
            Show it
          </Link>
        ) : (
          'An owner shows it.'
        )}
      </>
    );
  if (state === 'looked-at')
    return (
      <>
        <b className="font-semibold text-ochre">Two small sums are on their way.</b> Type them as they stand on the
        statement.{' '}
        <Link href={'/money/payouts' as Route} className="link">
          Confirm the account
        </Link>
      </>
    );
  return (
    <>
      <When state={state} /> What is paid by card is kept for you until there is an account.{' '}
      {of.maySet ? (
        <Link href={'/money/payouts' as Route} className="link">
          Give an account
        </Link>
      ) : null}
    </>
  );
}

/** What is done, and what that opens: a list that is left and taken up again. */
export function WhatOpens({ of }: { of: ShownFirstDay }) {
  const open = of.steps.filter(({ state }) => state === 'open').length;
  return (
    <section aria-label="What opens what">
      <div className="flex items-baseline justify-between border-b border-ink pb-1.5">
        <h2 className="title-section">What opens what</h2>
        <span className="small text-soft">
          {open} of {of.steps.length} open
        </span>
      </div>
      <ol>
        {of.steps.map((one) => {
          const [deed, opens] = DEEDS[one.step];
          return (
            <li key={one.step} className="border-b border-rule py-3 last:border-0">
              <div className="flex items-baseline gap-2 font-serif text-[16px]/6">
                <span className="font-medium">{deed}</span>
                <span className={`mb-1.5 min-w-6 flex-1 self-end ${LINES[one.state]}`} aria-hidden="true" />
                <span>{opens}</span>
              </div>
              <div>{words(one, of)}</div>
            </li>
          );
        })}
      </ol>
    </section>
  );
}
