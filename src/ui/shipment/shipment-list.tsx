'use client';
import { useParams } from 'next/navigation';
import { useState } from 'react';
import { Button } from '../kit/button';
import { send } from '../kit/send';
import { sayTrouble } from '../kit/toasts';
import { RowFrame, RowName } from '../list/list-row';
import type { ShipmentRowShown } from './shown';
import { Stairs } from './stairs';

type Cursor = { readonly key: string; readonly id: string };
type Page = { readonly rows: readonly ShipmentRowShown[]; readonly next: Cursor | null };

function RowLink({ row, open }: { row: ShipmentRowShown; open: boolean }) {
  const isBad = row.look === 'late' || row.look === 'lost' || row.look === 'damaged';
  return (
    <RowFrame row={row} open={open}>
      <Stairs state={row.state} look={row.look} />
      <RowName row={row} />
      <span className="text-right">
        <span
          className={`block text-[13.5px]/[21px] ${isBad ? 'font-medium text-brick' : row.look ? 'text-ochre' : 'private'}`}
        >
          {row.right}
        </span>
        <span className="block text-[12.5px]/[17px] text-soft">{row.when}</span>
      </span>
    </RowFrame>
  );
}

const ORDER = [
  'Needs a look',
  'To be handed over today',
  'Not handed over',
  'On its way',
  'At the door',
  'Labels given back',
];
const rank = (group: string): number => ORDER.findIndex((one) => group.startsWith(one));

/** Shipments in their groups: what needs a look first, then by how far they are. */
export function ShipmentRows({
  looks,
  first,
  address,
}: {
  looks: readonly ShipmentRowShown[];
  first: Page;
  address: string;
}) {
  const { id: open } = useParams<{ id?: string }>();
  const [more, setMore] = useState<{ after: string; rows: readonly ShipmentRowShown[]; next: Cursor | null } | null>(
    null,
  );
  const [busy, setBusy] = useState(false);
  const own = more && more.after === (first.next?.id ?? '') ? more : null;
  const next = own ? own.next : first.next;
  const seen = new Set(looks.map(({ id }) => id));
  const rows = [...looks, ...[...first.rows, ...(own?.rows ?? [])].filter(({ id }) => !seen.has(id))];
  const groups = [...new Set(rows.map(({ group }) => group))].sort(
    (one, other) => rank(one) - rank(other) || (one < other ? -1 : 1),
  );

  async function fetchMore(after: Cursor) {
    setBusy(true);
    const answer = await send<Page>('GET', `${address}&key=${encodeURIComponent(after.key)}&id=${after.id}`);
    setBusy(false);
    if (!answer.ok) return sayTrouble(answer.words);
    setMore({
      after: first.next?.id ?? '',
      rows: [...(own?.rows ?? []), ...answer.value.rows],
      next: answer.value.next,
    });
  }
  return (
    <>
      {groups.map((group) => {
        const inIt = rows.filter((row) => row.group === group);
        return (
          <section key={group} aria-label={group}>
            <div className="flex h-[33px] items-baseline justify-between border-b border-ink pr-3 pt-2">
              <h3 className="text-[12.5px]/5 font-semibold">{group}</h3>
              <span className="small text-soft">{inIt.length}</span>
            </div>
            <ul>
              {inIt.map((row) => (
                <RowLink key={row.id} row={row} open={row.id === open} />
              ))}
            </ul>
          </section>
        );
      })}
      {next ? (
        <Button look="small-link" className="mb-1 mt-2" disabled={busy} onClick={() => void fetchMore(next)}>
          {busy ? 'Fetching more' : 'Show more'}
        </Button>
      ) : null}
    </>
  );
}
