'use client';
import type { Route } from 'next';
import Link from 'next/link';
import { Amount, Figure } from '../kit/amount';
import { Button } from '../kit/button';
import type { BankFact, BankLineShown } from './bank-shown';

const UNDERLINES = {
  equal: 'border-solid border-plum',
  like: 'border-dotted border-plum',
  no: 'border-dashed border-ochre',
} as const;
const AGREES_WORDS = { equal: 'agrees', like: 'is alike', no: 'does not agree' } as const;

/** What of the line speaks for or against the proposal in hand, each with its number. */
function Facts({ facts }: { facts: readonly BankFact[] }) {
  return (
    <ol className="mt-4 grid gap-4">
      {facts.map((fact, at) => (
        <li key={at} className="grid grid-cols-[22px_minmax(0,1fr)] gap-x-2">
          <span
            aria-hidden="true"
            className={`mt-4 grid size-[18px] place-items-center rounded-full border-[1.5px] text-[10.5px] font-semibold ${
              fact.agrees === 'no' ? 'border-dashed border-ochre text-ochre' : 'border-plum text-plum'
            }`}
          >
            {at + 1}
          </span>
          <span className="min-w-0">
            <span className="block text-[12.5px]/[17px] font-medium text-soft">{fact.label}</span>
            <span
              className={`private inline-block max-w-full truncate border-b-2 font-serif text-[17px]/6 font-medium ${UNDERLINES[fact.agrees]}`}
            >
              {fact.found}
            </span>
            <span className="sr-only"> {AGREES_WORDS[fact.agrees]}</span>
            <span className="private block text-[12.5px]/[17px] text-soft">{fact.means}</span>
          </span>
        </li>
      ))}
    </ol>
  );
}

/** The line as the bank has it, and what of it agrees with the proposal. */
export function Slip({
  line,
  facts,
  currency,
  locale,
  may,
  busy,
  onUndo,
}: {
  line: BankLineShown;
  facts: readonly BankFact[];
  currency: string;
  locale: string;
  may: boolean;
  busy: boolean;
  onUndo: () => void;
}) {
  return (
    <article className="sheet px-[26px] pb-5 pt-4" aria-label="The line in hand">
      <div className="flex items-baseline justify-between gap-3">
        <span className="text-[12.5px]/5 text-soft">
          {line.day}, money {line.minor > 0 ? 'in' : 'out'}
        </span>
        <span className="font-serif text-[26px]/8 font-medium">
          <Amount minor={line.minor} currency={currency} locale={locale} />
        </span>
      </div>
      <p className="private mt-2 break-words border-y border-b-rule border-t-ink py-2 font-serif text-[18px]/[27px]">
        {line.text || line.name || 'The bank gives no words.'}
        {line.name && line.text ? <span className="block text-[14px]/5 text-soft">{line.name}</span> : null}
        {line.reference ? <span className="block text-[14px]/5 text-soft">{line.reference}</span> : null}
        {line.otherAccount ? (
          <span className="block text-[13px]/5 text-soft">from account {line.otherAccount}</span>
        ) : null}
      </p>
      {line.matches.length > 0 ? (
        <div className="mt-4">
          <h2 className="text-[12.5px]/5 font-semibold">Matched with</h2>
          <ul className="document leading-6">
            {line.matches.map((match, at) => (
              <li key={at} className="leader">
                <span className="private">
                  {match.href ? (
                    <Link className="link" href={match.href as Route}>
                      {match.words}
                    </Link>
                  ) : (
                    match.words
                  )}
                </span>
                <span className="dots" aria-hidden="true" />
                <Figure minor={match.minor} currency={currency} locale={locale} />
              </li>
            ))}
          </ul>
          <p className="small text-soft">By {line.matches.at(-1)?.byName}.</p>
          {may ? (
            <Button look="link" busy={busy} onClick={onUndo}>
              Undo the match
            </Button>
          ) : null}
        </div>
      ) : null}
      <Facts facts={facts} />
      {line.group !== 'matched' && facts.length === 0 ? (
        <p className="small mt-4 text-soft">
          Nothing that is open fits this line. Find an invoice for it, or say that it is not from a customer.
        </p>
      ) : null}
    </article>
  );
}
