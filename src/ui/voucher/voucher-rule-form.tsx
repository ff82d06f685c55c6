'use client';
import { useState } from 'react';
import type { VoucherRule } from '@/core/voucher/voucher';
import { Button } from '../kit/button';
import { TickField } from '../kit/check';
import { FieldError } from '../kit/field';
import { NumberField } from '../kit/number-input';
import { usePress } from '../kit/press';
import { troubleOf } from '../kit/send';

/** How long vouchers are good that are sold from now on; those that are sold stay as they were. */
export function VoucherRuleForm({ rule, mayAsk }: { rule: VoucherRule; mayAsk: boolean }) {
  const [months, setMonths] = useState(rule.months === null ? '' : String(rule.months));
  const [toYearEnd, setToYearEnd] = useState(rule.toYearEnd);
  const [trouble, setTrouble] = useState('');
  const { busy, press } = usePress();
  return (
    <form
      className="grid max-w-[460px] gap-3 pt-3"
      onSubmit={async (event) => {
        event.preventDefault();
        const typed = months.trim();
        if (typed && !/^\d{1,3}$/.test(typed)) return setTrouble('Write how many months, or nothing for without end.');
        const wanted = { months: typed ? Number(typed) : null, toYearEnd };
        const answer = await press('/api/voucher-rule', wanted, 'Kept for what is sold from now on', 'PUT');
        setTrouble(answer.ok ? '' : troubleOf(answer));
      }}
    >
      <div className="w-40">
        <NumberField
          label="Months from the sale"
          hint="Empty for without end."
          disabled={!mayAsk}
          value={months}
          onChange={(event) => setMonths(event.target.value)}
        />
      </div>
      <TickField
        label="and on to the end of that year"
        disabled={!mayAsk || months.trim() === ''}
        checked={toYearEnd}
        onChange={(event) => setToYearEnd(event.target.checked)}
      />
      <p className="small text-soft">
        What nobody used by then is booked as earned, and not owed any more. Look at what the law of your place asks
        for.
      </p>
      {trouble ? <FieldError>{trouble}</FieldError> : null}
      {mayAsk ? (
        <div>
          <Button type="submit" busy={busy}>
            Save
          </Button>
        </div>
      ) : null}
    </form>
  );
}
