/** The rules of packing: measures as people write them, what a sale hands over, which profile takes it, what it costs, what is told when. */
import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { addDays, calendarDate, weekday } from '../dates/calendar-date';
import type { PrintedLine } from '../invoice/printed';
import { NO_ADDRESS } from '../place/address';
import { costOf, leftOver, lotCost, type ParcelCost, shortBecause } from './cost';
import { blockOf, handedOver, sameDoor, wantedBy } from './handover';
import { labelPlaces, labelZpl, type PrintedLabel, placed, routingText } from './label';
import { byDoor, contentWords, numberWord } from './lot';
import { lengthTyped, MOST_GRAMS, MOST_MM, typedLength, typedWeight, weightText, weightTyped } from './measure';
import { dayWarnings, nextMailDay, noticeAt } from './notice';
import { checkFigure, isItemNumber, spacedNumber } from './number';
import { isBuyable, packing, specKey } from './packed';
import { pickRows } from './picking';
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
import { customerState, inOrder, isLate, lookAt, SCANS, type ScanLine, stateAfter, wayOf } from './shipment';
import { wayPicture } from './way';

const MEASURES = ['metric', 'imperial'] as const;
const ON = calendarDate('2026-11-28');

describe('measures', () => {
  test.each([
    ['350', 'metric', 350],
    ['350 g', 'imperial', 350],
    ['2.4 kg', 'metric', 2400],
    ['2,4 kg', 'metric', 2400],
    // 12 oz = 340.19 g; 13 lb 4 oz = 212 oz = 6010.10 g.
    ['12 oz', 'imperial', 340],
    ['12', 'imperial', 340],
    ['13 lb 4 oz', 'imperial', 6010],
    ['1 lb', 'imperial', 454],
    ['heavy', 'metric', null],
    ['-5 g', 'metric', null],
    ['3 kg 4 oz', 'metric', null],
    ['101 kg', 'metric', null],
  ] as const)('%s in %s are so many grams', (typed, measures, grams) => {
    expect(typedWeight(typed, measures)).toBe(grams);
  });

  test('what is written for somebody is read again as it was, to the step in which it is written', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: MOST_GRAMS }), fc.constantFrom(...MEASURES), (grams, measures) => {
        const again = typedWeight(weightTyped(grams, measures), measures);
        // Kilograms have two places, pounds whole ounces.
        const step = measures === 'imperial' ? 15 : grams < 1000 ? 0 : 5;
        expect(Math.abs((again ?? Number.NaN) - grams)).toBeLessThanOrEqual(step);
      }),
    );
    fc.assert(
      fc.property(fc.integer({ min: 1, max: MOST_MM }), fc.constantFrom(...MEASURES), (millimetres, measures) => {
        const again = typedLength(lengthTyped(millimetres, measures), measures);
        expect(Math.abs((again ?? Number.NaN) - millimetres)).toBeLessThanOrEqual(measures === 'imperial' ? 2 : 0);
      }),
    );
  });

  test('a weight is said in the units of who reads', () => {
    expect([
      weightText(350, 'metric', 'en-GB'),
      weightText(2400, 'metric', 'de-DE'),
      weightText(340, 'imperial', 'en-US'),
      weightText(6010, 'imperial', 'en-US'),
      weightText(454, 'imperial', 'en-US'),
    ]).toEqual(['350 g', '2,4 kg', '12 oz', '13 lb 4 oz', '1 lb']);
  });
});

const line = (more: Partial<PrintedLine>): PrintedLine => ({
  what: 'Rosin',
  unit: 'piece',
  quantity: '1',
  unitPrice: '8',
  gross: 800,
  discount: 0,
  discountText: '',
  net: 800,
  taxes: [],
  ...more,
});

describe('what a sale hands over', () => {
  const ways = new Map([
    ['rosin', 'posted'],
    ['hours', 'service'],
    ['tracks', 'digital'],
  ] as const);

  test('a line goes as it says, else as its item; work and nothing are not packed', () => {
    const lines = [
      line({ itemId: 'rosin' }),
      line({ itemId: 'hours' }),
      line({ itemId: 'tracks' }),
      line({}),
      line({ itemId: 'rosin', handed: 'collected' }),
      line({ handed: 'posted', quantity: '0' }),
    ];
    expect(handedOver(lines, ways, true).map((one) => [one.line, one.handed])).toEqual([
      [0, 'posted'],
      [2, 'digital'],
      [4, 'collected'],
    ]);
  });

  test('where nothing is delivered, goods are collected, but for those that were said to be posted', () => {
    const lines = [line({ itemId: 'rosin' }), line({ itemId: 'rosin', handed: 'posted' })];
    expect(handedOver(lines, ways, false).map(({ handed }) => handed)).toEqual(['collected', 'posted']);
  });

  test('it is wanted by the latest day that is named', () => {
    expect(wantedBy([{ on: '2026-12-01' }, { on: '' }, {}], '2026-12-24')).toBe('2026-12-24');
    expect(wantedBy([{ on: 'soon' }], '')).toBeNull();
  });

  test.each([
    ['', { lines: ['18 Pan Lane'], city: 'Gull Point', postalCode: '97201', country: 'US' }],
    ['no-address', {}],
    ['no-country', { lines: ['18 Pan Lane'], city: 'Gull Point', postalCode: '97201' }],
    ['no-street', { city: 'Gull Point', postalCode: '97201', country: 'US' }],
    ['no-city', { lines: ['18 Pan Lane'], postalCode: '97201', country: 'US' }],
    ['no-code', { lines: ['18 Pan Lane'], city: 'Gull Point', country: 'US' }],
    ['no-number', { lines: ['Pan Lane'], city: 'Gull Point', postalCode: '97201', country: 'US' }],
    ['', { lines: ['Rose Cottage, Pan Lane'], city: 'Upper Marsh', postalCode: 'UM1 4ZZ', country: 'GB' }],
    ['', { lines: ['١٤ شارع النخيل'], city: 'دبي', postalCode: '', country: 'AE' }],
  ] as const)('%s is what keeps %j', (block, address) => {
    expect(blockOf({ name: 'Ida Marsh', address: { ...NO_ADDRESS, ...address } })).toBe(block);
  });

  test('one door is one parcel, for one customer', () => {
    const at = (customerId: string, name: string, city: string) => ({
      customerId,
      recipient: {
        name,
        address: { ...NO_ADDRESS, lines: ['1 Lane'], city, country: 'US' },
        email: '',
        phone: '',
        locale: 'en-US',
      },
    });
    const [a, b, c, d] = [
      at('1', 'Ida', 'Gull'),
      at('1', ' ida ', 'GULL'),
      at('1', 'Ida', 'Tarn'),
      at('2', 'Ida', 'Gull'),
    ];
    expect(sameDoor(a.recipient, b.recipient)).toBe(true);
    expect(byDoor([a, b, c, d])).toEqual([[a, b], [c], [d]]);
  });

  test('its content is said in a few words', () => {
    const of = (...all: [string, string][]) => contentWords(all.map(([what, quantity]) => ({ what, quantity })));
    expect([
      of(),
      of(['Rosin', '1']),
      of(['Rosin', '2'], ['Mute', '1']),
      of(['A', '1'], ['B', '1'], ['C', '1']),
    ]).toEqual(['Nothing yet', 'Rosin', 'Rosin, 2; Mute', 'A and two more']);
  });
});

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
      lines: [],
    };
    const setting = { items: new Map(), profiles: [BOX], from: NO_ADDRESS };
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

describe('told when it is true', () => {
  test('a notice goes out at its hour of the mailing date in the business’s zone, or waits for a scan or a hand', () => {
    const settings = { tellAt: '08:00' };
    // Los Angeles is eight hours behind in November.
    expect(noticeAt({ notice: 'on-day', mailOn: ON }, settings, 'America/Los_Angeles')?.toISOString()).toBe(
      '2026-11-28T16:00:00.000Z',
    );
    for (const notice of ['first-scan', 'held', 'told'] as const)
      expect(noticeAt({ notice, mailOn: ON }, settings, 'America/Los_Angeles')).toBeNull();
  });

  test('said before: a day that has passed, one on which nothing leaves, and later than it was wanted', () => {
    const usual = { today: ON, mailDays: [1, 2, 3, 4, 5, 6], wantedBy: null, promisedOn: null };
    expect(dayWarnings(ON, usual)).toEqual([]);
    expect(dayWarnings(addDays(ON, -1), usual)).toEqual(['past']);
    expect(dayWarnings(addDays(ON, 1), usual)).toEqual(['no-mail-day']);
    expect(dayWarnings(ON, { ...usual, wantedBy: addDays(ON, 2), promisedOn: addDays(ON, 3) })).toEqual([
      'after-wanted',
    ]);
  });

  test('the next mailing day is one of the week’s that were chosen, within a week', () => {
    fc.assert(
      fc.property(fc.uniqueArray(fc.integer({ min: 1, max: 7 }), { minLength: 1 }), fc.nat(400), (days, ahead) => {
        const from = addDays(ON, ahead);
        const next = nextMailDay(from, days);
        expect(days).toContain(weekday(next));
        expect(next >= from && next < addDays(from, 7)).toBe(true);
      }),
    );
  });
});

describe('the way', () => {
  const scan = (day: number, of: ScanLine['scan'], place = 'Hall'): ScanLine => ({
    at: new Date(Date.UTC(2026, 10, 20 + day, 12)),
    scan: of,
    place,
    words: '',
  });

  test('told twice, or in any order, scans come to the same', () => {
    const all = fc.array(fc.tuple(fc.nat(9), fc.constantFrom(...SCANS)), { maxLength: 8 });
    fc.assert(
      fc.property(all, fc.nat(7), (given, turn) => {
        // One scan a day: two of one moment have no order of their own.
        const scans = [...new Map(given).entries()].map(([day, of]) => scan(day, of));
        const other = [...scans.slice(turn), ...scans.slice(0, turn), ...scans];
        expect(inOrder(other)).toEqual(inOrder(scans));
        expect(stateAfter(other, 'bought')).toBe(stateAfter(scans, 'bought'));
      }),
    );
  });

  test('on its way back it stays so, whatever hall it passes, until it has come back', () => {
    expect(stateAfter([scan(1, 'accepted'), scan(2, 'turned-back'), scan(3, 'moved')], 'bought')).toBe('back');
    expect(stateAfter([scan(1, 'accepted'), scan(2, 'turned-back'), scan(4, 'returned')], 'bought')).toBe('returned');
    expect(stateAfter([], 'bought')).toBe('bought');
  });

  test('late is what is on its way after the promised day; one not handed over needs a look of its own', () => {
    const of = (state: Parameters<typeof isLate>[0]['state'], promised: number, mail = 0) => ({
      state,
      promisedOn: addDays(ON, promised),
      mailOn: addDays(ON, mail),
    });
    expect([isLate(of('moving', -1), ON), isLate(of('moving', 0), ON), isLate(of('delivered', -1), ON)]).toEqual([
      true,
      false,
      false,
    ]);
    expect([
      lookAt(of('moving', -1), ON),
      lookAt(of('bought', 3, -1), ON),
      lookAt(of('bought', 3), ON),
      lookAt(of('lost', 3), ON),
    ]).toEqual(['late', 'not-handed-over', null, 'lost']);
  });

  test('the customer reads of nothing but packing before they were told', () => {
    const bought = { state: 'bought', promisedOn: addDays(ON, 3) } as const;
    expect([customerState(bought, false, ON), customerState(bought, true, ON)]).toEqual(['packed', 'moving']);
    expect(customerState({ state: 'moving', promisedOn: addDays(ON, -1) }, true, ON)).toBe('late');
  });

  test('drawn, it begins with the label, lies still until now, and ends at a door that is still to come', () => {
    const way = wayOf([scan(1, 'accepted', 'Counter'), scan(2, 'moved', 'Hall'), scan(2, 'delayed', 'Hall')], []);
    expect(way.map(({ place }) => place)).toEqual(['Counter', 'Hall']);
    const picture = wayPicture(way, {
      begun: { place: 'Label bought', at: scan(0, 'accepted').at },
      door: 'Gull Point door',
      promisedOn: calendarDate('2026-11-23'),
      now: scan(5, 'accepted').at,
      zone: 'UTC',
      ended: false,
    });
    expect(picture.rows.map(({ place, isLast }) => [place, isLast])).toEqual([
      ['Label bought', false],
      ['Counter', false],
      ['Hall', true],
      ['Gull Point door', false],
    ]);
    expect([picture.late, picture.still, picture.promised]).toEqual([2, { from: { day: 2.5, row: 2 }, to: 5.5 }, 3.5]);
  });
});

describe('labels', () => {
  test('a number has the check figure of the post’s standard', () => {
    // UPU S10: 8×4 + 6×7 + 4×3 + 2×1 + 3×2 + 5×4 + 9×8 + 7×2 = 200; 200 mod 11 = 2; 11 − 2 = 9.
    expect(checkFigure('47312482')).toBe(9);
    expect([isItemNumber('RA 4731 2482 9 US'), isItemNumber('RA473124828US'), isItemNumber('1234')]).toEqual([
      true,
      false,
      false,
    ]);
    expect(spacedNumber('RA473124829US')).toBe('RA 4731 2482 9 US');
  });

  test('labels fill a sheet from the first free place, each place once, and turn to the next', () => {
    expect(placed(3, 4, 2)).toEqual([
      { sheet: 0, place: 2 },
      { sheet: 0, place: 3 },
      { sheet: 1, place: 0 },
    ]);
    for (const sheet of ['a6', 'a4-2', 'a4-4', 'own'] as const) {
      const { width, height, places } = labelPlaces(sheet, { widthMm: 100, heightMm: 150 });
      for (const one of places) {
        expect(one.x + one.width).toBeLessThanOrEqual(width);
        expect(one.y + one.height).toBeLessThanOrEqual(height);
      }
      const area = places.reduce((sum, one) => sum + one.width * one.height, 0);
      expect(area).toBeCloseTo(width * height, 6);
    }
  });

  const LABEL: PrintedLabel = {
    number: 'TW440000006US',
    serviceName: 'Steady',
    from: ['Sallow Joinery', '9 Weir Street'],
    to: ['^XA ~JR_Zoë 田中', '18 Pan Lane'],
    weight: '12 oz',
    signature: true,
    reference: '1001',
    mailOn: '2026-11-28',
    country: 'US',
    postalCode: '972 01',
  };

  test('nothing that somebody wrote is a command to a label printer', () => {
    fc.assert(
      fc.property(fc.string({ unit: fc.constantFrom('^', '~', '_', 'X', 'A', '\n', '\r', 'é', '田', ' ') }), (name) => {
        const plain = labelZpl(
          { ...LABEL, to: ['Ida'], from: ['House'], reference: 'R' },
          { widthMm: 100, heightMm: 150 },
        );
        const zpl = labelZpl(
          { ...LABEL, to: [name], from: ['House'], reference: 'R' },
          { widthMm: 100, heightMm: 150 },
        );
        const commands = (text: string) => text.match(/[\^~][A-Z]{2}/g);
        expect(commands(zpl)).toEqual(commands(plain));
        expect(zpl.split('\n')).toHaveLength(plain.split('\n').length);
      }),
    );
    expect(labelZpl(LABEL, { widthMm: 100, heightMm: 150 })).toContain('_5EXA _7EJR_5FZoë 田中');
  });

  test('the square code has no bars of its own in its parts', () => {
    expect(routingText({ ...LABEL, postalCode: '9|7', serviceName: 'Ste|ady' })).toBe('TW440000006US|US|97|STEADY');
  });

  test('one walk along the shelves packs the lot: each thing once, shelves as people count them', () => {
    const of = (shelf: string, what: string, quantity: string, name: string) => ({
      shelf,
      key: what,
      what,
      quantity,
      name,
    });
    expect(
      pickRows([
        of('A 10', 'Mute', '1', 'Ida'),
        of('', 'Sample', '1', 'Ida'),
        of('A 2', 'Rosin', '1.5', 'Ida'),
        of('A 2', 'Rosin', '2', 'Otto'),
      ]),
    ).toEqual([
      {
        shelf: 'A 2',
        what: 'Rosin',
        quantity: '3.5',
        parcels: [
          { name: 'Ida', quantity: '1.5' },
          { name: 'Otto', quantity: '2' },
        ],
      },
      { shelf: 'A 10', what: 'Mute', quantity: '1', parcels: [{ name: 'Ida', quantity: '1' }] },
      { shelf: '', what: 'Sample', quantity: '1', parcels: [{ name: 'Ida', quantity: '1' }] },
    ]);
  });
});
