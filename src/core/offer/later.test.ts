import fc from 'fast-check';
import { expect, test } from 'vitest';
import { type CalendarDate, calendarDate } from '../dates/calendar-date';
import { NO_ADDRESS } from '../place/address';
import { firstCharges } from '../plan/plan';
import { planReading } from '../plan/sums';
import { laterText } from '../words/plan-wording';
import { LANGUAGES, wordsOf } from '../words/words';
import { blankChoice } from './choice';
import { laterTerms } from './later-plan';
import { completeOffer, newOfferItem, type Offer } from './offer';
import { printedOrder } from './order';
import { type QuoteSetting, quoteOffer } from './quote';
import { type SharedSums, sharesOfPayment } from './shares';

const tax = (id: string, rate: string, more: object = {}) => ({
  id,
  name: id,
  rate,
  onDelivery: true,
  class: 'standard',
  country: 'US',
  retired: false,
  ...more,
});
const TAXES = [
  tax('sales', '8.375'),
  tax('oregon', '5', { regions: ['US-OR'] }),
  tax('books', '2.5', { class: 'books', onDelivery: false }),
];

const setting = (more: Partial<QuoteSetting> = {}): QuoteSetting => ({
  taxes: TAXES,
  pricesIncludeTax: false,
  home: { country: 'US' },
  rateTo: (currency) => (currency === 'JPY' ? '151.37' : currency === 'EUR' ? '0.9137' : null),
  smallest: () => 1n,
  homeCurrency: 'USD',
  code: null,
  codeTrouble: null,
  stock: new Map(),
  ...more,
});

const CODE = {
  id: 'code',
  code: 'SPRING',
  percent: '35',
  amountMinor: null,
  currency: 'USD',
  from: '',
  to: '',
  leastMinor: 0n,
  mostUses: null,
  mostEach: null,
  itemIds: [],
};

const price = fc.integer({ min: 100, max: 99_999 }).map((minor) => (minor / 100).toFixed(2));
const repeat = fc.record({
  rhythms: fc.constant([{ unit: 'month' as const, every: 1 }]),
  once: fc.boolean(),
  count: fc.option(fc.integer({ min: 2, max: 30 })),
});
const shared = {
  title: 'Concert fund',
  currency: 'USD',
  currencies: ['EUR', 'JPY'],
  codes: true,
  tip: ['10'],
} as const;
const zones = fc.record({ p: price, free: fc.option(price) }).map(({ p, free }) => ({
  zones: [{ id: 'z', name: 'Post', countries: [], prices: { USD: p } }],
  freeFrom: (free ? { USD: free } : {}) as Record<string, string>,
}));
const offers: fc.Arbitrary<Offer> = fc
  .record({
    kind: fc.constantFrom('sum', 'items', 'donation', 'open'),
    price,
    second: price,
    repeat,
    delivery: fc.option(zones),
    includes: fc.option(fc.boolean()),
    taxClass: fc.constantFrom('standard', 'books'),
  })
  .map(({ kind, price: one, second, delivery, includes, taxClass, ...more }) =>
    completeOffer({
      ...shared,
      ...more,
      kind: kind as Offer['kind'],
      prices: { USD: one },
      taxClass,
      pricesIncludeTax: includes,
      ownAmount: true,
      purposes: kind === 'donation' ? ['Strings for schools'] : [],
      delivery: kind === 'items' || kind === 'sum' ? delivery : null,
      items: [
        newOfferItem('a', { name: 'Rosin', prices: { USD: one }, least: 0, taxClass }),
        newOfferItem('b', { name: 'Cloth', prices: { USD: second }, least: 0 }),
      ],
    }),
  );

/** Somebody chooses something that is repeated: with or without a code and a tip, at home or elsewhere, in any of the currencies. */
const ordered = fc
  .record({
    offer: offers,
    currency: fc.constantFrom('USD', 'EUR', 'JPY'),
    amount: fc.integer({ min: 1, max: 900 }),
    tip: fc.constantFrom('', '10%', '3'),
    coded: fc.boolean(),
    region: fc.constantFrom('', 'US-OR'),
    country: fc.constantFrom('US', 'FR'),
    quantity: fc.integer({ min: 1, max: 7 }),
    day: fc.constantFrom('2026-01-31', '2026-11-27', '2028-02-29'),
  })
  .map(({ offer, currency, amount, tip, coded, region, country, quantity, day }) => {
    const at = { ...NO_ADDRESS, lines: ['1 Hay'], city: 'Bend', country, region: country === 'US' ? region : '' };
    const choice = {
      ...blankChoice(currency),
      name: 'Ida Marsh',
      email: 'ida@marsh.example',
      amount: String(amount),
      purpose: offer.purposes[0] ?? '',
      tip,
      code: coded ? 'SPRING' : '',
      billing: at,
      delivery: offer.delivery ? at : null,
      items:
        offer.kind === 'items'
          ? offer.items.map(({ id }, i) => ({ id, optionId: '', quantity: i ? '0' : String(quantity) }))
          : [],
      repeat: 'month:1',
      agrees: true,
    };
    const quote = quoteOffer(offer, choice, setting({ code: coded ? CODE : null }));
    const heading = {
      locale: 'en-US',
      orderedOn: calendarDate(day),
      deliveryTo: [],
      answers: [],
      terms: null,
      logoId: null,
      accent: '',
      passed: {},
      rate: null,
    };
    const people = {
      seller: { name: 'Sallow' },
      payer: { name: 'Ida Marsh', email: 'ida@marsh.example', address: [] },
    };
    const printed = printedOrder(
      offer,
      choice,
      quote,
      { ...heading, ...people } as unknown as Parameters<typeof printedOrder>[3],
      wordsOf('en-US').offer.donation,
    );
    return { offer, choice, quote, printed, day: calendarDate(day) };
  });

const HOME = { taxes: TAXES, customer: null, home: { country: 'US' }, currency: 'USD', pricesIncludeTax: false };
let ids = 0;
const newId = () => {
  ids += 1;
  return `line-${ids}`;
};

test('what is said of later payments is what their plan charges: sum and days, whatever was chosen', () => {
  fc.assert(
    fc.property(ordered, ({ offer, choice, printed, quote, day }) => {
      const { later } = printed;
      if (!later) throw new Error('It is repeated');
      const terms = laterTerms({ offer, choice, printed }, later, { startOn: day, newId });
      // Wherever the customer is on file: taxed as they ordered.
      const elsewhere = { ...HOME, home: { country: 'FR' }, pricesIncludeTax: true } as unknown as Parameters<
        typeof planReading
      >[1];
      const { sums, currency, problems } = planReading(terms, elsewhere);
      expect(problems).toEqual([]);
      expect({ currency, minor: Number(sums.eachMinor) }).toEqual({ currency: quote.currency, minor: later.each });
      const context = { startsOn: day, holidays: [], pauses: [{ from: day, to: day }] };
      const { charges } = firstCharges(terms, sums, context, 40);
      expect(charges.slice(0, 3).map(({ chargedOn }) => chargedOn)).toEqual(later.dates);
      expect(charges.length).toBe(later.count ?? 40);
      if (later.count !== null) expect(charges.at(-1)?.chargedOn).toBe(later.last);
      expect(later.firstDiffers).toBe(BigInt(later.each) !== quote.chargedMinor);
    }),
    { numRuns: 300 },
  );
});

test('a code and a tip are for the first only, and delivery that the code made dear is free again', () => {
  const offer = completeOffer({
    ...shared,
    kind: 'sum',
    prices: { USD: '50' },
    delivery: { zones: [{ id: 'z', name: 'Post', countries: [], prices: { USD: '9' } }], freeFrom: { USD: '45' } },
    repeat: { rhythms: [{ unit: 'month', every: 1 }], once: false, count: 3 },
  });
  const at = { ...NO_ADDRESS, lines: ['1 Hay'], city: 'Lyon', country: 'FR' };
  const choice = { ...blankChoice('USD'), delivery: at, code: 'SPRING', tip: '5', repeat: 'month:1' };
  // Abroad no tax: 50.00 less 35 percent is 32.50, delivery 9.00, tip 5.00; later 50.00 with free delivery, twice.
  expect(quoteOffer(offer, choice, setting({ code: CODE }))).toMatchObject({
    chargedMinor: 4650n,
    later: { eachMinor: 5000n, count: 2, deliveryMinor: 0n },
  });
  const once = completeOffer({ ...offer, repeat: { rhythms: [{ unit: 'month', every: 1 }], once: true, count: 1 } });
  expect(quoteOffer(once, choice, setting()).later).toBeNull();
  expect(quoteOffer(offer, { ...choice, repeat: '' }, setting()).later).toBeNull();
});

test.each(Object.keys(LANGUAGES))('in %s what comes later is said with its sum, its days and its end', (language) => {
  const dates = ['2026-12-31', '2027-01-31', '2027-02-28'].map(calendarDate) as CalendarDate[];
  const later = {
    unit: 'month',
    every: 1,
    each: 4400,
    delivery: null,
    count: 11,
    dates,
    last: calendarDate('2027-10-31'),
    firstDiffers: true,
  } as const;
  const text = laterText(later, { currency: 'USD', locale: language });
  expect(text).toMatch(/44[.,]00/);
  expect(text).toContain('2027');
  expect(text).toContain('11');
  expect(text).toContain(wordsOf(language).plan.firstOnly);
  expect(
    laterText({ ...later, count: null, last: null, firstDiffers: false }, { currency: 'USD', locale: language }),
  ).toContain(wordsOf(language).plan.goesOn);
});

/** The sums of a paper over a total, of which so many percent are tax. */
const sumsOf = (
  total: number,
  { tax = 0, delivery = null }: { tax?: number; delivery?: SharedSums['delivery'] },
): SharedSums => ({
  total,
  taxTotal: Math.floor((total * tax) / 100),
  delivery,
  taxes: [{ id: 'vat', name: 'VAT', rate: '20', base: 0, amount: 0 }],
  pricesIncludeTax: false,
  exempt: '',
});

test('partners share what is left without tax and delivery, unless all of it was agreed', () => {
  const split = { partners: [{ partnerId: 'p', percent: '50' }], keep: '', feeFrom: 'business' } as const;
  const shareOf = (sums: SharedSums, of: 'net' | 'all' | undefined, paidMinor = BigInt(sums.total)) =>
    sharesOfPayment(
      {
        offer: completeOffer({ ...shared, split: { ...split, ...(of ? { of } : {}) } }),
        printed: { currency: 'USD', rate: null, ...sums },
      },
      { paidMinor, feeMinor: 0n },
    ).all.shareMinor;
  // 100.00 and 10.00 delivery, 20 percent on both: 132.00, of which 22.00 is tax.
  const delivery = { amount: 1000, taxIds: ['vat'] };
  const onTop = { ...sumsOf(13_200, { delivery }), taxTotal: 2200 };
  expect(shareOf(onTop, 'net')).toBe(5000n);
  expect(shareOf(onTop, 'all')).toBe(6600n);
  // An agreement from before there was a choice stays what it was.
  expect(shareOf(onTop, undefined)).toBe(6600n);
  // Half of it paid: half of what is shared.
  expect(shareOf(onTop, 'net', 6600n)).toBe(2500n);
  // The same with tax inside: delivery of 12.00 is 10.00 and its tax, which is in the 22.00 already.
  const inside = { ...onTop, pricesIncludeTax: true, delivery: { amount: 1200, taxIds: ['vat'] } };
  expect(shareOf(inside, 'net')).toBe(5000n);
});

test('a sum that is paid in parts gives partners what they get of it whole', () => {
  const parts = fc.array(fc.integer({ min: 1, max: 9000 }), { minLength: 1, maxLength: 6 });
  const percents = fc.array(fc.integer({ min: 0, max: 3333 }), { minLength: 1, maxLength: 3 });
  fc.assert(
    fc.property(
      parts,
      percents,
      fc.constantFrom('', '0', '12.50'),
      fc.nat(40),
      fc.boolean(),
      (paid, shares, keep, tax, net) => {
        const partners = shares.map((percent, at) => ({ partnerId: `p${at}`, percent: (percent / 100).toFixed(2) }));
        const order = {
          offer: completeOffer({
            ...shared,
            split: { partners, keep, feeFrom: 'business', ...(net ? { of: 'net' } : {}) },
          }),
          printed: {
            currency: 'USD',
            rate: null,
            ...sumsOf(
              paid.reduce((a, b) => a + b, 0),
              { tax },
            ),
          },
        };
        const whole = sharesOfPayment(order, { paidMinor: paid.reduce((a, b) => a + BigInt(b), 0n), feeMinor: 0n });
        let before = 0n;
        const sums = partners.map(() => 0n);
        for (const one of paid) {
          const { parts: got } = sharesOfPayment(order, { paidMinor: BigInt(one), beforeMinor: before, feeMinor: 0n });
          for (const [at, { share }] of got.entries()) sums[at] = (sums[at] ?? 0n) + share;
          before += BigInt(one);
        }
        expect(sums).toEqual(whole.parts.map(({ share }) => share));
      },
    ),
  );
});
