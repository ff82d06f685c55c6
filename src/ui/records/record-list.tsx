'use client';
import type { Route } from 'next';
import Link from 'next/link';
import { useParams } from 'next/navigation';
import type { ReactNode } from 'react';
import { Button } from '../kit/button';
import { type RecordPage, useRecordPages } from './use-record-pages';

/** Records by name, each a link to its sheet. @param path where further pages are asked for */
export function RecordList({
  first,
  path,
  placeholder,
  none,
  children,
}: {
  first: RecordPage;
  path: string;
  placeholder: string;
  none: ReactNode;
  children?: ReactNode;
}) {
  const { id: open } = useParams<{ id?: string }>();
  const { words, setWords, rows, next, busy, showMore } = useRecordPages(first, path);
  return (
    <>
      <div className="flex items-center gap-3 pb-2">
        <input
          type="search"
          aria-label={placeholder}
          placeholder={placeholder}
          value={words}
          onChange={(event) => setWords(event.target.value)}
          className="input"
        />
        {children}
      </div>
      {rows.length === 0 ? words.trim() ? <p className="px-2 py-4 text-soft">Nothing by that name.</p> : none : null}
      <ul className="border-t border-ink">
        {rows.map((row) => (
          <li key={row.id} className={row.id === open ? 'relative z-10 -ml-3 xl:-mr-[21px]' : ''}>
            <Link
              href={row.href as Route}
              scroll={false}
              data-row={row.id}
              aria-current={row.id === open ? 'page' : undefined}
              className={`grid h-[50px] grid-cols-[minmax(0,1fr)_auto] items-center border-b pl-1 pr-3 outline-offset-[-2px] ${
                row.id === open
                  ? 'rounded-l-paper border-transparent bg-sheet pl-4 shadow-[-1px_1px_0_var(--rule),-1px_-1px_0_var(--rule)] xl:pr-[33px]'
                  : 'border-rule hover:bg-[color-mix(in_srgb,var(--rule)_55%,transparent)]'
              }`}
            >
              <span className="min-w-0 pr-3">
                <span className="name private block truncate">{row.name}</span>
                <span className="private block truncate text-[12.5px]/[17px] text-soft">{row.under}</span>
              </span>
              <span className="text-right">
                <span className="block font-serif text-[15px]/5">{row.right}</span>
                <span className="block text-[12.5px]/[17px] text-soft">{row.mark}</span>
              </span>
            </Link>
          </li>
        ))}
      </ul>
      {next ? (
        <Button
          look="small-link"
          className="mt-2 mb-1"
          busy={busy}
          onClick={() => void showMore()}
          busyWords="Fetching more"
        >
          Show more
        </Button>
      ) : null}
    </>
  );
}
