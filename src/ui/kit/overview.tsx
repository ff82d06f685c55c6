import type { Route } from 'next';
import Link from 'next/link';
import type { ReactNode } from 'react';

/** What helps beside a list while nothing of it is open: a few parts, each with its name. */
export const Overview = ({ label, children }: { label: string; children: ReactNode }) => (
  <section aria-label={label} className="grid max-w-[760px] gap-7 pt-1">
    {children}
  </section>
);

/** A part of it, with what may stand at its right. */
export function OverviewPart({ name, side, children }: { name: string; side?: ReactNode; children: ReactNode }) {
  return (
    <section aria-label={name}>
      <div className="flex items-baseline justify-between border-b border-ink pb-1">
        <h2 className="title-section">{name}</h2>
        {side}
      </div>
      {children}
    </section>
  );
}

/** A line that leads somewhere: who or what, what about it, its figure. */
export function OverviewRow({
  href,
  name,
  about,
  figure,
  isPrivate = true,
}: {
  href: string;
  name: string;
  about: ReactNode;
  figure: ReactNode;
  /** Whether the name is a person's. */
  isPrivate?: boolean;
}) {
  return (
    <li>
      <Link
        href={href as Route}
        className="grid min-h-[38px] grid-cols-[minmax(0,1fr)_auto] items-center gap-4 border-b border-rule py-1 hover:bg-[color-mix(in_srgb,var(--rule)_45%,transparent)]"
      >
        <span className="min-w-0 truncate">
          <span className={`font-serif text-[15.5px] font-medium ${isPrivate ? 'private' : ''}`}>{name}</span>{' '}
          <span className="small ml-1 text-soft">{about}</span>
        </span>
        <span className="text-right font-serif text-[15.5px]">{figure}</span>
      </Link>
    </li>
  );
}
