'use client';
import { type OfferRepeat, type OfferRhythm, rhythmKey } from '@/core/offer/repeat';
import { en } from '@/core/words/en';
import { TickField } from '../kit/check';
import { Field } from '../kit/field';
import { SelectField } from '../kit/select';
import { Collapsible } from './collapsible';
import type { OfferEditing } from './use-offer';

const USUAL: readonly OfferRhythm[] = [
  { unit: 'month', every: 1 },
  { unit: 'year', every: 1 },
  { unit: 'week', every: 1 },
];
const NONE: OfferRepeat = { rhythms: [], once: true, count: null };

const words = ({ unit, every }: OfferRhythm): string => en.offer.rhythm(unit, every);

/** Whether a payment can be repeated: the first one starts a billing plan. */
export function RepeatSection({ of }: { of: OfferEditing }) {
  const { offer, set } = of;
  const repeat = offer.repeat ?? NONE;
  const change = (part: Partial<OfferRepeat>) => {
    const next = { ...repeat, ...part };
    set({ repeat: next.rhythms.length > 0 ? next : null });
  };
  const has = (one: OfferRhythm) => repeat.rhythms.some((other) => rhythmKey(other) === rhythmKey(one));
  const own = repeat.rhythms.find((one) => !USUAL.some((other) => rhythmKey(other) === rhythmKey(one)));
  const toggle = (one: OfferRhythm) =>
    change({
      rhythms: has(one)
        ? repeat.rhythms.filter((other) => rhythmKey(other) !== rhythmKey(one))
        : [...repeat.rhythms, one],
    });
  const setOwn = (one: OfferRhythm | null) =>
    change({ rhythms: [...repeat.rhythms.filter((other) => other !== own), ...(one ? [one] : [])] });
  const now = [repeat.once && repeat.rhythms.length > 0 ? 'once' : '', ...repeat.rhythms.map(words)].filter(Boolean);
  return (
    <Collapsible name="Paid again" now={offer.repeat ? now.join(', ') : 'everybody pays once'}>
      <p className="text-soft">
        The payer chooses, and agrees that the card is charged again. A billing plan begins with it.
      </p>
      <div className="flex flex-wrap gap-x-7 gap-y-2">
        {USUAL.map((one) => (
          <TickField key={rhythmKey(one)} label={words(one)} checked={has(one)} onChange={() => toggle(one)} />
        ))}
        <TickField
          label="another rhythm"
          checked={own !== undefined}
          onChange={(event) => setOwn(event.target.checked ? { unit: 'month', every: 3 } : null)}
        />
      </div>
      {own ? (
        <div className="flex items-end gap-3">
          <Field
            label="Every"
            className="w-[70px]"
            inputMode="numeric"
            value={String(own.every)}
            onChange={(event) => {
              const every = Number(event.target.value);
              if (Number.isInteger(every) && every >= 1 && every <= 24) setOwn({ ...own, every });
            }}
          />
          <SelectField
            label="Unit"
            value={own.unit}
            onChange={(event) => setOwn({ ...own, unit: event.target.value as OfferRhythm['unit'] })}
          >
            <option value="week">weeks</option>
            <option value="month">months</option>
            <option value="year">years</option>
          </SelectField>
        </div>
      ) : null}
      {offer.repeat ? (
        <div className="flex flex-wrap items-end gap-6">
          <TickField
            label="Paying once is possible too"
            checked={repeat.once}
            onChange={(event) => change({ once: event.target.checked })}
          />
          <Field
            label="Ends after so many payments"
            placeholder="no end"
            className="w-[190px]"
            inputMode="numeric"
            value={repeat.count === null ? '' : String(repeat.count)}
            onChange={(event) => {
              const count = Number(event.target.value);
              change({ count: Number.isInteger(count) && count >= 2 && count <= 520 ? count : null });
            }}
          />
        </div>
      ) : null}
    </Collapsible>
  );
}
