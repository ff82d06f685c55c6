'use client';
import { type RefObject, useImperativeHandle, useRef, useState } from 'react';
import type { ShownCard } from '@/core/plan/shown-card';
import { Radio } from '../kit/check';
import { SelectField } from '../kit/select';
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
  second,
}: {
  cards: readonly ShownCard[];
  fieldsUrl: string;
  handle: RefObject<CardChoiceHandle | null>;
  /** The card that is tried where the chosen one is refused, where one can be chosen; empty for the others in their order. */
  second?: { readonly id: string; readonly choose: (id: string) => void };
}) {
  const good = cards.filter(({ state }) => state === 'good');
  const [cardId, setCardId] = useState(good[0]?.id ?? '');
  const entry = useRef<CardEntryHandle>(null);
  const others = good.filter(({ id }) => id !== cardId);
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
              <Radio
                name="card"
                checked={cardId === card.id}
                onChange={() => {
                  setCardId(card.id);
                  if (second?.id === card.id) second.choose('');
                }}
              />
              {card.words}
            </label>
          ))}
        </fieldset>
      ) : null}
      {second && others.length > 0 ? (
        <SelectField label="If it is refused" value={second.id} onChange={(event) => second.choose(event.target.value)}>
          <option value="">the other cards, in the customer’s order</option>
          {others.map((card) => (
            <option key={card.id} value={card.id}>
              {card.words}
            </option>
          ))}
        </SelectField>
      ) : null}
      {cardId ? null : <CardEntry fieldsUrl={fieldsUrl} handle={entry} />}
    </>
  );
}
