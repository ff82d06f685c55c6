'use client';
import { useEffect, useMemo, useState } from 'react';
import { stockKey } from '@/core/item/item';
import type { PaperLine } from '@/core/paper/paper';
import { shortages } from '@/core/stock/available';
import { send } from '../kit/send';

const NONE: ReadonlyMap<string, string> = new Map();

/** The lines that ask for more than is available (on hand less promised), with how much that is. */
export function useStock(lines: readonly PaperLine[]): ReadonlyMap<string, string> {
  const ids = [...new Set(lines.flatMap((line) => (line.itemId ? [line.itemId] : [])))].sort().join(',');
  const [stock, setStock] = useState<ReadonlyMap<string, string>>(NONE);
  useEffect(() => {
    if (!ids) return setStock(NONE);
    const asked = new AbortController();
    void send<Record<string, string>>('GET', `/api/items/stock?ids=${ids}`, undefined, { signal: asked.signal }).then(
      (answer) => answer.ok && !asked.signal.aborted && setStock(new Map(Object.entries(answer.value))),
    );
    return () => asked.abort();
  }, [ids]);
  return useMemo(() => {
    if (stock.size === 0) return NONE;
    const wishes = lines.flatMap((line) =>
      line.itemId
        ? [{ line: line.id, key: stockKey(line.itemId, line.optionId ?? null), quantity: line.quantity }]
        : [],
    );
    return shortages(wishes, stock);
  }, [lines, stock]);
}
