'use client';
import { Button } from '../kit/button';
import { usePress } from '../kit/press';
import { sayTrouble } from '../kit/toasts';

/** Refunds that go to the bank in one file: made once, fetched as often as wanted. @param waiting in words */
export function TransfersWaiting({
  waiting,
  files,
  mayMake,
}: {
  waiting: string;
  files: readonly { readonly id: string; readonly words: string }[];
  mayMake: boolean;
}) {
  const { busy, press } = usePress({ keyed: true });
  return (
    <div className="flex flex-wrap items-center gap-x-5 gap-y-2 py-2.5">
      {waiting ? <span className="private">{waiting}</span> : null}
      {waiting && mayMake ? (
        <Button
          size="low"
          busy={busy}
          onClick={async () => {
            const answer = await press<{ id: string }>('/api/transfers', {}, 'The file for the bank is made');
            if (!answer.ok) sayTrouble(answer.words);
            else window.location.assign(`/files/transfers/${answer.value.id}`);
          }}
        >
          Make the file for the bank
        </Button>
      ) : null}
      {mayMake
        ? files.map(({ id, words }) => (
            <a key={id} className="link link-small" href={`/files/transfers/${id}`} download>
              {words}
            </a>
          ))
        : null}
    </div>
  );
}
