'use client';
import { useRouter } from 'next/navigation';
import { useRef, useState } from 'react';
import { Button } from '../kit/button';
import { send } from '../kit/send';
import { say, sayTrouble } from '../kit/toasts';
import { download } from './download';
import { CancelDialog } from './sheet-dialogs';

/** What can be done with the invoices that are ticked. */
export function TickedInvoices({
  ids,
  mayAsk,
  onAll,
  onDone,
}: {
  ids: readonly string[];
  mayAsk: boolean;
  onAll: () => void;
  /** Called once something was done with them. */
  onDone: () => void;
}) {
  const router = useRouter();
  const key = useRef('');
  const [busy, setBusy] = useState(false);
  const [cancelling, setCancelling] = useState(false);

  async function action(name: 'remind' | 'cancel', extra: { reason: string; tell: boolean }): Promise<string> {
    setBusy(true);
    key.current ||= crypto.randomUUID();
    const body = { ids, action: name, requestKey: key.current, ...extra };
    const answer = await send<{ done: number; refused: { words: string }[] }>('POST', '/api/invoices/many', body);
    setBusy(false);
    if (!answer.ok) return answer.words;
    key.current = '';
    const { done, refused } = answer.value;
    const words = name === 'remind' ? `${done} reminded` : `${done} cancelled`;
    if (refused[0]) sayTrouble(`${words}, ${refused.length} not: ${refused[0].words}`);
    else say(words);
    onDone();
    router.refresh();
    return '';
  }
  async function file(form: 'csv' | 'ubl' | 'pdf') {
    setBusy(true);
    const done = await download('/files/invoices/many', { ids, form });
    setBusy(false);
    if (!done) sayTrouble('The file could not be made. Try again in a moment.');
  }

  return (
    <>
      <div
        className="mb-2 flex flex-wrap items-center gap-x-3.5 gap-y-1 bg-wash px-3 py-1.5"
        role="group"
        aria-label="With the ticked ones"
      >
        <b className="font-semibold">{ids.length} ticked</b>
        <Button look="small-link" onClick={onAll}>
          All shown
        </Button>
        {mayAsk ? (
          <>
            <Button
              look="small-link"
              disabled={busy || ids.length === 0}
              onClick={async () => {
                const trouble = await action('remind', { reason: '', tell: true });
                if (trouble) sayTrouble(trouble);
              }}
            >
              Remind
            </Button>
            <Button look="small-link" disabled={busy || ids.length === 0} onClick={() => setCancelling(true)}>
              Cancel
            </Button>
          </>
        ) : null}
        {(
          [
            ['csv', 'CSV'],
            ['ubl', 'E-invoices'],
            ['pdf', 'Print'],
          ] as const
        ).map(([form, words]) => (
          <Button key={form} look="small-link" disabled={busy || ids.length === 0} onClick={() => void file(form)}>
            {words}
          </Button>
        ))}
      </div>
      {cancelling ? (
        <CancelDialog
          busy={busy}
          onClose={() => setCancelling(false)}
          onCancel={async (extra) => {
            const trouble = await action('cancel', extra);
            if (!trouble) setCancelling(false);
            return trouble;
          }}
        />
      ) : null}
    </>
  );
}
