'use client';
import { TriangleAlert } from 'lucide-react';
import { type InputHTMLAttributes, type ReactNode, type TextareaHTMLAttributes, useId } from 'react';

/** What is wrong with a field, below it. */
export function FieldError({ id, children }: { id?: string; children: ReactNode }) {
  return (
    <p id={id} className="mt-1 flex gap-1.5 text-[12.5px]/[18px] font-medium text-brick">
      <TriangleAlert size={14} strokeWidth={1.6} className="mt-0.5 flex-none" aria-hidden="true" />
      {children}
    </p>
  );
}

export type Around = { label: string; error?: string | undefined; hint?: string | undefined };
/** What ties a control to its label, and to the hint or error below it. */
type Tied = { id: string; 'aria-invalid'?: true | undefined; 'aria-describedby'?: string | undefined };

/** The label above a control, and its error or else its hint below. */
export function Labelled({
  label,
  error,
  hint,
  className = '',
  children,
}: Around & { className?: string | undefined; children: (tied: Tied) => ReactNode }) {
  const id = useId();
  const more = `${id}-more`;
  return (
    <div className={className}>
      <label htmlFor={id} className="label mb-1">
        {label}
      </label>
      {children({
        id,
        'aria-invalid': error ? true : undefined,
        'aria-describedby': error || hint ? more : undefined,
      })}
      {error ? (
        <FieldError id={more}>{error}</FieldError>
      ) : hint ? (
        <p id={more} className="small mt-1 text-soft">
          {hint}
        </p>
      ) : null}
    </div>
  );
}

/** A labelled input with its hint and its error. */
export function Field({
  label,
  error,
  hint,
  tall = false,
  className,
  ...input
}: InputHTMLAttributes<HTMLInputElement> & Around & { tall?: boolean }) {
  return (
    <Labelled label={label} error={error} hint={hint} className={className}>
      {(tied) => <input className={`input ${tall ? 'min-h-11' : ''}`} {...tied} {...input} />}
    </Labelled>
  );
}

/** A labelled text of several lines, with its hint and its error. */
export function TextField({
  label,
  error,
  hint,
  className,
  ...area
}: TextareaHTMLAttributes<HTMLTextAreaElement> & Around) {
  return (
    <Labelled label={label} error={error} hint={hint} className={className}>
      {(tied) => <textarea rows={3} className="input py-2 [field-sizing:content]" {...tied} {...area} />}
    </Labelled>
  );
}
