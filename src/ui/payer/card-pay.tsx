'use client';
import { useEffect, useRef, useState, useSyncExternalStore } from 'react';
import { ACCOUNT_SCHEME } from '@/core/payment/outcome';
import { Button } from '../kit/button';
import { send } from '../kit/send';
import { fieldsClass, tokenise } from './card-fields';
import { CardPayment, type PayDoor } from './card-payment';
import type { PayWords } from './pay-words';
import { troubleWords } from './trouble-words';

/** What the page needs to take a payment. `pending` is the bank's address, or `checking`, where an attempt is still open. */
export type PayOpen = {
  readonly fieldsUrl: string;
  readonly pending: string | null;
  readonly refused: string | null;
  /** What is said of a bank debit that is under way; empty for none. */
  readonly collecting?: string;
  /** An attempt of this page that began before a reload or the bank; empty for none. */
  readonly begun?: string;
};

const ASK_AGAIN_MS = 1500;

/** A payment of this page, with all that it hears: the bank's page left again, Enter in the fields, the outcome. */
function useCardPayment({
  fieldsUrl,
  pending,
  refused,
  collecting = '',
  begun = '',
  door,
  words,
}: PayOpen & { door: PayDoor; words: PayWords }) {
  // The newest door, without beginning anything anew when it changes.
  const latest = useRef(door);
  latest.current = door;
  const frame = useRef<HTMLIFrameElement>(null);
  const origin = new URL(fieldsUrl).origin;
  const [payment] = useState(
    () =>
      new CardPayment(
        pending,
        refused,
        {
          door: () => latest.current,
          ask: (path) => send('GET', path),
          post: (path, body) => send('POST', path, body),
          tokenise: async () =>
            frame.current ? tokenise(frame.current, origin, words) : { trouble: words.processorAway },
          toBank: (status) => {
            latest.current.onApproval?.(status);
            if (!latest.current.framed) location.assign(status.url);
          },
          newKey: () => crypto.randomUUID(),
          words: {
            refused: (reason) => words.refusals[reason],
            trouble: (answer) => troubleWords(words.troubles, answer),
            processorAway: words.processorAway,
            collecting: (account, on) =>
              words.collecting
                .replace('{account}', account.replace(ACCOUNT_SCHEME, words.bankAccount))
                .replace('{date}', latest.current.day?.(on) ?? on),
          },
        },
        collecting,
      ),
  );
  // Whether the payer fills in a bank account in the processor's fields.
  const [byAccount, setByAccount] = useState(false);
  const view = useSyncExternalStore(payment.subscribe, payment.view, payment.view);

  // A fresh picture from the server may bring the reason of an attempt that ended while this page asked.
  useEffect(() => payment.say(pending === null ? refused : null), [payment, refused, pending]);

  // An attempt that this page began before: parts are under way beside those of others, and only this page knows which is its own.
  // biome-ignore lint/correctness/useExhaustiveDependencies: once, when the page begins
  useEffect(() => {
    if (begun) payment.resume(begun, pending === null && refused !== null);
  }, [payment]);

  useEffect(() => payment.hindered(door.hindrance), [payment, door.hindrance]);

  // Back from the bank by the browser's own button, or from another tab: the page may be an old picture.
  useEffect(() => {
    const renew = (event: PageTransitionEvent) => event.persisted && location.reload();
    window.addEventListener('pageshow', renew);
    return () => window.removeEventListener('pageshow', renew);
  }, []);

  // While the outcome is open, the processor is asked through us until there is one.
  const open = view.stage === 'checking' || view.stage === 'approval';
  useEffect(() => {
    latest.current.onUnderWay?.(open);
  }, [open]);

  useEffect(() => {
    if (!open) return;
    const timer = setInterval(() => void payment.look(), ASK_AGAIN_MS);
    return () => clearInterval(timer);
  }, [open, payment]);

  // Enter inside the frame is the button.
  useEffect(() => {
    const hear = (event: MessageEvent) => {
      if (event.origin !== origin || event.data?.from !== 'card-fields') return;
      if (event.data.kind === 'enter') void payment.pay();
      if (event.data.kind === 'way') setByAccount(event.data.way === 'account');
    };
    window.addEventListener('message', hear);
    return () => window.removeEventListener('message', hear);
  }, [origin, payment]);
  // A part is paid and more is due: it is thanked for, and the fields are there again for the rest.
  const paidMore = door.rest && view.stage === 'paid';
  useEffect(() => {
    if (paidMore) payment.again();
  }, [paidMore, payment]);
  return { payment, frame, byAccount, ...view };
}

/** The processor's card fields and the button; whatever happens to this page, an attempt is made once and found again. */
export function CardPay(props: PayOpen & { door: PayDoor; words: PayWords }) {
  const { fieldsUrl, door, words } = props;
  const { payment, frame, byAccount, stage, trouble, bank, collecting } = useCardPayment(props);
  const place = useRef<HTMLDivElement>(null);
  const [isBelow, setBelow] = useState(false);

  // On a phone a bar leads on to the payment while its button is still below; it is gone before it could cover it, and does not
  // lie over what comes after the button.
  useEffect(() => {
    const watch = new IntersectionObserver(
      ([entry]) => entry && setBelow(!entry.isIntersecting && entry.boundingClientRect.top > 0),
    );
    if (place.current) watch.observe(place.current);
    return () => watch.disconnect();
  }, []);

  const waiting = stage === 'checking' || stage === 'approval' || stage === 'collecting' || stage === 'paid';
  return (
    <div>
      <div className={waiting || door.free ? 'hidden' : ''}>
        <iframe ref={frame} title={words.cardFields} src={fieldsUrl} className={fieldsClass(fieldsUrl)} />
      </div>
      <div aria-live="polite" className="text-[15px]/[22px]">
        {trouble && stage === 'ready' ? (
          <p role="alert" className="mb-3 border border-brick px-3.5 py-2.5 font-medium text-brick">
            {trouble}
          </p>
        ) : null}
        {stage === 'checking' ? (
          <p className="border border-ochre px-3.5 py-2.5">
            <b className="font-semibold text-ochre">{words.checking}</b> {words.checkingMore}
          </p>
        ) : null}
        {stage === 'approval' ? (
          <p className="border border-ochre px-3.5 py-2.5">
            <b className="font-semibold text-ochre">{words.approval}</b> {words.approvalMore}
          </p>
        ) : null}
        {stage === 'collecting' ? <p className="border border-ochre px-3.5 py-2.5">{collecting}</p> : null}
        {stage === 'paid' ? <p className="font-semibold text-leaf">{words.paidThanks}</p> : null}
      </div>
      {stage === 'approval' ? (
        <div className="mt-3 grid gap-3">
          <a
            className="btn btn-go btn-tall"
            href={bank}
            // Banks do not show themselves in frames: this page stays, and hears what the bank said.
            {...(door.framed ? { target: '_blank', rel: 'noopener' } : {})}
          >
            {words.atYourBank}
          </a>
          <Button className="min-h-11" onClick={() => void payment.otherCard()}>
            {words.otherCard}
          </Button>
        </div>
      ) : null}
      {waiting ? null : (
        <div ref={place}>
          {byAccount && door.agreement ? (
            <p className="mb-3 border-l-2 border-rule pl-3 text-[15px]/[22px]">{door.agreement}</p>
          ) : null}
          <Button look="go" size="tall" disabled={stage === 'sending'} onClick={() => void payment.pay()}>
            {stage === 'sending' ? words.paying : door.free || words.pay.replace('{sum}', door.sum)}
          </Button>
        </div>
      )}
      {waiting || !isBelow ? null : (
        <a
          href="#pay"
          className="fixed inset-x-0 bottom-0 z-10 flex items-baseline justify-between border-t-2 border-ink bg-sheet px-5 py-4 font-serif text-[19px]/6 font-semibold sm:hidden"
        >
          {door.sum} <span className="link text-[15px]">{words.toPayment}</span>
        </a>
      )}
      {waiting || door.free || byAccount ? null : (
        <p className="mt-2 text-center text-[13px]/5 text-soft">{words.cardGoes}</p>
      )}
      <noscript>
        <p className="mt-3 text-[15px]/[22px]">{words.noScript}</p>
      </noscript>
    </div>
  );
}
