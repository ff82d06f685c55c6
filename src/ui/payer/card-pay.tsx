'use client';
import { useCallback, useEffect, useRef, useState } from 'react';
import type { RefusalReason } from '@/core/payment/outcome';
import { type Answer, send } from '../send';
import { tokenise } from './card-fields';
import type { PayWords } from './pay-words';
import { troubleWords } from './trouble-words';

/** What the page needs to take a payment. `pending` is the bank's address, or `checking`, where an attempt is still open. */
export type PayOpen = {
  readonly fieldsUrl: string;
  readonly pending: string | null;
  readonly refused: string | null;
};

/** Where a payment is sent, asked about and withdrawn, and what this press would pay. */
export type PayDoor = {
  readonly path: string;
  /** What is sent beside the attempt's key and the card's token. */
  readonly body: object;
  /** What has to be worked out before an attempt is sent; null where that failed. */
  readonly before?: () => Promise<object | null>;
  /** What the payment is asked about by; `attempt` is this page's own key. */
  readonly statusQuery: (attempt: string) => string;
  readonly withdraw: object;
  /** What the button says where nothing is to be paid: no card is asked for then. */
  readonly free?: string;
  /** The sum, written out. */
  readonly sum: string;
  /** Why it cannot be paid like this, or null. */
  readonly hindrance: string | null;
  /** Whether the sum of what is filled in now is still to come; `onAwaited` asks for it at once. */
  readonly waiting?: boolean;
  readonly onAwaited?: () => void;
  /** The button was pressed all the same. */
  readonly onHindered?: () => void;
  readonly onPaid: (status: Extract<AttemptStatus, { state: 'paid' }>) => void;
  /** What is shown may be out of date; `refusal` is what the answer said, where one did. */
  readonly onChanged: (refusal?: Extract<Answer<unknown>, { ok: false }>) => void;
};

export type AttemptStatus =
  | { state: 'paid'; receipt: string; order?: string }
  | { state: 'refused'; words: string; reason: RefusalReason }
  | { state: 'approval'; url: string }
  | { state: 'checking' }
  | { state: 'none' };

type Stage = 'ready' | 'sending' | 'checking' | 'approval' | 'paid';

const ASK_AGAIN_MS = 1500;

/** The processor's card fields and the button; whatever happens to this page, an attempt is made once and found again. */
export function CardPay({ fieldsUrl, pending, refused, door, words }: PayOpen & { door: PayDoor; words: PayWords }) {
  // The newest door, without beginning anything anew when it changes.
  const latest = useRef(door);
  latest.current = door;
  const [stage, setStage] = useState<Stage>(
    pending === null ? 'ready' : pending === 'checking' ? 'checking' : 'approval',
  );
  const [trouble, setTrouble] = useState(pending === null ? refused : null);
  const [bank, setBank] = useState(pending && pending !== 'checking' ? pending : '');
  const frame = useRef<HTMLIFrameElement>(null);
  const attempt = useRef('');
  const place = useRef<HTMLDivElement>(null);
  const [inView, setInView] = useState(true);
  const origin = new URL(fieldsUrl).origin;

  const take = useCallback(
    (status: AttemptStatus) => {
      switch (status.state) {
        case 'paid':
          setStage('paid');
          return latest.current.onPaid(status);
        case 'refused':
          attempt.current = '';
          setTrouble(words.refusals[status.reason]);
          return setStage('ready');
        case 'approval':
          setBank(status.url);
          return setStage('approval');
        case 'checking':
          return setStage('checking');
        case 'none':
          attempt.current = '';
          return setStage('ready');
      }
    },
    [words],
  );

  // A fresh picture from the server may bring the reason of an attempt that ended while this page asked.
  useEffect(() => setTrouble(pending === null ? refused : null), [refused, pending]);

  // Back from the bank by the browser's own button, or from another tab: the page may be an old picture.
  useEffect(() => {
    const renew = (event: PageTransitionEvent) => event.persisted && location.reload();
    window.addEventListener('pageshow', renew);
    return () => window.removeEventListener('pageshow', renew);
  }, []);

  // On a phone a bar leads to the payment while its button is out of sight; it never covers the fields.
  useEffect(() => {
    const watch = new IntersectionObserver(([entry]) => entry && setInView(entry.isIntersecting));
    if (place.current) watch.observe(place.current);
    return () => watch.disconnect();
  }, []);

  // While the outcome is open, the processor is asked through us until there is one.
  useEffect(() => {
    if (stage !== 'checking' && stage !== 'approval') return;
    const timer = setInterval(async () => {
      const key = attempt.current || '00000000-0000-4000-8000-000000000000';
      const { path, statusQuery, onChanged } = latest.current;
      const answer = await send<AttemptStatus>('GET', `${path}/status?${statusQuery(key)}`);
      if (!answer.ok) return;
      if (answer.value.state === 'none') onChanged();
      take(answer.value);
    }, ASK_AGAIN_MS);
    return () => clearInterval(timer);
  }, [stage, take]);

  const pay = useCallback(async () => {
    const fields = frame.current;
    if (!fields) return;
    if (latest.current.waiting) {
      setStage('sending');
      latest.current.onAwaited?.();
      // Until what came in is shown: the door is then the new one.
      for (let tries = 0; latest.current.waiting && tries < 200; tries++)
        await new Promise((resolve) => setTimeout(resolve, 30));
    }
    const { path, body, before, hindrance, onHindered, onChanged } = latest.current;
    if (hindrance) {
      onHindered?.();
      setTrouble(hindrance);
      return setStage('ready');
    }
    setStage('sending');
    setTrouble(null);
    const card = latest.current.free ? { token: '' } : await tokenise(fields, origin, words);
    if (!('token' in card)) {
      setTrouble(card.trouble);
      return setStage('ready');
    }
    const worked = before ? await before() : {};
    if (!worked) {
      setTrouble(words.processorAway);
      return setStage('ready');
    }
    attempt.current ||= crypto.randomUUID();
    const answer = await send<AttemptStatus>('POST', path, {
      ...body,
      ...worked,
      attemptKey: attempt.current,
      cardToken: card.token,
    });
    if (answer.ok) {
      take(answer.value);
      if (answer.value.state === 'approval') location.assign(answer.value.url);
      return;
    }
    // The answer was lost, not the attempt: it is asked about under its key.
    if (answer.code === 'unreachable' || answer.code === 'trouble') return setStage('checking');
    onChanged(answer);
    attempt.current = '';
    setTrouble(troubleWords(words.troubles, answer));
    setStage('ready');
  }, [origin, words, take]);

  // Enter inside the frame is the button.
  useEffect(() => {
    const hear = (event: MessageEvent) => {
      if (
        event.origin === origin &&
        event.data?.from === 'card-fields' &&
        event.data.kind === 'enter' &&
        stage === 'ready'
      )
        void pay();
    };
    window.addEventListener('message', hear);
    return () => window.removeEventListener('message', hear);
  }, [origin, pay, stage]);

  async function otherCard() {
    setStage('sending');
    const { path, withdraw } = latest.current;
    const answer = await send<AttemptStatus>('POST', `${path}/withdraw`, withdraw);
    if (!answer.ok) {
      setTrouble(troubleWords(words.troubles, answer));
      return setStage('approval');
    }
    if (answer.value.state === 'refused') {
      attempt.current = '';
      setTrouble(null);
      return setStage('ready');
    }
    take(answer.value);
  }

  const waiting = stage === 'checking' || stage === 'approval' || stage === 'paid';
  return (
    <div>
      <div className={waiting || door.free ? 'hidden' : ''}>
        <iframe ref={frame} title="Card fields" src={fieldsUrl} className="card-fields" />
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
        {stage === 'paid' ? <p className="font-semibold text-leaf">{words.paidThanks}</p> : null}
      </div>
      {stage === 'approval' ? (
        <div className="mt-3 grid gap-3">
          <a className="btn btn-go btn-tall" href={bank}>
            {words.atYourBank}
          </a>
          <button type="button" className="btn min-h-11" onClick={() => void otherCard()}>
            {words.otherCard}
          </button>
        </div>
      ) : null}
      {waiting ? null : (
        <div ref={place}>
          <button
            type="button"
            className="btn btn-go btn-tall"
            disabled={stage === 'sending'}
            onClick={() => void pay()}
          >
            {stage === 'sending' ? words.paying : door.free || words.pay.replace('{sum}', door.sum)}
          </button>
        </div>
      )}
      {waiting || inView ? null : (
        <a
          href="#pay"
          className="fixed inset-x-0 bottom-0 z-10 flex items-baseline justify-between border-t-2 border-ink bg-sheet px-5 py-4 font-serif text-[19px]/6 font-semibold sm:hidden"
        >
          {door.sum} <span className="link text-[15px]">{words.toPayment}</span>
        </a>
      )}
      {waiting || door.free ? null : <p className="mt-2 text-center text-[13px]/5 text-soft">{words.cardGoes}</p>}
      <noscript>
        <p className="mt-3 text-[15px]/[22px]">{words.noScript}</p>
      </noscript>
    </div>
  );
}
