'use client';
import { guessedMapping, IMPORT_FIELDS } from '@/core/customer/import-rows';
import { ImportTable } from './import-table';

/** Customers from a CSV or vCard file. */
export const ImportCustomers = () => (
  <ImportTable
    of={{
      one: 'customer',
      more: 'customers',
      title: 'Customers from a file',
      about:
        'A CSV file with headings, or vCards. You say what each column is; every row is checked before any is written.',
      takes: { words: 'CSV or vCard', accept: '.csv,.tsv,.txt,.vcf,text/csv,text/vcard' },
      fields: IMPORT_FIELDS,
      guess: guessedMapping,
      missing: (mapping) =>
        mapping.some((field) => field && ['name', 'company', 'firstName', 'lastName'].includes(field))
          ? ''
          : 'Say which column holds the name.',
      path: '/api/customers/import',
      updates: true,
      home: { words: 'To the customers', path: '/records/customers' },
    }}
  />
);
