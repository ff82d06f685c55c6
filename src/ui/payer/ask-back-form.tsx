'use client';
import { useRouter } from 'next/navigation';
import { useId, useState } from 'react';
import { RETURN_REASONS, type ReturnableLine, type ReturnReason } from '@/core/parcel/returning';
import type { ReturningWords } from '@/core/words/returning/en';
import { Button } from '../kit/button';
import { NativeSelect } from '../kit/native-select';
import { send } from '../kit/send';
import { sendFile } from '../kit/send-file';
import { type Troubles, troubleWords } from './trouble-words';

/** A form for what comes back, folded in until somebody has something. */
export function AskBack({
  lines: offered,
  path,
  words,
  troubles,
}: {
  lines: readonly ReturnableLine[];
  path: string;
  words: Omit<ReturningWords, 'subject'>;
  troubles: Troubles;
}) {
  const router = useRouter();
  const id = useId();
  const [key, setKey] = useState('');
  const [counts, setCounts] = useState<Readonly<Record<number, string>>>({});
  const [reason, setReason] = useState<ReturnReason>('does-not-fit');
  const [text, setText] = useState('');
  const [picture, setPicture] = useState<File | null>(null);
  const [state, setState] = useState<'open' | 'busy' | 'sent'>('open');
  const [trouble, setTrouble] = useState('');
  const lines = Object.entries(counts)
    .filter(([, quantity]) => Number(quantity) > 0)
    .map(([line, quantity]) => ({ line: Number(line), quantity }));
  async function ask() {
    setState('busy');
    const requestKey = key || crypto.randomUUID();
    setKey(requestKey);
    let fileId: string | null = null;
    if (picture) {
      const sent = await sendFile<{ id: string }>(
        `${path}/return/picture?name=${encodeURIComponent(picture.name)}`,
        picture,
      );
      if (!sent.ok) {
        setTrouble(troubleWords(troubles, sent));
        return setState('open');
      }
      fileId = sent.value.id;
    }
    const answer = await send('POST', `${path}/return`, { requestKey, reason, words: text, fileId, lines });
    setTrouble(troubleWords(troubles, answer));
    setState(answer.ok ? 'sent' : 'open');
    if (answer.ok) router.refresh();
  }
  if (state === 'sent') return <p className="py-2 text-[15px] font-medium text-leaf">{words.asked}</p>;
  return (
    <details className="py-2">
      <summary className="font-serif text-[15px]/[22px] italic">{words.heading}</summary>
      <p className="mt-2 text-[14px] text-soft">{words.about}</p>
      <ul className="mt-2">
        {offered.map(({ line, what, most }) => (
          <li key={line} className="grid grid-cols-[minmax(0,1fr)_96px] items-center gap-3 border-b border-rule py-2">
            <label htmlFor={`${id}-${line}`} className="break-words text-[15px]/5">
              {what}
              <span className="block text-[14px] text-soft">{words.howMany}</span>
            </label>
            <NativeSelect
              id={`${id}-${line}`}
              className="min-h-11"
              value={counts[line] ?? '0'}
              onChange={(event) => setCounts({ ...counts, [line]: event.target.value })}
            >
              {choices(most).map((count) => (
                <option key={count} value={count}>
                  {count}
                </option>
              ))}
            </NativeSelect>
          </li>
        ))}
      </ul>
      <label htmlFor={`${id}-why`} className="label mt-3 mb-1 !text-[14px]">
        {words.why}
      </label>
      <NativeSelect
        id={`${id}-why`}
        className="min-h-11 w-full"
        value={reason}
        onChange={(event) => setReason(event.target.value as ReturnReason)}
      >
        {RETURN_REASONS.map((one) => (
          <option key={one} value={one}>
            {words.reasons[one]}
          </option>
        ))}
      </NativeSelect>
      <label htmlFor={`${id}-words`} className="label mt-3 mb-1 !text-[14px]">
        {words.wordsLabel}
      </label>
      <textarea
        id={`${id}-words`}
        rows={2}
        maxLength={1000}
        className="input py-2 !text-[16px]"
        value={text}
        onChange={(event) => setText(event.target.value)}
      />
      <label htmlFor={`${id}-picture`} className="label mt-3 mb-1 !text-[14px]">
        {words.picture}
      </label>
      <input
        id={`${id}-picture`}
        type="file"
        accept="image/png,image/jpeg,image/webp"
        className="block w-full text-[14px]"
        onChange={(event) => setPicture(event.target.files?.[0] ?? null)}
      />
      {trouble ? (
        <p role="status" className="mt-2 text-[14px] font-medium text-brick">
          {trouble}
        </p>
      ) : null}
      <Button
        className="mt-3 min-h-11 w-full"
        disabled={state === 'busy' || lines.length === 0}
        onClick={() => void ask()}
      >
        {words.ask}
      </Button>
    </details>
  );
}

/** None, each whole number up to the most, and the most where that is none. */
function choices(most: string): string[] {
  const whole = Math.min(100, Math.floor(Number(most)));
  const counts = Array.from({ length: whole + 1 }, (_, count) => String(count));
  return counts.includes(most) ? counts : [...counts, most];
}
