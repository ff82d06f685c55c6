'use client';
import { guessedColumns } from '@/core/import/columns';
import { ITEM_FIELDS, USUAL_ITEM_HEADINGS } from '@/core/item/import-rows';
import { ImportTable } from './import-table';

/** Items from a CSV file. */
export const ImportItems = () => (
  <ImportTable
    of={{
      one: 'item',
      more: 'items',
      title: 'Items from a file',
      about:
        'A CSV file with headings. You say what each column is; every row is checked before any is written. Items that are there already, by their code or name, stay as they are.',
      takes: { words: 'CSV', accept: '.csv,.tsv,.txt,text/csv' },
      fields: ITEM_FIELDS,
      guess: (headings) => guessedColumns(headings, USUAL_ITEM_HEADINGS),
      missing: (mapping) => (mapping.includes('name') ? '' : 'Say which column holds the name.'),
      path: '/api/items/import',
      updates: false,
      home: { words: 'To the items', path: '/records/items' },
    }}
  />
);
