'use client';
import { ScanBarcode } from 'lucide-react';
import type { Route } from 'next';
import { useRouter } from 'next/navigation';
import { type KeyboardEvent, useMemo, useRef, useState } from 'react';
import type { CalendarDate } from '@/core/dates/calendar-date';
import type { Measures } from '@/core/parcel/measure';
import type { LabelSheet } from '@/core/parcel/profile';
import { Button } from '../kit/button';
import { Empty } from '../kit/empty';
import { useKeys } from '../kit/keys';
import { usePress } from '../kit/press';
import { send } from '../kit/send';
import { say, sayTrouble } from '../kit/toasts';
import { AddressDialog } from './address-dialog';
import { CustomsDialog } from './customs-dialog';
import { FreeParcelDialog } from './free-parcel-dialog';
import { LotPaper } from './lot-paper';
import { PackList, type PackRows } from './pack-list';
import { ParcelDialog } from './parcel-dialog';
import { PrintLabels } from './print-labels';
import type { LotShown, PackRowShown, PaperRowShown } from './shown';
import { TopUpDialog } from './top-up-dialog';
import { useReader } from './use-reader';

/** As many are counted; more are many. */
const MANY = 1000;

type Scanned =
  | {
      readonly kind: 'sale';
      readonly id: string;
      readonly state: 'waits' | 'open' | 'done' | 'dropped';
      readonly block: string;
    }
  | { readonly kind: 'parcel'; readonly id: string }
  | { readonly kind: 'unknown' };

export type PackShown = {
  readonly ready: PackRows;
  readonly blocked: PackRows;
  readonly count: { readonly ready: number; readonly blocked: number };
  readonly paper: readonly PaperRowShown[];
  /** Null for who sees no sums. */
  readonly lot: LotShown | null;
  readonly because: string;
  readonly weight: string;
  readonly tells: string;
  readonly carrierMinor: number | null;
  readonly balance: number | null;
  /** What was paid for the delivery of what waits, as written. */
  readonly paid: Readonly<Record<string, string>>;
  readonly profiles: readonly { readonly id: string; readonly name: string }[];
  readonly toPrint: readonly string[];
  /** Those of them that cross a border with a form. */
  readonly toDeclare: readonly string[];
  readonly words: string;
  readonly today: CalendarDate;
  readonly zone: string;
  readonly home: string;
  readonly measures: Measures;
  readonly currency: string;
  readonly locale: string;
  readonly paperLocale: string;
  readonly labelSheet: LabelSheet;
  readonly ownLabel: { readonly widthMm: number; readonly heightMm: number };
  readonly may: {
    readonly pack: boolean;
    readonly topUp: boolean;
    readonly keepItems: boolean;
    readonly keepOffers: boolean;
  };
};

/** How many sales wait; nobody counts beyond a thousand. */
function waitsWords({ ready, blocked }: PackShown['count']): string {
  const all = ready + blocked;
  if (all === 1) return 'One paid sale waits';
  return ready >= MANY || blocked >= MANY ? `More than ${MANY} paid sales wait` : `${all} paid sales wait`;
}

const TO_ORDER = '/deliver/stock?low=yes' as Route;

/** To pack: what waits at the left, and the paper on which lies what goes out together. */
export function PackDesk({ shown }: { shown: PackShown }) {
  const router = useRouter();
  const { busy, press, pressed } = usePress();
  const field = useRef<HTMLInputElement>(null);
  const [text, setText] = useState('');
  const [scanSays, setScanSays] = useState('');
  const [open, setOpen] = useState<string | null>(null);
  const [customs, setCustoms] = useState<string | null>(null);
  const [address, setAddress] = useState<PackRowShown | null>(null);
  const [dialog, setDialog] = useState<'free' | 'print' | 'top-up' | null>(null);
  const { paper, may, locale } = shown;
  const openRow = paper.find(({ id }) => id === open);
  const customsRow = paper.find(({ id }) => id === customs);
  const ready = paper.filter((row) => row.isBuyable && row.state === 'packing');
  const buying = paper.filter(({ state }) => state === 'buying').length;

  const putOn = (ids: readonly string[]) => ids.length > 0 && void pressed('/api/pack', { ids });

  /** What a reader, or somebody in a hurry, typed: nothing is guessed, and the field stays ready. */
  async function scanned(typed: string) {
    if (!typed.trim()) return;
    const answer = await send<Scanned>('GET', `/api/pack/scan?text=${encodeURIComponent(typed.trim())}`);
    setText('');
    if (!answer.ok) return setScanSays(answer.words);
    const thing = answer.value;
    if (thing.kind === 'parcel') return router.push(`/deliver/shipments/${thing.id}` as Route);
    if (thing.kind === 'unknown') return setScanSays(`${typed.trim()}: no sale and no label has this number.`);
    if (thing.state === 'done') return setScanSays(`${typed.trim()} lies on the paper, or has gone already.`);
    if (thing.state !== 'open') return setScanSays(`${typed.trim()} is not paid yet.`);
    if (thing.block)
      return setScanSays(
        `${typed.trim()} cannot go yet: ${thing.block === 'no-stock' ? 'it waits for stock' : 'look at its address'}.`,
      );
    setScanSays('');
    putOn([thing.id]);
    say(`${typed.trim()} lies on the paper`);
  }
  useReader((read) => void scanned(read));
  useKeys(useMemo(() => ({ b: () => field.current?.focus() }), []));

  async function buy() {
    const answer = await press<{ asked: number; left: number }>('/api/pack/buy', {
      expectedMinor: shown.carrierMinor,
    });
    if (!answer.ok) return sayTrouble(answer.words);
    const { asked, left } = answer.value;
    if (asked > 0)
      say(
        `${asked === 1 ? 'One label is' : `${asked} labels are`} asked for${left > 0 ? `; ${left} stay on the paper` : ''}`,
      );
  }

  function walk(event: KeyboardEvent<HTMLElement>) {
    const step = event.key === 'ArrowDown' ? 1 : event.key === 'ArrowUp' ? -1 : 0;
    const rows = [...event.currentTarget.querySelectorAll<HTMLElement>('[data-pack-row]')];
    const at = rows.indexOf(document.activeElement as HTMLElement);
    if (step === 0 || at < 0) return;
    event.preventDefault();
    rows[at + step]?.focus();
  }

  return (
    <div className="mx-auto grid max-w-[1440px] grid-cols-1 gap-y-5 px-4 sm:px-7 md:grid-cols-[minmax(250px,312px)_minmax(0,1fr)] md:gap-5">
      <aside aria-label="To pack" className="pb-4 md:pb-8" onKeyDown={walk}>
        <p className="flex h-[34px] items-center gap-3.5 text-[13px]">
          <b className="font-semibold">{waitsWords(shown.count)}</b>
          {may.pack ? (
            <Button look="link" className="ml-auto" onClick={() => setDialog('free')}>
              Parcel without a sale
            </Button>
          ) : null}
        </p>
        <form
          className="relative mt-0.5"
          onSubmit={(event) => {
            event.preventDefault();
            void scanned(text);
          }}
        >
          <ScanBarcode
            size={18}
            strokeWidth={1.5}
            className="pointer-events-none absolute left-2.5 top-2.5 text-soft"
            aria-hidden="true"
          />
          <input
            ref={field}
            className="input !pl-9 !pr-10"
            aria-label="Scan or type a number"
            placeholder="Scan or type a number"
            value={text}
            maxLength={60}
            autoComplete="off"
            onChange={(event) => setText(event.target.value)}
            onKeyDown={(event) => event.key === 'Escape' && field.current?.blur()}
          />
          <kbd className="key absolute right-2.5 top-2">b</kbd>
        </form>
        <p role="status" className="small min-h-[4px] text-ochre">
          {scanSays}
        </p>
        <PackList
          ready={shown.ready}
          blocked={shown.blocked}
          count={shown.count}
          onPaper={paper.length}
          words={shown.words}
          paid={shown.paid}
          locale={locale}
          zone={shown.zone}
          mayPack={may.pack}
          onMove={(row) => putOn([row.id])}
          onMoveAll={(rows) => putOn(rows.map(({ id }) => id))}
          onTakeAllOff={() => void pressed('/api/pack/off', {})}
          onOpen={(row) => (row.block === 'no-stock' ? router.push(TO_ORDER) : setAddress(row))}
        />
      </aside>
      <section className="min-w-0 pb-10 md:pt-2.5">
        {shown.toPrint.length > 0 || buying > 0 ? (
          <div role="status" className="mb-3 flex flex-wrap items-center gap-x-4 gap-y-2 bg-wash px-4 py-2.5">
            <p className="document flex-1">
              {buying > 0 ? `${buying === 1 ? 'One label is' : `${buying} labels are`} asked for at the carrier. ` : ''}
              {shown.toPrint.length > 0
                ? `${shown.toPrint.length === 1 ? 'One label is' : `${shown.toPrint.length} labels are`} bought and not printed yet.`
                : ''}
            </p>
            {shown.toPrint.length > 0 && may.pack ? (
              <Button look={paper.length === 0 ? 'go' : 'plain'} onClick={() => setDialog('print')}>
                {shown.toPrint.length === 1 ? 'Print 1 label' : `Print ${shown.toPrint.length} labels`}
              </Button>
            ) : null}
          </div>
        ) : null}
        {paper.length === 0 ? (
          <div className="sheet">
            <Empty
              words={
                shown.count.ready > 0
                  ? 'Choose what goes out together: each sale becomes a parcel on this paper, with what it costs beside what was paid.'
                  : 'Nothing to pack. The next paid sale with delivery comes here.'
              }
            >
              {shown.profiles.length === 0 && shown.lot ? (
                <a className="link" href="/deliver/profiles">
                  First a parcel profile
                </a>
              ) : null}
            </Empty>
          </div>
        ) : (
          <LotPaper
            rows={paper}
            lot={shown.lot}
            because={shown.because}
            weight={shown.weight}
            tells={shown.tells}
            ready={{ count: ready.length, minor: shown.carrierMinor }}
            balance={shown.balance}
            profiles={shown.profiles}
            today={shown.today}
            currency={shown.currency}
            locale={locale}
            mayPack={may.pack}
            mayMend={{ offers: may.keepOffers, rules: may.keepItems }}
            busy={busy}
            onDay={(mailOn) => void pressed('/api/pack/day', { mailOn })}
            onProfiles={(profileId) => void pressed('/api/pack/profile', { profileId })}
            onOpen={(row) => setOpen(row.id)}
            onCustoms={(row) => setCustoms(row.id)}
            onOff={(row) => void pressed('/api/pack/off', { ids: [row.id] })}
            onBuy={() => void buy()}
            onAsk={() => void pressed('/api/pack/rates', {})}
            onTopUp={may.topUp && shown.balance !== null ? () => setDialog('top-up') : null}
          />
        )}
      </section>
      {openRow ? (
        <ParcelDialog
          key={openRow.id}
          row={openRow}
          profiles={shown.profiles}
          measures={shown.measures}
          home={shown.home}
          currency={shown.currency}
          locale={locale}
          onCustoms={() => {
            setCustoms(openRow.id);
            setOpen(null);
          }}
          onClose={() => setOpen(null)}
        />
      ) : null}
      {customsRow?.customs ? (
        <CustomsDialog
          key={customsRow.id}
          row={customsRow}
          customs={customsRow.customs}
          measures={shown.measures}
          currency={shown.currency}
          sums={shown.lot !== null}
          mayKeep={may.keepItems}
          onClose={() => setCustoms(null)}
        />
      ) : null}
      {address ? <AddressDialog row={address} home={shown.home} onClose={() => setAddress(null)} /> : null}
      {dialog === 'free' ? (
        <FreeParcelDialog home={shown.home} locale={shown.paperLocale} onClose={() => setDialog(null)} />
      ) : null}
      {dialog === 'print' ? (
        <PrintLabels
          ids={shown.toPrint}
          declared={shown.toDeclare}
          usual={shown.labelSheet}
          own={shown.ownLabel}
          onClose={() => setDialog(null)}
        />
      ) : null}
      {dialog === 'top-up' && shown.balance !== null ? (
        <TopUpDialog balance={shown.balance} needed={shown.carrierMinor ?? 0} onClose={() => setDialog(null)} />
      ) : null}
    </div>
  );
}
