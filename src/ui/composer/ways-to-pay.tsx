'use client';
import type { Paper } from '@/core/paper/paper';
import { TickField } from '../kit/check';
import { FieldError } from '../kit/field';
import { NumberInput } from '../kit/number-input';
import type { ShownProblems } from './problems';

/** How the invoice may be paid. */
export function WaysToPay({
  ways,
  problems,
  hasAccount,
  smallest,
  cardsOpen,
  onChange,
}: {
  ways: Paper['ways'];
  problems: ShownProblems;
  hasAccount: boolean;
  /** The smallest card payment in the paper's currency, in words; empty for none. */
  smallest: string;
  cardsOpen: boolean;
  onChange: (ways: Paper['ways']) => void;
}) {
  const setWays = (part: Partial<Paper['ways']>) => onChange({ ...ways, ...part });
  return (
    <fieldset className="grid content-start gap-2" data-field="ways" tabIndex={-1}>
      <legend className="label mb-1">Ways to pay</legend>
      <TickField
        label="By card"
        {...(cardsOpen ? {} : { hint: 'From the day on that card payments are open; nobody is asked before.' })}
        checked={ways.card}
        onChange={(event) => setWays({ card: event.target.checked })}
      />
      <TickField
        label="By bank debit"
        hint="From their account; known after some banking days."
        checked={ways.debit ?? false}
        onChange={(event) => setWays({ debit: event.target.checked })}
      />
      <TickField
        label="By bank transfer"
        {...(hasAccount ? {} : { hint: 'Your account is not in the profile yet.' })}
        checked={ways.transfer}
        onChange={(event) => setWays({ transfer: event.target.checked })}
      />
      <TickField label="In parts" checked={ways.parts} onChange={(event) => setWays({ parts: event.target.checked })} />
      {ways.parts ? (
        <label className="flex items-baseline gap-2 pl-[26px] text-soft">
          First at least
          <NumberInput
            data-field="first"
            aria-label="Least first payment, as 30% or an amount"
            className="blank !w-24 !text-[14px]/5"
            placeholder="30% or 100"
            value={ways.first}
            onChange={(event) => setWays({ first: event.target.value })}
          />
        </label>
      ) : null}
      {ways.parts && smallest ? <p className="small pl-[26px] text-soft">A part is at least {smallest}.</p> : null}
      <TickField
        label="Ask for a tip"
        checked={ways.tip !== null}
        onChange={(event) => setWays({ tip: event.target.checked ? ['5', '10', '15'] : null })}
      />
      {ways.tip ? (
        <label className="flex items-baseline gap-2 pl-[26px] text-soft">
          Suggested percents
          <input
            className="blank !w-28 !text-[14px]/5"
            defaultValue={ways.tip.join(', ')}
            onChange={(event) =>
              setWays({
                tip: event.target.value
                  .split(/[\s,;]+/)
                  .filter((part) => /^(100|[1-9]?[0-9])$/.test(part))
                  .slice(0, 4),
              })
            }
          />
        </label>
      ) : null}
      {['ways', 'first'].map((field) =>
        problems.of(field) ? <FieldError key={field}>{problems.of(field)}</FieldError> : null,
      )}
    </fieldset>
  );
}
