'use client';
import { Check, ChevronDown } from 'lucide-react';
import { Select as Parts } from 'radix-ui';
import { Children, Fragment, isValidElement, type ReactElement, type ReactNode, useState } from 'react';
import { type Around, Labelled } from './field';

type Chosen = { readonly target: { readonly value: string } };

type Given = {
  id?: string;
  name?: string;
  value: string | number;
  /** `<option>`s, some of them perhaps in `<optgroup>`s. */
  children: ReactNode;
  onChange: (event: Chosen) => void;
  disabled?: boolean | undefined;
  className?: string | undefined;
  /** `blank`: on paper, where only its words are seen. */
  look?: 'input' | 'blank';
  title?: string;
  'aria-label'?: string;
  'aria-describedby'?: string | undefined;
  'aria-invalid'?: boolean | 'true' | 'false' | undefined;
};

type Option = { readonly value: string; readonly words: string; readonly disabled: boolean; readonly group: string };

const textOf = (node: ReactNode): string =>
  Children.toArray(node)
    .map((part) => (isValidElement<{ children?: ReactNode }>(part) ? textOf(part.props.children) : String(part)))
    .join('');

/** The options among children, in order, through fragments and groups. */
function optionsOf(children: ReactNode, group = ''): Option[] {
  return Children.toArray(children).flatMap((child): Option[] => {
    if (!isValidElement(child)) return [];
    const { props, type } = child as ReactElement<{
      value?: string | number;
      label?: string;
      disabled?: boolean;
      children?: ReactNode;
    }>;
    if (type === Fragment) return optionsOf(props.children, group);
    if (type === 'optgroup') return optionsOf(props.children, props.label ?? '');
    const words = textOf(props.children);
    return [{ value: String(props.value ?? words), words, disabled: props.disabled ?? false, group }];
  });
}

// An empty value is a choice like any other here, but none for the part below.
const NONE = '\u0000';
const inward = (value: string): string => (value === '' ? NONE : value);
const outward = (value: string): string => (value === NONE ? '' : value);

function Item({ option }: { option: Option }) {
  return (
    <Parts.Item
      value={inward(option.value)}
      disabled={option.disabled}
      className="menu-item !min-h-[32px] !gap-2 !pl-2"
    >
      <span className="grid size-4 flex-none place-items-center" aria-hidden="true">
        <Parts.ItemIndicator>
          <Check size={14} strokeWidth={2} />
        </Parts.ItemIndicator>
      </span>
      <Parts.ItemText>{option.words || '—'}</Parts.ItemText>
    </Parts.Item>
  );
}

/** A choice from a list at the desk: the list is the product's own, also when it is open. */
export function Select({
  value,
  children,
  onChange,
  look = 'input',
  className = '',
  name,
  disabled,
  ...trigger
}: Given) {
  const [open, setOpen] = useState(false);
  const options = optionsOf(children);
  const chosen = options.find((option) => option.value === String(value));
  const groups = [...new Set(options.map(({ group }) => group))];
  return (
    <Parts.Root
      open={open}
      onOpenChange={setOpen}
      value={inward(String(value))}
      onValueChange={(next) => onChange({ target: { value: outward(next) } })}
      {...(name ? { name } : {})}
      {...(disabled === undefined ? {} : { disabled })}
    >
      <Parts.Trigger
        {...trigger}
        data-value={String(value)}
        className={`${look} inline-flex items-center justify-between gap-1.5 text-left ${className}`.trim()}
        onKeyDown={(event) => {
          // As in any list: a letter opens it, and goes on looking there.
          if (event.key.length === 1 && event.key !== ' ' && !event.ctrlKey && !event.metaKey && !event.altKey)
            setOpen(true);
        }}
      >
        <span className="min-w-0 flex-1 truncate">
          <Parts.Value>{chosen?.words ?? ''}</Parts.Value>
        </span>
        <ChevronDown size={14} strokeWidth={1.7} className="flex-none text-soft" aria-hidden="true" />
      </Parts.Trigger>
      {open ? (
        <Parts.Portal>
          <Parts.Content
            position="popper"
            sideOffset={3}
            collisionPadding={10}
            className="menu !z-[80] max-h-[min(340px,var(--radix-select-content-available-height))] !min-w-[max(var(--radix-select-trigger-width),140px)] max-w-[min(420px,calc(100vw-20px))] overflow-y-auto"
          >
            <Parts.Viewport>
              {groups.map((group) =>
                group ? (
                  <Parts.Group key={group}>
                    <Parts.Label className="small px-2 pb-0.5 pt-2 text-soft">{group}</Parts.Label>
                    {options
                      .filter((option) => option.group === group)
                      .map((option) => (
                        <Item key={option.value} option={option} />
                      ))}
                  </Parts.Group>
                ) : (
                  options
                    .filter((option) => option.group === '')
                    .map((option) => <Item key={option.value} option={option} />)
                ),
              )}
            </Parts.Viewport>
          </Parts.Content>
        </Parts.Portal>
      ) : null}
    </Parts.Root>
  );
}

/** The same with its label, hint and error. */
export function SelectField({ label, error, hint, className, ...select }: Given & Around) {
  return (
    <Labelled label={label} error={error} hint={hint} className={className}>
      {(tied) => <Select {...tied} {...select} />}
    </Labelled>
  );
}
