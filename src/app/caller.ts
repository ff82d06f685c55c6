/** Who asks, as far as limits need to know it. */
import { isIPv4, isIPv6 } from 'node:net';

/** Of an IPv6 address, the first four groups: one connection has all addresses that begin so (RFC 6177), and limits would never end. */
function network(address: string): string {
  const whole = new URL(`http://[${address}]`).hostname.slice(1, -1);
  const [before = '', after] = whole.split('::');
  const front = before === '' ? [] : before.split(':');
  const back = after ? after.split(':') : [];
  const groups = [
    ...front,
    ...Array<string>(after === undefined ? 0 : 8 - front.length - back.length).fill('0'),
    ...back,
  ];
  // ::ffff:c000:201 is an IPv4 address in a longer coat.
  if (groups.slice(0, 6).join(':') === '0:0:0:0:0:ffff') {
    const [high = 0, low = 0] = groups.slice(6).map((group) => Number.parseInt(group, 16));
    return [high >> 8, high & 255, low >> 8, low & 255].join('.');
  }
  return `${groups.slice(0, 4).join(':')}::/64`;
}

/** With a port, as some proxies write it: `192.0.2.1:4711`, `[2001:db8::1]:4711`. */
const WITH_PORT = /^(?:\[([^\]]+)\]|(\d+\.\d+\.\d+\.\d+))(?::\d+)?$/;

/**
 * The network address that a request came from: the last hop that was written down, which the proxy in front wrote itself. Null where
 * no proxy says so.
 *
 * @param forwarded the header `X-Forwarded-For`
 */
export function callerOf(forwarded: string | null | undefined): string | null {
  const last = forwarded?.split(',').at(-1)?.trim() ?? '';
  const [, six, four] = WITH_PORT.exec(last) ?? [];
  const address = six ?? four ?? last;
  if (isIPv4(address)) return address;
  // A zone names a card of this computer, which nobody far away has.
  if (isIPv6(address) && !address.includes('%')) return network(address);
  return address === '' ? null : address.slice(0, 100);
}
