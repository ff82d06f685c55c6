/** Which profile takes a parcel, by which rule, and what it costs. */
import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { addDays, calendarDate } from '../dates/calendar-date';
import { NO_ADDRESS } from '../place/address';
import { costOf, leftOver, lotCost, type ParcelCost, shortBecause } from './cost';
import { numberWord } from './lot';
import { isBuyable, packing, specKey } from './packed';
import {
  contentGrams,
  goesInto,
  insuredMinor,
  openRule,
  type ParcelProfile,
  type ParcelRule,
  profileFor,
  type RuleCase,
  ruleTakes,
  ruleWords,
} from './profile';
import { cheapestBy, cheapestFirst, type ServiceRate } from './service';

const ON = calendarDate('2026-11-28');

const BOX: ParcelProfile = {
  id: 'box',
  name: 'Small box',
  lengthMm: 220,
  widthMm: 160,
  heightMm: 90,
  ownGrams: 90,
  mostGrams: 2000,
  packagingMinor: 60,
  service: '',
  insuring: { kind: 'never' },
  signature: false,
};
const thing = (
  grams: number,
  [lengthMm, widthMm, heightMm] = [0, 0, 0],
  itemId: string | null = null,
  quantity = '1',
) => ({
  itemId,
  quantity,
  one: { grams, lengthMm: lengthMm ?? 0, widthMm: widthMm ?? 0, heightMm: heightMm ?? 0 },
});
const aCase = (more: Partial<RuleCase> = {}): RuleCase => ({
  country: 'US',
  packed: [thing(100)],
  valueMinor: 1000n,
  wish: '',
  ...more,
});

describe('profiles and rules', () => {
  test('things weigh in all what each weighs, rounded up once', () => {
    // 2.5 m of 33 g a metre and one of 40 g: 82.5 + 40 = 122.5, so 123.
    expect(contentGrams([thing(33, undefined, null, '2.5'), thing(40)])).toBe(123);
  });

  test('a thing goes into a box whichever way it is turned, and not if a side is longer', () => {
    expect(goesInto([thing(1, [90, 220, 160])], BOX)).toBe(true);
    expect(goesInto([thing(1, [221, 10, 10])], BOX)).toBe(false);
  });

  test('a rule looks at what it names, and takes everything else as it is', () => {
    const rule = (more: Partial<ParcelRule>) => ({ ...openRule('r', 'box'), ...more });
    const takes = (more: Partial<ParcelRule>, of: Partial<RuleCase> = {}) => ruleTakes(rule(more), aCase(of), 'US');
    expect(takes({})).toBe(true);
    expect([takes({ countries: ['CA'] }), takes({ countries: ['CA'] }, { country: 'CA' })]).toEqual([false, true]);
    expect([takes({ abroad: true }), takes({ abroad: true }, { country: 'CA' })]).toEqual([false, true]);
    expect([takes({ toGrams: 99 }), takes({ toGrams: 100 }), takes({ fromGrams: 101 })]).toEqual([false, true, false]);
    expect([takes({ toMinor: 999 }), takes({ toMinor: 1000 }), takes({ fromMinor: 1001 })]).toEqual([
      false,
      true,
      false,
    ]);
    expect([takes({ itemIds: ['a'] }), takes({ itemIds: ['a'] }, { packed: [thing(1, undefined, 'a')] })]).toEqual([
      false,
      true,
    ]);
    expect([takes({ wish: 'express' }), takes({ wish: 'express' }, { wish: 'By EXPRESS please' })]).toEqual([
      false,
      true,
    ]);
  });

  test('the first rule that takes it and whose box holds it chooses; otherwise nobody does', () => {
    const letter = { ...BOX, id: 'letter', heightMm: 20, mostGrams: 500 };
    const rules = [openRule('1', 'gone'), openRule('2', 'letter'), openRule('3', 'box')];
    const chosen = (packed: RuleCase['packed']) =>
      profileFor(aCase({ packed }), rules, [BOX, letter], 'US').profile?.id ?? null;
    expect(chosen([thing(100)])).toBe('letter');
    // With the letter's own 90 g it is more than 500 g.
    expect(chosen([thing(411)])).toBe('box');
    expect(chosen([thing(100, [200, 100, 30])])).toBe('box');
    expect(chosen([thing(1911)])).toBeNull();
  });

  test('taking a rule away never gives a parcel a profile by an earlier rule', () => {
    const rules = fc.array(
      fc.record({ toGrams: fc.nat(300), profileId: fc.constantFrom('box', 'letter') }).map((more) => more),
      { maxLength: 6 },
    );
    const letter = { ...BOX, id: 'letter', heightMm: 20 };
    fc.assert(
      fc.property(rules, fc.nat(400), fc.nat(5), (given, grams, gone) => {
        const all = given.map((more, at) => ({ ...openRule(String(at), more.profileId), toGrams: more.toGrams }));
        const fewer = all.filter((_, at) => at !== gone);
        const of = aCase({ packed: [thing(grams)] });
        const [first, then] = [all, fewer].map((list) =>
          Number(profileFor(of, list, [BOX, letter], 'US').rule?.id ?? 99),
        );
        expect(then ?? 99).toBeGreaterThanOrEqual(first ?? 99);
      }),
    );
  });

  test('it is insured never, always, or from a worth on', () => {
    expect([
      insuredMinor({ kind: 'never' }, 9000n),
      insuredMinor({ kind: 'always' }, 9000n),
      insuredMinor({ kind: 'from', minor: 9000 }, 9000n),
      insuredMinor({ kind: 'from', minor: 9001 }, 9000n),
    ]).toEqual([0n, 9000n, 9000n, 0n]);
  });

  test('a rule says itself in words', () => {
    const say = {
      country: (code: string) => code,
      weight: (grams: number) => `${grams} g`,
      sum: (minor: number) => `${minor / 100}`,
      item: (id: string) => id,
    };
    expect(ruleWords(openRule('1', 'x'), say)).toBe('Everything else');
    expect(
      ruleWords(
        {
          ...openRule('1', 'x'),
          countries: ['CA', 'MX'],
          toGrams: 500,
          fromMinor: 1000,
          itemIds: ['rosin'],
          wish: 'gift',
        },
        say,
      ),
    ).toBe('To CA, MX, up to 500 g, worth from 10, with rosin, “gift” is wished');
  });
});

const rate = (service: string, rateMinor: number, promisedOn = '2026-12-01', insuranceMinor = 0): ServiceRate => ({
  service,
  name: service,
  rateMinor,
  insuranceMinor,
  signatureMinor: 0,
  promisedOn: calendarDate(promisedOn),
});

describe('costs', () => {
  test('services are compared by price, then by day; and by what is there in time', () => {
    const rates = [rate('swift', 1200, '2026-11-29'), rate('steady', 640), rate('light', 640, '2026-11-30')];
    expect(cheapestFirst(rates).map(({ service }) => service)).toEqual(['light', 'steady', 'swift']);
    expect(cheapestBy(rates, calendarDate('2026-11-29'))?.service).toBe('swift');
    expect(cheapestBy(rates, ON)).toBeNull();
  });

  const some = fc.option(fc.bigInt({ min: 0n, max: 10n ** 6n }), { nil: null });
  const cost: fc.Arbitrary<ParcelCost> = fc.record({
    paidMinor: some,
    rateMinor: some,
    packagingMinor: fc.bigInt({ min: 0n, max: 10n ** 4n }),
    insuranceMinor: fc.bigInt({ min: 0n, max: 10n ** 4n }),
  });

  test('a lot is its parcels: sums, what is over or short, and what goes to the carrier', () => {
    fc.assert(
      fc.property(fc.array(cost, { maxLength: 12 }), fc.nat(12), (costs, cut) => {
        const [one, other, all] = [costs.slice(0, cut), costs.slice(cut), costs].map(lotCost);
        if (!one || !other || !all) return;
        for (const key of Object.keys(all) as (keyof typeof all)[])
          expect(BigInt(all[key])).toBe(BigInt(one[key]) + BigInt(other[key]));
        const known = costs.filter(({ rateMinor, paidMinor }) => rateMinor !== null && paidMinor !== null);
        expect(all.leftMinor).toBe(known.reduce((sum, of) => sum + (leftOver(of) ?? 0n), 0n));
        expect(all.carrierMinor).toBe(
          costs.reduce(
            (sum, { rateMinor, insuranceMinor }) => (rateMinor === null ? sum : sum + rateMinor + insuranceMinor),
            0n,
          ),
        );
      }),
    );
  });

  test('what makes a lot short is said by kind; more than three kinds are only counted', () => {
    const of = (kind: string, paid: number, rateMinor: number) => ({
      kind,
      cost: costOf(rate('light', rateMinor), { packagingMinor: 0, paidMinor: BigInt(paid) }),
    });
    const short = (kinds: string[]) =>
      shortBecause(
        kinds.map((kind) => of(kind, 100, 200)),
        numberWord,
      );
    expect(short(['carton', 'carton', 'tube'])).toBe('two in carton and one in tube');
    expect(short(['a', 'b', 'c', 'd'])).toBe('four parcels');
    expect(shortBecause([of('a', 500, 100), of('b', 100, 200)], numberWord)).toBe('');
  });

  test('an answer holds for the parcel that was asked about, and no other', () => {
    const parcel = {
      recipient: { name: 'Ida', address: { ...NO_ADDRESS, country: 'US' }, email: '', phone: '', locale: 'en-US' },
      profileId: 'box',
      byRule: true,
      grams: 300,
      service: '',
      mailOn: ON,
      rates: null,
      paidMinor: 500n,
      currency: 'USD',
      customs: null,
      lines: [],
    };
    const setting = { items: new Map(), profiles: [BOX], from: NO_ADDRESS, customsReference: '' };
    const asked = packing(parcel, setting);
    expect([asked.faults, isBuyable(asked)]).toEqual([['not-known'], false]);
    const kept = { spec: asked.spec ? specKey(asked.spec) : '', answer: { rates: [rate('light', 360)], refused: [] } };
    const known = packing({ ...parcel, rates: kept }, setting);
    expect([known.rate?.rateMinor, leftOver(known.cost), isBuyable(known)]).toEqual([360, 80n, true]);
    for (const other of [
      { grams: 301 },
      { mailOn: addDays(ON, 1) },
      { recipient: { ...parcel.recipient, name: 'Otto' } },
    ])
      expect(packing({ ...parcel, rates: kept, ...other }, setting).faults).toContain('not-known');
  });
});
