import { type Customer, customerRows } from '@/db/customers';
import type { Actor } from '@/db/people';
import { readBusiness } from '@/db/transaction';
import { customersCsv } from '@/documents/csv/customers';
import { customersVcard } from '@/documents/vcard/customers';
import { requireRight } from './access';

const PART = 5000;

/** All customers in a file. */
export async function exportCustomers(actor: Actor, form: 'csv' | 'vcf'): Promise<{ name: string; text: string }> {
  requireRight(actor, 'read');
  const all: Customer[] = [];
  await readBusiness(actor.businessId, async (db) => {
    for (let after = null as { key: string; id: string } | null; ; ) {
      const rows = await customerRows(db, actor.businessId, { words: '', group: '' }, PART, after);
      all.push(...rows);
      const last = rows.at(-1);
      if (rows.length < PART || !last) return;
      after = { key: last.name.toLowerCase(), id: last.id };
    }
  });
  return { name: `customers.${form}`, text: form === 'csv' ? customersCsv(all) : customersVcard(all) };
}
