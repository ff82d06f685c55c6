'use client';
import { useSortable } from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import { Check, ChevronDown, GripVertical } from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import { type ClipboardEvent, type KeyboardEvent, memo, useState } from 'react';
import { HANDED, type Handed, UNITS, type Unit } from '@/core/item/item';
import type { PaperLine } from '@/core/paper/paper';
import type { BusinessTax } from '@/core/tax/business-tax';
import { Figure } from '../kit/amount';
import { Button } from '../kit/button';
import { DateInput } from '../kit/date-field';
import { FieldError } from '../kit/field';
import { NumberInput } from '../kit/number-input';
import { Select } from '../kit/select';

/** How units are written beside a quantity at the desk. */
export const UNIT_SIGNS: Readonly<Record<Unit, string>> = {
  piece: 'pc',
  hour: 'h',
  day: 'days',
  week: 'weeks',
  month: 'months',
  night: 'nights',
  kilogram: 'kg',
  metre: 'm',
  litre: 'l',
  flat: 'flat',
};

/** What a line's fields need to know and to tell. `net` in minor units; none where the line cannot be read yet. */
export type LineProps = {
  readonly line: PaperLine;
  readonly at: number;
  readonly net: bigint | null;
  /** The ids of the taxes that hold for it, joined with spaces: the same text means nothing to draw anew. */
  readonly taxIds: string;
  readonly problems: Readonly<Record<string, string>>;
  /** What is still available, where the line asks for more. */
  readonly short: string | undefined;
  readonly chosen: boolean;
  /** The line that was written on last: it shows its second row until another one is. */
  readonly active: boolean;
  readonly taxes: readonly BusinessTax[];
  readonly currency: string;
  readonly locale: string;
  readonly onChange: (id: string, change: Partial<PaperLine>) => void;
  readonly onRemove: (id: string) => void;
  readonly onDuplicate: (id: string) => void;
  readonly onMove: (id: string, to: -1 | 1) => void;
  readonly onPaste: (id: string, text: string) => boolean;
  readonly onEnter: (id: string) => void;
  readonly onTally: (id: string) => void;
  readonly onActive: (id: string) => void;
  readonly onKeep: (id: string) => void;
};

export const LINE_GRID =
  'grid grid-cols-[minmax(0,1fr)_auto] sm:grid-cols-[26px_minmax(0,1fr)_196px_92px_96px] gap-x-2 items-start';

function TaxChoice({ line, taxIds, taxes, onChange }: Pick<LineProps, 'line' | 'taxIds' | 'taxes' | 'onChange'>) {
  const ids = taxIds ? taxIds.split(' ') : [];
  const named = taxes.filter((tax) => ids.includes(tax.id));
  const byHand = line.taxesBy !== 'place';
  const offered = taxes.filter((tax) => !tax.retired || ids.includes(tax.id));
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger
        className="blank flex items-center justify-between gap-1 text-left !font-sans !text-[12.5px]/[22px]"
        aria-label={`Taxes of this line: ${named.map(({ name }) => name).join(', ') || 'none'}${byHand ? ', chosen by hand' : ''}`}
      >
        <span
          className={`truncate ${byHand ? 'text-ink underline decoration-ochre decoration-2 underline-offset-2' : 'text-soft'}`}
        >
          {named.length === 0 ? 'No tax' : named.length === 1 ? named[0]?.name : `${named.length} taxes`}
        </span>
        <ChevronDown size={13} strokeWidth={1.6} className="flex-none" aria-hidden="true" />
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content className="menu max-h-[320px] overflow-auto" align="start" sideOffset={3}>
          <DropdownMenu.CheckboxItem
            className="menu-item"
            checked={!byHand}
            onCheckedChange={(on) => onChange(line.id, on ? { taxesBy: 'place' } : { taxesBy: 'person', taxes: ids })}
          >
            <span className="grid size-4 place-items-center">
              <DropdownMenu.ItemIndicator>
                <Check size={13} strokeWidth={2.4} />
              </DropdownMenu.ItemIndicator>
            </span>
            As the customer’s place has it
          </DropdownMenu.CheckboxItem>
          <DropdownMenu.Separator className="my-1 h-px bg-rule" />
          {offered.map((tax) => (
            <DropdownMenu.CheckboxItem
              key={tax.id}
              className="menu-item"
              checked={ids.includes(tax.id)}
              onSelect={(event) => event.preventDefault()}
              onCheckedChange={(on) =>
                onChange(line.id, {
                  taxesBy: 'person',
                  taxes: on ? [...ids, tax.id] : ids.filter((id) => id !== tax.id),
                })
              }
            >
              <span className="grid size-4 place-items-center border border-edge">
                <DropdownMenu.ItemIndicator>
                  <Check size={13} strokeWidth={2.4} />
                </DropdownMenu.ItemIndicator>
              </span>
              {tax.name}, {tax.rate} %
              {tax.country ? (
                <span className="small ml-auto pl-3 text-soft">{[tax.country, ...(tax.regions ?? [])].join(' ')}</span>
              ) : null}
            </DropdownMenu.CheckboxItem>
          ))}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}

const HANDED_WORDS: Readonly<Record<Handed, string>> = {
  posted: 'posted',
  collected: 'collected',
  digital: 'digital',
  service: 'service',
};

/** One line, typed on the paper. Enter goes on to the next, or begins it; Alt with an arrow moves it. */
export const LineRow = memo(function LineRow(props: LineProps) {
  const { line, at, net, problems, chosen, onChange, onEnter } = props;
  const [noting, setNoting] = useState(false);
  const { setNodeRef, attributes, listeners, transform, transition, isDragging } = useSortable({ id: line.id });
  const onKeyDown = (event: KeyboardEvent) => {
    if (event.altKey && (event.key === 'ArrowUp' || event.key === 'ArrowDown')) {
      event.preventDefault();
      return props.onMove(line.id, event.key === 'ArrowUp' ? -1 : 1);
    }
    if (event.key !== 'Enter' || event.ctrlKey || event.metaKey || event.shiftKey) return;
    event.preventDefault();
    onEnter(line.id);
  };
  const field = (name: 'what' | 'quantity' | 'price' | 'discount' | 'note' | 'on' | 'code') => ({
    value: line[name] ?? '',
    'data-field': `${line.id}.${name}`,
    'aria-invalid': problems[name] ? (true as const) : undefined,
    'aria-describedby': problems[name] ? `${line.id}-trouble` : undefined,
    autoComplete: 'off',
    // Not on leaving: what lies below must not move away under the pointer.
    onFocus: () => props.onActive(line.id),
    onChange: (event: { target: { value: string } }) => onChange(line.id, { [name]: event.target.value }),
    ...(name === 'note' ? {} : { onKeyDown }),
  });
  const onPaste = (event: ClipboardEvent) => {
    if (props.onPaste(line.id, event.clipboardData.getData('text/plain'))) event.preventDefault();
  };
  const trouble = Object.values(problems)[0];
  const more =
    line.discount || line.note || line.on || line.code || line.handed || problems.discount || props.active || noting;
  return (
    <li
      ref={setNodeRef}
      style={{ transform: CSS.Translate.toString(transform), transition }}
      className={`border-b border-rule py-1.5 transition-colors duration-100 ${isDragging ? 'relative z-10 bg-sheet shadow-lift' : ''} ${chosen ? 'bg-petal' : 'focus-within:bg-[color-mix(in_srgb,var(--petal)_50%,transparent)]'}`}
      data-line={line.id}
    >
      <div className={LINE_GRID}>
        <button
          type="button"
          className="small hidden cursor-grab touch-none items-center justify-end pt-1 text-soft sm:flex"
          {...attributes}
          {...listeners}
          aria-label={`Move line ${at + 1}`}
        >
          <GripVertical size={13} strokeWidth={1.6} className="opacity-50" aria-hidden="true" />
          {at + 1}
        </button>
        <textarea
          rows={1}
          aria-label={`Line ${at + 1}: what for`}
          placeholder="What for"
          className="blank col-span-2 resize-none [field-sizing:content] sm:col-span-1"
          onPaste={onPaste}
          {...field('what')}
        />
        <span className="flex items-baseline gap-1">
          <NumberInput
            aria-label={`Line ${at + 1}: how much`}
            className="blank !w-12 text-right"
            {...field('quantity')}
          />
          <Select
            look="blank"
            aria-label={`Line ${at + 1}: counted in`}
            className="!w-auto max-w-[62px] appearance-none !px-1 text-center"
            value={line.unit}
            onChange={(event) => onChange(line.id, { unit: event.target.value as Unit })}
          >
            {UNITS.map((unit) => (
              <option key={unit} value={unit}>
                {UNIT_SIGNS[unit]}
              </option>
            ))}
          </Select>
          <span className="px-1 font-serif text-[15px] text-soft">×</span>
          <NumberInput
            aria-label={`Line ${at + 1}: price of one`}
            placeholder="0.00"
            className="blank private !w-20 text-right"
            {...field('price')}
          />
        </span>
        <TaxChoice {...props} />
        <span className="pt-0.5 text-right font-serif text-[16px]/[22px] sm:pr-1">
          {net === null ? (
            <span className="text-soft">–</span>
          ) : (
            <button
              type="button"
              className="tally-link"
              onClick={() => props.onTally(line.id)}
              aria-label={`Tally of line ${at + 1}`}
            >
              <Figure minor={net} currency={props.currency} locale={props.locale} />
            </button>
          )}
        </span>
      </div>
      <div className={`small flex-wrap items-baseline gap-x-3 gap-y-1 pt-0.5 sm:pl-[34px] ${more ? 'flex' : 'hidden'}`}>
        <label className="flex items-baseline gap-2 text-soft">
          Less
          <NumberInput
            aria-label={`Line ${at + 1}: discount, as 10% or an amount`}
            placeholder="10% or 5.00"
            className="blank !w-[84px] !text-[13.5px]/[18px]"
            {...field('discount')}
          />
        </label>
        {line.on || noting ? (
          <span className="flex items-baseline gap-2 text-soft">
            Day
            <DateInput
              {...field('on')}
              aria-label={`Line ${at + 1}: its day`}
              className="blank !w-[132px] !font-sans !text-[13px]/[18px]"
              onDay={(on) => onChange(line.id, { on })}
            />
          </span>
        ) : null}
        <span className="flex-1" />
        {noting ? null : (
          <Button look="small-link" opens onClick={() => setNoting(true)}>
            Code, day, note
          </Button>
        )}
        <Button look="small-link" onClick={() => props.onDuplicate(line.id)}>
          Copy
        </Button>
        {line.itemId || !line.what.trim() ? null : (
          <Button look="small-link" onClick={() => props.onKeep(line.id)}>
            Save as an item
          </Button>
        )}
        <Button look="small-link" onClick={() => props.onRemove(line.id)}>
          Remove line {at + 1}
        </Button>
      </div>
      {line.note || line.code || line.handed || noting ? (
        <div className="small flex flex-wrap items-baseline gap-x-3 pt-0.5 sm:pl-[34px]">
          {line.note || noting ? (
            <textarea
              rows={1}
              aria-label={`Line ${at + 1}: note to the customer`}
              placeholder="A note to the customer"
              maxLength={1000}
              className="blank min-w-[180px] flex-1 resize-none !font-sans !text-[13px]/[18px] [field-sizing:content]"
              {...field('note')}
            />
          ) : null}
          {line.code || noting ? (
            <label className="flex items-baseline gap-2 text-soft">
              Code
              <input
                aria-label={`Line ${at + 1}: your code of the item`}
                maxLength={40}
                className="blank !w-[104px] !text-[13.5px]/[18px]"
                {...field('code')}
              />
            </label>
          ) : null}
          {line.handed || noting ? (
            <Select
              look="blank"
              aria-label={`Line ${at + 1}: how it comes to the customer`}
              className="!w-auto !font-sans !text-[13px]/[18px]"
              value={line.handed ?? ''}
              onChange={(event) =>
                onChange(line.id, { handed: (event.target.value || undefined) as Handed | undefined })
              }
            >
              <option value="">how it comes: not said</option>
              {HANDED.map((one) => (
                <option key={one} value={one}>
                  {HANDED_WORDS[one]}
                </option>
              ))}
            </Select>
          ) : null}
        </div>
      ) : null}
      {props.short !== undefined ? (
        <p className="small pt-1 font-medium text-ochre sm:pl-[34px]" role="status">
          More than there is: {props.short} available. It can be sent all the same.
        </p>
      ) : null}
      {trouble ? (
        <div className="sm:pl-[34px]">
          <FieldError id={`${line.id}-trouble`}>{trouble}</FieldError>
        </div>
      ) : null}
    </li>
  );
});
