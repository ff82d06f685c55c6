'use client';
import { type RefObject, useImperativeHandle, useRef, useState } from 'react';
import type { ShownCard } from '@/core/plan/shown-card';
import { Radio } from '../kit/check';
import { CardEntry, type CardEntryHandle } from './card-entry';

/** What a form asks of the choice: a card on file, the token of one that was typed, or why there is none. */
export type CardChoiceHandle = {
  readonly chosen: () => Promise<{ cardId: string } | { cardToken: string } | { trouble: string }>;
};

/** A customer's cards that can be charged, and the fields for another one; the first on file is chosen. */
export function CardChoice({
  cards,
  fieldsUrl,
  handle,
}: {
  cards: readonly ShownCard[];
  fieldsUrl: string;
  handle: RefObject<CardChoiceHandle | null>;
}) {
  const good = cards.filter(({ state }) => state === 'good');
  const [cardId, setCardId] = useState(good[0]?.id ?? '');
  const entry = useRef<CardEntryHandle>(null);
  useImperativeHandle(handle, () => ({
    chosen: async () => {
      if (cardId) return { cardId };
      const typed = (await entry.current?.token()) ?? { trouble: 'Type the card.' };
      return 'token' in typed
        ? { cardToken: typed.token }
        : { trouble: typed.trouble ?? 'Complete the card’s fields.' };
    },
  }));
  return (
    <>
      {good.length > 0 ? (
        <fieldset>
          <legend className="label mb-1">Card</legend>
          {[...good, { id: '', words: 'Another card' }].map((card) => (
            <label key={card.id} className="flex min-h-9 items-center gap-2.5 border-b border-rule">
              <Radio name="card" checked={cardId === card.id} onChange={() => setCardId(card.id)} />
              {card.words}
            </label>
          ))}
        </fieldset>
      ) : null}
      {cardId ? null : <CardEntry fieldsUrl={fieldsUrl} handle={entry} />}
    </>
  );
}
