import type { Route } from 'next';
import Link from 'next/link';
import type { ReactNode } from 'react';
import { pageActor } from '@/app/session';
import { mayDo } from '@/core/person/rights';
import { shipmentList } from '@/flows/parcel/shipments';
import { Empty } from '@/ui/kit/empty';
import { ListAndSheet } from '@/ui/list/list-and-sheet';
import { ShipmentFinder } from '@/ui/shipment/shipment-finder';
import { DeliverTabs } from '../deliver-tabs';
import { jsonShipment } from '../json-pack';

export default async function ShipmentsLayout({ children }: { children: ReactNode }) {
  const actor = await pageActor('customers');
  const list = await shipmentList(actor, { under: 'all' });
  const shown = (row: (typeof list.rows)[number]) => jsonShipment(row, list);
  return (
    <>
      <DeliverTabs here="Shipments" sums={mayDo(actor, 'see')} />
      <ListAndSheet
        label="Shipments"
        list={
          list.rows.length === 0 ? (
            <Empty words="Nothing has left yet. What is bought a label under To pack is followed here, to the door.">
              <Link className="link" href={'/deliver/pack' as Route}>
                To pack
              </Link>
            </Empty>
          ) : (
            <ShipmentFinder
              underWay={list.underWay}
              looks={list.looks.map(shown)}
              first={{
                rows: list.rows.map(shown),
                next: list.next && { key: list.next.at.toISOString(), id: list.next.id },
              }}
            />
          )
        }
      >
        {children}
      </ListAndSheet>
    </>
  );
}
