'use client';
import { useRouter } from 'next/navigation';
import { useId, useState } from 'react';
import { Button } from '../kit/button';
import { send } from '../kit/send';
import { type Troubles, troubleWords } from './trouble-words';

/** A question to the sender, folded in until somebody has one. */
export function AskQuestion({
  token,
  words,
}: {
  token: string;
  words: {
    readonly title: string;
    readonly hint: string;
    readonly send: string;
    readonly sent: string;
    readonly troubles: Troubles;
  };
}) {
  const [text, setText] = useState('');
  const [state, setState] = useState<'open' | 'busy' | 'sent'>('open');
  const [trouble, setTrouble] = useState('');
  const id = useId();
  async function ask() {
    setState('busy');
    const answer = await send('POST', `/api/pay/${token}/question`, { text, byName: '' });
    setTrouble(troubleWords(words.troubles, answer));
    setState(answer.ok ? 'sent' : 'open');
  }
  if (state === 'sent') return <p className="text-center text-[15px] font-medium text-leaf">{words.sent}</p>;
  return (
    <details>
      <summary className="text-center font-serif text-[15px]/[22px] italic">{words.title}</summary>
      <label className="label mt-3 mb-1 !text-[14px]" htmlFor={id}>
        {words.hint}
      </label>
      <textarea
        id={id}
        rows={3}
        maxLength={4000}
        className="input py-2 !text-[16px]"
        value={text}
        onChange={(event) => setText(event.target.value)}
      />
      {trouble ? <p className="mt-1 text-[14px] font-medium text-brick">{trouble}</p> : null}
      <Button className="mt-2 min-h-11 w-full" disabled={state === 'busy' || !text.trim()} onClick={() => void ask()}>
        {words.send}
      </Button>
    </details>
  );
}

/** What a file that waits for approval is decided with. */
export function DecideFile({
  token,
  fileId,
  approver,
  words,
}: {
  token: string;
  fileId: string;
  /** The sign of an approver's own link; empty for the invoice's. */
  approver: string;
  words: { readonly approve: string; readonly change: string; readonly comment: string; readonly troubles: Troubles };
}) {
  const router = useRouter();
  const [comment, setComment] = useState('');
  const [busy, setBusy] = useState(false);
  const [trouble, setTrouble] = useState('');
  async function decide(decision: 'approved' | 'change') {
    setBusy(true);
    const answer = await send('POST', `/api/pay/${token}/decide/${fileId}`, {
      decision,
      comment,
      byName: '',
      approver,
    });
    setBusy(false);
    setTrouble(troubleWords(words.troubles, answer));
    if (answer.ok) router.refresh();
  }
  return (
    <div className="mt-2 grid gap-2">
      <textarea
        rows={2}
        maxLength={2000}
        className="input py-2 !text-[15px]"
        placeholder={words.comment}
        aria-label={words.comment}
        value={comment}
        onChange={(event) => setComment(event.target.value)}
      />
      <div className="flex gap-2">
        <Button className="min-h-11 flex-1" disabled={busy} onClick={() => void decide('approved')}>
          {words.approve}
        </Button>
        <Button className="min-h-11 flex-1" disabled={busy || !comment.trim()} onClick={() => void decide('change')}>
          {words.change}
        </Button>
      </div>
      {trouble ? <p className="text-[14px] font-medium text-brick">{trouble}</p> : null}
    </div>
  );
}
