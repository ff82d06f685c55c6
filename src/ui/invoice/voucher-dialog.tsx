'use client';
import { useRouter } from 'next/navigation';
import { Field } from '../kit/field';
import { FormDialog } from '../kit/form-dialog';
import { troubleOf } from '../kit/send';
import { say } from '../kit/toasts';
import { useTakeVoucher } from '../voucher/take-voucher';

/** Somebody at the desk names a gift voucher: what it pays is seen before it is used. */
export function VoucherDialog({
  invoiceId,
  currency,
  locale,
  onClose,
}: {
  invoiceId: string;
  currency: string;
  locale: string;
  onClose: () => void;
}) {
  const router = useRouter();
  const taking = useTakeVoucher(`/api/invoices/${invoiceId}/voucher`, { currency, locale });
  const { pays, text } = taking;
  const said = pays
    ? [
        `It is worth ${text(pays.worthMinor)} and pays ${text(pays.paysMinor)}.`,
        pays.leftMinor > 0 ? `${text(pays.leftMinor)} is left to pay.` : 'Nothing is left to pay.',
        pays.worthMinor > pays.paysMinor ? `${text(pays.worthMinor - pays.paysMinor)} stays on it.` : '',
      ].join(' ')
    : '';
  return (
    <FormDialog
      title="Take a gift voucher"
      about="The invoice owes that much less, and the customer gets a receipt."
      action={pays ? `Use ${text(pays.paysMinor)} of it` : 'Look it up'}
      busy={taking.busy}
      disabled={!taking.code.trim()}
      onClose={onClose}
      onSure={async () => {
        if (!pays) return troubleOf(await taking.look());
        const answer = await taking.use();
        if (!answer.ok) return troubleOf(answer);
        say('Paid by the voucher; the receipt is on its way');
        router.refresh();
        onClose();
        return '';
      }}
    >
      <Field
        label="Code of the voucher"
        autoFocus
        maxLength={60}
        value={taking.code}
        onChange={(event) => taking.type(event.target.value)}
      />
      {said ? (
        <p role="status" className="document">
          {said}
        </p>
      ) : null}
    </FormDialog>
  );
}
