'use client';
import { useState } from 'react';
import { typedMinor } from '@/core/invoice/read-paper';
import { minorDigits } from '@/core/money/currency';
import { money } from '@/core/money/money';
import { moneyText } from '@/core/money/money-text';
import { useBusinessCurrency, useDeskLocale } from '../kit/at-desk';
import { FormDialog } from '../kit/form-dialog';
import { MoneyField } from '../kit/money-field';
import { usePress } from '../kit/press';
import { troubleOf } from '../kit/send';

/** Puts money of the business's on the balance from which labels are bought. */
export function TopUpDialog({
  balance,
  needed = 0,
  onClose,
}: {
  balance: number;
  needed?: number;
  onClose: () => void;
}) {
  const currency = useBusinessCurrency();
  const locale = useDeskLocale();
  const digits = minorDigits(currency);
  const lacking = Math.max(0, needed - balance);
  const [amount, setAmount] = useState(lacking > 0 ? String(Math.ceil(lacking / 10 ** digits)) : '100');
  const { busy, press } = usePress({ keyed: true });
  return (
    <FormDialog
      title="Top up the balance"
      about={`The carrier holds ${moneyText(money(BigInt(balance), currency), locale)} of yours. What is added comes from your account, and stands in the books.`}
      action="Top up"
      busy={busy}
      onClose={onClose}
      onSure={async () => {
        const minor = typedMinor(amount, digits);
        if (minor === null || minor <= 0n) return 'Write the sum as a number, such as 100.';
        const answer = await press(
          '/api/carrier/top-up',
          { minor: Number(minor) },
          'The carrier is told; the balance follows',
        );
        if (answer.ok) onClose();
        return troubleOf(answer);
      }}
    >
      <MoneyField
        label="How much"
        currency={currency}
        value={amount}
        onChange={(event) => setAmount(event.target.value)}
      />
    </FormDialog>
  );
}
