import { isUUID } from 'class-validator';
import type { Metadata } from 'next';
import { orNotFound } from '@/app/found';
import { pageActor } from '@/app/session';
import { mayDo } from '@/core/person/rights';
import { gatheringSheet, payoutSheet } from '@/flows/payout/payout-sheet';
import { AccountsView } from './accounts-view';
import { GatheringView } from './gathering-view';
import { PayoutView } from './payout-view';

export const metadata: Metadata = { title: 'Payouts' };

/** `next.USD`, or with a partner's id behind it. */
const NEXT = /^next\.([A-Z]{3})(?:\.([0-9a-f-]{36}))?$/;

export default async function PayoutPage({ params }: { params: Promise<{ id: string }> }) {
  const actor = await pageActor();
  const { id } = await params;
  const mayPay = mayDo(actor, 'settings');
  if (id === 'accounts') return <AccountsView actor={actor} />;
  const [, currency = '', partnerId = null] = NEXT.exec(id) ?? [];
  if (currency) {
    const isKnown = () => partnerId === null || isUUID(partnerId);
    const sheet = await orNotFound(id, gatheringSheet(actor, currency, partnerId), isKnown);
    return <GatheringView sheet={sheet} mayPay={mayPay} />;
  }
  return <PayoutView sheet={await orNotFound(id, payoutSheet(actor, id))} mayPay={mayPay} />;
}
