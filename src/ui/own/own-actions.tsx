'use client';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { Button } from '../kit/button';
import { FieldError } from '../kit/field';
import { send } from '../kit/send';
import { type Troubles, troubleWords } from '../payer/trouble-words';

/** A button that does one thing on the customer's own page; a weighty one asks first. */
export function OwnAction({
  path,
  body,
  words,
  sure,
  done,
  troubles,
}: {
  path: string;
  body: object;
  words: string;
  /** What is asked before; without it nothing is. */
  sure?: string;
  /** What is said afterwards, where the page does not show it by itself. */
  done?: string;
  troubles: Troubles;
}) {
  const router = useRouter();
  const [asking, setAsking] = useState(false);
  const [busy, setBusy] = useState(false);
  const [trouble, setTrouble] = useState('');
  const [said, setSaid] = useState('');
  async function press() {
    if (sure && !asking) return setAsking(true);
    setBusy(true);
    const answer = await send('POST', path, body);
    setBusy(false);
    setAsking(false);
    if (!answer.ok) return setTrouble(troubleWords(troubles, answer));
    setSaid(done ?? '');
    router.refresh();
  }
  return (
    <div>
      {asking && sure ? <p className="mb-2 text-[14px]/5">{sure}</p> : null}
      {said ? (
        <p role="status" className="text-leaf">
          {said}
        </p>
      ) : (
        <button
          type="button"
          className={asking ? 'btn btn-sure min-h-11' : 'btn min-h-11'}
          disabled={busy}
          onClick={() => void press()}
        >
          {words}
        </button>
      )}
      {trouble ? <FieldError>{trouble}</FieldError> : null}
    </div>
  );
}

/** The customer's address, to be put right. */
export function OwnAddress({
  path,
  first,
  words,
  troubles,
}: {
  path: string;
  first: { lines: readonly string[]; city: string; postalCode: string };
  words: { street: string; city: string; postalCode: string; keep: string; kept: string };
  troubles: Troubles;
}) {
  const router = useRouter();
  const [lines, setLines] = useState(first.lines.join('\n'));
  const [city, setCity] = useState(first.city);
  const [postalCode, setPostalCode] = useState(first.postalCode);
  const [said, setSaid] = useState('');
  const [trouble, setTrouble] = useState('');
  const field = 'input min-h-11 !text-[16px]';
  return (
    <form
      className="grid gap-3"
      onSubmit={async (event) => {
        event.preventDefault();
        const answer = await send('POST', path, {
          action: 'address',
          lines: lines.split('\n').slice(0, 3),
          city,
          postalCode,
        });
        setTrouble(troubleWords(troubles, answer));
        setSaid(answer.ok ? words.kept : '');
        if (answer.ok) router.refresh();
      }}
    >
      <label className="block text-[15px]">
        {words.street}
        <textarea
          className="input !text-[16px]"
          rows={2}
          value={lines}
          onChange={(event) => setLines(event.target.value)}
        />
      </label>
      <div className="grid grid-cols-[120px_minmax(0,1fr)] gap-3">
        <label className="block text-[15px]">
          {words.postalCode}
          <input
            className={field}
            value={postalCode}
            maxLength={20}
            onChange={(event) => setPostalCode(event.target.value)}
          />
        </label>
        <label className="block text-[15px]">
          {words.city}
          <input className={field} value={city} maxLength={80} onChange={(event) => setCity(event.target.value)} />
        </label>
      </div>
      <div className="flex items-center gap-4">
        <Button type="submit" className="min-h-11">
          {words.keep}
        </Button>
        <span role="status" className="text-leaf">
          {said}
        </span>
      </div>
      {trouble ? <FieldError>{trouble}</FieldError> : null}
    </form>
  );
}
