'use client';
import { useEffect, useId, useState } from 'react';
import type { Item } from '@/core/item/item';
import { Button } from '../kit/button';
import { send } from '../kit/send';

export type NamedItem = { readonly id: string; readonly name: string };

const WAIT_MS = 180;

/** Items, found by name and taken up one after the other. */
export function ItemsField({
  label,
  chosen,
  onChange,
}: {
  label: string;
  chosen: readonly NamedItem[];
  onChange: (items: NamedItem[]) => void;
}) {
  const id = useId();
  const [words, setWords] = useState('');
  const [found, setFound] = useState<readonly NamedItem[]>([]);
  useEffect(() => {
    if (!words.trim()) return setFound([]);
    const timer = setTimeout(async () => {
      const answer = await send<Item[]>('GET', `/api/items?words=${encodeURIComponent(words.trim())}`);
      if (answer.ok) setFound(answer.value);
    }, WAIT_MS);
    return () => clearTimeout(timer);
  }, [words]);
  return (
    <div>
      <label className="label mb-1" htmlFor={id}>
        {label}
      </label>
      {chosen.length > 0 ? (
        <ul className="flex flex-wrap gap-x-3 pb-1">
          {chosen.map((item) => (
            <li key={item.id}>
              {item.name}{' '}
              <Button
                look="small-link"
                aria-label={`Without ${item.name}`}
                onClick={() => onChange(chosen.filter((one) => one.id !== item.id))}
              >
                ×
              </Button>
            </li>
          ))}
        </ul>
      ) : null}
      <input
        id={id}
        className="input"
        autoComplete="off"
        placeholder="Name or code"
        value={words}
        onChange={(event) => setWords(event.target.value)}
      />
      {found.length > 0 ? (
        <ul className="border-x border-b border-rule">
          {found
            .filter((item) => !chosen.some((one) => one.id === item.id))
            .slice(0, 6)
            .map((item) => (
              <li key={item.id}>
                <button
                  type="button"
                  className="block w-full px-2.5 py-1.5 text-left hover:bg-petal"
                  onClick={() => {
                    onChange([...chosen, { id: item.id, name: item.name }]);
                    setWords('');
                  }}
                >
                  {item.name}
                </button>
              </li>
            ))}
        </ul>
      ) : null}
    </div>
  );
}
