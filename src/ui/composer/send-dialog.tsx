'use client';
import { type ReactNode, useEffect, useState } from 'react';
import type { Customer } from '@/core/customer/customer';
import { isCalendarDate } from '@/core/dates/calendar-date';
import { type SendingWay, type SendWith, sendBy } from '@/core/invoice/send-with';
import { wordsOf } from '@/core/words/words';
import { Amount } from '../kit/amount';
import { Button } from '../kit/button';
import { Check } from '../kit/check';
import { DateInput } from '../kit/date-field';
import { Dialog } from '../kit/dialog';
import { Field, FieldError, TextField } from '../kit/field';
import { Leader } from '../kit/leader';

const WAYS: readonly (readonly [Exclude<SendingWay, 'plan'>, string])[] = [
  ['mail', 'E-mail'],
  ['text', 'Text'],
  ['chat', 'Chat'],
  ['link', 'Link'],
  ['hand', 'In person'],
];

const ABOUT: Readonly<Record<Exclude<SendingWay, 'plan'>, string>> = {
  mail: '',
  text: 'A short text with the link goes to the phone.',
  chat: 'A short chat message with the link goes to the phone.',
  link: 'Nothing is sent: the link is copied, and you pass it on.',
  hand: 'Nothing is sent: you hand the paper over yourself, and the link stays on the sheet.',
};

/** The last look before sending: what it is, to whom, how, and when. */
export function SendDialog({
  open,
  busy,
  trouble,
  number,
  customer,
  totalMinor,
  currency,
  locale,
  dueText,
  mailText,
  note,
  onClose,
  onSend,
  onTrial,
}: {
  open: boolean;
  busy: boolean;
  trouble: string;
  number: string;
  customer: Customer | null;
  totalMinor: bigint;
  currency: string;
  locale: string;
  dueText: string;
  /** The words of the e-mail as they would be without another. */
  mailText: string;
  /** What else is to be known before it goes out. */
  note: ReactNode;
  onClose: () => void;
  onSend: (how: SendWith, on: string) => void;
  onTrial: () => void;
}) {
  const [way, setWay] = useState<Exclude<SendingWay, 'plan'>>('mail');
  const [to, setTo] = useState('');
  const [phone, setPhone] = useState('');
  const [text, setText] = useState('');
  const [writing, setWriting] = useState(false);
  const [later, setLater] = useState(false);
  const [day, setDay] = useState('');
  const [time, setTime] = useState('09:00');
  const on = isCalendarDate(day) && /^([01]\d|2[0-3]):[0-5]\d$/.test(time) ? `${day}T${time}` : '';
  useEffect(() => {
    if (!open) return;
    setTo([customer?.email ?? '', ...(customer?.copies ?? [])].filter(Boolean).join(', '));
    setPhone(customer?.phone ?? '');
    setWay(customer?.email ? 'mail' : 'link');
    setLater(false);
  }, [open, customer]);
  const addresses = to
    .split(/[\s,;]+/)
    .map((one) => one.trim())
    .filter(Boolean);
  const how = sendBy(way, {
    to: way === 'mail' ? addresses : [],
    phone: way === 'text' || way === 'chat' ? phone : '',
    text: writing ? text : '',
  });
  const missing = (way === 'mail' && addresses.length === 0) || ((way === 'text' || way === 'chat') && !phone.trim());
  return (
    <Dialog
      open={open}
      onOpenChange={(next) => !next && onClose()}
      title={`Send invoice ${number}`}
      about={later ? 'The number is given when it goes out.' : 'The number is given now, and stays with it.'}
    >
      <div className="document leading-7">
        <Leader label="For">
          <span className="private">{customer?.name ?? ''}</span>
        </Leader>
        <Leader label="Due">{dueText}</Leader>
        <Leader label="Total" className="rule-total mt-1 py-0.5 text-[17px] font-semibold">
          <Amount minor={totalMinor} currency={currency} locale={locale} />
        </Leader>
      </div>
      <div className="segment mt-4 w-full" role="group" aria-label="How it goes out">
        {WAYS.map(([key, words]) => (
          <button
            key={key}
            type="button"
            className="flex-1 !px-1.5"
            data-state={way === key ? 'on' : 'off'}
            aria-pressed={way === key}
            onClick={() => setWay(key)}
          >
            {words}
          </button>
        ))}
      </div>
      <div className="mt-3 grid gap-3">
        {way === 'mail' ? (
          <>
            <Field
              label="To"
              value={to}
              onChange={(event) => setTo(event.target.value)}
              hint="Several addresses with commas between them."
              className="private"
            />
            {writing ? (
              <TextField
                label="Words of the e-mail"
                rows={4}
                maxLength={4000}
                value={text}
                onChange={(event) => setText(event.target.value)}
              />
            ) : (
              <p className="small text-soft">
                “{mailText}”{' '}
                <Button
                  look="small-link"
                  onClick={() => {
                    setText(mailText);
                    setWriting(true);
                  }}
                >
                  Edit the words
                </Button>
              </p>
            )}
          </>
        ) : (
          <p className="text-soft">{ABOUT[way]}</p>
        )}
        {way === 'text' || way === 'chat' ? (
          <Field label="Phone" type="tel" value={phone} onChange={(event) => setPhone(event.target.value)} />
        ) : null}
        {way === 'link' || way === 'hand' ? null : (
          <div className="flex flex-wrap items-center gap-3">
            <label className="flex items-center gap-2">
              <Check checked={later} onChange={(event) => setLater(event.target.checked)} />
              Not now, on
            </label>
            <DateInput
              aria-label="Day of sending"
              className="input !w-[150px]"
              disabled={!later}
              value={day}
              onDay={setDay}
            />
            <span>at</span>
            <input
              aria-label="Time of sending, as 09:00"
              className="input !w-[72px]"
              inputMode="numeric"
              maxLength={5}
              disabled={!later}
              value={time}
              onChange={(event) => setTime(event.target.value)}
            />
          </div>
        )}
      </div>
      {note ? <div className="mt-3">{note}</div> : null}
      {trouble ? <FieldError>{trouble}</FieldError> : null}
      <div className="mt-5 flex flex-wrap items-center justify-end gap-3">
        <Button look="link" className="mr-auto" disabled={busy} onClick={onTrial}>
          Test copy to me
        </Button>
        <Button
          look="go"
          autoFocus
          disabled={busy || missing || (later && !on)}
          onClick={() => onSend(how, later && way !== 'link' && way !== 'hand' ? on : '')}
        >
          {busy
            ? 'Sending'
            : later && way !== 'link' && way !== 'hand'
              ? 'Send on that day'
              : way === 'link'
                ? 'Send and copy the link'
                : 'Send invoice'}
        </Button>
      </div>
    </Dialog>
  );
}

/** The words an e-mail has where nobody wrote others. */
export const usualMailText = (locale: string, own: Readonly<Record<string, string>>): string =>
  own[locale.slice(0, 2)] || wordsOf(locale).invoiceText;
