import fc from 'fast-check';
import { expect, test } from 'vitest';
import { type Business, homePlace, NEW_PROFILE, sellerOf } from '../business/business';
import { PLAIN_SERIES, seriesFor } from '../invoice/numbering';
import { NO_ADDRESS } from '../place/address';
import { asFront, type FrontChoice, frontProblems, type Location, offered, type TradingName } from './front';

const name = (id: string, more: Partial<TradingName> = {}): TradingName => ({
  id,
  name: 'Weir Street Rentals',
  logoId: null,
  accent: '#224466',
  email: '',
  phone: '',
  website: '',
  series: '',
  retired: false,
  ...more,
});
const location = (id: string, more: Partial<Location> = {}): Location => ({
  id,
  name: 'Harbour shop',
  place: { ...NO_ADDRESS, lines: ['2 Quay'], city: 'Alder Ferry', region: 'US-OR', postalCode: '97001', country: 'US' },
  phone: '',
  taxNumber: '',
  retired: false,
  ...more,
});
const BUSINESS: Business = {
  ...NEW_PROFILE,
  id: 'b',
  name: 'Sallow Joinery',
  address: ['3 Mill Yard', 'Alder Ferry'],
  phone: '555-0101',
  email: 'bench@sallow.example',
  website: 'sallow.example',
  taxNumber: '91-1',
  country: 'US',
  zone: 'UTC',
  paperLocale: 'en-US',
  deskLocale: 'en-US-x-iso',
  currency: 'USD',
  pricesIncludeTax: false,
  smallestPayments: {},
  place: { ...NO_ADDRESS, region: 'US-WA', country: 'US' },
  tradingNames: [name('n1'), name('n2', { name: 'Bow Room', email: 'bow@room.example', logoId: 'l', series: 'Bow' })],
  locations: [location('l1'), location('l2', { phone: '555-0177', taxNumber: '93-2' })],
};
const choices = fc.record({
  tradingNameId: fc.constantFrom(null, 'n1', 'n2', 'gone'),
  locationId: fc.constantFrom(null, 'l1', 'l2', 'gone'),
});

test('whatever is chosen, whoever is asked learns who stands behind the name, and where; done twice it is the same', () => {
  fc.assert(
    fc.property(choices, (chosen: FrontChoice) => {
      const front = asFront(BUSINESS, chosen);
      const seller = sellerOf(front);
      expect([seller.name, ...seller.address]).toContain('Sallow Joinery');
      expect(asFront(front, chosen)).toEqual(front);
      const there = BUSINESS.locations.find(({ id }) => id === chosen.locationId);
      expect(homePlace(front).region).toBe(there ? 'US-OR' : 'US-WA');
      expect(seller.address.at(-1)).toMatch(there ? /97001/ : /Alder Ferry/);
      expect(seller.email).toMatch(chosen.tradingNameId === 'n2' ? /^bow@/ : /^bench@/);
      expect([front.currency, front.bank, front.deskLocale, front.country]).toEqual([
        'USD',
        BUSINESS.bank,
        'en-US-x-iso',
        'US',
      ]);
    }),
  );
});

test('a name and a place give what they have, and the business the rest', () => {
  const front = asFront(BUSINESS, { tradingNameId: 'n2', locationId: 'l2' });
  expect(sellerOf(front)).toMatchObject({
    name: 'Bow Room',
    legalName: 'Sallow Joinery',
    address: ['Sallow Joinery', '2 Quay', 'Alder Ferry, OR 97001'],
    phone: '555-0177',
    taxNumber: '93-2',
    website: 'sallow.example',
  });
  expect([front.logoId, front.accent]).toEqual(['l', '#224466']);
  expect(asFront(BUSINESS, { tradingNameId: 'n1' }).logoId).toBeNull();
});

test('a paper’s own series goes before its trading name’s, and that before the first', () => {
  const all = [
    { name: 'Main', pattern: '{n}' },
    { name: 'Bow', pattern: 'B{n}' },
  ];
  const of = (tradingNameId: string | null, series = '') => seriesFor(all, BUSINESS, { tradingNameId, series }).name;
  expect([of(null), of('n1'), of('n2'), of('n2', 'Main'), of('gone', 'Lost')]).toEqual([
    'Main',
    'Main',
    'Bow',
    'Main',
    'Main',
  ]);
  expect(seriesFor([], BUSINESS, { series: '' })).toBe(PLAIN_SERIES);
});

test('one that is not offered any more stays where it is chosen', () => {
  const all = [name('a'), name('b', { retired: true })];
  expect(offered(all, null).map(({ id }) => id)).toEqual(['a']);
  expect(offered(all, 'b').map(({ id }) => id)).toEqual(['a', 'b']);
});

test('what cannot be kept is said at its place', () => {
  const fields = (fronts: Parameters<typeof frontProblems>[0]) =>
    frontProblems(fronts, BUSINESS, ['Bow']).map(({ field }) => field);
  expect(fields({ tradingNames: BUSINESS.tradingNames, locations: BUSINESS.locations.slice(0, 1) })).toEqual([]);
  expect(
    fields({
      tradingNames: [
        name('1', { name: 'sallow joinery ' }),
        name('2'),
        name('3'),
        name('4', { name: 'Q', series: 'Lost' }),
      ],
      locations: [location('1', { place: NO_ADDRESS }), location('2', { name: 'harbour Shop' })],
    }),
  ).toEqual([
    'tradingNames.0.name',
    'tradingNames.2.name',
    'tradingNames.3.series',
    'locations.0.place.country',
    'locations.1.name',
  ]);
});
