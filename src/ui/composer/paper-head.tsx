'use client';
import type { Customer } from '@/core/customer/customer';
import type { CalendarDate } from '@/core/dates/calendar-date';
import type { Paper } from '@/core/paper/paper';
import { Button } from '../kit/button';
import { FieldError } from '../kit/field';
import { CustomerPicker } from './customer-picker';
import { DuePicker } from './due-picker';
import type { ShownProblems } from './problems';
import { focusField } from './use-lines';

/** Who pays, when, and what they call it. */
export function PaperHead({
  paper,
  customer,
  problems,
  today,
  locale,
  home,
  fixed,
  asksAtOnce,
  onCustomer,
  onMany,
  onChange,
}: {
  paper: Paper;
  customer: Customer | null;
  problems: ShownProblems;
  today: CalendarDate;
  locale: string;
  home: string;
  /** A sent invoice that is changed stays with its customer. */
  fixed: boolean;
  asksAtOnce: boolean;
  onCustomer: (customer: Customer) => void;
  onMany: () => void;
  onChange: (part: Partial<Paper>) => void;
}) {
  const known = customer
    ? [customer.email || 'no e-mail address', customer.billing.lines[0]].filter(Boolean).join(' · ')
    : 'Found by name or e-mail, or added';
  return (
    <div className="grid gap-x-7 gap-y-3 pb-4 sm:grid-cols-[1.5fr_1fr_.8fr] sm:pl-[34px]">
      <div className="min-w-0">
        <span className="label">Who pays</span>
        {fixed ? (
          <p className="private py-0.5 font-serif text-[20px]/[27px] font-medium">{customer?.name}</p>
        ) : (
          <CustomerPicker
            home={home}
            customer={customer}
            invalid={problems.of('customer') !== undefined}
            asksAtOnce={asksAtOnce}
            toLines={() => focusField(`${paper.lines[0]?.id}.what`)}
            onChoose={onCustomer}
          />
        )}
        {problems.of('customer') ? (
          <FieldError>{problems.of('customer')}</FieldError>
        ) : (
          <p className="small mt-1 flex items-baseline gap-x-3 text-soft">
            <span className="private truncate">{known}</span>
            {fixed || paper.elsewhere ? null : (
              <Button look="small-link" className="flex-none" onClick={onMany}>
                Or to many
              </Button>
            )}
          </p>
        )}
      </div>
      <div className="min-w-0">
        <span className="label">When</span>
        <DuePicker
          due={paper.due}
          today={today}
          locale={locale}
          invalid={problems.of('due') !== undefined}
          onChoose={(due) => onChange({ due })}
        />
        {problems.of('due') ? <FieldError>{problems.of('due')}</FieldError> : null}
      </div>
      <div className="min-w-0">
        <label className="label" htmlFor="reference">
          Their reference
        </label>
        <input
          id="reference"
          className="blank !text-[17px]/[27px]"
          placeholder="none"
          maxLength={120}
          autoComplete="off"
          value={paper.reference}
          onChange={(event) => onChange({ reference: event.target.value })}
        />
      </div>
    </div>
  );
}
