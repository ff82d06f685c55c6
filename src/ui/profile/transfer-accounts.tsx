'use client';
import { X } from 'lucide-react';
import type { BankDetails, BusinessBank } from '@/core/invoice/printed';
import { USUAL_CURRENCIES } from '@/core/money/currency';
import { Button } from '../kit/button';
import { CurrencyField } from '../kit/currency-field';
import { Field } from '../kit/field';

const PARTS = [
  ['holder', 'Account holder'],
  ['account', 'Account number or IBAN'],
  ['bankCode', 'Bank code or BIC'],
  ['bank', 'Bank'],
] as const satisfies readonly (readonly [keyof BankDetails, string])[];

function AccountFields({ of, onChange }: { of: BankDetails; onChange: (part: Partial<BankDetails>) => void }) {
  return (
    <div className="grid gap-4 sm:grid-cols-2">
      {PARTS.map(([part, words]) => (
        <Field
          key={part}
          label={words}
          value={of[part]}
          onChange={(event) => onChange({ [part]: event.target.value })}
        />
      ))}
    </div>
  );
}

/** Where customers transfer money: the usual account, and others for invoices in a currency of their own. */
export function TransferAccounts({
  bank,
  currency,
  onChange,
}: {
  bank: BusinessBank;
  /** The business's. */
  currency: string;
  onChange: (bank: BusinessBank) => void;
}) {
  const others = bank.others ?? [];
  const change = (list: NonNullable<BusinessBank['others']>) => onChange({ ...bank, others: list });
  const free = USUAL_CURRENCIES.find((code) => code !== currency && !others.some((one) => one.currency === code));
  return (
    <>
      <AccountFields of={bank} onChange={(part) => onChange({ ...bank, ...part })} />
      {others.map((one, at) => (
        <section key={at} className="mt-4 border-l border-ink pl-4" aria-label={`Account for ${one.currency}`}>
          <div className="mb-3 flex items-end gap-3">
            <CurrencyField
              value={one.currency}
              onChoose={(code) => change(others.map((row, index) => (index === at ? { ...row, currency: code } : row)))}
            />
            <Button
              look="link"
              className="mb-2"
              aria-label={`Remove the account for ${one.currency}`}
              onClick={() => change(others.filter((_, index) => index !== at))}
            >
              <X size={16} strokeWidth={1.6} aria-hidden="true" />
            </Button>
          </div>
          <AccountFields
            of={one}
            onChange={(part) => change(others.map((row, index) => (index === at ? { ...row, ...part } : row)))}
          />
        </section>
      ))}
      {free ? (
        <p className="mt-3">
          <Button
            look="link"
            opens
            onClick={() =>
              change([...others, { currency: free, holder: bank.holder, account: '', bankCode: '', bank: '' }])
            }
          >
            Another account for a currency
          </Button>
        </p>
      ) : null}
    </>
  );
}
