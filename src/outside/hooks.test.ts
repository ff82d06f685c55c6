import { expect, test } from 'vitest';
import { isOpenAddress, postEvent } from './hooks';

test('addresses of inner networks are none of the open one, however they are written', () => {
  const inner =
    '127.0.0.1 10.0.0.5 172.16.3.4 192.168.1.1 169.254.169.254 100.64.0.1 0.0.0.0 255.255.255.255 224.0.0.1 192.0.2.1 198.18.0.1 ' +
    '::1 :: fe80::1 fc00::1 fd12:3456::1 ff02::1 ::ffff:127.0.0.1 ::ffff:10.0.0.1 64:ff9b::a00:1 2002:7f00:1:: 2001:db8::1';
  for (const address of inner.split(' ')) expect(isOpenAddress(address), address).toBe(false);
  for (const address of ['93.184.216.34', '8.8.8.8', '2606:2800:220:1::1'])
    expect(isOpenAddress(address), address).toBe(true);
  expect(isOpenAddress('shop.example')).toBe(false);
});

test('nothing is sent to an inner address, bare, in another writing, or behind a name', async () => {
  for (const host of [
    '127.0.0.1',
    '[::1]',
    '[::ffff:127.0.0.1]',
    '2130706433',
    '0x7f.1',
    '0177.0.0.1',
    'localhost',
    '169.254.169.254',
  ])
    expect(await postEvent(`http://${host}:9/`, {}, '{}'), host).toEqual({ trouble: 'inner-address' });
  expect(await postEvent('http://nobody.invalid/', {}, '{}')).toEqual({ trouble: 'no-such-name' });
});
