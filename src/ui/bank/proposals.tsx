'use client';
import { useState } from 'react';
import { typedMinor } from '@/core/invoice/read-paper';
import { minorDigits } from '@/core/money/currency';
import { money } from '@/core/money/money';
import { moneyText, plainSum } from '@/core/money/money-text';
import { Figure } from '../kit/amount';
import { Button } from '../kit/button';
import { TickField } from '../kit/check';
import { FieldError } from '../kit/field';
import { NumberInput } from '../kit/number-input';
import { Segment } from '../kit/segment';
import { type BankLineShown, type BankProposal, SURE_WORDS } from './bank-shown';
import { Petal } from './petal';

export type Taken = {
  readonly parts: readonly { readonly kind: string; readonly id: string; readonly minor: number }[];
  readonly rest: 'credit' | 'open';
  readonly note: string;
  readonly always: boolean;
};

/** A proposal in hand: its sums can be changed, and what is left has a place before the match works. */
function InHand({
  proposal,
  line,
  currency,
  locale,
  busy,
  trouble,
  onTake,
  onFind,
}: {
  proposal: BankProposal;
  line: BankLineShown;
  currency: string;
  locale: string;
  busy: boolean;
  trouble: string;
  onTake: (taken: Taken) => void;
  onFind: () => void;
}) {
  const isSplit = proposal.parts.length > 0 && proposal.parts.every(({ kind }) => kind === 'invoice');
  const [sums, setSums] = useState(() => proposal.parts.map(({ minor }) => plainSum(BigInt(minor), currency)));
  const [rest, setRest] = useState<'credit' | 'open'>('credit');
  const [short, setShort] = useState<'due' | 'charge'>('due');
  const [always, setAlways] = useState(false);
  const text = (minor: number) => moneyText(money(BigInt(minor), currency), locale);
  const read = isSplit
    ? sums.map((sum) => Number(typedMinor(sum, minorDigits(currency)) ?? -1n))
    : proposal.parts.map(({ minor }) => minor);
  const given = read.reduce((all, minor) => all + Math.max(0, minor), 0);
  const left = isSplit ? line.open - given : 0;
  const wrong = read.some((minor) => isSplit && minor < 0)
    ? 'Write each sum as an amount.'
    : left < 0
      ? `That is ${text(-left)} more than the line has.`
      : '';
  // Less came than is due of the one invoice: it stays due, or the bank kept it.
  const isShort = isSplit && proposal.parts.length === 1 && proposal.rest < 0 && left === 0;
  const kept = isShort && short === 'charge' ? proposal.rest : 0;
  const take = () =>
    onTake({
      parts: [
        ...proposal.parts.flatMap(({ kind, id }, at) => {
          const minor = (read[at] ?? 0) - kept;
          return minor !== 0 ? [{ kind, id, minor }] : [];
        }),
        ...(kept < 0 ? [{ kind: 'aside', id: 'charge', minor: kept }] : []),
      ],
      rest,
      note: proposal.parts[0]?.kind === 'aside' ? (proposal.parts[0]?.label ?? '') : '',
      always,
    });
  return (
    <form
      className="mt-2"
      onSubmit={(event) => {
        event.preventDefault();
        if (!wrong) take();
      }}
    >
      <ul className="document">
        {proposal.parts.map((part, at) => (
          <li key={part.id} className="leader min-h-9 items-center">
            <span>{part.label}</span>
            <span className="dots" aria-hidden="true" />
            {isSplit ? (
              <span className="w-[112px] flex-none">
                <NumberInput
                  aria-label={`Of it for ${part.label}`}
                  className="input text-right font-serif text-[15px]"
                  value={sums[at] ?? ''}
                  onChange={(event) => setSums(sums.map((sum, index) => (index === at ? event.target.value : sum)))}
                />
              </span>
            ) : (
              <Figure minor={part.minor} currency={currency} locale={locale} />
            )}
          </li>
        ))}
      </ul>
      {isShort ? (
        <div className="mt-2">
          <div className="document leader">
            <span>Less than is due</span>
            <span className="dots" aria-hidden="true" />
            <Figure minor={-proposal.rest} currency={currency} locale={locale} />
          </div>
          <Segment
            label="What becomes of the difference"
            hidden
            value={short}
            choices={[
              ['due', 'Stays due'],
              ['charge', 'The bank kept it'],
            ]}
            onChoose={setShort}
          />
        </div>
      ) : null}
      {left > 0 ? (
        <div className="mt-2">
          <div className="document leader">
            <span>Rest</span>
            <span className="dots" aria-hidden="true" />
            <Figure minor={left} currency={currency} locale={locale} />
          </div>
          <Segment
            label="What becomes of the rest"
            hidden
            value={rest}
            choices={[
              ['credit', 'Their credit'],
              ['open', 'Leave open'],
            ]}
            onChoose={setRest}
          />
        </div>
      ) : null}
      <div className="document leader rule-total mt-2 py-0.5 text-[17px]/7 font-semibold">
        <span>The line</span>
        <span className="dots" aria-hidden="true" />
        <Figure minor={line.open} currency={currency} locale={locale} />
      </div>
      {line.name || line.otherAccount ? (
        <div className="mt-2">
          <TickField
            label={`Always like this for ${line.name || `account ${line.otherAccount}`}`}
            checked={always}
            onChange={(event) => setAlways(event.target.checked)}
          />
        </div>
      ) : null}
      {wrong || trouble ? <FieldError>{wrong || trouble}</FieldError> : null}
      <div className="mt-2.5 flex flex-wrap items-center gap-4">
        <Button type="submit" look="go" busy={busy} disabled={wrong !== ''}>
          Match{' '}
          {text(
            Math.max(0, isSplit ? Math.min(line.open, given + (rest === 'credit' ? Math.max(0, left) : 0)) : line.open),
          )}
        </Button>
        <Button look="link" onClick={onFind}>
          Another invoice
        </Button>
      </div>
    </form>
  );
}

/** What a line could be for, the likeliest first; one is in hand. */
export function Proposals({
  line,
  at,
  currency,
  locale,
  may,
  busy,
  trouble,
  onChoose,
  onTake,
  onFind,
  onAside,
  onLater,
}: {
  line: BankLineShown;
  at: number;
  currency: string;
  locale: string;
  may: boolean;
  busy: boolean;
  trouble: string;
  onChoose: (at: number) => void;
  onTake: (taken: Taken) => void;
  onFind: () => void;
  onAside: () => void;
  onLater: () => void;
}) {
  return (
    <section aria-label="What it could be for">
      <ol>
        {line.proposals.map((proposal, index) => (
          <li
            key={proposal.key}
            className={
              index === at
                ? 'rounded-control bg-petal px-[18px] py-3 shadow-[inset_0_0_0_1.5px_var(--plum)]'
                : 'border-b border-edge px-[18px] py-3'
            }
          >
            <button
              type="button"
              className="flex w-full items-baseline gap-2.5 text-left"
              aria-expanded={index === at}
              onClick={() => onChoose(index)}
            >
              <kbd className="key">{index + 1}</kbd>
              <b className="private min-w-0 flex-1 font-serif text-[17px]/6 font-semibold">{proposal.title}</b>
              <span className="inline-flex items-center gap-1.5 whitespace-nowrap text-[12.5px] font-semibold">
                <Petal group={proposal.sure} />
                {SURE_WORDS[proposal.sure]}
                {proposal.facts.length > 0 ? `, ${proposal.agreeing} of ${proposal.facts.length} agree` : ''}
              </span>
            </button>
            {index === at && may ? (
              <InHand
                key={`${line.id} ${proposal.key}`}
                proposal={proposal}
                line={line}
                currency={currency}
                locale={locale}
                busy={busy}
                trouble={trouble}
                onTake={onTake}
                onFind={onFind}
              />
            ) : null}
          </li>
        ))}
      </ol>
      {may ? (
        <p className="flex flex-wrap gap-x-5 gap-y-2 px-[18px] pt-3">
          <Button look="link" onClick={onFind}>
            {line.proposals.length > 0 ? 'None of these: find it' : 'Find an invoice'}
          </Button>
          <Button look="link" onClick={onAside}>
            It is not from a customer
          </Button>
          <Button look="link" disabled={busy} onClick={onLater}>
            {line.group === 'later' ? 'Take it up again' : 'Leave it for later'}
          </Button>
        </p>
      ) : null}
    </section>
  );
}
