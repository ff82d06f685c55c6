'use client';
import { useRouter } from 'next/navigation';
import { type ReactNode, useState } from 'react';
import { Button } from '../kit/button';
import { Empty } from '../kit/empty';
import { send } from '../kit/send';
import { say, sayTrouble } from '../kit/toasts';
import { CodeDialog } from './code-dialog';
import { CodeRow } from './code-row';
import type { ShownCode } from './shown-code';

/** Discount codes with what they take off, when they count, how often they were used and what they brought in. */
export function CodeTable({
  codes,
  currency,
  locale,
  items,
  mayAsk,
  begins,
  children,
}: {
  codes: readonly ShownCode[];
  currency: string;
  locale: string;
  items: readonly { readonly id: string; readonly name: string }[];
  mayAsk: boolean;
  /** A new one is written from the start. */
  begins: boolean;
  /** What stands below the list. */
  children: ReactNode;
}) {
  const router = useRouter();
  /** The code that is written: null for a new one. */
  const [editing, setEditing] = useState<ShownCode | null | undefined>(begins && mayAsk ? null : undefined);

  async function remove(code: ShownCode) {
    const answer = await send('DELETE', `/api/codes/${code.id}`);
    if (!answer.ok) return sayTrouble(answer.words);
    say(`${code.code} counts no more`);
    router.refresh();
  }

  return (
    <div className="mx-auto max-w-[1100px] px-4 pb-10 sm:px-7">
      <div className="flex items-baseline gap-4 pb-3">
        <h1 className="title-screen flex-1">Discount codes</h1>
        {mayAsk ? (
          <Button look="go" onClick={() => setEditing(null)}>
            New code
          </Button>
        ) : null}
      </div>
      {codes.length === 0 ? (
        <Empty words="No code yet. A code takes a share or an amount off, where an offer lets codes be used." />
      ) : (
        <table className="w-full border-collapse">
          <thead>
            <tr className="border-b border-ink text-left text-soft">
              <th className="small pb-1 font-medium">Code</th>
              <th className="small pb-1 font-medium">Takes off</th>
              <th className="small pb-1 font-medium">Counts</th>
              <th className="small pb-1 text-right font-medium">Used</th>
              <th className="small pb-1 pl-4 text-right font-medium">Given</th>
              <th className="small pb-1 pl-4 text-right font-medium">Paid with it</th>
              <th className="sr-only">Edit</th>
            </tr>
          </thead>
          <tbody>
            {codes.map((code) => (
              <CodeRow
                key={code.id}
                code={code}
                currency={currency}
                locale={locale}
                actions={mayAsk ? { change: () => setEditing(code), remove: () => void remove(code) } : null}
              />
            ))}
          </tbody>
        </table>
      )}
      {children}
      {editing === undefined ? null : (
        <CodeDialog code={editing} currency={currency} items={items} onClose={() => setEditing(undefined)} />
      )}
    </div>
  );
}
