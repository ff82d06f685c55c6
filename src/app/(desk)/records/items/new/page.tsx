import type { Metadata } from 'next';
import { pageActor } from '@/app/session';
import { measuresOf } from '@/core/parcel/measure';
import { mayDo } from '@/core/person/rights';
import { taxClasses } from '@/core/tax/business-tax';
import { businessToday } from '@/flows/payment/payment-list';
import { taxRules } from '@/flows/records/taxes';
import { ItemForm } from '@/ui/item/item-form';

export const metadata: Metadata = { title: 'A new item' };

export default async function NewItemPage() {
  const actor = await pageActor();
  const { business } = await businessToday(actor);
  const classes = taxClasses(await taxRules(actor));
  return (
    <ItemForm
      item={null}
      currency={business.currency}
      classes={classes}
      measures={measuresOf(business.country)}
      promised={{}}
      mayAsk={mayDo(actor, 'records')}
    />
  );
}
