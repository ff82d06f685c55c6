'use client';
import { ChevronDown } from 'lucide-react';
import type { Route } from 'next';
import Link from 'next/link';
import { type KeyboardEvent, type ReactNode, useRef } from 'react';
import type { CalendarDate } from '@/core/dates/calendar-date';
import { dayHeading } from '@/core/dates/date-text';
import { money } from '@/core/money/money';
import { figureText, moneyText } from '@/core/money/money-text';
import { numberLead } from '@/core/parcel/lot';
import { Button } from '../kit/button';
import { Select } from '../kit/select';
import { MailDayMenu } from '../shipment/mail-day-menu';
import { columns, PaperRow } from './paper-row';
import type { LotShown, PaperRowShown } from './shown';

/** The blank in the title: the day on which the lot leaves. */
function MailDay({
  on,
  today,
  locale,
  mixed,
  mayPack,
  onDay,
}: {
  on: string;
  today: CalendarDate;
  locale: string;
  mixed: boolean;
  mayPack: boolean;
  onDay: (day: string) => void;
}) {
  const words = mixed ? 'several days' : dayHeading(on as CalendarDate, locale);
  if (!mayPack) return <>{words}</>;
  return (
    <MailDayMenu on={on} today={today} align="start" onDay={onDay}>
      <button
        type="button"
        data-mail-day
        className="underline decoration-edge decoration-dotted decoration-[1.5px] underline-offset-[5px]"
      >
        {words}
        <ChevronDown size={14} strokeWidth={1.7} className="ml-1.5 inline text-soft" aria-hidden="true" />
        <span className="sr-only">: choose another mailing date</span>
      </button>
    </MailDayMenu>
  );
}

const Head = ({ children, right = false, wide = false }: { children?: ReactNode; right?: boolean; wide?: boolean }) => (
  <span className={`${right ? 'text-right' : ''} ${wide ? '' : 'hidden lg:block'}`}>{children}</span>
);

/** A rule that would have chosen what somebody chose by hand. */
const ruleHref = ({ profileId, lines }: PaperRowShown): string =>
  `/deliver/profiles?rule=${profileId}&items=${lines.flatMap(({ itemId }) => itemId ?? []).join(',')}`;

/** The lot is a paper: what lies on it goes out together. Its sum, and what makes it short, stand in words above it. */
export function LotPaper({
  rows,
  lot,
  because,
  weight,
  tells,
  ready,
  balance,
  profiles,
  today,
  currency,
  locale,
  mayPack,
  mayMend,
  busy,
  onDay,
  onProfiles,
  onOpen,
  onCustoms,
  onOff,
  onBuy,
  onAsk,
  onTopUp,
}: {
  rows: readonly PaperRowShown[];
  /** Null for who sees no sums. */
  lot: LotShown | null;
  because: string;
  weight: string;
  /** When customers are told, in words. */
  tells: string;
  /** How many are ready, and what goes to the carrier for them. */
  ready: { readonly count: number; readonly minor: number | null };
  balance: number | null;
  profiles: readonly { readonly id: string; readonly name: string }[];
  today: CalendarDate;
  currency: string;
  locale: string;
  mayPack: boolean;
  /** What of it can be mended for the next time: what offers ask for delivery, and the rules. */
  mayMend: { readonly offers: boolean; readonly rules: boolean };
  busy: boolean;
  onDay: (day: string) => void;
  onProfiles: (profileId: string | null) => void;
  onOpen: (row: PaperRowShown) => void;
  onCustoms: (row: PaperRowShown) => void;
  onOff: (row: PaperRowShown) => void;
  onBuy: () => void;
  onAsk: () => void;
  /** Null for who may not. */
  onTopUp: (() => void) | null;
}) {
  const table = useRef<HTMLElement>(null);
  const text = (minor: number) => moneyText(money(BigInt(minor), currency), locale);
  const figure = (minor: number) => figureText(money(BigInt(minor), currency), locale);
  const sums = lot !== null;
  const most = Math.max(1000, ...rows.map(({ cost }) => Math.abs(cost?.left ?? 0)));
  const days = [...new Set(rows.map(({ mailOn }) => mailOn))];
  const daySays = [...new Set(rows.flatMap(({ dayWarnings }) => dayWarnings))];
  const hand = rows.filter(({ byRule }) => !byRule).length;
  const unknown = rows.filter(({ profile }) => profile === '').length;
  const chosen = (
    [
      [rows.length - hand - unknown, 'found by your rules'],
      [hand, 'chosen by hand'],
      [unknown, 'that no rule knows'],
    ] as const
  )
    .filter(([count]) => count > 0)
    .map(([count, how]) => `${count} ${how}`)
    .join('; ');
  const byHand = rows.find((row) => !row.byRule && row.profileId && row.lines.some(({ itemId }) => itemId));
  // The offer whose delivery loses most, of those that lose.
  const lossy = [...rows]
    .filter(({ cost }) => (cost?.left ?? 0) < 0)
    .sort((one, other) => (one.cost?.left ?? 0) - (other.cost?.left ?? 0))
    .flatMap(({ sales }) => sales.flatMap(({ offer }) => offer ?? []))[0];
  const short = balance !== null && ready.minor !== null && balance < ready.minor;

  function walk(event: KeyboardEvent) {
    const step = event.key === 'ArrowDown' ? 1 : event.key === 'ArrowUp' ? -1 : 0;
    if (event.key === 'd' && mayPack && (event.target as HTMLElement).dataset.paperRow) {
      event.preventDefault();
      event.stopPropagation();
      document.querySelector<HTMLElement>('[data-mail-day]')?.click();
      return;
    }
    const all = [...(table.current?.querySelectorAll<HTMLElement>('[data-paper-row]') ?? [])];
    const at = all.indexOf(document.activeElement as HTMLElement);
    if (step === 0 || at < 0) return;
    event.preventDefault();
    all[at + step]?.focus();
  }

  const said = lot
    ? lot.unknown === rows.length
      ? `${numberLead(rows.length)} ${rows.length === 1 ? 'parcel' : 'parcels'}; what they cost is not known yet.`
      : null
    : `${numberLead(rows.length)} ${rows.length === 1 ? 'parcel' : 'parcels'}, ${weight}.`;

  return (
    <article className="sheet px-[26px] pb-5" aria-label="The lot">
      <h1 className="pt-[15px] font-serif text-[27px]/[34px] font-medium">
        Going out on{' '}
        <MailDay
          on={days[0] ?? today}
          today={today}
          locale={locale}
          mixed={days.length > 1}
          mayPack={mayPack}
          onDay={onDay}
        />
      </h1>
      {daySays.length > 0 ? <p className="small font-medium text-ochre">{daySays.join('. ')}.</p> : null}
      <p className="mt-[3px] font-serif text-[17px]/[25px]">
        {said ?? (
          <>
            {numberLead(rows.length)} {rows.length === 1 ? 'parcel costs' : 'parcels cost'}
            {lot && lot.unknown > 0 ? ' about' : ''} <b className="private font-semibold">{text(lot?.cost ?? 0)}</b>
            {'; customers paid '}
            <b className="private font-semibold">{figure(lot?.paid ?? 0)}</b>
            {lot && lot.left !== 0 ? (
              <>
                :{' '}
                <b className={`private font-semibold ${lot.left < 0 ? 'text-ochre' : 'text-leaf'}`}>
                  {figure(Math.abs(lot.left))} {lot.left < 0 ? 'short' : 'over'}
                </b>
                {because ? `, because of ${because}` : ''}
              </>
            ) : (
              ', which is even'
            )}
            .
            {mayMend.offers && lossy ? (
              <a className="link ml-3 font-sans text-[12.5px]" href={`/ask/offer/${lossy.id}#delivery`}>
                Change delivery of {lossy.name}
              </a>
            ) : null}
          </>
        )}
      </p>
      {mayPack ? (
        <div className="mt-3 flex flex-wrap items-center gap-x-3.5 gap-y-2 text-[12.5px] text-soft">
          <span className="w-[230px]">
            <Select
              aria-label="Parcel profile for all"
              className="w-full !min-h-[30px]"
              value="-"
              onChange={({ target }) =>
                target.value !== '-' && onProfiles(target.value === 'rule' ? null : target.value)
              }
            >
              <option value="-">Parcel profile for all …</option>
              <option value="rule">By the rules, each its own</option>
              {profiles.map(({ id, name }) => (
                <option key={id} value={id}>
                  {name}
                </option>
              ))}
            </Select>
          </span>
          <span>{chosen}</span>
          {mayMend.rules && byHand ? (
            <Link className="link" href={ruleHref(byHand) as Route}>
              Make a rule for {byHand.profile}
            </Link>
          ) : null}
          {lot && lot.unknown > 0 ? (
            <Button look="small-link" disabled={busy} onClick={onAsk}>
              Ask the carrier again
            </Button>
          ) : null}
        </div>
      ) : null}
      <section ref={table} aria-label={`${rows.length} parcels`} className="mt-2.5" onKeyDown={walk}>
        <div
          aria-hidden="true"
          className={`hidden h-6 items-center border-b border-ink text-[12.5px]/[18px] font-medium text-soft lg:grid ${columns(sums)}`}
        >
          <Head>Size</Head>
          <Head>For, and what goes in</Head>
          <Head>Where to, and profile</Head>
          {sums ? (
            <>
              <Head right>Paid</Head>
              <Head right>Rate</Head>
              <Head right>Packing</Head>
              <Head right>Insured</Head>
              <Head right>Cost</Head>
              <Head />
              <span className="hidden grid-cols-[62px_1fr] gap-2 lg:grid">
                <span className="text-right">short</span>
                <span>over</span>
              </span>
            </>
          ) : (
            <Head right>Shelf</Head>
          )}
          <Head />
        </div>
        <ul className="border-t border-ink lg:border-0">
          {rows.map((row) => (
            <PaperRow
              key={row.id}
              row={row}
              sums={sums}
              most={most}
              currency={currency}
              locale={locale}
              mayPack={mayPack && row.state === 'packing'}
              onOpen={() => onOpen(row)}
              onCustoms={() => onCustoms(row)}
              onOff={() => onOff(row)}
              onProfile={() => onOpen(row)}
            />
          ))}
        </ul>
        {lot ? (
          <div
            className={`-mt-px grid min-h-[38px] grid-cols-[minmax(0,1fr)_auto] items-center border-b-[3px] border-t border-double border-ink border-t-ink font-serif text-[16px]/[22px] font-semibold ${columns(true)}`}
          >
            <span className="min-w-0 lg:col-span-3">
              The lot <span className="ml-1.5 font-sans text-[12.5px] font-normal text-soft">{weight}</span>
            </span>
            {[lot.paid, lot.rate, lot.packaging, lot.insurance, lot.cost].map((minor, at) => (
              <span key={at} className="private hidden text-right lg:block">
                {figure(minor)}
              </span>
            ))}
            <span className="hidden lg:block" />
            <span className={`private text-right ${lot.left < 0 ? 'text-ochre' : lot.left > 0 ? 'text-leaf' : ''}`}>
              {lot.left > 0 ? '+' : ''}
              {figure(lot.left)}
            </span>
            <span className="hidden lg:block" />
          </div>
        ) : null}
      </section>
      <div className="mt-3 flex flex-wrap items-center gap-x-5 gap-y-2">
        <p className="min-w-[240px] flex-1 font-serif text-[15.5px]/[21px]">
          {tells}
          <span className="mt-0.5 block font-sans text-[12.5px]/[18px] text-soft">
            {ready.minor !== null ? (
              <>
                <span className="private">{figure(ready.minor)}</span> goes to the carrier now
                {balance !== null ? (
                  <>
                    , which holds <span className="private">{figure(balance)}</span>
                  </>
                ) : null}
                ; a label can be given back within a day.
              </>
            ) : (
              'A label can be given back within a day.'
            )}
          </span>
        </p>
        <a className="link" href="/api/pack/picking" target="_blank" rel="noreferrer">
          Picking list
        </a>
        {short && onTopUp ? (
          <Button look="go" onClick={onTopUp}>
            Top up the balance
          </Button>
        ) : (
          <Button
            look="go"
            busy={busy}
            busyWords="One moment"
            disabled={!mayPack || ready.count === 0 || short}
            onClick={onBuy}
          >
            {ready.count === 1 ? 'Buy 1 label' : `Buy ${ready.count} labels`}
          </Button>
        )}
      </div>
      {short && !onTopUp ? (
        <p className="small pt-2 text-ochre">
          The balance at the carrier is too small. Ask who may pay out to top it up.
        </p>
      ) : null}
    </article>
  );
}
