import type { Customer } from '@/core/customer/customer';
import { countryName } from '@/core/place/address';

// RFC 6350, 3.4: backslash, comma and line break are written with a backslash; within the parts of a name or an address also
// the semicolon that parts them.
const value = (text: string): string =>
  text
    .replace(/\\/g, '\\\\')
    .replace(/,/g, '\\,')
    .replace(/\r\n|\r|\n/g, '\\n');
const part = (text: string): string => value(text).replace(/;/g, '\\;');

/** Folds a line at 75 octets (RFC 6350, 3.2), never inside a letter. */
function folded(line: string): string {
  const parts: string[] = [];
  let part = '';
  for (const sign of line) {
    if (Buffer.byteLength(part + sign) > 74) {
      parts.push(part);
      part = ` ${sign}`;
    } else part += sign;
  }
  return [...parts, part].join('\r\n');
}

function card(customer: Customer): string {
  const { billing, name, kind } = customer;
  const [first = '', ...rest] = kind === 'person' ? name.split(' ') : [];
  const address = [
    '',
    '',
    billing.lines.join(', '),
    billing.city,
    billing.region.replace(/^[A-Z]{2}-/, ''),
    billing.postalCode,
    billing.country ? countryName(billing.country, 'en') : '',
  ];
  const lines = [
    'BEGIN:VCARD',
    'VERSION:4.0',
    `UID:urn:uuid:${customer.id}`,
    `KIND:${kind === 'company' ? 'org' : 'individual'}`,
    `FN:${value(name)}`,
    ...(kind === 'person' ? [`N:${part(rest.join(' '))};${part(first)};;;`] : [`ORG:${value(name)}`]),
    ...[customer.email, ...customer.copies].filter(Boolean).map((email, at) => `EMAIL;PREF=${at + 1}:${value(email)}`),
    ...(customer.phone ? [`TEL:${value(customer.phone)}`] : []),
    ...(address.some(Boolean) ? [`ADR:${address.map(part).join(';')}`] : []),
    ...(customer.language ? [`LANG:${customer.language}`] : []),
    ...(customer.groups.length > 0 ? [`CATEGORIES:${customer.groups.map(value).join(',')}`] : []),
    ...(customer.note ? [`NOTE:${value(customer.note)}`] : []),
    'END:VCARD',
  ];
  return `${lines.map(folded).join('\r\n')}\r\n`;
}

/** Customers as vCards 4.0 (RFC 6350), one after another. */
export const customersVcard = (customers: readonly Customer[]): string => customers.map(card).join('');
