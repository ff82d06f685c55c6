'use client';
import { X } from 'lucide-react';
import { useState } from 'react';
import type { Tariff } from '@/core/business/tariff';
import { CARD_SCHEMES } from '@/core/button/button';
import { typedMinor } from '@/core/invoice/read-paper';
import { minorDigits } from '@/core/money/currency';
import { plainSum } from '@/core/money/money-text';
import { ACCOUNT_SCHEME } from '@/core/payment/outcome';
import { Button } from '../kit/button';
import { CurrencyField } from '../kit/currency-field';
import { FieldError } from '../kit/field';
import { NumberField } from '../kit/number-input';
import { usePress } from '../kit/press';
import { SelectField } from '../kit/select';
import { troubleOf } from '../kit/send';
import { Heading } from './heading';

type Typed = { readonly currency: string; readonly scheme: string; readonly percent: string; readonly fixed: string };

/** What is agreed with the card processor: each fee is compared with it, and a difference is said. */
export function TariffSection({ tariff, currency, mayAsk }: { tariff: Tariff; currency: string; mayAsk: boolean }) {
  const { busy, press } = usePress();
  const [trouble, setTrouble] = useState('');
  const [lines, setLines] = useState<readonly Typed[]>(() =>
    tariff.map((line) => ({ ...line, fixed: plainSum(BigInt(line.fixedMinor), line.currency) })),
  );
  const set = (at: number, part: Partial<Typed>) =>
    setLines(lines.map((line, index) => (index === at ? { ...line, ...part } : line)));

  async function keep() {
    const read = lines.map(({ fixed, ...line }) => ({
      ...line,
      fixedMinor: typedMinor(fixed || '0', minorDigits(line.currency)),
    }));
    if (read.some(({ fixedMinor }) => fixedMinor === null))
      return setTrouble('Write the fixed part as an amount, such as 0.30.');
    const named = read.map(({ currency: code, scheme }) => `${code} ${scheme}`);
    if (new Set(named).size < named.length) return setTrouble('One currency and scheme stands there twice.');
    const answer = await press(
      '/api/tariff',
      { lines: read.map((line) => ({ ...line, fixedMinor: Number(line.fixedMinor) })) },
      'Saved: fees are compared with this from now on',
      'PUT',
    );
    setTrouble(answer.ok ? '' : troubleOf(answer));
  }

  return (
    <section className="mt-6 grid gap-4">
      <Heading>Fees agreed</Heading>
      <p className="text-soft">
        What your card processor takes by contract. Every fee is compared with it, and one that differs is shown on its
        payment and in the day’s closing.
      </p>
      {lines.map((line, at) => (
        <div key={at} className="grid grid-cols-2 items-end gap-3 sm:grid-cols-[110px_minmax(0,1fr)_110px_110px_32px]">
          <CurrencyField value={line.currency} disabled={!mayAsk} onChoose={(code) => set(at, { currency: code })} />
          <SelectField
            label="Of"
            value={line.scheme}
            disabled={!mayAsk}
            onChange={(event) => set(at, { scheme: event.target.value })}
          >
            <option value="">all cards</option>
            {[...CARD_SCHEMES, ACCOUNT_SCHEME].map((scheme) => (
              <option key={scheme} value={scheme}>
                {scheme}
              </option>
            ))}
          </SelectField>
          <NumberField
            label="Percent"
            value={line.percent}
            disabled={!mayAsk}
            onChange={(event) => set(at, { percent: event.target.value })}
          />
          <NumberField
            label="and fixed"
            value={line.fixed}
            disabled={!mayAsk}
            onChange={(event) => set(at, { fixed: event.target.value })}
          />
          {mayAsk ? (
            <Button
              look="link"
              aria-label={`Remove the fee of ${[line.currency, line.scheme].filter(Boolean).join(' ')}`}
              onClick={() => setLines(lines.filter((_, index) => index !== at))}
            >
              <X size={16} strokeWidth={1.6} aria-hidden="true" />
            </Button>
          ) : null}
        </div>
      ))}
      {trouble ? <FieldError>{trouble}</FieldError> : null}
      {mayAsk ? (
        <div className="flex flex-wrap items-center gap-4">
          <Button busy={busy} onClick={() => void keep()}>
            Save fees
          </Button>
          <Button
            look="link"
            opens
            onClick={() => setLines([...lines, { currency, scheme: '', percent: '', fixed: '' }])}
          >
            Add a fee
          </Button>
        </div>
      ) : null}
    </section>
  );
}
