import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { addressLines, NO_ADDRESS } from '../place/address';
import { merged, nameKey, newCustomer, searchText, taxPlace } from './customer';
import { guessedMapping, importedRow, type Mapping } from './import-rows';

const US = {
  ...NO_ADDRESS,
  lines: ['4 Old Ropewalk'],
  city: 'Alder Ferry',
  region: 'US-WA',
  postalCode: '98199',
  country: 'US',
};
const DE = {
  ...NO_ADDRESS,
  lines: ['Hafengasse 9'],
  city: 'Neuenfelde',
  region: 'DE-NI',
  postalCode: '21799',
  country: 'DE',
};

describe('an address is printed as its country writes it', () => {
  test('at home without the country, abroad with it in the reader’s language', () => {
    expect(addressLines(US, 'US', 'en')).toEqual(['4 Old Ropewalk', 'Alder Ferry, WA 98199']);
    expect(addressLines(US, 'DE', 'de')).toEqual(['4 Old Ropewalk', 'Alder Ferry, WA 98199', 'Vereinigte Staaten']);
    expect(addressLines(DE, 'US', 'en')).toEqual(['Hafengasse 9', '21799 Neuenfelde', 'Germany']);
    expect(addressLines({ ...DE, country: 'GB' }, 'GB', 'en')).toEqual(['Hafengasse 9', 'Neuenfelde', '21799']);
  });
  test('what is empty leaves no empty line', () => {
    expect(addressLines(NO_ADDRESS, 'US', 'en')).toEqual([]);
    expect(addressLines({ ...US, city: '', postalCode: '' }, 'US', 'en')).toEqual(['4 Old Ropewalk', 'WA']);
  });
});

test('a name is the same in another order, with accents, legal forms and commas', () => {
  const same = ['Öystad, Marguerite', 'marguerite oystad', 'Mrs. Marguerite  Öystad'];
  expect(new Set(same.map(nameKey)).size).toBe(1);
  expect(nameKey('Sallow Joinery Ltd')).toBe(nameKey('sallow joinery'));
  expect(nameKey('The Co')).not.toBe('');
});

test('somebody is found by every name, number and place, and without accents', () => {
  const text = searchText({
    id: '1',
    ...newCustomer('Ödön Ñandú', { phone: '(206) 555-0143', billing: DE, copies: ['x@y.example'] }),
  });
  for (const words of ['ödön', 'odon', '2065550143', 'neuenfelde', 'x@y.example', '21799'])
    expect(text).toContain(words);
});

test('goods are taxed where they go, everything else where it is billed', () => {
  const customer = newCustomer('A', { billing: US, delivery: DE });
  expect(taxPlace(customer, false)).toEqual({ country: 'US', region: 'US-WA', postalCode: '98199' });
  expect(taxPlace(customer, true).country).toBe('DE');
  expect(taxPlace({ ...customer, delivery: { ...NO_ADDRESS, country: 'DE' } }, true).country).toBe('US');
});

test('of two that become one the kept one holds, and nothing of the other is lost', () => {
  const kept = { id: '1', ...newCustomer('Kept', { email: 'a@x.example', note: 'one' }) };
  const other = {
    id: '2',
    ...newCustomer('Other', {
      email: 'b@x.example',
      copies: ['A@x.example'],
      phone: '1',
      billing: US,
      note: 'two',
      groups: ['g'],
    }),
  };
  expect(merged(kept, other)).toMatchObject({
    id: '1',
    name: 'Kept',
    email: 'a@x.example',
    copies: ['b@x.example'],
    phone: '1',
    billing: US,
    note: 'one\ntwo',
    groups: ['g'],
  });
});

describe('rows of a file', () => {
  const places = {
    home: 'US',
    countryCode: (text: string) => (/^(us|usa)$/i.test(text) ? 'US' : /germany|^de$/i.test(text) ? 'DE' : null),
    regionCode: (country: string, text: string) => (country === 'US' && /^wa/i.test(text) ? 'US-WA' : null),
  };
  test('headings of four languages are known, each field once', () => {
    expect(
      guessedMapping(['E-Mail', 'Nachname', 'Vorname', 'Code postal', 'Ville', 'País', 'Name', 'Full name', 'Shoe']),
    ).toEqual(['email', 'lastName', 'firstName', 'postalCode', 'city', 'country', 'name', null, null]);
  });
  const mapping: Mapping = ['name', 'email', 'country', 'region', 'groups', 'note'];
  test('a good row becomes a customer', () => {
    const row = importedRow(
      ['Ada', 'a@b.example; c@d.example', 'USA', 'Wash', 'Schools, Choirs', "'=1+1"],
      mapping,
      places,
    );
    expect(row).toMatchObject({
      ok: true,
      customer: {
        name: 'Ada',
        email: 'a@b.example',
        copies: ['c@d.example'],
        billing: { country: 'US', region: 'US-WA' },
        groups: ['Schools', 'Choirs'],
        note: '=1+1',
      },
    });
  });
  test('everything that is wrong with a row is said at once', () => {
    const row = importedRow(['', 'nobody', 'Atlantis', 'x', '', ''], mapping, places);
    expect(row).toMatchObject({
      ok: false,
      reasons: ['No name', 'Not an e-mail address: nobody', 'Unknown country: Atlantis'],
    });
  });
  test('whatever stands in the cells, a row is read or refused with a reason', () => {
    fc.assert(
      fc.property(fc.array(fc.string(), { maxLength: 8 }), (cells) => {
        const row = importedRow(cells, mapping, places);
        if (row.ok) expect(row.customer.name).not.toBe('');
        else expect(row.reasons.length).toBeGreaterThan(0);
      }),
    );
  });
});
