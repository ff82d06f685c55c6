import type { Route } from 'next';
import Link from 'next/link';
import type { ReactNode } from 'react';

/** A step of the money on its way: when, what, and what was more of it. `open` for one that is not reached yet. */
export type WayStep = {
  readonly key: string;
  readonly when: string;
  readonly what: ReactNode;
  readonly more?: ReactNode;
  readonly href?: string;
  readonly open?: boolean;
  readonly out?: boolean;
};

/** The way of a payment up to the bank, read upwards: the latest at the top, not reached yet hollow. */
export function WayToBank({ steps, title = 'Way to the bank' }: { steps: readonly WayStep[]; title?: string }) {
  return (
    <section aria-label={title} className="pb-6">
      <h2 className="title-section border-b border-ink pb-1.5">{title}</h2>
      <ol className="relative mt-3 grid gap-4 pl-6" reversed>
        <span aria-hidden="true" className="absolute bottom-3 left-[5px] top-2 w-[3px] bg-plum" />
        {[...steps].reverse().map((step) => (
          <li key={step.key} className="relative text-[13px]/[18px]">
            <span
              aria-hidden="true"
              className={`absolute -left-6 top-1 size-[13px] rounded-full border-[1.5px] ${
                step.open
                  ? 'border-dashed border-dusk bg-desk'
                  : step.out
                    ? 'border-brick bg-sheet'
                    : 'border-plum bg-plum'
              }`}
            />
            <span className="block text-[12.5px]/[17px] text-soft">{step.when}</span>
            {step.href ? (
              <Link className="link font-semibold" href={step.href as Route}>
                {step.what}
              </Link>
            ) : (
              <span className={`font-semibold ${step.open ? 'text-dusk' : ''}`}>{step.what}</span>
            )}
            {step.more ? <span className="block text-soft">{step.more}</span> : null}
          </li>
        ))}
      </ol>
    </section>
  );
}
