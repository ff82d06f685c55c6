import type { Metadata } from 'next';
import { pageActor } from '@/app/session';
import { money } from '@/core/money/money';
import { moneyText } from '@/core/money/money-text';
import { mayDo } from '@/core/person/rights';
import { businessToday } from '@/flows/payment/payment-list';
import { allStockWorth, stockCosts, stockPage } from '@/flows/stock/stock-desk';
import { StockDesk } from '@/ui/stock/stock-desk';
import { DeliverTabs } from '../deliver-tabs';
import { jsonStock } from '../json-stock';

export const metadata: Metadata = { title: 'Stock' };

type Asked = { words?: string; low?: string };

export default async function StockPage({ searchParams }: { searchParams: Promise<Asked> }) {
  const actor = await pageActor('customers');
  const asked = await searchParams;
  const words = String(asked.words ?? '').slice(0, 120);
  const lowOnly = asked.low === 'yes';
  const { rows, next } = await stockPage(actor, { words, lowOnly }, null);
  const sums = mayDo(actor, 'see');
  const costs = sums ? await stockCosts(actor, rows) : null;
  const setting = (await businessToday(actor)).business;
  const worth = sums && rows.length > 0 ? await allStockWorth(actor) : null;
  const unknown = worth?.unknown ?? 0;
  const about = worth
    ? `All that lies there cost ${moneyText(money(worth.minor, setting.currency), setting.deskLocale)}${
        unknown > 0 ? `; of ${unknown === 1 ? 'one thing' : `${unknown} things`} no cost is known` : ''
      }.`
    : '';
  return (
    <>
      <DeliverTabs here="Stock" sums={sums} />
      <StockDesk
        first={{ rows: rows.map((row) => jsonStock(row, costs, setting)), next }}
        words={words}
        lowOnly={lowOnly}
        about={about}
        sums={sums}
        mayPack={!actor.closed && mayDo(actor, 'pack')}
      />
    </>
  );
}
