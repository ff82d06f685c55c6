'use client';
import { useRef, useState } from 'react';
import { money } from '@/core/money/money';
import { moneyText } from '@/core/money/money-text';
import type { Answer } from '../kit/send';
import { send } from '../kit/send';

/** What a voucher would pay; minor units. */
type Pays = { readonly worthMinor: number; readonly paysMinor: number; readonly leftMinor: number };

/**
 * Looks at a voucher and uses it, in two presses, so that what it pays is seen before.
 *
 * @param path where it is looked at; `use` below it uses it
 */
export function useTakeVoucher(path: string, { currency, locale }: { currency: string; locale: string }) {
  const [code, setCode] = useState('');
  const [pays, setPays] = useState<Pays | null>(null);
  const [busy, setBusy] = useState(false);
  const key = useRef('');
  const text = (minor: number) => moneyText(money(BigInt(minor), currency), locale);

  async function look(): Promise<Answer<Pays>> {
    setBusy(true);
    const answer = await send<Pays>('POST', path, { code });
    setBusy(false);
    setPays(answer.ok ? answer.value : null);
    return answer;
  }

  async function use(more: object = {}): Promise<Answer<null>> {
    setBusy(true);
    key.current ||= crypto.randomUUID();
    const answer = await send<null>('POST', `${path}/use`, {
      code,
      paysMinor: pays?.paysMinor ?? 0,
      requestKey: key.current,
      ...more,
    });
    setBusy(false);
    if (answer.ok) {
      key.current = '';
      setPays(null);
      setCode('');
    } else if (answer.code === 'amount-changed') setPays(null);
    return answer;
  }

  return {
    code,
    type: (typed: string) => {
      setCode(typed);
      setPays(null);
    },
    pays,
    busy,
    look,
    use,
    text,
  };
}
