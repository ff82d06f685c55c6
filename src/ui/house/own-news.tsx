'use client';
import { useRouter } from 'next/navigation';
import { useEffect, useState } from 'react';
import { ALL_NEWS_KINDS, NEWS_KINDS, NEWS_WAYS, type NewsKind, type NewsWay, type WantedNews } from '@/core/news/news';
import { Button } from '../kit/button';
import { Check } from '../kit/check';
import { Field } from '../kit/field';
import { Form, useTyped } from '../kit/form';
import { send } from '../kit/send';
import { say } from '../kit/toasts';

const WAYS: Readonly<Record<NewsWay, string>> = { mail: 'By mail', browser: 'At the desk' };

type Typed = { wanted: WantedNews; quietFrom: string; quietTo: string };

/** What this browser says of signs outside the page; empty where it knows none. */
function useSignsAllowed(): [string, () => void] {
  const [allowed, setAllowed] = useState('');
  useEffect(() => {
    if ('Notification' in window) setAllowed(Notification.permission);
  }, []);
  return [allowed, () => void Notification.requestPermission().then(setAllowed)];
}

/** Of what whoever is signed in wants to hear, how, and between which hours not. */
export function OwnNews({ news, canBeMailed, zone }: { news: Typed; canBeMailed: boolean; zone: string }) {
  const router = useRouter();
  const [allowed, askBrowser] = useSignsAllowed();
  const form = useTyped<Typed>({
    start: { wanted: news.wanted, quietFrom: news.quietFrom, quietTo: news.quietTo },
    shape: () => import('@/input/own-settings-input').then(({ NewsInput }) => NewsInput),
    send: (body) => send('PUT', '/api/you/news', body),
    done: (_value, values) => {
      form.begin(values);
      say('Kept: you hear of that from now on');
      router.refresh();
    },
  });
  const { values, set, at } = form;
  const has = (kind: NewsKind, way: NewsWay): boolean => values.wanted[kind]?.includes(way) ?? false;
  const turn = (kind: NewsKind, way: NewsWay, on: boolean) => {
    const ways = NEWS_WAYS.filter((one) => (one === way ? on : has(kind, one)));
    const { [kind]: _, ...others } = values.wanted;
    set({ wanted: ways.length > 0 ? { ...others, [kind]: ways } : others });
  };
  const wantsSigns = ALL_NEWS_KINDS.some((kind) => has(kind, 'browser'));
  const isAlways = values.quietFrom === values.quietTo;
  return (
    <Form
      of={form}
      legend="What you hear of"
      actions={
        <Button
          type="submit"
          look="go"
          busy={form.busy}
          disabled={!form.changed}
          busyWords="Keeping it"
          className="justify-self-start"
        >
          Keep it
        </Button>
      }
    >
      <table className="w-full border-collapse">
        <thead>
          <tr className="border-b border-rule text-left">
            <th className="py-1">
              <span className="sr-only">What</span>
            </th>
            {NEWS_WAYS.map((way) => (
              <th key={way} scope="col" className="small w-[84px] py-1 text-center font-normal text-soft">
                {WAYS[way]}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {ALL_NEWS_KINDS.map((kind) => (
            <tr key={kind} className="border-b border-rule">
              <th scope="row" className="py-1.5 text-left font-normal">
                {NEWS_KINDS[kind]}
              </th>
              {NEWS_WAYS.map((way) => (
                <td key={way} className="text-center">
                  <Check
                    aria-label={`${NEWS_KINDS[kind]}: ${WAYS[way].toLowerCase()}`}
                    checked={has(kind, way)}
                    onChange={(event) => turn(kind, way, event.target.checked)}
                  />
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
      {at('wanted') ? <p className="text-brick">{at('wanted')}</p> : null}
      {canBeMailed ? null : (
        <p className="bg-ochre-tint px-3 py-2">Nothing is mailed before you have confirmed your address, above.</p>
      )}
      {wantsSigns && allowed === 'default' ? (
        <p>
          Your browser can show it while you look at something else.{' '}
          <Button look="link" onClick={askBrowser}>
            Let it
          </Button>
        </p>
      ) : null}
      {wantsSigns && allowed === 'denied' ? (
        <p className="text-soft">
          Your browser was told not to show anything of Dahlia’s outside this page; change it in the browser’s settings.
        </p>
      ) : null}
      <div className="flex flex-wrap items-end gap-3">
        <Field
          className="w-[130px]"
          label="Quiet from"
          type="time"
          value={values.quietFrom}
          error={at('quietFrom')}
          onChange={(event) => set({ quietFrom: event.target.value })}
        />
        <Field
          className="w-[130px]"
          label="Quiet until"
          type="time"
          value={values.quietTo}
          error={at('quietTo')}
          onChange={(event) => set({ quietTo: event.target.value })}
        />
        <p className="small min-w-[200px] flex-1 pb-2 text-soft">
          {isAlways
            ? 'Both alike: there are no quiet hours.'
            : 'Then nothing is mailed, and the browser makes no sign; it waits.'}{' '}
          By the clock of {zone.replaceAll('_', ' ')}.
        </p>
      </div>
    </Form>
  );
}
