import { type ComponentProps, type ReactNode, useId } from 'react';

type Box = Omit<ComponentProps<'input'>, 'type' | 'size'> & {
  /** Larger, where a customer ticks it. */
  tall?: boolean;
};

const boxClass = (tall: boolean, className: string): string =>
  `${tall ? 'size-5' : 'size-4'} flex-none accent-plum ${className}`.trim();

/** A box to tick; what it means stands in a label around it, or in `aria-label`. */
export function Check({ tall = false, className = '', ...input }: Box) {
  return <input type="checkbox" className={boxClass(tall, className)} {...input} />;
}

/** One of several that exclude each other, by their `name`. */
export function Radio({ tall = false, className = '', ...input }: Box) {
  return <input type="radio" className={boxClass(tall, className)} {...input} />;
}

/** A box to tick, with its words beside it. */
export function TickField({ label, hint, ...input }: Box & { label: ReactNode; hint?: string }) {
  const id = useId();
  return (
    <div className="flex gap-2.5">
      <Check id={id} className="mt-[3px]" {...input} />
      <label htmlFor={id}>
        {label}
        {hint ? <span className="small block text-soft">{hint}</span> : null}
      </label>
    </div>
  );
}
