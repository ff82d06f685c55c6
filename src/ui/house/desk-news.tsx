'use client';
import type { Route } from 'next';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { Popover } from 'radix-ui';
import { useEffect, useState } from 'react';
import { computerMemory } from '../kit/memory';
import { send } from '../kit/send';

/** A line that somebody hears of, written already. */
export type NewsShown = {
  readonly id: number;
  readonly what: string;
  readonly about: string;
  readonly note: string;
  readonly when: string;
  readonly path: string;
  readonly seen: boolean;
};

/** What somebody hears of at the desk; `quiet`: the browser makes no sign of it by now. */
export type NewsHere = { readonly unseen: number; readonly news: readonly NewsShown[]; readonly quiet: boolean };

const TOLD = 'dahlia_news_told';

/** Has the browser show what came in since it last did, once in all windows. */
function useSigns({ news, quiet }: NewsHere): void {
  const router = useRouter();
  const latest = news[0]?.id ?? 0;
  useEffect(() => {
    const told = Number(computerMemory.getItem(TOLD) ?? Number.NaN);
    computerMemory.setItem(TOLD, String(latest));
    // Seen for the first time on this computer: what there is already is no sign's business.
    if (Number.isNaN(told) || quiet || !('Notification' in window) || Notification.permission !== 'granted') return;
    for (const one of news.filter(({ id, seen }) => id > told && !seen).toReversed()) {
      // While names and sums are covered, a sign shows none either.
      const isCovered = document.documentElement.dataset.covered === 'yes';
      const sign = new Notification(isCovered ? 'News' : one.what, {
        body: isCovered ? '' : [one.about, one.note].filter(Boolean).join(': '),
        tag: `dahlia-${one.id}`,
      });
      sign.onclick = () => {
        window.focus();
        router.push(one.path as Route);
        sign.close();
      };
    }
  }, [latest, news, quiet, router]);
}

/** What one wanted to hear of, behind its number in the band. */
export function DeskNews({
  here,
  open,
  onOpenChange,
}: {
  here: NewsHere;
  open: boolean;
  onOpenChange: (open: boolean) => void;
}) {
  const router = useRouter();
  const [seenTo, setSeenTo] = useState(0);
  useSigns(here);
  const latest = here.news[0]?.id ?? 0;
  const unseen = here.news.filter(({ id, seen }) => !seen && id > seenTo).length === 0 ? 0 : here.unseen;
  const turn = (next: boolean) => {
    onOpenChange(next);
    if (next || unseen === 0) return;
    // Seen once it is closed again: until then what is new stands out.
    setSeenTo(latest);
    void send('PUT', '/api/news', { upTo: latest }).then(() => router.refresh());
  };
  return (
    <Popover.Root open={open} onOpenChange={turn}>
      <Popover.Trigger className="link whitespace-nowrap" aria-label={unseen > 0 ? `News, ${unseen} not seen` : 'News'}>
        News
        {unseen > 0 ? (
          <span className="ml-1.5 inline-block min-w-[18px] bg-plum px-1 text-center text-[11.5px]/[17px] font-semibold text-sheet">
            {unseen > 99 ? '99+' : unseen}
          </span>
        ) : null}
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          aria-label="News"
          className="menu outline-0 w-[min(400px,calc(100vw-24px))] !p-0"
          align="end"
          sideOffset={8}
        >
          <div className="flex items-baseline border-b border-ink px-4 py-2">
            <h2 className="title-section">News</h2>
            <Link className="link small ml-auto" href="/settings/you#news" onClick={() => turn(false)}>
              Choose what
            </Link>
          </div>
          {here.news.length === 0 ? (
            <p className="document px-4 py-4">
              Nothing yet. What you want to hear of, here or by mail, is yours to choose.
            </p>
          ) : (
            <ul className="max-h-[min(460px,70vh)] overflow-y-auto">
              {here.news.map((one) => (
                <li key={one.id} className="border-b border-rule last:border-0">
                  <Link
                    href={one.path as Route}
                    onClick={() => turn(false)}
                    className={`block px-4 py-2 hover:bg-petal ${one.seen || one.id <= seenTo ? '' : 'border-l-[3px] border-plum !pl-[13px]'}`}
                  >
                    <span className="flex gap-3">
                      <span className="private min-w-0 font-medium">{one.what}</span>
                      <span className="small ml-auto flex-none text-soft">{one.when}</span>
                    </span>
                    <span className="private small block break-words text-soft">
                      {[one.about, one.note].filter(Boolean).join(': ')}
                    </span>
                  </Link>
                </li>
              ))}
            </ul>
          )}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
