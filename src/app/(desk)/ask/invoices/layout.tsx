import type { ReactNode } from 'react';
import { pageActor } from '@/app/session';
import { jsonMinor } from '@/core/money/money';
import { moneyText } from '@/core/money/money-text';
import { mayDo } from '@/core/person/rights';
import { invoiceList } from '@/flows/invoice/invoice-list';
import { listOverview } from '@/flows/invoice/search-invoices';
import { customerOverview } from '@/flows/records/customers';
import { BringIn } from '@/ui/invoice/bring-in';
import { InvoiceSearch } from '@/ui/invoice/invoice-search';
import { StartButton } from '@/ui/invoice/start-button';
import { Figure } from '@/ui/kit/amount';
import { Empty } from '@/ui/kit/empty';
import { SumsBeside } from '@/ui/kit/sums-beside';
import { ListAndSheet } from '@/ui/list/list-and-sheet';
import { ListGroups } from '@/ui/list/list-group';
import { AskTabs } from '../ask-tabs';
import { jsonRow } from './json-row';

export default async function InvoicesLayout({ children }: { children: ReactNode }) {
  const actor = await pageActor();
  const { business, today, parts, sums, beside } = await invoiceList(actor);
  const { currency, deskLocale: locale } = business;
  const figure = (part: keyof typeof sums) => (
    <>
      <Figure minor={jsonMinor(sums[part])} currency={currency} locale={locale} />
      <SumsBeside
        sums={beside.flatMap((one) => (one.sums[part] > 0n ? [{ minor: one.sums[part], currency: one.currency }] : []))}
        locale={locale}
      />
    </>
  );
  const rows = (part: keyof typeof parts) => parts[part].rows.map((row) => jsonRow(row, business, today));
  const overview = await listOverview(actor);
  const { groups } = await customerOverview(actor);
  const words = Object.fromEntries(
    overview.counts
      .filter(({ count }) => count > 0)
      .map(({ state, count, sums: by }) => [
        state,
        `${count}: ${Object.entries(by)
          .map(([code, minor]) => moneyText({ minor, currency: code }, locale))
          .join(' + ')}`,
      ]),
  );
  const none = Object.values(parts).every((part) => part.rows.length === 0);
  return (
    <>
      <AskTabs here="Invoices" />
      <ListAndSheet
        label="Invoices"
        list={
          <>
            <div className="flex min-h-[34px] items-center gap-3 pb-1">
              <b className="min-w-0 font-semibold">
                Owed to you <span className="font-serif text-[15px]">{figure('all')}</span>
              </b>
              <span className="flex-1" />
              {mayDo(actor, 'ask') ? (
                <>
                  <StartButton />
                  <BringIn />
                </>
              ) : null}
            </div>
            <InvoiceSearch
              counts={words}
              saved={overview.saved}
              groups={groups.map(({ name }) => name)}
              names={business.tradingNames.map(({ id, name }) => ({ id, name }))}
              locale={locale}
              stamp={String(Date.now())}
              mayAsk={mayDo(actor, 'ask')}
            >
              {none ? (
                <Empty words="No invoices yet. An invoice asks one customer for money, and is paid from its own page." />
              ) : (
                <>
                  <ListGroups
                    rows={rows('open')}
                    heads={[
                      { name: 'Late', figure: figure('late') },
                      { name: 'Next two weeks', figure: figure('soon') },
                      { name: 'Later', figure: figure('later') },
                    ]}
                    next={parts.open.next}
                    more="/api/invoices?part=open"
                    locale={locale}
                  />
                  <ListGroups
                    rows={rows('drafts')}
                    heads={[{ name: 'Not sent' }]}
                    next={parts.drafts.next}
                    more="/api/invoices?part=drafts"
                    locale={locale}
                  />
                  <ListGroups
                    rows={rows('settled')}
                    heads={[{ name: 'Paid lately' }]}
                    next={parts.settled.next}
                    more="/api/invoices?part=settled"
                    locale={locale}
                  />
                </>
              )}
            </InvoiceSearch>
          </>
        }
      >
        {children}
      </ListAndSheet>
    </>
  );
}
