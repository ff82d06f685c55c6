'use client';
import type { ReactNode } from 'react';
import { Button } from './button';

/** A column: its heading, and how a row is written in it. `name` makes a field's accessible name of the row's place. */
export type Column<Row> = {
  readonly head: string;
  readonly align?: 'left' | 'right' | 'center';
  readonly cell: (row: Row, set: (part: Partial<Row>) => void, name: (field: string) => string) => ReactNode;
};

/** Rows that are written in their places, added below and taken away; what is typed is the caller's to keep. */
export function EditableTable<Row extends { readonly id: string }>({
  called,
  rows,
  columns,
  least = '',
  addWords,
  fresh,
  isMarked = () => false,
  onChange,
}: {
  /** What one row is, such as `Rule`: its fields are named `Rule 2: rate`. */
  called: string;
  rows: readonly Row[];
  columns: readonly Column<Row>[];
  /** How wide the table is at least, as a class; below that it is moved sideways. */
  least?: string;
  /** How a row is added below; without them rows come from elsewhere. */
  addWords?: string;
  fresh?: () => Row;
  /** Rows that stand out just now. */
  isMarked?: (row: Row) => boolean;
  onChange: (rows: readonly Row[]) => void;
}) {
  const set = (id: string) => (part: Partial<Row>) =>
    onChange(rows.map((row) => (row.id === id ? { ...row, ...part } : row)));
  const side = { left: '', right: 'text-right', center: 'text-center' } as const;
  return (
    <div className="min-w-0 overflow-x-auto">
      <table className={`w-full border-collapse ${least}`}>
        <thead>
          <tr className="small border-b border-ink text-left text-soft">
            {columns.map(({ head, align = 'left' }) => (
              <th key={head} className={`pb-1 pr-2 font-medium ${side[align]}`}>
                {head}
              </th>
            ))}
            <th className="sr-only">Remove</th>
          </tr>
        </thead>
        <tbody>
          {rows.map((row, at) => (
            <tr key={row.id} className={`border-b border-rule ${isMarked(row) ? 'bg-petal' : ''}`}>
              {columns.map(({ head, align = 'left', cell }) => (
                <td key={head} className={`py-1 pr-2 ${side[align]}`}>
                  {cell(row, set(row.id), (field) => `${called} ${at + 1}: ${field}`)}
                </td>
              ))}
              <td>
                <Button
                  look="small-link"
                  aria-label={`Remove ${called.toLowerCase()} ${at + 1}`}
                  onClick={() => onChange(rows.filter(({ id }) => id !== row.id))}
                >
                  Remove
                </Button>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {addWords && fresh ? (
        <Button look="link" opens className="mt-3" onClick={() => onChange([...rows, fresh()])}>
          {addWords}
        </Button>
      ) : null}
    </div>
  );
}
