import fc from 'fast-check';
import { expect, test } from 'vitest';
import { callerOf } from './caller';

test.each([
  ['203.0.113.7', '203.0.113.7'],
  ['10.0.0.1, 203.0.113.7', '203.0.113.7'],
  ['203.0.113.7:51234', '203.0.113.7'],
  ['2001:db8:1:2:3:4:5:6', '2001:db8:1:2::/64'],
  ['[2001:db8:1:2:3:4:5:6]:443', '2001:db8:1:2::/64'],
  ['[2001:db8::9]', '2001:db8:0:0::/64'],
  ['::1', '0:0:0:0::/64'],
  ['::ffff:192.0.2.1', '192.0.2.1'],
  ['fe80::1%eth0', 'fe80::1%eth0'],
  ['unknown', 'unknown'],
  ['1.2.3.4, ', null],
  ['', null],
  [null, null],
])('%s comes from %s', (forwarded, caller) => {
  expect(callerOf(forwarded)).toBe(caller);
});

test('all addresses of one connection are one caller, and those of another are another', () => {
  fc.assert(
    fc.property(
      fc.ipV6(),
      fc.integer({ min: 0, max: 65_535 }),
      fc.integer({ min: 0, max: 65_535 }),
      (address, one, two) => {
        const caller = callerOf(address) ?? '';
        if (!caller.endsWith('::/64')) return;
        const inside = (group: number) => caller.replace('::/64', `:${group.toString(16)}:1:2:3`);
        expect(callerOf(inside(one))).toBe(caller);
        expect(callerOf(inside(two))).toBe(caller);
        const neighbour = caller.replace(/^[^:]+/, (group) => ((Number.parseInt(group, 16) + 1) % 65_536).toString(16));
        expect(callerOf(neighbour.replace('::/64', ':1:2:3:4'))).not.toBe(caller);
      },
    ),
  );
});

test('what a caller says of themselves changes nothing', () => {
  fc.assert(
    fc.property(fc.string(), (said) => {
      expect(callerOf(`${said}, 203.0.113.7`)).toBe('203.0.113.7');
    }),
  );
});
