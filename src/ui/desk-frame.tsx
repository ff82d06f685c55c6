'use client';
import type { Route } from 'next';
import { useRouter } from 'next/navigation';
import { type ReactNode, useMemo, useState } from 'react';
import { Band } from './band';
import type { Action } from './find/actions';
import { Finder } from './find/finder';
import { KeySheet } from './find/key-sheet';
import { FURTHER_PLACES, NEW_THINGS } from './find/new-things';
import { DeskNews, type NewsHere } from './house/desk-news';
import { useKeys } from './kit/keys';
import { send } from './kit/send';
import { say, sayTrouble, Toasts } from './kit/toasts';
import { Live } from './live';
import { useMakeAndOpen } from './make-and-open';
import { PLACES } from './places';
import { AskAgain } from './steps/ask-again';

const YEAR = 31_536_000;
const remember = (name: string, value: string): void => {
  // biome-ignore lint/suspicious/noDocumentCookie: a setting of this computer, read by the server for the first picture
  document.cookie = `${name}=${value}; path=/; max-age=${YEAR}; samesite=lax`;
};

/** Whoever does not see everything finds what they see on the first screen; who sees customers packs too. */
const FIRST_PLACE = PLACES.slice(0, 1);
const PACKERS_PLACES = PLACES.filter(({ name }) => name === 'Today' || name === 'Deliver');

/** Everything around a desk's screen: band, keys, "Find or do", toasts, and the line on which changes come in. */
export function DeskFrame({
  house,
  person,
  setting,
  locale,
  may,
  since,
  desks,
  news,
  children,
}: {
  house: string;
  person: string;
  setting: { night: boolean; covered: boolean };
  locale: string;
  /** What this person may do; `people` also reads the log of the business. */
  may: Readonly<Record<'see' | 'customers' | 'ask' | 'records' | 'settings' | 'people', boolean>>;
  since: number;
  /** Where else this person works. */
  desks: readonly { readonly businessId: string; readonly business: string }[];
  /** Null for who hears of nothing. */
  news: NewsHere | null;
  children: ReactNode;
}) {
  const router = useRouter();
  const mayAsk = may.ask;
  const [finding, setFinding] = useState(false);
  const [reading, setReading] = useState(false);
  const [menu, setMenu] = useState(false);
  const [hearing, setHearing] = useState(false);
  const [night, setNight] = useState(setting.night);
  const [covered, setCovered] = useState(setting.covered);
  const { busy: starting, compose, makeAndOpen } = useMakeAndOpen();

  const actions = useMemo(() => {
    const cover = () => {
      const next = document.documentElement.dataset.covered !== 'yes';
      document.documentElement.dataset.covered = next ? 'yes' : 'no';
      remember('dahlia_cover', next ? 'yes' : 'no');
      setCovered(next);
      say(next ? 'Names and sums are covered' : 'Names and sums can be read');
    };
    const turnNight = () => {
      const next = document.documentElement.dataset.setting !== 'night';
      document.documentElement.dataset.setting = next ? 'night' : 'day';
      remember('dahlia_setting', next ? 'night' : 'day');
      setNight(next);
    };
    const signOut = async () => {
      const answer = await send('POST', '/api/sign-out', {});
      if (answer.ok) location.assign('/sign-in');
      else sayTrouble(answer.words);
    };
    const changeDesk = async (businessId: string) => {
      const answer = await send('POST', '/api/desks', { businessId });
      if (answer.ok) location.assign('/today');
      else sayTrouble(answer.words);
    };
    return {
      changeDesk: (businessId: string) => void changeDesk(businessId),
      ask: () => void (mayAsk && compose()),
      askByKey: () => void (mayAsk && compose({}, true)),
      cover,
      turnNight,
      signOut: () => void signOut(),
    };
  }, [compose, mayAsk]);

  const places = may.see ? PLACES : may.customers ? PACKERS_PLACES : FIRST_PLACE;

  const list: readonly Action[] = useMemo(() => {
    const open = (path: string) => () => router.push(path as Route);
    return [
      ...NEW_THINGS.filter(({ needs }) => may[needs]).map(({ begin, needs: _, ...thing }) => ({
        ...thing,
        group: 'New' as const,
        do:
          begin.by === 'compose'
            ? actions.askByKey
            : begin.by === 'offer'
              ? () => void makeAndOpen('/api/offers', { placement: begin.placement }, (id) => `/ask/offer/${id}`)
              : open(begin.path),
      })),
      ...places.map((place) => ({
        words: place.name,
        key: `g ${place.key}`,
        group: 'Go to' as const,
        do: open(place.href),
      })),
      ...[
        ...(may.see ? FURTHER_PLACES : []),
        ...(may.customers ? [{ words: 'Shipments', path: '/deliver/shipments', also: 'parcels tracking sent' }] : []),
        { words: 'Begin another business', path: '/settings/another' },
        {
          words: 'You',
          path: '/settings/you',
          also: 'dates numbers notices quiet hours password sessions second step',
        },
        ...(may.people
          ? [
              { words: 'People', path: '/settings/people', also: 'invite rights roles' },
              { words: 'Who stands behind it', path: '/settings/identity', also: 'identity document payouts' },
              { words: 'The log', path: '/settings/log' },
              {
                words: 'What is kept, taken along, closed',
                path: '/settings/data',
                also: 'data export privacy retention erase close the business',
              },
            ]
          : []),
      ].map(({ path, ...place }) => ({ ...place, group: 'Go to' as const, do: open(path) })),
      ...(may.settings
        ? [
            {
              words: 'Other programs',
              also: 'webhook events interface api keys',
              group: 'Go to' as const,
              do: () => router.push('/settings/programs'),
            },
          ]
        : []),
      ...(mayAsk ? [{ words: 'Ask for money', key: 'n', group: 'This desk' as const, do: actions.askByKey }] : []),
      { words: 'Find or do', key: '/', group: 'This desk', do: () => setFinding(true) },
      { words: 'Keys', also: 'shortcuts help', key: '?', group: 'This desk', do: () => setReading(true) },
      {
        words: covered ? 'Uncover names and sums' : 'Cover names and sums',
        key: 'c',
        group: 'This desk',
        do: actions.cover,
      },
      { words: night ? 'Day setting' : 'Night setting', group: 'This desk', do: actions.turnNight },
      ...(may.see
        ? [
            {
              words: 'News',
              also: 'notices bell heard',
              key: 'g n',
              group: 'This desk' as const,
              do: () => setHearing(true),
            },
          ]
        : []),
      {
        words: 'The business’s menu',
        also: 'change business',
        key: 'g b',
        group: 'This desk',
        do: () => setMenu(true),
      },
      ...desks.map(({ businessId, business }) => ({
        words: `Go over to ${business}`,
        group: 'This desk' as const,
        do: () => actions.changeDesk(businessId),
      })),
      { words: 'Sign out', group: 'This desk', do: actions.signOut },
    ] satisfies Action[];
  }, [actions, router, covered, night, mayAsk, may, makeAndOpen, desks, places]);

  const keys = useMemo(
    () => ({
      'mod+k': () => setFinding(true),
      ...Object.fromEntries(list.flatMap(({ key, do: act }) => (key ? [[key, act]] : []))),
    }),
    [list],
  );
  useKeys(keys);

  return (
    <>
      <a href="#main" className="sr-only focus:not-sr-only focus:absolute focus:z-50 focus:bg-sheet focus:p-2">
        To the content
      </a>
      <Band
        house={house}
        person={person}
        night={night}
        covered={covered}
        mayAsk={mayAsk && !starting}
        onFind={() => setFinding(true)}
        onAsk={actions.ask}
        onCover={actions.cover}
        onNight={actions.turnNight}
        onProfile={may.see ? () => router.push('/settings/profile') : null}
        onYou={() => router.push('/settings/you')}
        onSignOut={actions.signOut}
        menu={menu}
        onMenu={setMenu}
        news={news ? <DeskNews here={news} open={hearing} onOpenChange={setHearing} /> : null}
        places={places}
        desks={desks}
        onDesk={actions.changeDesk}
        onAnother={() => router.push('/settings/another')}
        onPeople={may.people ? () => router.push('/settings/people') : null}
      />
      <main id="main" className="pb-16 sm:pb-0">
        {children}
      </main>
      <Finder
        open={finding}
        onOpenChange={setFinding}
        actions={list.filter(({ key }) => key !== '/')}
        locale={locale}
        mayAsk={mayAsk}
        onOpen={(path) => router.push(path as Route)}
      />
      <KeySheet open={reading} actions={list} onClose={() => setReading(false)} />
      <AskAgain />
      <Live since={since} />
      <Toasts />
    </>
  );
}
