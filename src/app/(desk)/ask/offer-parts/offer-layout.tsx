import type { ReactNode } from 'react';
import { pageActor } from '@/app/session';
import type { Placement } from '@/core/offer/offer';
import { mayDo } from '@/core/person/rights';
import { offersPage } from '@/flows/offer/offers';
import { businessToday } from '@/flows/payment/payment-list';
import { Empty } from '@/ui/kit/empty';
import { ListAndSheet } from '@/ui/list/list-and-sheet';
import { ListGroups } from '@/ui/list/list-group';
import { BeginOffer } from '@/ui/offer/begin-offer';
import { PLACEMENT_WORDS } from '@/ui/offer/placement-words';
import { AskTabs } from '../ask-tabs';
import { jsonOffer } from './json-offer';

const NONE: Readonly<Record<Placement, string>> = {
  link: 'No payment link yet. Give it a name and a price, and send it to whom you like.',
  page: 'No hosted page yet. It describes something, and takes the payment.',
  button: 'No button yet. It stands on your own website, and opens the checkout there.',
};

const GROUPS = [{ name: 'Drafts' }, { name: 'Open' }, { name: 'Paused and closed' }];

/** The list of one way of placing offers, with the sheet of the open one beside it. */
export async function OfferLayout({ placement, children }: { placement: Placement; children: ReactNode }) {
  const actor = await pageActor();
  const { business, today } = await businessToday(actor);
  const page = await offersPage(actor, placement, '');
  const words = PLACEMENT_WORDS[placement];
  return (
    <>
      <AskTabs here={words.list} />
      <ListAndSheet
        label={words.list}
        list={
          <>
            <div className="flex h-[34px] items-center gap-4">
              <b className="flex-1 font-semibold">{words.list}</b>
              {mayDo(actor, 'ask') ? <BeginOffer placement={placement} words={`New ${words.one}`} /> : null}
            </div>
            {page.rows.length === 0 ? (
              <Empty words={NONE[placement]} />
            ) : (
              <ListGroups
                rows={page.rows.map((row) => jsonOffer(row, business, words.path, today))}
                next={page.next}
                more={`/api/offers/page?placement=${placement}`}
                locale={business.deskLocale}
                heads={GROUPS}
              />
            )}
          </>
        }
      >
        {children}
      </ListAndSheet>
    </>
  );
}
