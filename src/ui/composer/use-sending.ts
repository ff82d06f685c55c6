'use client';
import { useRouter } from 'next/navigation';
import { useCallback, useState } from 'react';
import type { SendWith } from '@/core/invoice/send-with';
import { send, troubleOf } from '../kit/send';
import { say, sayTrouble } from '../kit/toasts';
import type { useDraft } from './use-draft';

/**
 * How a paper leaves the composer: sent, planned, changed or thrown away, each with what is said about it.
 *
 * @param customer the name to whom it goes
 * @param change makes a sent invoice the next version; resolves with what went wrong, or an empty text
 */
export function useSending({
  id,
  link,
  customer,
  draft,
  change,
  toSheet,
}: {
  id: string;
  link: string;
  customer: string;
  draft: ReturnType<typeof useDraft>;
  change: (tell: boolean) => Promise<string>;
  toSheet: () => void;
}) {
  const router = useRouter();
  const [sending, setSending] = useState<'no' | 'asking' | 'busy'>('no');
  const [sendTrouble, setSendTrouble] = useState('');
  const ask = useCallback(() => {
    setSendTrouble('');
    setSending('asking');
  }, []);
  const leave = () => setSending('no');
  const failed = (words: string) => {
    setSending('asking');
    setSendTrouble(words);
  };

  async function sendIt(how: SendWith, on: string): Promise<void> {
    setSending('busy');
    if (!(await draft.flush()))
      return failed('The last change could not be saved, so nothing was sent. Try again in a moment.');
    const body = { revision: draft.latestRevision(), how, ...(on ? { on } : {}) };
    const answer = await send<{ number?: string }>('POST', `/api/invoices/${id}/send`, body);
    if (!answer.ok) return failed(troubleOf(answer));
    if (on) {
      setSending('no');
      router.refresh();
      return say('It goes out by itself on that day');
    }
    toSheet();
    const { number } = answer.value;
    if (how.way === 'hand') return say(`Invoice ${number} is sent; hand it over`);
    if (how.way !== 'link') return say(`Invoice ${number} is on its way to ${customer}`);
    const copied = await navigator.clipboard.writeText(link).then(
      () => true,
      () => false,
    );
    say(
      copied
        ? `Invoice ${number} is sent, and its link is copied`
        : `Invoice ${number} is sent. Copy its link from the sheet.`,
    );
  }

  async function sendChange(tell: boolean): Promise<string> {
    setSending('busy');
    const trouble = await change(tell);
    if (trouble) {
      setSending('asking');
      return trouble;
    }
    toSheet();
    router.refresh();
    return '';
  }

  async function discard(): Promise<void> {
    await draft.letGo();
    const answer = await send('DELETE', `/api/invoices/${id}`);
    if (!answer.ok) return sayTrouble(answer.words);
    router.replace('/ask/invoices');
    say('The draft is discarded');
  }

  async function dropPlan(): Promise<void> {
    const answer = await send('DELETE', `/api/invoices/${id}/plan`);
    if (!answer.ok) return sayTrouble(answer.words);
    router.refresh();
    say('It no longer goes out by itself');
  }

  return { sending, sendTrouble, ask, leave, sendIt, sendChange, discard, dropPlan };
}
