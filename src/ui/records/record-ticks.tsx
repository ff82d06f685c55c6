'use client';
import { Button } from '../kit/button';
import { Check } from '../kit/check';
import { type RecordPage, useRecordPages } from './use-record-pages';

/** Records that are ticked off, also over several searches. @param ticked ids with their names */
export function RecordTicks({
  first,
  path,
  placeholder,
  ticked,
  onTicked,
}: {
  first: RecordPage;
  path: string;
  placeholder: string;
  ticked: ReadonlyMap<string, string>;
  onTicked: (ticked: ReadonlyMap<string, string>) => void;
}) {
  const { words, setWords, rows, next, busy, showMore } = useRecordPages(first, path);
  const all = rows.length > 0 && rows.every(({ id }) => ticked.has(id));
  /** Ticks these, or takes their ticks away. */
  function turn(which: RecordPage['rows'], on: boolean) {
    const after = new Map(ticked);
    for (const { id, name } of which) {
      if (on) after.set(id, name);
      else after.delete(id);
    }
    onTicked(after);
  }
  return (
    <div>
      <div className="flex items-baseline gap-4 pb-1">
        <input
          type="search"
          aria-label={placeholder}
          placeholder={placeholder}
          value={words}
          onChange={(event) => setWords(event.target.value)}
          className="input"
        />
        <Button look="small-link" className="flex-none" disabled={rows.length === 0} onClick={() => turn(rows, !all)}>
          {all ? 'None of these' : `All ${rows.length} shown`}
        </Button>
      </div>
      <div className="max-h-[252px] overflow-auto border-y border-rule" role="group" aria-label="Customers">
        {rows.length === 0 ? <p className="px-2 py-3 text-soft">Nothing by that name.</p> : null}
        {rows.map((row) => (
          <label key={row.id} className="flex items-baseline gap-2.5 border-b border-rule px-1 py-1.5 last:border-b-0">
            <Check
              className="translate-y-[3px]"
              checked={ticked.has(row.id)}
              onChange={(event) => turn([row], event.target.checked)}
            />
            <span className="private min-w-0 truncate">{row.name}</span>
            <span className="private min-w-0 flex-1 truncate text-[12.5px]/[17px] text-soft">{row.under}</span>
            <span className="flex-none text-[12.5px]/[17px] text-soft">{row.mark}</span>
          </label>
        ))}
        {next ? (
          <Button
            look="small-link"
            className="mx-1 my-2"
            busy={busy}
            onClick={() => void showMore()}
            busyWords="Fetching more"
          >
            Show more
          </Button>
        ) : null}
      </div>
    </div>
  );
}
