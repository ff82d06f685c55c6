'use client';
import { FoundPicker } from '../kit/found-picker';
import type { StockShown } from './shown';

/** "Add what came": things of which stock is kept, found by name or code. */
export const ThingPicker = ({ words, onChoose }: { words: string; onChoose: (thing: StockShown) => void }) => (
  <FoundPicker<StockShown, StockShown>
    trigger={words}
    label={words}
    path="/api/stock/find"
    nothing="Nothing by that name is counted. Tick “Count its stock” at the item first."
    rowsOf={(found) => found}
    shown={({ id, name, code, shelf, onHand }) => ({
      key: id,
      name,
      about: [code, shelf].filter(Boolean).join(' · '),
      figure: <span className="small text-soft">{onHand} on hand</span>,
    })}
    onChoose={onChoose}
  />
);
