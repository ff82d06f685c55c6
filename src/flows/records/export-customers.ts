import { type Customer, customerRows } from '@/db/customers';
import { customersCsv } from '@/documents/csv/customers';
import { customersVcard } from '@/documents/vcard/customers';
import { desk } from '@/flows/door/operation';
import { noteExport } from '@/flows/log/log';

const PART = 5000;

/** All customers in a file. */
export const exportCustomers = desk('see').run(
  async (ctx, form: 'csv' | 'vcf'): Promise<{ name: string; text: string }> => {
    const all: Customer[] = [];
    await ctx.read(async (db) => {
      for (let after = null as { key: string; id: string } | null; ; ) {
        const rows = await customerRows(db, { words: '', group: '' }, PART, after);
        all.push(...rows);
        const last = rows.at(-1);
        if (rows.length < PART || !last) return;
        after = { key: last.name.toLowerCase(), id: last.id };
      }
    });
    await ctx.keep((tx) => noteExport(tx, 'All customers', ''));
    return { name: `customers.${form}`, text: form === 'csv' ? customersCsv(all) : customersVcard(all) };
  },
);
