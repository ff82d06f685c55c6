'use client';
import { Figure } from '../kit/amount';
import { Check } from '../kit/check';
import { type ListRow, ListRowLink } from '../list/list-row';

/** What can be ticked: invoices that are sent; a draft opens in its composer. */
export const canTick = ({ href }: ListRow): boolean => href.startsWith('/ask/invoices/');

/** The invoices that were found, each to be opened, or to be ticked while several are chosen. */
export function FoundInvoices({
  rows,
  open,
  choosing,
  chosen,
  locale,
  onTick,
}: {
  rows: readonly ListRow[];
  open: string | undefined;
  choosing: boolean;
  chosen: ReadonlySet<string>;
  locale: string;
  onTick: (id: string, ticked: boolean) => void;
}) {
  return (
    <ul aria-label="Found invoices" className="border-t border-ink">
      {rows.map((row) =>
        choosing && canTick(row) ? (
          <li key={row.id}>
            <label className="flex items-center gap-2 border-b border-rule hover:bg-wash">
              <Check checked={chosen.has(row.id)} onChange={(event) => onTick(row.id, event.target.checked)} />
              <span className="min-w-0 flex-1 py-1.5">
                <span className="name private block truncate">{row.name}</span>
                <span className="block truncate text-soft">{row.under}</span>
              </span>
              <span className="pr-3 font-serif">
                <Figure minor={row.minor} currency={row.currency} locale={locale} />
              </span>
            </label>
          </li>
        ) : (
          <ListRowLink key={row.id} row={row} open={row.id === open} locale={locale} />
        ),
      )}
    </ul>
  );
}
