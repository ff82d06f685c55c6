'use client';
import { useParams } from 'next/navigation';
import { type ReactNode, useState } from 'react';
import { Button } from '../kit/button';
import { send } from '../kit/send';
import { sayTrouble } from '../kit/toasts';
import { type ListRow, ListRowLink } from './list-row';

type Cursor = { readonly key: string; readonly id: string };

/** A group's head: its name and, at the right, its sum. */
export function GroupHead({ name, children }: { name: string; children?: ReactNode }) {
  return (
    <div className="flex h-[33px] items-baseline justify-between border-b border-ink pr-3 pt-2">
      <h3 className="text-[12.5px]/5 font-semibold">{name}</h3>
      <span className="font-serif text-[14px] font-medium">{children}</span>
    </div>
  );
}

type Pages = { rows: readonly ListRow[]; end: Cursor | null; busy: boolean; showMore: () => void };

/** The first page as the server gave it, and further ones on demand. @param more their address, asked with the cursor */
function usePages(rows: readonly ListRow[], next: Cursor | null, more: string): Pages {
  const [further, setFurther] = useState<{ after: Cursor | null; rows: readonly ListRow[]; next: Cursor | null }>({
    after: next,
    rows: [],
    next,
  });
  const [busy, setBusy] = useState(false);
  // A fresh first page with another end (something was paid or sent): what was added below it may overlap, so it goes.
  const stale = further.after?.id !== next?.id;
  const end = stale ? next : further.next;

  async function fetchPage(after: Cursor) {
    setBusy(true);
    const address = `${more}${more.includes('?') ? '&' : '?'}key=${encodeURIComponent(after.key)}&id=${after.id}`;
    const answer = await send<{ rows: ListRow[]; next: Cursor | null }>('GET', address);
    setBusy(false);
    if (!answer.ok) return sayTrouble(answer.words);
    setFurther({ after: next, rows: [...(stale ? [] : further.rows), ...answer.value.rows], next: answer.value.next });
  }
  return { rows: stale ? rows : [...rows, ...further.rows], end, busy, showMore: () => void (end && fetchPage(end)) };
}

type Props = { rows: readonly ListRow[]; next: Cursor | null; more: string; locale: string };

/**
 * Rows in their groups, with the next page at the end on demand.
 *
 * @param heads the groups in order, with what stands at their right; without them, the groups as the rows come
 */
export function ListGroups({
  rows,
  next,
  more,
  locale,
  heads,
}: Props & { heads?: readonly { readonly name: string; readonly figure?: ReactNode }[] }) {
  const { id: open } = useParams<{ id?: string }>();
  const pages = usePages(rows, next, more);
  const groups: readonly { readonly name: string; readonly figure?: ReactNode }[] =
    heads ?? [...new Set(pages.rows.map((row) => row.group))].map((name) => ({ name }));
  return (
    <>
      {groups.map((head) => {
        const own = pages.rows.filter((row) => row.group === head.name);
        if (own.length === 0) return null;
        return (
          <section key={head.name} aria-label={head.name}>
            <GroupHead name={head.name}>{head.figure}</GroupHead>
            <ul>
              {own.map((row) => (
                <ListRowLink key={row.id} row={row} open={row.id === open} locale={locale} />
              ))}
            </ul>
          </section>
        );
      })}
      {pages.end ? (
        <Button look="small-link" className="mt-2 mb-1" disabled={pages.busy} onClick={pages.showMore}>
          {pages.busy ? 'Fetching more' : 'Show more'}
        </Button>
      ) : null}
    </>
  );
}
