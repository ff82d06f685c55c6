'use client';
import { useState } from 'react';
import { FileDrop } from '../import/file-drop';
import { useDeskLocale } from '../kit/at-desk';
import { FieldError } from '../kit/field';
import { type ReadList, readList } from './read-list';

const SHOWN = 6;

/** A list from a file, and what of it could not be taken. */
export function ListDrop({ label, onRead }: { label: string; onRead: (rows: ReadList['rows']) => void }) {
  const locale = useDeskLocale();
  const [troubles, setTroubles] = useState<readonly string[]>([]);
  return (
    <div className="grid gap-2">
      <FileDrop
        label={label}
        accept=".csv,.txt,.tsv,text/csv,text/plain"
        hint="with the headings Code and How many, and Cost"
        onFile={async (file) => {
          const { rows, troubles: found } = await readList(file, locale);
          setTroubles(found);
          if (rows.length > 0) onRead(rows);
        }}
      />
      {troubles.length > 0 ? (
        <div role="status">
          {troubles.slice(0, SHOWN).map((words) => (
            <FieldError key={words}>{words}</FieldError>
          ))}
          {troubles.length > SHOWN ? (
            <p className="small text-soft">and {troubles.length - SHOWN} more rows that were left out</p>
          ) : null}
        </div>
      ) : null}
    </div>
  );
}
