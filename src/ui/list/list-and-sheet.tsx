'use client';
import { useSelectedLayoutSegment } from 'next/navigation';
import { type KeyboardEvent, type ReactNode, useRef } from 'react';

/**
 * The list, and beside it the sheet of the row that is open, or what is added or brought in; on a phone one of the two at
 * a time. In the list the arrow keys walk the rows. Stands in a layout, whose pages are the sheets.
 */
export function ListAndSheet({ label, list, children }: { label: string; list: ReactNode; children: ReactNode }) {
  const isOpen = useSelectedLayoutSegment() !== null;
  const rows = useRef<HTMLElement>(null);

  function walk(event: KeyboardEvent) {
    const step = event.key === 'ArrowDown' ? 1 : event.key === 'ArrowUp' ? -1 : 0;
    const links = [...(rows.current?.querySelectorAll<HTMLAnchorElement>('a[data-row]') ?? [])];
    const at = links.indexOf(document.activeElement as HTMLAnchorElement);
    if (step === 0 || at < 0) return;
    event.preventDefault();
    links[at + step]?.focus();
  }

  return (
    <div className="mx-auto grid max-w-[1440px] grid-cols-1 px-4 md:grid-cols-[minmax(300px,372px)_minmax(0,1fr)] md:gap-5 sm:px-7">
      <aside
        ref={rows}
        aria-label={label}
        onKeyDown={walk}
        className={`${isOpen ? 'hidden md:block' : ''} overflow-x-clip pb-8 md:sticky md:top-0 md:-ml-3 md:h-[calc(100dvh-94px)] md:overflow-y-auto md:pl-3 md:pr-[21px] md:-mr-[21px] [scrollbar-width:thin]`}
      >
        {list}
      </aside>
      <section className={`${isOpen ? '' : 'hidden md:block'} min-w-0 pb-10 pt-2.5`}>{children}</section>
    </div>
  );
}
