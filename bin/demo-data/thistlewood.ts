/** Thistlewood Strings, an invented workshop. Every name, place and number is made up; `.example` reaches nobody. */
import { randomUUID } from 'node:crypto';
import type { NewBusiness } from '@/core/business/business';
import { NEW_PROFILE } from '@/core/business/business';
import { newCustomer } from '@/core/customer/customer';
import { GOES_AS_USUAL, type Item, type ItemOption } from '@/core/item/item';
import type { PaperLine } from '@/core/paper/paper';
import type { Role } from '@/core/person/rights';
import type { Address } from '@/core/place/address';
import type { BusinessTax } from '@/core/tax/business-tax';

/** The fund for children asks under a name of its own. */
export const FUND = '5f0d6c1e-7a44-4f7e-9d53-0b1d5a2f7c02';

export const BUSINESS: NewBusiness = {
  ...NEW_PROFILE,
  mailConfirmedAt: new Date('2025-01-06T17:00:00Z'),
  description: 'A workshop that builds, repairs, rents and sells string instruments, and teaches to play them.',
  tradingNames: [
    {
      id: FUND,
      name: 'Small Hands Fund',
      logoId: null,
      accent: '#2c6b4c',
      email: 'fund@thistlewood.example',
      phone: '',
      website: '',
      series: '',
      retired: false,
    },
  ],
  locations: [
    {
      id: '5f0d6c1e-7a44-4f7e-9d53-0b1d5a2f7c03',
      name: 'Lock House, rentals',
      place: { lines: ['2 Lock House'], city: 'Tern Harbor', region: 'US-OR', postalCode: '97199', country: 'US' },
      phone: '(503) 555-0118',
      taxNumber: '',
      retired: false,
    },
  ],
  kind: '322',
  statementName: 'THISTLEWOOD STRINGS',
  cardsSince: new Date('2025-01-06T17:00:00Z'),
  verifiedAt: new Date('2025-01-08T17:00:00Z'),
  // The processor takes more in euro than was agreed.
  tariff: [
    { currency: 'USD', scheme: '', percent: '2.9', fixedMinor: 30 },
    { currency: 'USD', scheme: 'Bank account', percent: '0.5', fixedMinor: 20 },
    { currency: 'EUR', scheme: '', percent: '2.4', fixedMinor: 25 },
  ],
  place: { lines: ['14 Millrace Lane'], city: 'Alder Ferry', region: 'US-WA', postalCode: '98199', country: 'US' },
  bank: { holder: 'Thistlewood Strings', account: '0042 7781 9', bankCode: '125 000 999', bank: 'Ferry Mutual Bank' },
  reminders: [-3, 4, 14],
  id: '5f0d6c1e-7a44-4f7e-9d53-0b1d5a2f7c01',
  name: 'Thistlewood Strings',
  address: ['14 Millrace Lane', 'Alder Ferry, WA 98199'],
  phone: '(206) 555-0142',
  email: 'workshop@thistlewood.example',
  website: 'thistlewood.example',
  taxNumber: '91-0000142',
  country: 'US',
  zone: 'America/Los_Angeles',
  paperLocale: 'en-US',
  currency: 'USD',
  pricesIncludeTax: false,
  smallestPayments: { USD: 100, EUR: 100 },
};

export const PASSWORD = 'rosin and maple';

export const PEOPLE: readonly { name: string; email: string; role: Role }[] = [
  { name: 'Ada Thistlewood', email: 'ada@thistlewood.example', role: 'owner' },
  { name: 'Bram Quillon', email: 'bram@thistlewood.example', role: 'clerk' },
  { name: 'Odette Farrow', email: 'odette@thistlewood.example', role: 'reader' },
];

const tax = (id: string, name: string, rate: string, more: Partial<BusinessTax>): BusinessTax => ({
  id: `b7d1f2c4-1f0a-4f0e-8d2a-52c3a6a1${id}`,
  name,
  rate,
  onDelivery: false,
  class: 'standard',
  country: 'US',
  retired: false,
  ...more,
});

export const TAXES: readonly BusinessTax[] = [
  tax('0001', 'Sales tax', '8.25', { regions: ['US-WA'], onDelivery: true }),
  tax('0002', 'Arts levy', '1.5', { country: '' }),
  tax('0003', 'Ferry docks levy', '0.75', {
    regions: ['US-WA'],
    postalCodes: ['98190-98199'],
    class: 'events',
    additional: true,
  }),
  tax('0004', 'Sales tax', '6', { postalCodes: ['32*', '33*', '34*'], onDelivery: true }),
  tax('0005', 'County surtax', '1.5', { postalCodes: ['32055', '32024-32056'], additional: true }),
  tax('0006', 'Sales tax', '0', { class: 'zero' }),
];
const [SALES = '', LEVY = ''] = TAXES.map(({ id }) => id);

const STREETS = [
  'Tanner’s Steps',
  'Sorrel Lane',
  'Kiln Row',
  'Weir Street',
  'Harrow Street',
  'Old Ropewalk',
  'Larch Hill',
];
const NAMES = `Marguerite Öystad|Ingrid Fallowell|Harrow Street Quartet|Lambert Oyelaran|Fenwick Primary School|Josune Arrieta
Calder Nwosu|St Brannoc’s Choir|Edda Tolliver|Odile Brackenbury|Tobias Wrenfield|Ilse Varga|Celia Monk|Anselm Roke
Petra Lindqvist|Rufus Yarrow|Pim Okonjo|Rosalind Achterberg|Beatrix Amsel|Cornelius Tidewell|Hedda Marchbanks|Ottoline Brezh
Alder Ferry Chamber Society|The Saltmarsh Fiddle Club of Upper and Lower Wending|Jory Penhallow|Nadia Vasterling|Emrys Cadwallon
Sunniva Hauge-Bellweather|Lorcan Fitzgarth|Yusra Albright|Bartholomew Featheringstone-Oduya and Daughters|Miro Castellane
Wilhelmina Strand|Ismay Thorncroft|Kester Loveday|Philippa Goldacre|Quentin Marsh|Rowan Applegarth|Theodora Vance|Zofia Merriwether
Northern Lending Fund for Young Players|Gwendolen Ashdown`;

const ABROAD: Readonly<Record<string, { billing: Address; language: string; currency: string }>> = {
  'Petra Lindqvist': {
    billing: { lines: ['Hafengasse 9'], city: 'Neuenfelde', region: 'DE-NI', postalCode: '21799', country: 'DE' },
    language: 'de',
    currency: 'EUR',
  },
  'Ottoline Brezh': {
    billing: { lines: ['4 rue du Tilleul'], city: 'Saint-Aubry', region: '', postalCode: '35990', country: 'FR' },
    language: 'fr',
    currency: 'EUR',
  },
  'Miro Castellane': {
    billing: { lines: ['Calle del Olmo 17'], city: 'Villaparda', region: '', postalCode: '44991', country: 'ES' },
    language: 'es',
    currency: 'EUR',
  },
  'Beatrix Amsel': {
    billing: { lines: ['Lindenhof 3'], city: 'Altmoor', region: 'DE-HH', postalCode: '20998', country: 'DE' },
    language: 'de',
    currency: 'EUR',
  },
};

export const CUSTOMERS = NAMES.split(/[|\n]/).map((name, at) => {
  const plain = name
    .normalize('NFD')
    .replace(/[^a-zA-Z ]/g, '')
    .toLowerCase()
    .split(' ');
  const [first = 'post', last = 'post'] = [plain[0], plain.at(-1)];
  const company = /School|Choir|Quartet|Society|Club|Fund|Daughters/.test(name);
  const abroad = ABROAD[name];
  const home = {
    lines: [`${2 + ((at * 7) % 60)} ${STREETS[at % STREETS.length]}`],
    city: 'Alder Ferry',
    region: 'US-WA',
    postalCode: '98199',
    country: 'US',
  };
  return newCustomer(name, {
    kind: company ? 'company' : 'person',
    email: plain.length > 2 ? `office@${first}-${last}.example` : `${first}@${last}.example`,
    phone: `(206) 555-01${String(43 + at).padStart(2, '0')}`,
    billing: abroad?.billing ?? home,
    language: abroad?.language ?? '',
    currency: abroad?.currency ?? '',
    due: company ? { kind: 'days', days: 30 } : null,
    groups: [
      ...(/School|Fund/.test(name) ? ['Schools and funds'] : []),
      ...(/Choir|Quartet|Society|Club/.test(name) ? ['Ensembles'] : []),
      ...(at % 9 === 4 ? ['Rents an instrument'] : []),
    ],
  });
});

type Work = Omit<PaperLine, 'id'>;
/** Taxes that are named were chosen by hand; without them the customer's place chooses. */
const taxed = (taxes: readonly string[] | undefined): Pick<Work, 'taxes' | 'taxesBy'> =>
  taxes ? { taxes, taxesBy: 'person' } : { taxes: [], taxesBy: 'place' };
const hours = (what: string, quantity: string, price: string, taxes?: readonly string[]): Work => ({
  unit: 'hour',
  what,
  quantity,
  price,
  discount: '',
  ...taxed(taxes),
});
const pieces = (what: string, quantity: string, price: string, discount = '', taxes?: readonly string[]): Work => ({
  unit: 'piece',
  what,
  quantity,
  price,
  discount,
  ...taxed(taxes),
});

/** Jobs as the workshop bills them; the history draws on these. */
export const JOBS: readonly (readonly Work[])[] = [
  [
    hours('Bridge and soundpost, fitted and set up', '3.5', '72.00'),
    pieces('Cello strings, Larkspur medium', '2', '64.50'),
  ],
  [
    hours('Closing a crack in the belly', '9.5', '72.00'),
    pieces('Fingerboard in ebony, shaped and fitted', '1', '310.00'),
  ],
  [pieces('Bow rehair', '1', '85.00')],
  [pieces('Violin strings, Larkspur light', '3', '58.50', '10%'), pieces('Rosin, dark', '2', '9.80')],
  [hours('Setting up eight school violins', '6', '54.00', []), pieces('Student bows', '4', '39.00', '15%')],
  [pieces('Viola case, oblong', '1', '176.00')],
  [pieces('Loan of a cello, per week', '4', '20.00', '', []), pieces('Shoulder rest', '1', '32.40')],
  [hours('Neck reset and varnish', '11.25', '72.00'), pieces('Pegs, boxwood, set of four', '1', '48.00')],
  [pieces('Seat at the spring concert', '4', '18.00', '', [SALES, LEVY])],
  [hours('Lesson with Beatrix Amsel', '4', '48.00', [])],
  [pieces('Violin, half size, workshop made', '1', '1240.00'), pieces('Case and bow', '1', '160.00', '25%')],
  [hours('Seam repair', '1.75', '72.00'), pieces('Soundpost', '1', '22.00')],
];

const item = (name: string, code: string, usd: string, more: Partial<Item> = {}): Omit<Item, 'id'> => ({
  code,
  name,
  description: '',
  kind: 'goods',
  unit: 'piece',
  prices: { USD: usd },
  cost: '',
  taxClass: 'standard',
  onHand: null,
  lowAt: null,
  pictureId: null,
  going: GOES_AS_USUAL,
  options: [],
  ...more,
});
const gauges = (code: string, list: readonly (readonly [name: string, usd: string, onHand: string])[]): ItemOption[] =>
  list.map(([name, usd, onHand]) => ({
    id: randomUUID(),
    name,
    code: `${code}-${name.slice(0, 1).toUpperCase()}`,
    prices: { USD: usd },
    onHand,
    lowAt: '4',
    shelf: `A ${list.findIndex(([one]) => one === name) + 1}`,
  }));
/** Posted, so heavy in grams, and where it lies. */
const posted = (grams: number, shelf: string, hsCode: string): Pick<Item, 'going'> => ({
  going: { ...GOES_AS_USUAL, handed: 'posted', grams, shelf, origin: 'US', hsCode },
});

/** What the workshop sells again and again. */
export const ITEMS: readonly Omit<Item, 'id'>[] = [
  item('Violin strings, Larkspur', 'VLN', '58.50', {
    ...posted(45, 'A 1', '9209.30'),
    prices: { USD: '58.50', EUR: '54.00' },
    cost: '31.20',
    options: gauges('VLN', [
      ['light', '58.50', '14'],
      ['medium', '58.50', '3'],
      ['heavy', '61.00', '6'],
    ]),
  }),
  item('Cello strings, Larkspur', 'CLO', '129.00', {
    ...posted(80, 'A 4', '9209.30'),
    prices: { USD: '129.00', EUR: '119.00' },
    cost: '70.00',
    options: gauges('CLO', [
      ['medium', '129.00', '5'],
      ['heavy', '134.00', '2'],
    ]),
  }),
  item('Rosin, dark', 'ROS-D', '9.80', {
    ...posted(60, 'B 2', '1301.90'),
    prices: { USD: '9.80', EUR: '9.00' },
    cost: '4.10',
    onHand: '21',
    lowAt: '6',
  }),
  item('Shoulder rest', 'REST', '32.40', { ...posted(210, 'C 1', '9209.92'), cost: '18.00', onHand: '2', lowAt: '3' }),
  item('Violin case, oblong', 'CASE-V', '142.00', {
    ...posted(2600, 'D 1', '4202.92'),
    cost: '88.00',
    onHand: '4',
    lowAt: '1',
  }),
  // Nobody wrote down its customs number yet: the first parcel abroad asks for it.
  item('Bow hair, one hank', 'HAIR', '14.50', { ...posted(35, 'B 4', ''), prices: { USD: '14.50', EUR: '13.50' } }),
  item('Bench work', 'BENCH', '72.00', { kind: 'service', unit: 'hour', prices: { USD: '72.00', EUR: '66.00' } }),
  item('Lesson with Beatrix Amsel', 'LES-B', '48.00', { kind: 'service', unit: 'hour', taxClass: 'zero' }),
  item('Loan of a cello', 'LOAN-C', '62.00', { kind: 'service', unit: 'month' }),
  item('Practice tracks, book one', 'TRK-1', '12.00', { kind: 'digital', taxClass: 'zero' }),
];

export const TERMS = {
  name: 'Bench terms',
  text: `1. An estimate stands for thirty days. Work beyond it is agreed to before it is done.
2. Parts that are replaced belong to the customer and are given back on request.
3. Instruments are insured while they are in the workshop, for the value named on the ticket.
4. What is not fetched within six months of the work's end is kept at the customer's cost.
5. Bespoke instruments: the drawing is approved and the deposit paid before wood is cut.`,
} as const;
