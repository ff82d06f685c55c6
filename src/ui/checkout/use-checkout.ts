'use client';
import { useEffect, useState, useSyncExternalStore } from 'react';
import type { Choice } from '@/core/offer/choice';
import type { ShownQuote } from '@/core/offer/shown';
import { windowMemory } from '../kit/memory';
import { send } from '../kit/send';
import { CheckoutKeeper } from './checkout-keeper';

/** What stands in the fields already: on a slow connection people write before the page listens. */
const typedEarly = (): Partial<Choice> =>
  Object.fromEntries(
    (['name', 'email', 'phone'] as const).flatMap((field) => {
      const typed = document.querySelector<HTMLInputElement>(`input[data-asked="${field}"]`)?.value;
      return typed ? [[field, typed]] : [];
    }),
  );

/**
 * The checkout of this page.
 *
 * @param path of the checkout's own interface @param more what every request says beside the choice
 */
export function useCheckout(
  path: string,
  begun: Choice,
  first: ShownQuote,
  more: { readonly request: string; readonly locale: string },
) {
  const [keeper] = useState(
    () =>
      new CheckoutKeeper(begun, first, {
        quote: (choice, quote, signal) => send('POST', `${path}/quote`, { choice, quote, ...more }, { signal }),
        status: (key) => send('GET', `${path}/status?checkout=${key}`),
        store: windowMemory,
        place: `checkout ${path} ${more.request}`,
        newKey: () => crypto.randomUUID(),
      }),
  );
  useEffect(() => {
    keeper.begin(typedEarly());
    return () => keeper.close();
  }, [keeper]);
  const { choice, quote, waiting, key, status, paid } = useSyncExternalStore(
    keeper.subscribe,
    keeper.view,
    keeper.view,
  );
  const { change, problemOf, hasten, leave, askForAll, renew, forget } = keeper;
  return {
    choice,
    change,
    quote,
    waiting,
    checkoutKey: key,
    status,
    paid,
    problemOf,
    hasten,
    leave,
    askForAll,
    renew,
    forget,
  };
}
