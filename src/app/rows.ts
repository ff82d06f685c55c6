/** Records as the rows of their lists. */
import { isLow } from '@/core/stock/available';
import type { Customer } from '@/flows/records/customers';
import type { Item } from '@/flows/records/items';
import type { RecordRow } from '@/ui/records/use-record-pages';

export const customerRow = (customer: Customer): RecordRow => ({
  id: customer.id,
  href: `/records/customers/${customer.id}`,
  name: customer.name,
  under: [customer.email || customer.phone || 'no e-mail address', customer.billing.city].filter(Boolean).join(' · '),
  right: '',
  mark: customer.groups[0] ?? '',
});

export const itemRow = (item: Item, currency: string): RecordRow => ({
  id: item.id,
  href: `/records/items/${item.id}`,
  name: item.name,
  under: [item.code, item.options.length > 0 ? `${item.options.length} options` : ''].filter(Boolean).join(' · '),
  right: item.prices[currency] ?? '',
  mark: [item, ...item.options].some(isLow) ? 'low stock' : item.onHand === null ? '' : `${item.onHand} on hand`,
});
