'use client';
import type { Route } from 'next';
import { useRouter } from 'next/navigation';
import { type ReactNode, useMemo, useState } from 'react';
import { Band, PLACES } from './band';
import { type Action, Finder } from './finder';
import { useKeys } from './kit/keys';
import { send } from './kit/send';
import { say, sayTrouble, Toasts } from './kit/toasts';
import { Live } from './live';
import { useMakeAndOpen } from './make-and-open';

const YEAR = 31_536_000;
const remember = (name: string, value: string): void => {
  // biome-ignore lint/suspicious/noDocumentCookie: a setting of this computer, read by the server for the first picture
  document.cookie = `${name}=${value}; path=/; max-age=${YEAR}; samesite=lax`;
};

/** Everything around a desk's screen: band, keys, "Find or do", toasts, and the line on which changes come in. */
export function DeskFrame({
  house,
  person,
  setting,
  mayAsk,
  mayLog,
  since,
  children,
}: {
  house: string;
  person: string;
  setting: { night: boolean; covered: boolean };
  mayAsk: boolean;
  /** Whether the log of the business may be read. */
  mayLog: boolean;
  since: number;
  children: ReactNode;
}) {
  const router = useRouter();
  const [finding, setFinding] = useState(false);
  const [night, setNight] = useState(setting.night);
  const [covered, setCovered] = useState(setting.covered);
  const { busy: starting, compose } = useMakeAndOpen();

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
    return {
      ask: () => void (mayAsk && compose()),
      askByKey: () => void (mayAsk && compose({}, true)),
      cover,
      turnNight,
      signOut: () => void signOut(),
    };
  }, [compose, mayAsk]);

  const keys = useMemo(
    () => ({
      n: actions.askByKey,
      c: actions.cover,
      '/': () => setFinding(true),
      'mod+k': () => setFinding(true),
      ...Object.fromEntries(PLACES.map((place) => [`g ${place.key}`, () => router.push(place.href)])),
    }),
    [actions, router],
  );
  useKeys(keys);

  const list: readonly Action[] = useMemo(
    () => [
      ...(mayAsk ? [{ words: 'Start an invoice', key: 'n', do: actions.ask }] : []),
      ...PLACES.map((place) => ({
        words: `Go to ${place.name}`,
        key: `g ${place.key}`,
        do: () => router.push(place.href),
      })),
      { words: covered ? 'Uncover names and sums' : 'Cover names and sums', key: 'c', do: actions.cover },
      { words: 'Go to the items', do: () => router.push('/records/items') },
      { words: 'Go to the tax rules', do: () => router.push('/records/taxes') },
      { words: 'Go to the business’s profile', do: () => router.push('/settings/profile') },
      { words: 'Change your password', do: () => router.push('/settings/you') },
      ...(mayLog ? [{ words: 'Go to the log', do: () => router.push('/settings/log') }] : []),
      { words: night ? 'Day setting' : 'Night setting', do: actions.turnNight },
      { words: 'Sign out', do: actions.signOut },
    ],
    [actions, router, covered, night, mayAsk, mayLog],
  );

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
        onProfile={() => router.push('/settings/profile')}
        onYou={() => router.push('/settings/you')}
        onSignOut={actions.signOut}
      />
      <main id="main" className="pb-16 sm:pb-0">
        {children}
      </main>
      <Finder open={finding} onOpenChange={setFinding} actions={list} onOpen={(path) => router.push(path as Route)} />
      <Live since={since} />
      <Toasts />
    </>
  );
}
