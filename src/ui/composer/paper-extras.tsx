'use client';
import { X } from 'lucide-react';
import { type ReactNode, useId, useState } from 'react';
import type { NumberSeries } from '@/core/invoice/numbering';
import { USUAL_CURRENCIES } from '@/core/money/currency';
import type { Paper } from '@/core/paper/paper';
import { Button } from '../kit/button';
import { DateInput } from '../kit/date-field';
import { FieldError } from '../kit/field';
import { Select } from '../kit/select';
import type { ShownProblems } from './problems';

/** What can be written on the paper beside who, when, lines and total; each is shown once it holds something or was asked for. */
type Extra = 'title' | 'number' | 'issuedOn' | 'service' | 'currency' | 'prices';

const WORDS: Readonly<Record<Extra, string>> = {
  title: 'Title',
  number: 'Number',
  issuedOn: 'Day of issue',
  service: 'Service date',
  currency: 'Currency',
  prices: 'Tax in prices',
};

function Part({
  label,
  wide = false,
  onDrop,
  children,
}: {
  label: string;
  wide?: boolean;
  onDrop: () => void;
  children: (id: string) => ReactNode;
}) {
  const id = useId();
  return (
    <div className={`min-w-0 ${wide ? 'sm:col-span-2' : ''}`}>
      <span className="flex items-center justify-between">
        <label htmlFor={id} className="label">
          {label}
        </label>
        <button type="button" className="grid size-6 place-items-center text-soft hover:text-ink" onClick={onDrop}>
          <X size={13} strokeWidth={1.6} aria-hidden="true" />
          <span className="sr-only">Without {label.toLowerCase()}</span>
        </button>
      </span>
      {children(id)}
    </div>
  );
}

/** Title, number, dates and currency: blanks on the paper for what this invoice needs and others do not. */
export function PaperExtras({
  paper,
  problems,
  series,
  currency,
  pricesIncludeTax,
  fixed,
  onChange,
}: {
  paper: Paper;
  problems: ShownProblems;
  series: readonly NumberSeries[];
  currency: string;
  pricesIncludeTax: boolean;
  /** A sent invoice that is changed keeps its number, day and currency. */
  fixed: boolean;
  onChange: (part: Partial<Paper>) => void;
}) {
  const [asked, setAsked] = useState<ReadonlySet<Extra>>(new Set());
  const holds: Readonly<Record<Extra, boolean>> = {
    title: paper.title !== '',
    number: !fixed && (paper.number !== '' || paper.series !== ''),
    issuedOn: !fixed && paper.issuedOn !== '',
    service: paper.serviceFrom !== '' || paper.serviceTo !== '',
    currency: !fixed && paper.currency !== '',
    prices: paper.pricesIncludeTax !== null,
  };
  const offered = (Object.keys(WORDS) as Extra[]).filter(
    (extra) => !(fixed && ['number', 'issuedOn', 'currency'].includes(extra)),
  );
  const shown = offered.filter((extra) => holds[extra] || asked.has(extra));
  const drop = (extra: Extra, part: Partial<Paper>) => () => {
    setAsked(new Set([...asked].filter((one) => one !== extra)));
    onChange(part);
  };
  const error = (field: string) => (problems.of(field) ? <FieldError>{problems.of(field)}</FieldError> : null);
  const parts: Readonly<Record<Extra, ReactNode>> = {
    title: (
      <Part key="title" label="Title" onDrop={drop('title', { title: '' })}>
        {(id) => (
          <input
            id={id}
            className="blank"
            maxLength={160}
            value={paper.title}
            onChange={(event) => onChange({ title: event.target.value })}
          />
        )}
      </Part>
    ),
    number: (
      <Part key="number" label="Number" onDrop={drop('number', { number: '', series: '' })}>
        {(id) => (
          <>
            <span className="flex gap-2">
              {series.length > 1 ? (
                <Select
                  look="blank"
                  aria-label="Series of the number"
                  className="!w-auto !font-sans !text-[13px]"
                  value={paper.series || (series[0]?.name ?? '')}
                  onChange={(event) => onChange({ series: event.target.value })}
                >
                  {series.map((one) => (
                    <option key={one.name} value={one.name}>
                      {one.name || 'Usual'}
                    </option>
                  ))}
                </Select>
              ) : null}
              <input
                id={id}
                data-field="number"
                className="blank"
                maxLength={40}
                placeholder="the next one"
                value={paper.number}
                onChange={(event) => onChange({ number: event.target.value })}
              />
            </span>
            {error('number')}
          </>
        )}
      </Part>
    ),
    issuedOn: (
      <Part key="issuedOn" label="Day of issue" onDrop={drop('issuedOn', { issuedOn: '' })}>
        {(id) => (
          <>
            <DateInput
              id={id}
              data-field="issuedOn"
              className="blank !font-sans !text-[14px]"
              value={paper.issuedOn}
              onDay={(day) => onChange({ issuedOn: day })}
            />
            {error('issuedOn')}
          </>
        )}
      </Part>
    ),
    service: (
      <Part key="service" wide label="Service from, to" onDrop={drop('service', { serviceFrom: '', serviceTo: '' })}>
        {(id) => (
          <>
            <span className="flex gap-2">
              <DateInput
                id={id}
                data-field="serviceFrom"
                className="blank !font-sans !text-[14px]"
                value={paper.serviceFrom}
                onDay={(day) => onChange({ serviceFrom: day })}
              />
              <DateInput
                aria-label="Service to"
                data-field="serviceTo"
                className="blank !font-sans !text-[14px]"
                value={paper.serviceTo}
                onDay={(day) => onChange({ serviceTo: day })}
              />
            </span>
            {error('serviceFrom') ?? error('serviceTo')}
          </>
        )}
      </Part>
    ),
    currency: (
      <Part key="currency" label="Currency" onDrop={drop('currency', { currency: '' })}>
        {(id) => (
          <>
            <Select
              look="blank"
              id={id}
              data-field="currency"
              className="!font-sans !text-[14px]"
              value={paper.currency || currency}
              onChange={(event) => onChange({ currency: event.target.value })}
            >
              {[...new Set([currency, ...USUAL_CURRENCIES])].map((code) => (
                <option key={code} value={code}>
                  {code}
                </option>
              ))}
            </Select>
            {error('currency')}
          </>
        )}
      </Part>
    ),
    prices: (
      <Part key="prices" label="Prices" onDrop={drop('prices', { pricesIncludeTax: null })}>
        {(id) => (
          <Select
            look="blank"
            id={id}
            className="!font-sans !text-[14px]"
            value={(paper.pricesIncludeTax ?? pricesIncludeTax) ? 'inside' : 'without'}
            onChange={(event) => onChange({ pricesIncludeTax: event.target.value === 'inside' })}
          >
            <option value="without">without tax</option>
            <option value="inside">with tax inside</option>
          </Select>
        )}
      </Part>
    ),
  };
  const left = offered.filter((extra) => !shown.includes(extra));
  return (
    <div className="pb-3 sm:pl-[34px]">
      {shown.length > 0 ? (
        <div className="grid gap-x-7 gap-y-3 pb-2 sm:grid-cols-3">{shown.map((extra) => parts[extra])}</div>
      ) : null}
      {left.length > 0 ? (
        <p className="small flex flex-wrap gap-x-3.5 gap-y-1 text-soft">
          {left.map((extra) => (
            <Button
              key={extra}
              look="small-link"
              opens
              className="!text-soft hover:!text-ink"
              onClick={() => setAsked(new Set([...asked, extra]))}
            >
              {WORDS[extra]}
            </Button>
          ))}
        </p>
      ) : null}
    </div>
  );
}
