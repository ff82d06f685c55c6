import fc from 'fast-check';
import { expect, test } from 'vitest';
import { countriesToAsk, type DeliveryCase, proposedFor, roundedUpPrice } from './proposal';

test.each([
  [0n, 'USD', 0n],
  [1n, 'USD', 50n],
  [395n, 'USD', 400n],
  [400n, 'EUR', 400n],
  [401n, 'EUR', 450n],
  [1201n, 'JPY', 1250n],
  [1001n, 'KWD', 1500n],
])('%d %s is rounded up to %d', (minor, currency, price) => expect(roundedUpPrice(minor, currency)).toBe(price));

const zones = [
  { id: 'home', countries: ['US'] },
  { id: 'many', countries: ['AT', 'BE', 'CH', 'DE', 'ES', 'FR', 'GB', 'IT'] },
  { id: 'else', countries: [] },
];
test('a zone stands for its first countries; everywhere else for what no other names, home first', () => {
  const asked = (id: string, home: string, all = zones) =>
    countriesToAsk(all.find((zone) => zone.id === id) ?? zones[0] ?? { id: '', countries: [] }, all, home);
  expect(asked('many', 'US')).toEqual(['AT', 'BE', 'CH', 'DE', 'ES', 'FR']);
  expect(asked('else', 'US')).toEqual(['JP', 'AU']);
  expect(asked('else', 'NZ')).toEqual(['NZ', 'JP', 'AU']);
  expect(asked('else', 'US', zones.slice(2))).toEqual(['US', 'DE', 'JP', 'AU']);
});

test('the price covers whatever is bought alone, and no more than half a unit above the dearest', () => {
  const some = fc.record({
    ...{ what: fc.constantFrom('Rosin', 'Case'), country: fc.constantFrom('US', 'JP'), service: fc.constant('Light') },
    costMinor: fc.option(fc.bigInt({ min: 0n, max: 100_000n })),
  });
  fc.assert(
    fc.property(fc.array(some), (cases: DeliveryCase[]) => {
      const { least, most, unknown, priceMinor } = proposedFor('z', cases, 'USD');
      const known = cases.flatMap(({ costMinor }) => (costMinor === null ? [] : [costMinor]));
      expect(unknown.length + known.length).toBe(cases.length);
      if (priceMinor === null) {
        expect([known, least, most]).toEqual([[], null, null]);
        return;
      }
      expect(known.every((cost) => cost <= priceMinor && cost >= (least?.costMinor ?? 0n))).toBe(true);
      expect(priceMinor - (most?.costMinor ?? 0n)).toBeLessThan(50n);
    }),
  );
});
