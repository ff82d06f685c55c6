import { type ReactNode, Suspense } from 'react';
import { pageActor } from '@/app/session';
import { mayDo } from '@/core/person/rights';
import { businessToday } from '@/flows/payment/payment-list';
import { registerChoices } from '@/flows/register/saved-registers';
import { ListAndSheet } from '@/ui/list/list-and-sheet';
import { RegisterList } from '@/ui/register/register-list';
import { MoneyTabs } from '../money-tabs';
import { CHANNEL_WORDS } from './json-payment';

export default async function PaymentsLayout({ children }: { children: ReactNode }) {
  const actor = await pageActor();
  const { business } = await businessToday(actor);
  const { saved, currencies } = await registerChoices(actor);
  return (
    <>
      <MoneyTabs here="Payments" />
      <ListAndSheet
        label="Payments"
        list={
          <Suspense>
            <RegisterList
              saved={saved}
              channels={CHANNEL_WORDS}
              currency={business.currency}
              currencies={currencies}
              locale={business.deskLocale}
              stamp={String(Date.now())}
              maySave={mayDo(actor, 'ask')}
            />
          </Suspense>
        }
      >
        {children}
      </ListAndSheet>
    </>
  );
}
