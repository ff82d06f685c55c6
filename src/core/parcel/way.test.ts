/** When something is told, how a parcel stands by its scans, and what its label says. */
import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { addDays, calendarDate, weekday } from '../dates/calendar-date';
import { labelPlaces, labelZpl, type PrintedLabel, placed, routingText } from './label';
import { dayWarnings, nextMailDay, noticeAt } from './notice';
import { checkFigure, isItemNumber, spacedNumber } from './number';
import { pickRows } from './picking';
import { customerState, inOrder, isLate, lookAt, SCANS, type ScanLine, stateAfter, wayOf } from './shipment';
import { wayPicture } from './way';

const ON = calendarDate('2026-11-28');

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
