'use client';
import { type ReactNode, useId } from 'react';

/** A labelled control of a customer's page, tall enough for a finger, with what is wrong below it. */
export function PayerField({
  label,
  optional,
  help,
  trouble,
  children,
}: {
  label: string;
  /** The word for what may be left out; nothing for what is needed. */
  optional?: string | undefined;
  help?: string | undefined;
  trouble?: string | undefined;
  children: (tied: {
    id: string;
    'aria-invalid'?: true | undefined;
    'aria-describedby'?: string | undefined;
    className: string;
  }) => ReactNode;
}) {
  const id = useId();
  const more = `${id}-more`;
  return (
    <div>
      <label htmlFor={id} className="label mb-1 !text-[14px]">
        {label}
        {optional ? <span className="font-normal"> ({optional})</span> : null}
      </label>
      {children({
        id,
        'aria-invalid': trouble ? true : undefined,
        'aria-describedby': trouble || help ? more : undefined,
        className: 'input min-h-11 !text-[16px]',
      })}
      {trouble ? (
        <p id={more} className="mt-1 text-[14px]/5 font-medium text-brick">
          {trouble}
        </p>
      ) : help ? (
        <p id={more} className="mt-1 text-[14px]/5 text-soft">
          {help}
        </p>
      ) : null}
    </div>
  );
}
