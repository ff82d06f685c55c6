'use client';
import type { useRouter } from 'next/navigation';
import { useCallback, useRef } from 'react';
import { GOES_AS_USUAL, type Item } from '@/core/item/item';
import { typedDecimal } from '@/core/money/typed';
import type { PaperLine } from '@/core/paper/paper';
import { send, troubleOf } from '../kit/send';
import { say, sayTrouble } from '../kit/toasts';
import { useMakeAndOpen } from '../make-and-open';
import type { useDraft } from './use-draft';

type Router = ReturnType<typeof useRouter>;
export type StartFrom = {
  customerId?: string;
  templateId?: string;
  invoiceId?: string;
  asLast?: boolean;
  withFiles?: boolean;
};

/** What else can be done with a paper: a line kept as an item, the paper as a template, another begun from it, a trial copy. */
export function useSentPaper(id: string, draft: ReturnType<typeof useDraft>, currency: string, router: Router) {
  const { paper, flush } = draft;
  const { compose } = useMakeAndOpen();
  const latest = useRef(paper);
  latest.current = paper;

  const keepAsItem = useCallback(
    async (lineId: string, changeLine: (id: string, part: Partial<PaperLine>) => void) => {
      const line = latest.current.lines.find((one) => one.id === lineId);
      if (!line) return;
      const price = typedDecimal(line.price);
      const kept: Omit<Item, 'id'> = {
        code: '',
        name: line.what.trim().slice(0, 160),
        description: '',
        kind: line.unit === 'hour' ? 'service' : 'goods',
        unit: line.unit,
        prices: price ? { [currency]: price } : {},
        cost: '',
        taxClass: line.taxClass ?? 'standard',
        onHand: null,
        lowAt: null,
        pictureId: null,
        going: GOES_AS_USUAL,
        options: [],
      };
      const answer = await send<Item>('POST', '/api/items', kept);
      if (!answer.ok) return sayTrouble(troubleOf(answer));
      changeLine(lineId, { itemId: answer.value.id });
      say('Saved as an item', { label: 'See it', onClick: () => window.open(`/records/items/${answer.value.id}`) });
    },
    [currency],
  );

  /** Resolves with what went wrong, or an empty text. */
  const keepTemplate = async (name: string, withFiles: boolean): Promise<string> => {
    const answer = await send('POST', '/api/templates', { name, paper: latest.current, withFiles });
    if (!answer.ok) return troubleOf(answer);
    say(`“${name}” is saved as a template`);
    router.refresh();
    return '';
  };

  const startAgain = async (from: StartFrom): Promise<void> => {
    if (!(await flush())) return;
    await compose(from);
  };

  const trial = async (to: string): Promise<void> => {
    if (!(await flush())) return sayTrouble('The last change could not be saved. Try again in a moment.');
    const answer = await send('POST', `/api/invoices/${id}/trial`, { requestKey: crypto.randomUUID(), to });
    if (answer.ok) say(`A test copy is on its way to ${to}`);
    else sayTrouble(answer.words);
  };

  /** Makes what stands here the invoice's next version; resolves with what went wrong, or an empty text. */
  const changeSent = async (version: number, tell: boolean): Promise<string> => {
    const answer = await send('POST', `/api/invoices/${id}/change`, { version, tell, paper: latest.current });
    if (answer.ok) say(tell ? 'The invoice is changed, and the customer is told' : 'The invoice is changed');
    return troubleOf(answer);
  };
  /** Gives a repeat what stands here, from its next date on. */
  const sayFromNextOn = async (recurringId: string): Promise<void> => {
    if (!(await flush())) return sayTrouble('The last change could not be saved. Try again in a moment.');
    const answer = await send('PUT', `/api/recurring/${recurringId}/paper`, { invoiceId: id });
    if (answer.ok) say('It says this from the next one on');
    else sayTrouble(answer.words);
  };
  return { keepAsItem, keepTemplate, startAgain, trial, changeSent, sayFromNextOn };
}
