'use client';
import { useEffect, useState } from 'react';
import type { Choice } from '@/core/offer/choice';
import type { ShownOffer, ShownQuote } from '@/core/offer/shown';
import { Button } from '../kit/button';
import { NativeSelect } from '../kit/native-select';
import { NumberReaderProvider } from '../kit/number-input';
import { send } from '../kit/send';
import { CardPay } from '../payer/card-pay';
import { useWork } from '../payer/work';
import { Asked } from './asked';
import { BeforeCard } from './before-card';
import { CheckoutSums } from './checkout-sums';
import type { CheckoutWords } from './checkout-words';
import { Choose } from './choose';
import { noteJustPaid } from './lead-on';
import { tellAbove } from './tell-above';
import { useCheckout } from './use-checkout';

/** What a request fills in and fixes: the places that the payer cannot change. */
const fixedPlaces = (filled: Partial<Choice>): Set<string> =>
  new Set([
    ...Object.keys(filled).filter((name) => name !== 'answers'),
    ...Object.keys(filled.answers ?? {}).map((id) => `answers.${id}`),
  ]);

/** The checkout: what is chosen and asked at the left, the sum and the card at the right and always in view. */
export function Checkout({
  path,
  framed = false,
  done,
  offer,
  begun,
  first,
  request,
  locale,
  passed,
  fieldsUrl,
  words,
}: {
  /** The checkout's own interface. */
  path: string;
  /** Whether the page stands in a frame on another website. */
  framed?: boolean;
  /** Where a paid order is shown, before its token. */
  done: string;
  offer: ShownOffer;
  begun: Choice;
  first: ShownQuote;
  request: { readonly sign: string; readonly locked: boolean; readonly filled: Partial<Choice> } | null;
  locale: string;
  passed: Readonly<Record<string, string>>;
  fieldsUrl: string;
  words: CheckoutWords;
}) {
  const sign = request?.sign ?? '';
  const [busyCurrency, setBusyCurrency] = useState(false);
  const checkout = useCheckout(path, begun, first, { request: sign, locale });
  const { choice, change, quote, waiting, problemOf, leave, status, checkoutKey } = checkout;
  const fixed = request?.locked ? fixedPlaces(request.filled) : new Set<string>();

  useEffect(() => {
    if (sign) void send('POST', `${path}/seen`, { request: sign }, { keepalive: true });
  }, [path, sign]);

  // This checkout has been paid already, in this tab or another: its own page says so.
  useEffect(() => {
    if (status?.state !== 'paid' || !status.order) return;
    checkout.forget(status.order);
    location.replace(`${done}${status.order}${framed ? '?framed=yes' : ''}`);
  }, [status, checkout, done, framed]);

  const nextWork = useWork(path);

  function otherCurrency(currency: string) {
    // Prices are written out by the server, so the page is asked for anew; what was filled in stays in this tab.
    setBusyCurrency(true);
    const address = new URL(location.href);
    address.searchParams.set('currency', currency);
    change({ currency, ...(offer.kind === 'items' ? {} : { amount: '' }) });
    setTimeout(() => location.assign(address), 60);
  }

  // What people are used to where the bill goes, or else the parcel.
  const usual = offer.usualIn[choice.billing?.country || choice.delivery?.country || ''];

  /** No card is needed, because a code took it all away, or a voucher pays it. */
  const free = quote.chargedMinor === 0 && (quote.codeCounts || quote.voucher !== null);
  const [trouble] = quote.problems;
  const hindrance = trouble ? trouble.words : waiting ? words.processorAway : null;
  return (
    <NumberReaderProvider value={{ locale, isMeant: words.isMeant }}>
      <div className="grid md:grid-cols-[minmax(0,640fr)_minmax(0,440fr)]">
        {checkout.paid ? (
          <p role="status" className="mx-5 mb-4 border border-leaf px-4 py-3 text-[16px]/6 sm:mx-11 md:col-span-2">
            <b className="font-semibold text-leaf">{words.paidAlready}</b>{' '}
            <a className="link" href={`${done}${checkout.paid}${framed ? '?framed=yes' : ''}`}>
              {words.seeOrder}
            </a>{' '}
            {words.payAgain}
          </p>
        ) : null}
        <section className="grid content-start gap-7 px-5 pb-8 pt-2 sm:px-11" aria-label={words.choose}>
          {offer.currencies.length > 1 ? (
            <div className="flex items-center gap-3">
              <label className="label !text-[14px]" htmlFor="currency">
                {words.currency}
              </label>
              <NativeSelect
                id="currency"
                className="min-h-11 !w-[110px] !text-[16px]"
                disabled={busyCurrency || fixed.has('currency')}
                value={choice.currency}
                onChange={(event) => otherCurrency(event.target.value)}
              >
                {offer.currencies.map((one) => (
                  <option key={one}>{one}</option>
                ))}
              </NativeSelect>
              {usual && usual !== choice.currency && !fixed.has('currency') ? (
                <Button look="link" disabled={busyCurrency} onClick={() => otherCurrency(usual)}>
                  {words.payIn.replace('{currency}', usual)}
                </Button>
              ) : null}
            </div>
          ) : null}
          <Choose
            offer={offer}
            choice={choice}
            fixed={fixed.has('items') || fixed.has('amount')}
            words={words}
            problemOf={problemOf}
            change={change}
            leave={leave}
          />
          <Asked
            path={path}
            offer={offer}
            choice={choice}
            fixed={fixed}
            words={words}
            problemOf={problemOf}
            change={change}
            leave={leave}
          />
        </section>
        <section
          id="pay"
          aria-label={words.total}
          className="relative min-w-0 border-t border-dashed border-edge px-5 pb-8 pt-6 sm:px-10 md:border-l md:border-t-0"
        >
          {['-left-[9px]', '-right-[9px]'].map((side) => (
            <span
              key={side}
              aria-hidden="true"
              className={`absolute -top-[9px] size-[18px] rounded-full bg-desk md:hidden ${side}`}
            />
          ))}
          <div className="md:sticky md:top-4">
            <CheckoutSums
              quote={quote}
              waiting={waiting}
              called={words.total}
              words={words}
              trouble={problemOf('total')}
            />
            <div className="mt-5 grid gap-5">
              <BeforeCard
                offer={offer}
                choice={choice}
                quote={quote}
                words={words}
                problemOf={problemOf}
                change={change}
              />
              <CardPay
                // A picture of its own for each way in which it may stand when the page begins.
                key={status?.state ?? 'none'}
                fieldsUrl={fieldsUrl}
                pending={status?.state === 'approval' ? status.url : status?.state === 'checking' ? 'checking' : null}
                refused={status?.state === 'refused' ? words.refusals[status.reason] : null}
                words={words}
                door={{
                  path,
                  body: {
                    choice,
                    checkoutKey,
                    chargedMinor: quote.chargedMinor,
                    laterMinor: quote.laterMinor,
                    quote: quote.token,
                    request: sign,
                    locale,
                    passed,
                    framed,
                  },
                  before: nextWork,
                  statusQuery: () => `checkout=${checkoutKey}`,
                  withdraw: () => ({ checkout: checkoutKey }),
                  sum: quote.chargedMinor > 0 || free ? quote.charged : '…',
                  free: free ? (quote.voucher ? words.voucherPays : words.orderFree) : '',
                  hindrance,
                  waiting,
                  onAwaited: checkout.hasten,
                  onHindered: () => {
                    checkout.askForAll();
                    requestAnimationFrame(() =>
                      document.querySelector<HTMLElement>('[aria-invalid="true"]')?.focus({ preventScroll: false }),
                    );
                  },
                  framed,
                  onUnderWay: (isUnderWay) => framed && tellAbove(isUnderWay ? 'waiting' : 'ready'),
                  onApproval: ({ order }) => {
                    // Whoever comes back from the bank is led on as if nothing had come between.
                    if (order) noteJustPaid(order);
                  },
                  onPaid: ({ order }) => {
                    checkout.forget(order ?? '');
                    if (order) noteJustPaid(order);
                    location.replace(`${done}${order}${framed ? '?framed=yes' : ''}`);
                  },
                  onChanged: (refusal) => {
                    if (!refusal) return;
                    checkout.askForAll();
                    checkout.renew();
                  },
                }}
              />
            </div>
          </div>
        </section>
      </div>
    </NumberReaderProvider>
  );
}
