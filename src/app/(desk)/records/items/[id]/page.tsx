import type { Metadata } from 'next';
import { orGone } from '@/app/found';
import { pageActor } from '@/app/session';
import { handedOf } from '@/core/parcel/handover';
import { measuresOf } from '@/core/parcel/measure';
import { mayDo } from '@/core/person/rights';
import { taxClasses } from '@/core/tax/business-tax';
import { itemDigital } from '@/flows/digital/grants';
import { businessToday } from '@/flows/payment/payment-list';
import { itemSheet } from '@/flows/records/items';
import { taxRules } from '@/flows/records/taxes';
import { ItemDigital } from '@/ui/item/item-digital';
import { ItemForm } from '@/ui/item/item-form';

export const metadata: Metadata = { title: 'Item' };

export default async function ItemPage({ params }: { params: Promise<{ id: string }> }) {
  const actor = await pageActor();
  const { id } = await params;
  const { item, promised } = await orGone(id, itemSheet(actor, id), '/records/items');
  const { business } = await businessToday(actor);
  const classes = taxClasses(await taxRules(actor));
  const isDigital = handedOf(item) === 'digital';
  return (
    <>
      <ItemForm
        key={id}
        item={item}
        currency={business.currency}
        classes={classes}
        measures={measuresOf(business.country)}
        promised={promised}
        mayAsk={mayDo(actor, 'records')}
      />
      {isDigital && mayDo(actor, 'records') ? (
        <ItemDigital
          key={`${id} digital`}
          itemId={id}
          digital={await itemDigital(actor, id)}
          mayFile={mayDo(actor, 'ask')}
        />
      ) : null}
    </>
  );
}
