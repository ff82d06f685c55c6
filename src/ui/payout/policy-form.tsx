'use client';
import { X } from 'lucide-react';
import { useState } from 'react';
import { weekdayName } from '@/core/dates/date-text';
import type { DisputeRule } from '@/core/dispute/dispute';
import { typedMinor } from '@/core/invoice/read-paper';
import { minorDigits } from '@/core/money/currency';
import { DISPUTE_RULE_WORDS, type PayoutWhen } from '@/core/payout/policy';
import { useDeskLocale } from '../kit/at-desk';
import { Button } from '../kit/button';
import { CurrencyField } from '../kit/currency-field';
import { FieldError } from '../kit/field';
import { MoneyField } from '../kit/money-field';
import { NumberField } from '../kit/number-input';
import { usePress } from '../kit/press';
import { SelectField } from '../kit/select';
import { troubleOf } from '../kit/send';

type Smallest = { readonly currency: string; readonly sum: string };

const WHENS = [
  ['daily', 'Each banking day'],
  ['weekly', 'Weekly'],
  ['monthly', 'Monthly'],
  ['by-hand', 'By hand'],
] as const;

/** When is paid out, and from which sum on. */
export function PolicyForm({
  when,
  smallest,
  disputes,
  currency,
  may,
}: {
  when: PayoutWhen;
  smallest: readonly Smallest[];
  disputes: DisputeRule;
  currency: string;
  may: boolean;
}) {
  const locale = useDeskLocale();
  const { busy, press } = usePress();
  const [kind, setKind] = useState<PayoutWhen['kind']>(when.kind);
  const [weekday, setWeekday] = useState(when.kind === 'weekly' ? when.weekday : 1);
  const [day, setDay] = useState(String(when.kind === 'monthly' ? when.day : 1));
  const [lines, setLines] = useState(smallest);
  const [rule, setRule] = useState(disputes);
  const [trouble, setTrouble] = useState('');
  const set = (at: number, part: Partial<Smallest>) =>
    setLines(lines.map((line, index) => (index === at ? { ...line, ...part } : line)));

  async function keep() {
    const read = lines.map(({ currency: code, sum }) => [code, typedMinor(sum || '0', minorDigits(code))] as const);
    if (read.some(([, minor]) => minor === null || minor < 0n))
      return setTrouble('Write the smallest sum as an amount, such as 25.00.');
    if (new Set(read.map(([code]) => code)).size < read.length) return setTrouble('One currency stands there twice.');
    if (kind === 'monthly' && !/^([1-9]|[12]\d|3[01])$/.test(day.trim()))
      return setTrouble('Write the day of the month as a number from 1 to 31.');
    const answer = await press(
      '/api/payouts/policy',
      {
        when: { kind, ...(kind === 'weekly' ? { weekday } : {}), ...(kind === 'monthly' ? { day: Number(day) } : {}) },
        disputes: rule,
        smallest: Object.fromEntries(read.map(([code, minor]) => [code, Number(minor)])),
      },
      'Saved: it counts for the dates to come',
      'PUT',
    );
    setTrouble(answer.ok ? '' : troubleOf(answer));
  }

  return (
    <form
      className="mt-3 grid gap-3"
      onSubmit={(event) => {
        event.preventDefault();
        void keep();
      }}
    >
      <div className="grid gap-3 sm:grid-cols-2">
        <SelectField
          label="Money goes out"
          value={kind}
          disabled={!may}
          onChange={(event) => setKind(event.target.value as PayoutWhen['kind'])}
        >
          {WHENS.map(([value, words]) => (
            <option key={value} value={value}>
              {words}
            </option>
          ))}
        </SelectField>
        {kind === 'weekly' ? (
          <SelectField
            label="On"
            value={String(weekday)}
            disabled={!may}
            onChange={(event) => setWeekday(Number(event.target.value))}
          >
            {[1, 2, 3, 4, 5, 6, 7].map((one) => (
              <option key={one} value={String(one)}>
                {weekdayName(one, locale)}
              </option>
            ))}
          </SelectField>
        ) : null}
        {kind === 'monthly' ? (
          <NumberField label="On day" value={day} disabled={!may} onChange={(event) => setDay(event.target.value)} />
        ) : null}
      </div>
      <p className="small text-soft">
        A date on which banks do not work moves to the next on which they do. Weekends and the days off of your calendar
        are left out.
      </p>
      {lines.map((line, at) => (
        <div key={at} className="grid grid-cols-[110px_140px_32px] items-end gap-3">
          <CurrencyField
            value={line.currency}
            first={[currency]}
            disabled={!may}
            onChoose={(code) => set(at, { currency: code })}
          />
          <MoneyField
            label="Not below"
            currency={line.currency}
            value={line.sum}
            disabled={!may}
            onChange={(event) => set(at, { sum: event.target.value })}
          />
          {may ? (
            <Button
              look="link"
              aria-label={`Remove the smallest sum of ${line.currency}`}
              onClick={() => setLines(lines.filter((_, index) => index !== at))}
            >
              <X size={16} strokeWidth={1.6} aria-hidden="true" />
            </Button>
          ) : null}
        </div>
      ))}
      <SelectField
        label="When a payment is disputed"
        value={rule}
        disabled={!may}
        onChange={(event) => setRule(event.target.value as DisputeRule)}
      >
        {Object.entries(DISPUTE_RULE_WORDS).map(([value, words]) => (
          <option key={value} value={value}>
            {words}
          </option>
        ))}
      </SelectField>
      {trouble ? <FieldError>{trouble}</FieldError> : null}
      {may ? (
        <div className="flex flex-wrap items-center gap-4">
          <Button type="submit" busy={busy}>
            Save
          </Button>
          <Button look="link" opens onClick={() => setLines([...lines, { currency, sum: '' }])}>
            Add a smallest sum
          </Button>
        </div>
      ) : null}
    </form>
  );
}
