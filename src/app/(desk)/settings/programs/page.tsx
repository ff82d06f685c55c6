import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { pageActor } from '@/app/session';
import { clockTime, shortDate } from '@/core/dates/date-text';
import { dateInZone } from '@/core/dates/zone';
import { HOOK_KINDS } from '@/core/hook/events';
import { outcomeWords } from '@/core/hook/outcome';
import { mayDo } from '@/core/person/rights';
import { KEY_RIGHT_WORDS } from '@/core/program/key';
import { hooksView } from '@/flows/hook/hooks';
import { businessToday } from '@/flows/payment/payment-list';
import { keysView } from '@/flows/program/keys';
import { KeysPanel } from '@/ui/hook/keys-panel';
import { ProgramsDesk } from '@/ui/hook/programs-desk';

export const metadata: Metadata = { title: 'Other programs' };

const STATE = { waiting: 'waits', done: 'arrived', 'given-up': 'given up' } as const;

export default async function ProgramsPage() {
  const actor = await pageActor();
  if (!mayDo(actor, 'settings')) notFound();
  const { business, now } = await businessToday(actor);
  const keys = mayDo(actor, 'people') ? await keysView(actor) : null;
  const { zone, deskLocale: locale } = business;
  const time = (at: Date) => `${shortDate(dateInZone(at, zone), locale)}, ${clockTime(at, zone)}`;
  const day = (at: Date) => shortDate(dateInZone(at, zone), locale, { year: true });
  return (
    <div className="mx-auto max-w-[760px] px-4 pb-12 pt-6 sm:px-7">
      <article className="sheet px-5 py-6 sm:px-8" aria-label="Other programs">
        <ProgramsDesk
          programs={(await hooksView(actor)).map(({ hook, deliveries }) => ({
            id: hook.id,
            url: hook.url,
            kinds: hook.kinds,
            isOn: hook.isOn,
            isSilent: hook.isSilent,
            since: `since ${shortDate(dateInZone(hook.madeAt, zone), locale, { year: true })}, by ${hook.byName}`,
            earlier: hook.earlierUntil ? `The secret before is good until ${time(hook.earlierUntil)}.` : '',
            deliveries: deliveries.map(({ id, kind, happenedAt, state, outcome, tries, nextAt }) => ({
              id,
              what: kind === 'test' ? 'A test' : HOOK_KINDS[kind],
              when: time(happenedAt),
              state,
              words: `${STATE[state]}: ${outcomeWords(outcome)}${tries > 1 ? `, tried ${tries} times` : ''}${
                state === 'waiting' && nextAt ? `, again ${time(nextAt)}` : ''
              }`,
            })),
          }))}
        />
        {keys ? (
          <KeysPanel
            keys={keys.map(({ id, name, rights, byName, madeAt, goodUntil, usedAt }) => ({
              id,
              name,
              may: rights.map((right) => KEY_RIGHT_WORDS[right]).join('; '),
              since: `made ${day(madeAt)} by ${byName}`,
              until: day(goodUntil),
              isOver: goodUntil <= now,
              used: usedAt ? `last used ${time(usedAt)}` : 'never used',
            }))}
          />
        ) : null}
      </article>
    </div>
  );
}
