'use client';
import { X } from 'lucide-react';
import { useParams, usePathname, useSearchParams } from 'next/navigation';
import { type ReactNode, useEffect, useState } from 'react';
import { isCalendarDate } from '@/core/dates/calendar-date';
import { longDate } from '@/core/dates/date-text';
import { METHOD_WORDS } from '@/core/payment/methods';
import {
  isNarrowedRegister,
  REGISTER_CHANNELS,
  REGISTER_WAYS,
  type RegisterAsk,
  WHOLE_REGISTER,
} from '@/core/register/ask';
import { Button } from '../kit/button';
import { Select } from '../kit/select';
import { send } from '../kit/send';
import { GroupHead } from '../list/list-group';
import { ListRowLink } from '../list/list-row';
import { SaveListDialog } from '../list/save-list';
import { queryOf, usePages } from '../list/use-pages';
import { FIELD_WORDS, NARROWING_FIELDS } from './narrowing';
import { REGISTER_STATE_WORDS, RegisterPanel } from './register-panel';
import { type JsonSum, RegisterSums } from './register-sums';

type Saved = { readonly id: string; readonly name: string; readonly asked: RegisterAsk };

/** What an address asks for: only what the register knows. */
function askOfAddress(query: URLSearchParams): RegisterAsk {
  const names = Object.keys(WHOLE_REGISTER) as (keyof RegisterAsk)[];
  return { ...WHOLE_REGISTER, ...Object.fromEntries(names.map((name) => [name, query.get(name) ?? ''])) };
}

/** What is shown comes to; null while it is being counted. Asked again whenever rows changed. */
function useSums(ask: RegisterAsk, stamp: string): readonly JsonSum[] | null {
  const [sums, setSums] = useState<readonly JsonSum[] | null>(null);
  // biome-ignore lint/correctness/useExhaustiveDependencies: `stamp` is what says that it has to be asked again
  useEffect(() => {
    const stop = new AbortController();
    const slow = setTimeout(() => setSums(null), 300);
    void send<JsonSum[]>('GET', `/api/register/sums?${queryOf(ask)}`, undefined, { signal: stop.signal }).then(
      (answer) => {
        if (stop.signal.aborted) return;
        clearTimeout(slow);
        setSums(answer.ok ? answer.value : []);
      },
    );
    return () => {
      clearTimeout(slow);
      stop.abort();
    };
  }, [ask, stamp]);
  return sums;
}

/** Something that the list is narrowed by, with the way out of it. */
function Chip({ words, onDrop }: { words: ReactNode; onDrop: () => void }) {
  return (
    <button
      type="button"
      onClick={onDrop}
      className="inline-flex min-h-[28px] max-w-full items-center gap-1.5 rounded-control border border-plum bg-petal px-2 text-[12.5px]/4 font-medium"
    >
      <span className="truncate">{words}</span>
      <X size={13} strokeWidth={2} aria-label="remove" />
    </button>
  );
}

/**
 * Every payment and refund, latest first: searched, narrowed, added up and taken along. What is asked stands in the address, so that
 * a reload, the way back and a link all show the same.
 */
export function RegisterList({
  saved,
  channels,
  currency,
  currencies,
  locale,
  stamp,
  maySave,
}: {
  saved: readonly Saved[];
  /** What each channel is called. */
  channels: Readonly<Record<string, string>>;
  /** The business's own. */
  currency: string;
  currencies: readonly string[];
  locale: string;
  /** New whenever the rows changed: what is asked is then asked again. */
  stamp: string;
  maySave: boolean;
}) {
  const path = usePathname();
  const query = useSearchParams();
  const { id: open } = useParams<{ id?: string }>();
  const [ask, setAsk] = useState<RegisterAsk>(() => askOfAddress(query));
  const [names, setNames] = useState<Readonly<Record<string, string>>>({});
  const [naming, setNaming] = useState(false);
  const { page, busy, more } = usePages('/api/register', ask, true, stamp);
  const sums = useSums(ask, stamp);
  const address = queryOf(ask).toString();
  const set = (part: Partial<RegisterAsk>) => {
    const next = { ...ask, ...part };
    setAsk(next);
    const text = queryOf(next).toString();
    window.history.replaceState(null, '', text ? `${path}?${text}` : path);
  };
  const day = (value: string) => (isCalendarDate(value) ? longDate(value, locale) : value);
  const rows = page?.rows ?? [];
  const groups = [...new Set(rows.map(({ group }) => group))];

  return (
    <>
      <div className="flex items-center gap-2 pb-1.5">
        <input
          type="search"
          className="input"
          aria-label="Find payments"
          placeholder="Name, number, reference, card or sum"
          value={ask.words}
          onChange={(event) => set({ words: event.target.value })}
        />
        <RegisterPanel
          ask={ask}
          currencies={currencies}
          maySave={maySave && isNarrowedRegister(ask)}
          address={address}
          set={set}
          onNarrow={(field, id, name) => {
            setNames({ ...names, [id]: name });
            set({ [field]: id });
          }}
          onName={() => setNaming(true)}
        />
      </div>
      <div className="grid grid-cols-3 gap-1.5 pb-2">
        <Select
          aria-label="What is shown"
          className="!min-h-[30px]"
          value={ask.show}
          onChange={(event) => {
            const list = saved.find(({ id }) => id === event.target.value);
            set(list ? { ...WHOLE_REGISTER, ...list.asked } : { show: event.target.value as RegisterAsk['show'] });
          }}
        >
          <option value="">Refunds too</option>
          <option value="payments">Payments</option>
          <option value="refunds">Refunds</option>
          {saved.length > 0 ? (
            <optgroup label="Saved lists">
              {saved.map((list) => (
                <option key={list.id} value={list.id}>
                  {list.name}
                </option>
              ))}
            </optgroup>
          ) : null}
        </Select>
        <Select
          aria-label="Paid how"
          className="!min-h-[30px]"
          value={ask.way}
          onChange={(event) => set({ way: event.target.value as RegisterAsk['way'] })}
        >
          <option value="">Any way</option>
          {REGISTER_WAYS.map((way) => (
            <option key={way} value={way}>
              {METHOD_WORDS[way]}
            </option>
          ))}
        </Select>
        <Select
          aria-label="Paid through"
          className="!min-h-[30px]"
          value={ask.channel}
          onChange={(event) => set({ channel: event.target.value as RegisterAsk['channel'] })}
        >
          <option value="">Anywhere</option>
          {REGISTER_CHANNELS.map((channel) => (
            <option key={channel} value={channel}>
              {channels[channel]}
            </option>
          ))}
        </Select>
      </div>
      <div className="flex flex-wrap gap-1.5 empty:hidden [&:not(:empty)]:pb-2">
        {ask.from || ask.to ? (
          <Chip
            words={[ask.from ? `from ${day(ask.from)}` : '', ask.to ? `to ${day(ask.to)}` : '']
              .filter(Boolean)
              .join(' ')}
            onDrop={() => set({ from: '', to: '' })}
          />
        ) : null}
        {ask.state ? <Chip words={REGISTER_STATE_WORDS[ask.state]} onDrop={() => set({ state: '' })} /> : null}
        {ask.currency ? <Chip words={ask.currency} onDrop={() => set({ currency: '' })} /> : null}
        {ask.fee ? <Chip words="Fee differs" onDrop={() => set({ fee: '' })} /> : null}
        {ask.landed ? <Chip words="Not in your account yet" onDrop={() => set({ landed: '' })} /> : null}
        {NARROWING_FIELDS.map((field) =>
          ask[field] ? (
            <Chip
              key={field}
              words={<span className="private">{names[ask[field]] ?? query.get('called') ?? FIELD_WORDS[field]}</span>}
              onDrop={() => set({ [field]: '' })}
            />
          ) : null,
        )}
      </div>
      <RegisterSums sums={sums} own={currency} locale={locale} />
      {page && rows.length === 0 ? (
        <p className="px-1 py-4 text-soft">
          {isNarrowedRegister(ask)
            ? 'No payment like that. Take something away of what is asked.'
            : 'No payments yet. What customers pay shows here, by card or another way.'}
        </p>
      ) : null}
      {groups.map((group) => (
        <section key={group} aria-label={group}>
          <GroupHead name={group} />
          <ul>
            {rows
              .filter((row) => row.group === group)
              .map((row) => (
                <ListRowLink
                  key={row.id}
                  row={address ? { ...row, href: `${row.href}?${address}` } : row}
                  open={row.id === open}
                  locale={locale}
                />
              ))}
          </ul>
        </section>
      ))}
      {page?.next ? (
        <Button
          look="small-link"
          className="mt-2 mb-1"
          busy={busy}
          onClick={() => void more()}
          busyWords="Fetching more"
        >
          Show more
        </Button>
      ) : null}
      <SaveListDialog open={naming} path="/api/register" asked={ask} onClose={() => setNaming(false)} />
    </>
  );
}
