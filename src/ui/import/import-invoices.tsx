'use client';
import { guessedColumns } from '@/core/import/columns';
import { OPEN_INVOICE_FIELDS, type OpenInvoiceField, USUAL_INVOICE_HEADINGS } from '@/core/invoice/import-rows';
import { ImportTable } from './import-table';

const NEEDED = ['number', 'issuedOn', 'total'] as const satisfies readonly OpenInvoiceField[];

/** Open invoices of before from a CSV file. */
export const ImportInvoices = () => (
  <ImportTable
    of={{
      one: 'invoice',
      more: 'invoices',
      title: 'Open invoices from a file',
      about:
        'Invoices that you wrote elsewhere and that are not settled: each comes in under its number, over what is still owed. Nothing is sent, and tax stays in the books of before. Every row is checked before any is written.',
      takes: { words: 'CSV', accept: '.csv,.tsv,.txt,text/csv' },
      fields: OPEN_INVOICE_FIELDS,
      guess: (headings) => guessedColumns(headings, USUAL_INVOICE_HEADINGS),
      missing: (mapping) => {
        const lacking = NEEDED.filter((field) => !mapping.includes(field)).map((field) => OPEN_INVOICE_FIELDS[field]);
        const somebody = mapping.includes('customer') || mapping.includes('email') ? [] : ['the customer'];
        const all = [...lacking, ...somebody];
        return all.length > 0 ? `Say which column holds: ${all.join('; ')}.` : '';
      },
      path: '/api/invoices/import',
      updates: false,
      home: { words: 'To the invoices', path: '/ask/invoices' },
    }}
  />
);
