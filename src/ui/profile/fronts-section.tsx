'use client';
import { useState } from 'react';
import type { Fronts, Location, TradingName } from '@/core/front/front';
import { NO_ADDRESS } from '@/core/place/address';
import { Button } from '../kit/button';
import { Heading } from './heading';
import { LocationDialog } from './location-dialog';
import { TradingNameDialog } from './trading-name-dialog';

type Business = { readonly name: string; readonly country: string; readonly accent: string };

const newName = ({ accent }: Business): TradingName => ({
  id: crypto.randomUUID(),
  name: '',
  logoId: null,
  accent,
  email: '',
  phone: '',
  website: '',
  series: '',
  retired: false,
});

const newLocation = ({ country }: Business): Location => ({
  id: crypto.randomUUID(),
  name: '',
  place: { ...NO_ADDRESS, country },
  phone: '',
  taxNumber: '',
  retired: false,
});

/** A list of fronts, each to be opened. */
function FrontList<One extends { readonly id: string; readonly name: string; readonly retired: boolean }>({
  of,
  about,
  mayAsk,
  onEdit,
}: {
  of: readonly One[];
  about: (one: One) => string;
  mayAsk: boolean;
  onEdit: (one: One) => void;
}) {
  return (
    <ul className={of.length > 0 ? 'border-t border-rule' : ''}>
      {of.map((one) => (
        <li key={one.id} className="flex flex-wrap items-baseline gap-x-4 border-b border-rule py-2">
          <span className={`document ${one.retired ? 'text-soft' : ''}`}>{one.name}</span>
          <span className="min-w-0 flex-1 text-soft">{one.retired ? 'not offered any more' : about(one)}</span>
          <Button look="link" opens disabled={!mayAsk} aria-label={`Edit ${one.name}`} onClick={() => onEdit(one)}>
            Edit
          </Button>
        </li>
      ))}
    </ul>
  );
}

/** Under which further names, and from which places, the business asks. */
export function FrontsSection({
  fronts,
  business,
  series,
  mayAsk,
}: {
  fronts: Fronts;
  business: Business;
  /** Names of its series of invoice numbers. */
  series: readonly string[];
  mayAsk: boolean;
}) {
  const [name, setName] = useState<TradingName | null>(null);
  const [location, setLocation] = useState<Location | null>(null);
  return (
    <section className="mt-6 grid gap-3" aria-label="Trading names and locations">
      <Heading>Trading names and locations</Heading>
      <p className="text-soft">
        An invoice, link, page, button or plan can go out under another name, with its own logo, colour, numbers and
        reply address, and from another place, whose taxes then count for customers without an address. {business.name}{' '}
        still stands above the address.
      </p>
      <FrontList
        of={fronts.tradingNames}
        about={(one) => [one.email, one.series && `numbers of ${one.series}`].filter(Boolean).join(', ')}
        mayAsk={mayAsk}
        onEdit={setName}
      />
      <FrontList
        of={fronts.locations}
        about={({ place }) => [...place.lines, place.city, place.region, place.country].filter(Boolean).join(', ')}
        mayAsk={mayAsk}
        onEdit={setLocation}
      />
      {mayAsk ? (
        <div className="flex flex-wrap gap-5">
          <Button look="link" opens onClick={() => setName(newName(business))}>
            Add a trading name
          </Button>
          <Button look="link" opens onClick={() => setLocation(newLocation(business))}>
            Add a location
          </Button>
        </div>
      ) : null}
      {name ? <TradingNameDialog fronts={fronts} name={name} series={series} onClose={() => setName(null)} /> : null}
      {location ? (
        <LocationDialog fronts={fronts} location={location} home={business.country} onClose={() => setLocation(null)} />
      ) : null}
    </section>
  );
}
