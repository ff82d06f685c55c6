'use client';
import { Ellipsis } from 'lucide-react';
import type { Route } from 'next';
import { useRouter, useSearchParams } from 'next/navigation';
import { DropdownMenu } from 'radix-ui';
import { useState } from 'react';
import { sendBy } from '@/core/invoice/send-with';
import { Button } from '../kit/button';
import { usePress } from '../kit/press';
import { send, troubleOf } from '../kit/send';
import { say, sayTrouble } from '../kit/toasts';
import { useMakeAndOpen } from '../make-and-open';
import { TakeBackDialog } from '../payment/take-back';
import { CancelDialog, CreditDialog, ReceivedDialog, WordsDialog } from './sheet-dialogs';
import { VoucherDialog } from './voucher-dialog';

/** What the sheet's actions need to know; amounts in minor units. */
export type SheetActionsOf = {
  readonly invoiceId: string;
  readonly customerId: string;
  readonly to: string;
  readonly phone: string;
  readonly currency: string;
  readonly locale: string;
  readonly today: string;
  readonly dueMinor: number;
  /** What has not been credited yet. */
  readonly creditableMinor: number;
  readonly mayCancel: boolean;
  /** Money that was written down by hand, with what it is in words. */
  readonly byHand: readonly { readonly id: string; readonly what: string }[];
  readonly reminderText: string;
};

/** Reminding with words that can be changed. */
function RemindDialog({ of, open, onClose }: { of: SheetActionsOf; open: boolean; onClose: () => void }) {
  const { busy, press } = usePress({ keyed: true });
  return (
    <WordsDialog
      open={open}
      title="Remind now"
      about={`An e-mail to ${of.to}, with the invoice and its link.`}
      label="Words of the reminder"
      first={of.reminderText}
      action="Send reminder"
      busy={busy}
      onClose={onClose}
      onWords={async (text) => {
        const how = sendBy('mail', { text: text === of.reminderText ? '' : text });
        const path = `/api/invoices/${of.invoiceId}/remind`;
        const answer = await press(path, { how }, `A reminder is on its way to ${of.to}`);
        if (answer.ok) onClose();
        return troubleOf(answer);
      }}
    />
  );
}

/** The next step as one button: reminding where it is late, sending again where it was not paid. */
export function NextAction({ of, remind }: { of: SheetActionsOf; remind: boolean }) {
  const { busy, press } = usePress({ keyed: true });
  const [writing, setWriting] = useState(false);
  if (!of.to) return <span className="text-soft">No e-mail address</span>;
  return (
    <>
      <Button
        look={remind ? 'go' : 'plain'}
        disabled={busy}
        onClick={async () => {
          if (remind) return setWriting(true);
          const path = `/api/invoices/${of.invoiceId}/again`;
          const answer = await press(path, { how: sendBy('mail') }, `On its way to ${of.to} again`);
          if (!answer.ok) sayTrouble(answer.words);
        }}
      >
        {busy ? 'Sending' : remind ? 'Remind' : 'Send it again'}
      </Button>
      {remind ? <RemindDialog of={of} open={writing} onClose={() => setWriting(false)} /> : null}
    </>
  );
}

type Asked = 'received' | 'voucher' | 'credit' | 'cancel' | 'remind';

/** The dialog that is open; one that the address asks for (`?do=credit`) opens with the sheet, where it can be done. */
function useAskedDialog(open: boolean, of: SheetActionsOf) {
  const asked = useSearchParams().get('do');
  const can: Readonly<Record<string, boolean>> = {
    received: open,
    voucher: open,
    credit: of.creditableMinor > 0,
    cancel: of.mayCancel,
  };
  return useState<Asked | null>(asked && can[asked] ? (asked as Asked) : null);
}

/** Everything else that can be done with a sent invoice. */
export function MoreActions({ of, open }: { of: SheetActionsOf; open: boolean }) {
  const router = useRouter();
  const { busy, press } = usePress({ keyed: true });
  const { compose } = useMakeAndOpen();
  const [dialog, setDialog] = useAskedDialog(open, of);
  const [takingBack, setTakingBack] = useState<SheetActionsOf['byHand'][number] | null>(null);
  const base = `/api/invoices/${of.invoiceId}`;

  async function again(how: ReturnType<typeof sendBy>, done: string) {
    const answer = await press(`${base}/again`, { how }, done);
    if (!answer.ok) sayTrouble(answer.words);
  }
  const item = (words: string, onSelect: () => void, disabled = false) => (
    <DropdownMenu.Item className="menu-item data-[disabled]:text-soft" disabled={disabled} onSelect={onSelect}>
      {words}
    </DropdownMenu.Item>
  );
  return (
    <>
      <DropdownMenu.Root>
        <DropdownMenu.Trigger className="btn !px-2.5" disabled={busy} aria-label="More to do with this invoice">
          <Ellipsis size={18} strokeWidth={1.6} aria-hidden="true" />
        </DropdownMenu.Trigger>
        <DropdownMenu.Portal>
          <DropdownMenu.Content className="menu" align="end" sideOffset={4}>
            {open ? (
              <>
                {item('Record a payment', () => setDialog('received'))}
                {item('Take a gift voucher', () => setDialog('voucher'))}
                {item('Remind now', () => setDialog('remind'), !of.to)}
                {item(
                  'Send it again by e-mail',
                  () => void again(sendBy('mail'), `On its way to ${of.to} again`),
                  !of.to,
                )}
                {item(
                  'Send the link as a text',
                  () => void again(sendBy('text'), `A text is on its way to ${of.phone}`),
                  !of.phone,
                )}
                {item('Edit', () => router.push(`/ask/change/${of.invoiceId}` as Route))}
              </>
            ) : null}
            {of.creditableMinor > 0 ? item('Credit note', () => setDialog('credit')) : null}
            {of.mayCancel ? item('Cancel it', () => setDialog('cancel')) : null}
            {of.byHand.map((payment) => (
              <DropdownMenu.Item key={payment.id} className="menu-item" onSelect={() => setTakingBack(payment)}>
                Void {payment.what}
              </DropdownMenu.Item>
            ))}
            <DropdownMenu.Separator className="my-1 h-px bg-rule" />
            {item('Copy', () => void compose({ invoiceId: of.invoiceId }))}
            {item('Make it recurring', () => router.push(`/ask/recurring/new?from=${of.invoiceId}` as Route))}
            {item('The customer', () => router.push(`/records/customers/${of.customerId}` as Route))}
          </DropdownMenu.Content>
        </DropdownMenu.Portal>
      </DropdownMenu.Root>
      {dialog === 'received' ? (
        <ReceivedDialog
          dueMinor={of.dueMinor}
          currency={of.currency}
          locale={of.locale}
          today={of.today}
          busy={busy}
          onClose={() => setDialog(null)}
          onReceived={async (received) => {
            const answer = await press(`${base}/received`, received, 'The payment is recorded');
            if (answer.ok) setDialog(null);
            return troubleOf(answer);
          }}
        />
      ) : null}
      {dialog === 'voucher' ? (
        <VoucherDialog
          invoiceId={of.invoiceId}
          currency={of.currency}
          locale={of.locale}
          onClose={() => setDialog(null)}
        />
      ) : null}
      {dialog === 'credit' ? (
        <CreditDialog
          leftMinor={of.creditableMinor}
          currency={of.currency}
          locale={of.locale}
          busy={busy}
          onClose={() => setDialog(null)}
          onCredit={async (credit) => {
            const answer = await press(`${base}/credit`, credit, 'The credit note is written');
            if (answer.ok) setDialog(null);
            return troubleOf(answer);
          }}
        />
      ) : null}
      {dialog === 'cancel' ? (
        <CancelDialog
          busy={busy}
          onClose={() => setDialog(null)}
          onCancel={async (cancel) => {
            const answer = await send('POST', `${base}/cancel`, cancel);
            if (answer.ok) {
              setDialog(null);
              say('The invoice is cancelled');
              router.refresh();
            }
            return troubleOf(answer);
          }}
        />
      ) : null}
      <RemindDialog of={of} open={dialog === 'remind'} onClose={() => setDialog(null)} />
      {takingBack ? (
        <TakeBackDialog paymentId={takingBack.id} what={takingBack.what} onClose={() => setTakingBack(null)} />
      ) : null}
    </>
  );
}

/** Answers a customer's question by mail. */
export function AnswerAction({ questionId, question }: { questionId: string; question: string }) {
  const router = useRouter();
  const [busy, setBusy] = useState(false);
  const [open, setOpen] = useState(false);
  return (
    <>
      <Button look="go" onClick={() => setOpen(true)}>
        Answer
      </Button>
      <WordsDialog
        open={open}
        title="Answer by e-mail"
        about={`“${question}”`}
        label="Your answer"
        first=""
        action="Send answer"
        busy={busy}
        onClose={() => setOpen(false)}
        onWords={async (text) => {
          setBusy(true);
          const answer = await send('POST', `/api/questions/${questionId}`, { text });
          setBusy(false);
          if (!answer.ok) return troubleOf(answer);
          setOpen(false);
          say('The answer is on its way');
          router.refresh();
          return '';
        }}
      />
    </>
  );
}

/** Puts the customer's link where it can be pasted from. */
export function CopyLink({ link }: { link: string }) {
  return (
    <Button
      look="small-link"
      onClick={() =>
        navigator.clipboard.writeText(link).then(
          () => say('The link is copied'),
          () => sayTrouble(`Copy it by hand: ${link}`),
        )
      }
    >
      Copy link
    </Button>
  );
}
