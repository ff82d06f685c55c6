import type { Metadata } from 'next';
import { redirect } from 'next/navigation';
import { orGone } from '@/app/found';
import { pageActor } from '@/app/session';
import { houseOf } from '@/core/front/front';
import { mayDo } from '@/core/person/rights';
import { taxClasses } from '@/core/tax/business-tax';
import { composerChoices } from '@/flows/invoice/composer-choices';
import { offerSheet } from '@/flows/offer/offers';
import { businessToday } from '@/flows/payment/payment-list';
import { partnerList } from '@/flows/records/partners';
import { taxRules } from '@/flows/records/taxes';
import { OfferComposer } from '@/ui/offer/offer-composer';
import { PLACEMENT_WORDS } from '@/ui/offer/placement-words';

export const metadata: Metadata = { title: 'Compose' };

/** The composer of an offer, whatever it is placed as. */
export default async function OfferComposePage({ params }: { params: Promise<{ id: string }> }) {
  const actor = await pageActor();
  const { id } = await params;
  const { placed } = await orGone(id, offerSheet(actor, id), '/ask/links');
  if (!mayDo(actor, 'ask')) redirect(`${PLACEMENT_WORDS[placed.placement].path}/${id}`);
  const { business } = await businessToday(actor);
  const { terms } = await composerChoices(actor, null);
  return (
    <OfferComposer
      key={id}
      id={id}
      placement={placed.placement}
      first={{ name: placed.name, offer: placed.offer, look: placed.look, sites: placed.sites }}
      edited={placed.placedAt ? placed.draft : null}
      revision={placed.revision}
      placed={placed.placedAt !== null}
      classes={taxClasses(await taxRules(actor))}
      terms={terms.map((one) => ({ id: one.id, name: one.name }))}
      partners={(await partnerList(actor)).map((one) => ({ id: one.id, name: one.name }))}
      locale={business.deskLocale}
      house={houseOf(business)}
    />
  );
}
