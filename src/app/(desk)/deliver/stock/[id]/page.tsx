import type { Metadata, Route } from 'next';
import Link from 'next/link';
import { orNotFound } from '@/app/found';
import { pageActor } from '@/app/session';
import { clockTime, shortDate } from '@/core/dates/date-text';
import { dateInZone } from '@/core/dates/zone';
import { decimalSignOf, spokenCount } from '@/core/money/typed';
import { mayDo } from '@/core/person/rights';
import { MOVEMENT_WORDS } from '@/core/stock/movement';
import { isUuid } from '@/core/uuid';
import { businessToday } from '@/flows/payment/payment-list';
import { type MovementRow, movementCosts, stockCosts, stockSheet } from '@/flows/stock/stock-desk';
import { Leader } from '@/ui/kit/leader';
import { TakeOut } from '@/ui/stock/throw-dialog';
import { DeliverTabs } from '../../deliver-tabs';
import { costWords, jsonStock } from '../../json-stock';

export const metadata: Metadata = { title: 'Stock' };

type Asked = { option?: string; before?: string };

const signed = (text: string, sign: '.' | ','): string =>
  text === '0' ? '' : `${text.startsWith('-') ? '' : '+'}${spokenCount(text, sign)}`;

/** Where a movement comes from: the sale, the supplier and its paper, or why somebody did it. */
function Cause({ row }: { row: MovementRow }) {
  const href = row.invoiceId ? `/ask/invoices/${row.invoiceId}` : row.orderId ? `/money/orders/${row.orderId}` : '';
  const from = [row.supplier, row.paper].filter(Boolean).join(', ');
  return (
    <>
      {row.sale ? (
        row.invoiceId ? (
          <Link className="link" href={href as Route}>
            Invoice {row.sale}
          </Link>
        ) : (
          <span>Order {row.sale}</span>
        )
      ) : null}
      {row.fileId ? (
        <a className="link" href={`/files/own/${row.fileId}`} target="_blank" rel="noreferrer">
          {from || 'Their paper'}
        </a>
      ) : (
        <span>{from}</span>
      )}
      {row.why ? <span>{row.sale || from ? ` · ${row.why}` : row.why}</span> : null}
    </>
  );
}

export default async function StockSheetPage({
  params,
  searchParams,
}: {
  params: Promise<{ id: string }>;
  searchParams: Promise<Asked>;
}) {
  const actor = await pageActor('customers');
  const { id } = await params;
  const asked = await searchParams;
  const optionId = asked.option && isUuid(asked.option) ? asked.option : null;
  const before = /^\d{1,9}$/.test(asked.before ?? '') ? Number(asked.before) : null;
  const thing = { itemId: id, optionId };
  const { line, log, next } = await orNotFound(id, stockSheet(actor, thing, before));
  const sees = mayDo(actor, 'see');
  const costs = sees ? await stockCosts(actor, [thing]) : null;
  const paid = sees ? await movementCosts(actor, thing, before) : {};
  const setting = (await businessToday(actor)).business;
  const { deskLocale: locale, zone } = setting;
  const shown = jsonStock(line, costs, setting);
  const sign = decimalSignOf(locale);
  const count = (text: string) => spokenCount(text, sign);
  const mayPack = !actor.closed && mayDo(actor, 'pack');
  const receive = `/deliver/stock/receive?words=${encodeURIComponent(line.name)}&id=${shown.id}`;
  const older = `/deliver/stock/${id}?${new URLSearchParams({ ...(optionId ? { option: optionId } : {}), before: String(next) })}`;
  return (
    <>
      <DeliverTabs here="Stock" sums={sees} />
      <div className="mx-auto max-w-[1180px] px-4 pb-12 pt-5 sm:px-7">
        <p className="mb-3">
          <Link className="link" href="/deliver/stock">
            Stock
          </Link>
        </p>
        <article className="sheet max-w-[920px] px-7 py-5" aria-label={shown.name}>
          <div className="flex flex-wrap items-baseline gap-x-4 gap-y-2">
            <h1 className="title-screen min-w-0 flex-1 break-words">{shown.name}</h1>
            {sees ? (
              <Link className="link" href={`/records/items/${line.itemId}` as Route}>
                Its item
              </Link>
            ) : null}
            {mayPack ? (
              <>
                <TakeOut thing={{ itemId: line.itemId, optionId, name: shown.name }} />
                <Link className="btn" href={`/deliver/stock/count?words=${encodeURIComponent(line.name)}` as Route}>
                  Count
                </Link>
                <Link className="btn btn-go" href={receive as Route}>
                  Receive some
                </Link>
              </>
            ) : null}
          </div>
          <p className="small text-soft">
            {[shown.code, shown.shelf ? `shelf ${shown.shelf}` : '', shown.unit ? `by the ${shown.unit}` : '']
              .filter(Boolean)
              .join(' · ')}
          </p>
          <div className="mt-4 grid gap-x-10 sm:grid-cols-2">
            <div>
              <Leader label="On hand">{count(shown.onHand)}</Leader>
              <Leader label="Promised to customers">{count(shown.promised)}</Leader>
              <Leader label="Free">{count(shown.available)}</Leader>
              <Leader label="Lies on the shelf">{count(shown.lies)}</Leader>
            </div>
            <div>
              <Leader label="Low at">{shown.lowAt ? count(shown.lowAt) : 'not said'}</Leader>
              <Leader label="To order">{shown.order ? count(shown.order) : 'nothing'}</Leader>
              {sees ? (
                <>
                  <Leader label="Cost of one, on average">{shown.average || 'not known'}</Leader>
                  <Leader label="Worth">{shown.worth || 'not known'}</Leader>
                </>
              ) : null}
            </div>
          </div>
          <div className="mt-6 overflow-x-auto">
            <table className="w-full min-w-[620px] border-collapse">
              <thead>
                <tr className="small border-b border-ink text-left text-soft">
                  <th className="pb-1 pr-3 font-medium">When</th>
                  <th className="pb-1 pr-3 font-medium">What</th>
                  <th className="pb-1 pr-3 font-medium">From</th>
                  <th className="pb-1 pr-3 text-right font-medium">On hand</th>
                  <th className="pb-1 pr-3 text-right font-medium">Promised</th>
                  {sees ? <th className="pb-1 pr-3 text-right font-medium">Cost of one</th> : null}
                  <th className="pb-1 text-right font-medium">Then there</th>
                </tr>
              </thead>
              <tbody>
                {log.map((row) => (
                  <tr key={row.id} className="border-b border-rule align-baseline">
                    <td className="small whitespace-nowrap py-1.5 pr-3">
                      {shortDate(dateInZone(row.at, zone), locale, { year: true })}, {clockTime(row.at, zone)}
                      <span className="private block text-soft">{row.byName}</span>
                    </td>
                    <td className="py-1.5 pr-3 font-serif text-[15.5px]">{MOVEMENT_WORDS[row.kind]}</td>
                    <td className="small py-1.5 pr-3">
                      <Cause row={row} />
                    </td>
                    <td
                      className={`py-1.5 pr-3 text-right font-serif text-[15px] ${row.onHandBy.startsWith('-') ? '' : 'text-leaf'}`}
                    >
                      {signed(row.onHandBy, sign)}
                    </td>
                    <td className="py-1.5 pr-3 text-right font-serif text-[15px] text-soft">
                      {signed(row.promisedBy, sign)}
                    </td>
                    {sees ? (
                      <td className="py-1.5 pr-3 text-right font-serif text-[15px]">
                        {costWords(paid[row.id]?.cost ?? '', locale)}
                      </td>
                    ) : null}
                    <td className="py-1.5 text-right font-serif text-[15px] font-medium">
                      {row.onHandAfter === null ? '–' : count(row.onHandAfter)}
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
          </div>
          {next === null ? null : (
            <p className="mt-3">
              <Link className="link" href={older as Route}>
                What was before
              </Link>
            </p>
          )}
        </article>
      </div>
    </>
  );
}
