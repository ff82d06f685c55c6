import { dayHeading } from '@/core/dates/date-text';
import { money } from '@/core/money/money';
import { moneyText } from '@/core/money/money-text';
import { mayDo } from '@/core/person/rights';
import { batchList } from '@/flows/day/day-batches';
import type { Actor } from '@/flows/door/rights';
import { businessToday } from '@/flows/payment/payment-list';
import { takings } from '@/flows/payment/payment-overview';
import { payoutList } from '@/flows/payout/payout-list';
import { type Contact, contactsPage, type Goods, goodsOnHand } from '@/flows/records/contacts';
import { OverviewPart } from '@/ui/kit/overview';
import { jsonBatch } from '../money/batches/json-batch';
import { ReceivedPart, WaysPart } from '../money/payments/takings-parts';
import { jsonPayout } from '../money/payouts/json-payout';

/** Whom something goes to, found by name, address or number; the rest by further words. */
function Contacts({ rows, words, more }: { rows: readonly Contact[]; words: string; more: boolean }) {
  return (
    <OverviewPart name="Customers">
      <form action="/today" className="flex gap-3 py-3" role="search">
        <input
          className="input max-w-[340px]"
          type="search"
          name="words"
          aria-label="Name, address or number"
          placeholder="Name, address or number"
          defaultValue={words}
          maxLength={120}
        />
        <button type="submit" className="btn">
          Find
        </button>
      </form>
      {rows.length === 0 ? <p className="document py-3">Nobody answers to that.</p> : null}
      <ul>
        {rows.map(({ id, name, email, phone, address, delivery }) => (
          <li
            key={id}
            className="grid gap-x-6 gap-y-0.5 border-b border-rule py-2.5 sm:grid-cols-[220px_minmax(0,1fr)]"
          >
            <span className="private font-serif text-[15.5px] font-medium">{name}</span>
            <span className="private min-w-0 break-words">
              {[address.join(', '), phone, email].filter(Boolean).join(' · ')}
              {delivery.length > 0 ? (
                <span className="small block text-soft">Parcels to {delivery.join(', ')}</span>
              ) : null}
            </span>
          </li>
        ))}
      </ul>
      {more ? <p className="small pt-2 text-soft">There are more: write a word of the name or the place.</p> : null}
    </OverviewPart>
  );
}

/** What is on the shelves. */
function OnHand({ goods }: { goods: readonly Goods[] }) {
  if (goods.length === 0) return null;
  return (
    <OverviewPart name="In stock">
      <ul>
        {goods.map(({ id, name, code, onHand, options }) => (
          <li key={id} className="flex flex-wrap items-baseline gap-x-4 border-b border-rule py-1.5">
            <span className="document">{name}</span>
            <span className="small text-soft">{code}</span>
            <span className="ml-auto text-right tabular-nums">
              {options.length > 0 ? options.map((one) => `${one.name} ${one.onHand}`).join(' · ') : onHand}
            </span>
          </li>
        ))}
      </ul>
    </OverviewPart>
  );
}

async function Sums({ actor }: { actor: Actor }) {
  const { business, today, spans, ways } = await takings(actor);
  const { rows: days } = await batchList(actor, null);
  const { rows: payouts } = await payoutList(actor);
  const { deskLocale: locale } = business;
  const lines = [
    ['Days', days.slice(0, 14).map((day) => jsonBatch(day, business, today))],
    ['Payouts', payouts.slice(0, 14).map((one) => jsonPayout(one, business))],
  ] as const;
  return (
    <>
      <ReceivedPart spans={spans} locale={locale} />
      <WaysPart ways={ways} locale={locale} />
      {lines.map(([name, rows]) => (
        <OverviewPart key={name} name={name}>
          <ul>
            {rows.map((row) => (
              <li key={row.id} className="flex items-baseline gap-4 border-b border-rule py-1.5">
                <span className="document">{row.name}</span>
                <span className="small min-w-0 flex-1 text-soft">{row.under}</span>
                <span className="private font-serif text-[15.5px]">
                  {moneyText(money(BigInt(row.minor), row.currency), locale)}
                </span>
              </li>
            ))}
          </ul>
        </OverviewPart>
      ))}
    </>
  );
}

/** The desk of somebody from whom customers or sums are hidden: what they may see, on one screen. */
export async function HiddenView({ actor, words }: { actor: Actor; words: string }) {
  const { business, today } = await businessToday(actor);
  const contacts = mayDo(actor, 'customers') ? await contactsPage(actor, words) : null;
  return (
    <div className="mx-auto grid max-w-[860px] gap-7 px-4 pb-12 pt-5 sm:px-7">
      <h1 className="title-screen">{dayHeading(today, business.deskLocale)}</h1>
      {contacts ? <Contacts rows={contacts.rows} words={words} more={contacts.next !== null} /> : null}
      {mayDo(actor, 'sums') ? <Sums actor={actor} /> : null}
      <OnHand goods={await goodsOnHand(actor)} />
    </div>
  );
}
