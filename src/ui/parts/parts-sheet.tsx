'use client';
import { type ReactNode, useState } from 'react';
import { calendarDate } from '@/core/dates/calendar-date';
import type { TallyDocument } from '@/core/tally/document';
import { tally } from '@/core/tally/tally';
import { working } from '@/core/tally/working';
import { Amount } from '../kit/amount';
import { Button } from '../kit/button';
import { DateField } from '../kit/date-field';
import { Dialog } from '../kit/dialog';
import { Empty } from '../kit/empty';
import { Field } from '../kit/field';
import { Leader } from '../kit/leader';
import { MoneyField } from '../kit/money-field';
import { say, sayTrouble, Toasts } from '../kit/toasts';
import { Trouble } from '../kit/trouble';
import { type ListRow, ListRowLink } from '../list/list-row';
import { Rosette } from '../rosette';
import type { RosetteState } from '../rosette-geometry';
import { RowsSkeleton } from '../skeleton';
import { WorkingSteps } from '../working';

const COLOURS: readonly [name: string, use: string][] = [
  ['ink', 'text'],
  ['ink-soft', 'second text'],
  ['desk', 'everything lies on it'],
  ['wash', 'inset, strips'],
  ['sheet', 'paper, inputs'],
  ['rule', 'hairlines'],
  ['edge', 'control edges'],
  ['plum', 'one action'],
  ['petal', 'chosen, open'],
  ['leaf', 'money in'],
  ['ochre', 'needs a look'],
  ['brick', 'late, refused'],
  ['dusk', 'in the future'],
];
const STATES: readonly [RosetteState, number][] = [
  ['Draft', 0],
  ['Sent', 0],
  ['Seen', 0],
  ['Part-paid', 0.08],
  ['Part-paid', 0.4],
  ['Paid', 1],
  ['Overdue', 0],
  ['Overdue', 0.55],
  ['Refused', 0],
  ['Pending', 0],
  ['Cancelled', 0],
  ['Cancelled', 0.3],
];
const EXAMPLE: TallyDocument = {
  currency: 'USD',
  pricesIncludeTax: false,
  lines: [
    { quantity: '3.5', unitPrice: '72.00', taxes: ['s'] },
    { quantity: '2', unitPrice: '64.50', taxes: ['s'] },
  ],
  discount: { percent: '10' },
  taxes: [{ id: 's', name: 'Sales tax', rate: '8.25', onDelivery: true }],
};
const row = (change: Partial<ListRow>): ListRow => ({
  id: '',
  href: '/parts',
  name: 'Fenwick Primary School',
  under: 'Seen · 1186',
  state: 'Seen',
  share: 0,
  minor: 14_800,
  currency: 'USD',
  when: 'Fri 14 Nov',
  late: false,
  group: '',
  ...change,
});

function Part({
  title,
  about,
  children,
  wide,
}: {
  title: string;
  about?: string;
  children: ReactNode;
  wide?: boolean;
}) {
  return (
    <section className={wide ? 'md:col-span-3' : ''} aria-label={title}>
      <div className="mb-3 flex items-baseline justify-between border-b border-ink pb-1">
        <h2 className="title-section">{title}</h2>
        <span className="small text-soft">{about}</span>
      </div>
      {children}
    </section>
  );
}

/** The design system on one page: what a screen may be made of. */
export function PartsSheet() {
  const [night, setNight] = useState(false);
  const [open, setOpen] = useState(false);
  const [chosen, setChosen] = useState('Day before');
  const [price, setPrice] = useState('72.00');
  const [off, setOff] = useState('ten');
  const [on, setOn] = useState<string>('2026-11-27');
  const shown = working(EXAMPLE, tally(EXAMPLE), ['Bridge and soundpost', 'Cello strings'], { of: 'tax', at: 0 });
  return (
    <div data-setting={night ? 'night' : 'day'} className="min-h-dvh bg-desk text-ink">
      <main className="mx-auto grid max-w-[1224px] gap-x-8 gap-y-7 px-4 py-6 md:grid-cols-3">
        <div className="flex items-center justify-between md:col-span-3">
          <h1 className="title-screen">Parts</h1>
          <Button look="link" onClick={() => setNight(!night)}>
            {night ? 'Day setting' : 'Night setting'}
          </Button>
        </div>
        <Part title="Colours" about="the same names by day and by night" wide>
          <ul className="grid grid-cols-4 gap-1.5 sm:grid-cols-7 lg:grid-cols-[repeat(13,minmax(0,1fr))]">
            {COLOURS.map(([name, use]) => (
              <li key={name} className="small">
                <div className="h-12 border border-rule" style={{ background: `var(--${name})` }} />
                <b className="block font-semibold">{name}</b>
                <span className="text-soft">{use}</span>
              </li>
            ))}
          </ul>
        </Part>
        <Part title="Type" about="Vollkorn and Encode Sans">
          <p className="font-serif text-[35px]/[40px] font-medium">Four Saturdays</p>
          <p className="title-screen">Thursday, 13 November</p>
          <p className="title-section mt-1">Needs a hand</p>
          <p className="name mt-1">Marguerite Öystad</p>
          <p className="document mt-1">Bridge and soundpost, 3.5 h × 72.00</p>
          <p className="mt-1 font-[550]">Send invoice</p>
          <p className="small mt-1 text-soft">Not enough money on Corvid ·4417, 0123456789</p>
        </Part>
        <section className="md:col-span-2" aria-label="Rosette">
          <div className="mb-3 flex items-baseline justify-between border-b border-ink pb-1">
            <h2 className="title-section">Rosette</h2>
            <span className="small text-soft">the share paid; its word always beside it</span>
          </div>
          <ul className="sheet grid grid-cols-3 sm:grid-cols-6">
            {STATES.map(([state, share], at) => (
              <li key={at} className="flex flex-col items-center gap-1.5 border-b border-r border-rule py-3.5">
                <Rosette state={state} share={share} size={at % 2 ? 48 : 26} />
                {state}
              </li>
            ))}
          </ul>
        </section>
        <Part title="Actions" about="rest, pointer, focus, off">
          <div className="flex flex-wrap gap-2.5">
            <Button look="go">Send invoice</Button>
            <Button>Copy</Button>
            <Button look="ink">Ask for money</Button>
            <Button look="danger">Void payment</Button>
            <Button look="sure">Discard</Button>
            <Button disabled>Nothing to send</Button>
            <Button className="outline-2 outline-offset-2 outline-plum">In focus</Button>
            <Button look="link">Add a line</Button>
          </div>
          <div className="segment mt-3" role="group" aria-label="When">
            {['Same day', 'Day before', 'Day after'].map((word) => (
              <button
                key={word}
                type="button"
                data-state={chosen === word ? 'on' : 'off'}
                aria-pressed={chosen === word}
                onClick={() => setChosen(word)}
              >
                {word}
              </button>
            ))}
          </div>
          <p className="mt-3 flex flex-wrap gap-2">
            <span className="tag">Care club</span>
            <span className="tag tag-ochre">Low stock</span>
            <span className="tag tag-brick">Held</span>
            <span className="tag tag-leaf">Paid</span>
            <span className="tag tag-dusk">Scheduled</span>
          </p>
        </Part>
        <Part title="Fields" about="rest, wrong, off, on paper">
          <div className="grid grid-cols-2 gap-3">
            <Field label="Customer" defaultValue="Ingrid Fallowell" />
            <DateField label="Due" value={on} from={calendarDate('2026-11-01')} onDay={setOn} />
            <Field label="E-mail address" defaultValue="ingrid@fallowell" error="Add the ending, such as .example" />
            <MoneyField
              label="Price of one"
              currency="USD"
              value={price}
              onChange={({ target }) => setPrice(target.value)}
            />
            <Field label="Reference" placeholder="none" hint="Theirs, not yours." />
            <MoneyField
              label="Discount"
              currency="USD"
              value={off}
              error="Write it as a number."
              onChange={({ target }) => setOff(target.value)}
            />
          </div>
          <p className="mt-3 font-serif text-[16px]">
            On paper: <input aria-label="A sum on paper" className="blank !w-20 text-right" defaultValue="860.00" />{' '}
            today
          </p>
        </Part>
        <Part title="Tally and leaders" about="one rule above, two below">
          <WorkingSteps working={shown} currency="USD" locale="en-US" />
          <Leader label="In euros" className="document mt-3">
            <Amount minor={15_120} currency="EUR" locale="de-DE" />
          </Leader>
          <Leader label="In yen" className="document">
            <Amount minor={18_400} currency="JPY" locale="en-US" />
          </Leader>
        </Part>
        <Part title="Rows" about="rest, late, open, covered">
          <ul>
            <ListRowLink row={row({})} open={false} locale="en-US" />
            <ListRowLink
              row={row({
                name: 'Lambert Oyelaran',
                under: 'Overdue · 1172',
                state: 'Overdue',
                when: '21 days late',
                late: true,
                minor: 6400,
              })}
              open={false}
              locale="en-US"
            />
            <ListRowLink
              row={row({ name: 'The Saltmarsh Fiddle Club of Upper and Lower Wending', minor: 127_500 })}
              open={false}
              locale="en-US"
            />
            <ListRowLink
              row={row({ name: 'Edda Tolliver', under: 'Paid · 1184', state: 'Paid', share: 1, minor: 64_000 })}
              open
              locale="en-US"
            />
          </ul>
          <div data-covered="yes">
            <ul>
              <ListRowLink row={row({ name: 'Calder Nwosu' })} open={false} locale="en-US" />
            </ul>
          </div>
        </Part>
        <Part title="Waiting" about="rows on their way">
          <RowsSkeleton rows={4} />
        </Part>
        <Part title="Messages" about="said, not done, asked">
          <div className="flex flex-wrap gap-2.5">
            <Button
              onClick={() => say('Invoice 1188 is on its way to Ingrid', { label: 'Look', onClick: () => undefined })}
            >
              Something was done
            </Button>
            <Button onClick={() => sayTrouble('No answer from the bank; nothing was charged.')}>
              Something was not
            </Button>
            <Button onClick={() => setOpen(true)}>A dialog</Button>
          </div>
          <div className="sheet mt-3">
            <Trouble
              title="This screen could not be made"
              words="Nothing was changed. Try again."
              reference="3fa9c1d2"
            />
          </div>
        </Part>
        <Part title="Empty" wide>
          <div className="sheet max-w-[560px]">
            <Empty words="No invoices yet. An invoice asks one customer for money, and is paid from its own page.">
              <Button>Start an invoice</Button>
            </Empty>
          </div>
        </Part>
      </main>
      <Dialog
        open={open}
        onOpenChange={setOpen}
        title="Discard this draft?"
        about="It has no number yet, so none will be missing."
      >
        <div className="flex justify-end gap-3">
          <Button onClick={() => setOpen(false)}>Cancel</Button>
          <Button look="sure" onClick={() => setOpen(false)}>
            Discard
          </Button>
        </div>
      </Dialog>
      <Toasts />
    </div>
  );
}
