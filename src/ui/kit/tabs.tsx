'use client';
import type { Route } from 'next';
import Link from 'next/link';
import { useEffect, useRef } from 'react';

/** The kinds within a place; the petal lies beside where you are. */
export function SectionTabs({
  label,
  kinds,
  here,
}: {
  label: string;
  kinds: readonly { name: string; href: Route }[];
  here: string;
}) {
  const current = useRef<HTMLAnchorElement>(null);
  // On a narrow screen the row is wider than it: where one is comes into sight.
  useEffect(() => {
    const [tab, row] = [current.current, current.current?.parentElement];
    if (tab && row) row.scrollLeft = tab.offsetLeft + tab.offsetWidth - row.clientWidth + 16;
  }, []);
  return (
    <nav
      aria-label={label}
      className="flex h-[42px] items-center gap-6 overflow-x-auto px-4 font-serif text-[15.5px]/6 sm:px-7"
    >
      {kinds.map((kind) => (
        <Link
          key={kind.name}
          href={kind.href}
          ref={kind.name === here ? current : undefined}
          aria-current={kind.name === here ? 'page' : undefined}
          className={`relative flex-none ${kind.name === here ? 'pl-[17px] font-[650] text-ink' : 'text-soft hover:text-ink'}`}
        >
          {kind.name === here ? (
            <span className="petal-mark absolute left-0 top-[3px] h-[17px] w-3 rotate-90" aria-hidden="true" />
          ) : null}
          {kind.name}
        </Link>
      ))}
    </nav>
  );
}
