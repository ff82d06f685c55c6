'use client';
import {
  CircleHelp,
  CreditCard,
  Hourglass,
  MailX,
  MessageCircleQuestion,
  Package,
  PackageOpen,
  PenLine,
  Scale,
} from 'lucide-react';
import type { Route } from 'next';
import Link from 'next/link';
import { useState } from 'react';
import type { WorkGroup } from '@/core/today/work';
import { Amount, Figure } from '../kit/amount';
import { Button } from '../kit/button';
import { Check } from '../kit/check';
import { Rosette } from '../rosette';
import { isTogether, useTogether } from './use-together';
import { actWords, WorkAction } from './work-action';
import { actOfAll, GROUP_WORDS, type WorkMark, type WorkRowShown } from './work-row';

/** So many rows of a group are shown before the rest is asked for; two more are no reason to ask. */
const SHOWN = 5;

const ICONS = {
  card: CreditCard,
  help: CircleHelp,
  hourglass: Hourglass,
  mail: MailX,
  question: MessageCircleQuestion,
  pen: PenLine,
  scale: Scale,
  parcel: Package,
  shelf: PackageOpen,
} as const;

function Mark({ mark }: { mark: WorkMark }) {
  if ('rosette' in mark) return <Rosette state={mark.rosette} share={mark.share} size={24} />;
  const Icon = ICONS[mark.icon];
  return <Icon size={21} strokeWidth={1.4} aria-hidden="true" />;
}

type Money = { readonly currency: string; readonly locale: string };

function Sums({ row, currency, locale }: Money & { row: WorkRowShown }) {
  return row.sums.map((sum) => (
    <span key={sum.currency} className="block text-right">
      {sum.currency === currency ? <Figure {...sum} locale={locale} /> : <Amount {...sum} locale={locale} />}
    </span>
  ));
}

function Row({
  row,
  strong,
  quiet,
  chosen,
  onTick,
  ...money
}: Money & {
  row: WorkRowShown;
  strong: boolean;
  quiet: boolean;
  chosen: boolean;
  /** None where nothing is done to several. */
  onTick: ((ticked: boolean) => void) | null;
}) {
  return (
    <li
      className="grid grid-cols-[22px_34px_minmax(0,1fr)] items-center gap-y-1.5 border-b border-rule py-2 last:border-0 sm:min-h-[58px] sm:grid-cols-[22px_34px_minmax(0,1fr)_auto_148px]"
      data-work={row.key}
    >
      {onTick ? (
        <Check aria-label={row.title} checked={chosen} onChange={(event) => onTick(event.target.checked)} />
      ) : (
        <span />
      )}
      <Mark mark={row.mark} />
      <div className="min-w-0 pr-3">
        <div className="name private">
          {row.href ? (
            <Link href={row.href as Route} className="hover:underline">
              {row.title}
            </Link>
          ) : (
            row.title
          )}
        </div>
        <div className="private small text-soft">{row.about}</div>
        {row.lines.map((line) => (
          <div key={line.key} className="private small text-soft">
            {line.href ? (
              <Link href={line.href as Route} className="hover:underline">
                {line.words}
              </Link>
            ) : (
              line.words
            )}{' '}
            {line.act ? <WorkAction act={line.act} look="small-link" /> : null}
          </div>
        ))}
      </div>
      <div className="col-start-3 font-serif text-[16px] font-medium sm:col-start-auto sm:pr-5">
        <Sums row={row} {...money} />
      </div>
      <div className="col-start-3 grid sm:col-start-auto">
        {row.act ? <WorkAction act={row.act} look={strong ? 'go' : quiet ? 'small-link' : 'plain'} /> : null}
      </div>
    </li>
  );
}

/** One group: what is done, to how many; its rows, several of which can be dealt with at once. */
function Group({
  group,
  rows,
  leads,
  ...money
}: Money & { group: WorkGroup | 'waits'; rows: readonly WorkRowShown[]; leads: boolean }) {
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const [all, setAll] = useState(false);
  const { busy, doAll } = useTogether();
  const several = group !== 'waits' && rows.filter(({ act }) => isTogether(act)).length > 1;
  const shown = all || rows.length <= SHOWN + 2 ? rows : rows.slice(0, SHOWN);
  const able = shown.filter(({ act }) => isTogether(act));
  const picked = able.filter(({ key }) => chosen.has(key));
  const act = actOfAll(picked.map((row) => row.act));
  const name = GROUP_WORDS[group];
  return (
    <section aria-label={name} className="px-[18px] pt-2.5 first:pt-1.5">
      <div className="flex min-h-[34px] items-center gap-2.5 border-b border-ink">
        {several ? (
          <Check
            aria-label={`All: ${name}`}
            checked={able.length > 0 && picked.length === able.length}
            onChange={(event) => setChosen(new Set(event.target.checked ? able.map(({ key }) => key) : []))}
          />
        ) : null}
        <h3 className="text-[13px] font-semibold">{name}</h3>
        <span className="small text-soft">{rows.length > 1 ? rows.length : ''}</span>
        <span className="flex-1" />
        {isTogether(act) ? (
          <Button
            look="ink"
            size="low"
            busy={busy}
            busyWords="One moment"
            onClick={async () => {
              if (await doAll(act)) setChosen(new Set());
            }}
          >
            {act.do === 'card' && act.customerIds.length > 1
              ? `Send ${act.customerIds.length} card links`
              : actWords(act)}
          </Button>
        ) : null}
      </div>
      <ul>
        {shown.map((row, at) => (
          <Row
            key={row.key}
            row={row}
            strong={leads && at === 0 && picked.length === 0}
            quiet={group === 'waits'}
            chosen={chosen.has(row.key)}
            onTick={
              several && isTogether(row.act)
                ? (ticked) => {
                    const next = new Set(chosen);
                    if (ticked) next.add(row.key);
                    else next.delete(row.key);
                    setChosen(next);
                  }
                : null
            }
            {...money}
          />
        ))}
      </ul>
      {rows.length > SHOWN + 2 ? (
        <Button look="small-link" className="my-2" aria-expanded={all} onClick={() => setAll(!all)}>
          {all ? `Only the first ${SHOWN}` : `Show all ${rows.length}`}
        </Button>
      ) : null}
    </section>
  );
}

/** What needs a hand, by what is done about it; the plum action is the first. */
export function WorkGroups({
  groups,
  ...money
}: Money & { groups: readonly { readonly group: WorkGroup; readonly rows: readonly WorkRowShown[] }[] }) {
  return groups.map(({ group, rows }, at) => (
    <Group key={group} group={group} rows={rows} leads={at === 0} {...money} />
  ));
}

/** What mends itself, apart from that: nothing has to be done. */
export function WorkUnderWay({ rows, ...money }: Money & { rows: readonly WorkRowShown[] }) {
  return <Group group="waits" rows={rows} leads={false} {...money} />;
}
