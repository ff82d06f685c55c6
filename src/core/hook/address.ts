const LONGEST = 500;
/** Names that no public server has (RFC 6761, RFC 6762, RFC 8375, and what networks call themselves). */
const INNER = /(^|\.)(localhost|local|internal|intranet|lan|home|corp|private|home\.arpa)$/i;

/**
 * What is wrong with an address to which events are sent, in words; null where nothing is seen. Where its name leads is looked at once
 * more each time something is sent.
 *
 * @param local whether addresses of this computer are taken: on the demo alone
 */
export function hookAddressProblem(typed: string, local: boolean): string | null {
  const text = typed.trim();
  const url = URL.canParse(text) && text.length <= LONGEST ? new URL(text) : null;
  if (!url || !['https:', 'http:'].includes(url.protocol))
    return 'Write an address such as https://shop.example/events.';
  if (url.username || url.password) return 'Leave name and password out of the address: what is sent is signed.';
  if (url.hash) return 'Leave out what comes after #.';
  if (local) return null;
  if (url.protocol !== 'https:') return 'It has to begin with https://.';
  if (INNER.test(url.hostname) || !url.hostname.includes('.')) return 'This address is not one of the open network.';
  return null;
}
