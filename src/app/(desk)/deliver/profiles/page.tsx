import type { Metadata } from 'next';
import { pageActor } from '@/app/session';
import { shortDate } from '@/core/dates/date-text';
import { dateInZone } from '@/core/dates/zone';
import { jsonMinor } from '@/core/money/money';
import { measuresOf } from '@/core/parcel/measure';
import { mayDo } from '@/core/person/rights';
import { carrierAccount } from '@/flows/parcel/balance';
import { carrierServices, itemsNamed, profilesDesk } from '@/flows/parcel/profiles';
import { ProfilesDesk } from '@/ui/parcel-profile/profiles-desk';
import { DeliverTabs } from '../deliver-tabs';

export const metadata: Metadata = { title: 'Parcel profiles' };

const WHAT = {
  'top-up': 'Topped up',
  label: 'Label',
  void: 'Label given back',
  claim: 'Paid for a parcel',
  correction: 'Booked from a statement',
} as const;

type Asked = { rule?: string; items?: string };
const isId = (text: string): boolean => /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/.test(text);

export default async function ProfilesPage({ searchParams }: { searchParams: Promise<Asked> }) {
  const actor = await pageActor();
  const { rule = '', items: named = '' } = await searchParams;
  const wanted = isId(rule) ? { profileId: rule, itemIds: named.split(',').filter(isId).slice(0, 20) } : null;
  const { business, profiles, rules, items, settings } = await profilesDesk(actor);
  const { balanceMinor, moves, whom } = await carrierAccount(actor);
  const { deskLocale: locale, zone } = business;
  return (
    <>
      <DeliverTabs here="Parcel profiles" sums />
      <ProfilesDesk
        profiles={profiles}
        rules={rules}
        items={[...items, ...(wanted ? await itemsNamed(actor, wanted.itemIds) : [])].map(({ id, name }) => ({
          id,
          name,
        }))}
        wanted={wanted}
        services={await carrierServices(actor)}
        settings={settings}
        balance={jsonMinor(balanceMinor)}
        moves={moves.map((move) => ({
          id: move.id,
          what: WHAT[move.kind],
          whom: whom.get(move.parcelId ?? '') ?? '',
          href: move.parcelId ? `/deliver/shipments/${move.parcelId}` : '',
          when: shortDate(dateInZone(move.at, zone), locale),
          by: move.byName,
          minor: jsonMinor(move.minor),
          open: move.state === 'asked',
        }))}
        measures={measuresOf(business.country)}
        home={business.country}
        currency={business.currency}
        locale={locale}
        may={{ change: !actor.closed && mayDo(actor, 'records'), topUp: !actor.closed && mayDo(actor, 'give-back') }}
      />
    </>
  );
}
