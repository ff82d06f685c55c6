import type { Metadata } from 'next';
import { orNotFound } from '@/app/found';
import { pageActor } from '@/app/session';
import { mayDo } from '@/core/person/rights';
import { labelSetting } from '@/flows/parcel/parcel-papers';
import { shipmentClaim, shipmentCosts, shipmentSheet } from '@/flows/parcel/shipments';
import { ShipmentView } from './shipment-view';

export const metadata: Metadata = { title: 'Shipment' };

export default async function ShipmentPage({ params }: { params: Promise<{ id: string }> }) {
  const actor = await pageActor('customers');
  const { id } = await params;
  const sheet = await orNotFound(id, shipmentSheet(actor, id));
  const costs = mayDo(actor, 'see') ? await shipmentCosts(actor, id) : null;
  return (
    <ShipmentView
      sheet={sheet}
      costs={costs}
      claim={mayDo(actor, 'see') ? await shipmentClaim(actor, id) : null}
      setting={await labelSetting(actor)}
      mayPack={!actor.closed && mayDo(actor, 'pack')}
      mayClaim={!actor.closed && mayDo(actor, 'take')}
      mayGiveBack={!actor.closed && mayDo(actor, 'give-back')}
      sees={mayDo(actor, 'see')}
    />
  );
}
