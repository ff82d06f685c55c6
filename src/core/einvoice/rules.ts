import { isCalendarDate } from '../dates/calendar-date';
import { isCurrency, minorDigits } from '../money/currency';
import { isCountryCode } from '../place/address';
import { type Category, type EInvoice, groupKey, type Party, sum, type Taxed } from './einvoice';
import { taxOn } from './sums';

/** A rule that does not hold, by its name in the standard, in words that say what to do. */
export type BrokenRule = { readonly rule: string; readonly words: string };

type Rule = { readonly words: string; readonly holds: (of: EInvoice) => boolean };

const said = (text: string): boolean => text.trim() !== '';
const changes = ({ allowances, charges }: EInvoice) => [...allowances, ...charges];
const addressed = ({ lines, city, postalCode }: Party) => [...lines, city, postalCode].some(said);
const decimal = /^-?\d+(\.\d+)?$/;

/** What has to be there, and of which kind (EN 16931-1, 6.4.1: integrity constraints). */
const PRESENCE: Readonly<Record<string, Rule>> = {
  'BR-02': { words: 'Give the invoice a number.', holds: ({ number }) => said(number) },
  'BR-03': { words: 'Choose a day of issue.', holds: ({ issuedOn }) => isCalendarDate(issuedOn) },
  'BR-05': { words: 'Choose a currency of the list.', holds: ({ currency }) => isCurrency(currency) },
  'BR-06': { words: 'Write your business’s name in the profile.', holds: ({ seller }) => said(seller.name) },
  'BR-07': { words: 'Choose who pays.', holds: ({ buyer }) => said(buyer.name) },
  'BR-08': { words: 'Write your address in the profile.', holds: ({ seller }) => addressed(seller) },
  'BR-09': { words: 'Choose your country in the profile.', holds: ({ seller }) => isCountryCode(seller.country) },
  'BR-10': { words: 'Write the customer’s billing address.', holds: ({ buyer }) => addressed(buyer) },
  'BR-11': { words: 'Choose the customer’s country.', holds: ({ buyer }) => isCountryCode(buyer.country) },
  'BR-16': { words: 'Write at least one line.', holds: ({ lines }) => lines.length > 0 },
  'BR-22': {
    words: 'Write how much of each line.',
    holds: ({ lines }) => lines.every(({ quantity }) => decimal.test(quantity)),
  },
  'BR-23': {
    words: 'Choose what each line is counted in.',
    holds: ({ lines }) => lines.every(({ unit }) => said(unit)),
  },
  'BR-25': { words: 'Say what each line is for.', holds: ({ lines }) => lines.every(({ name }) => said(name)) },
  'BR-26': {
    words: 'Write the price of each line.',
    holds: ({ lines }) => lines.every(({ price }) => decimal.test(price)),
  },
  'BR-27': {
    words: 'A price is never below 0; what is taken off is a discount or a credit note.',
    holds: ({ lines }) => lines.every(({ price }) => !price.startsWith('-')),
  },
  'BR-29': {
    words: 'The service ends on or after the day it begins.',
    holds: ({ from, to }) => !from || !to || from <= to,
  },
  'BR-33': {
    words: 'Each discount on the whole says why.',
    holds: ({ allowances }) => allowances.every(({ reason }) => said(reason)),
  },
  'BR-38': { words: 'Name each fee.', holds: ({ charges }) => charges.every(({ reason }) => said(reason)) },
  'BR-48': {
    words: 'Each tax has a rate, unless the document is outside the scope of tax.',
    holds: ({ groups }) => groups.every(({ category, rate }) => category === 'O' || said(rate)),
  },
  'BR-50': {
    words: 'Write the bank account in the profile, or do not ask for a transfer.',
    holds: ({ transfer }) => !transfer || said(transfer.account),
  },
  'BR-55': {
    words: 'A credit note names the invoice that it is about.',
    holds: ({ kind, preceding }) => kind === 'invoice' || said(preceding),
  },
};

/** What belongs together (6.4.2: conditions), and the sums. */
const TOGETHER: Readonly<Record<string, Rule>> = {
  'BR-CO-04': {
    words: 'Each line says how it is taxed.',
    holds: ({ lines }) => lines.every(({ category }) => said(category)),
  },
  'BR-CO-09': {
    words: 'A VAT number begins with the two letters of its country.',
    holds: ({ seller, buyer }) => [seller, buyer].every(({ vatId }) => !vatId || /^[A-Z]{2}/.test(vatId)),
  },
  'BR-CO-10': {
    words: 'The sum of line net amounts is the sum of all lines.',
    holds: (of) => of.sumOfLines === sum(of.lines.map(({ net }) => net)),
  },
  'BR-CO-11': {
    words: 'The sum of allowances is the sum of all allowances on the document.',
    holds: (of) => of.allowanceTotal === sum(of.allowances.map(({ amount }) => amount)),
  },
  'BR-CO-12': {
    words: 'The sum of charges is the sum of all charges on the document.',
    holds: (of) => of.chargeTotal === sum(of.charges.map(({ amount }) => amount)),
  },
  'BR-CO-13': {
    words: 'The total without tax is lines less allowances plus charges.',
    holds: (of) => of.withoutTax === of.sumOfLines - of.allowanceTotal + of.chargeTotal,
  },
  'BR-CO-14': {
    words: 'The tax total is the sum of the tax of all categories.',
    holds: (of) => of.taxTotal === sum(of.groups.map(({ amount }) => amount)),
  },
  'BR-CO-15': {
    words: 'The total with tax is the total without plus the tax.',
    holds: (of) => of.withTax === of.withoutTax + of.taxTotal,
  },
  'BR-CO-16': {
    words: 'The amount due is the total with tax less what was paid, rounded.',
    holds: (of) => of.due === of.withTax - of.paid + of.rounding,
  },
  'BR-CO-17': {
    words: 'The tax of a category is its taxable amount times its rate, rounded.',
    holds: (of) => of.groups.every(({ base, rate, amount }) => amount === taxOn(base, rate)),
  },
  'BR-CO-18': { words: 'There is at least one tax breakdown.', holds: (of) => of.groups.length > 0 },
  'BR-CO-19': { words: 'A period has a first or a last day.', holds: ({ from, to }) => !to || said(from) || said(to) },
  'BR-CO-25': {
    words: 'What is still to be paid has a due date or terms.',
    holds: ({ due, dueOn, terms }) => due <= 0n || said(dueOn) || said(terms),
  },
  'BR-CO-26': {
    words: 'Write your tax number in the profile, so that the buyer’s program knows you.',
    holds: ({ seller }) => said(seller.vatId) || said(seller.taxNumber),
  },
};

/** Sums have two decimals at most; by rule and what it looks at. */
const DECIMALS = ['01', '05', '09', '10', '11', '12', '13', '14', '16', '17', '18', '19', '20', '23', '24', '27'].map(
  (number): [string, Rule] => [
    `BR-DEC-${number}`,
    {
      words: 'An e-invoice has two decimals at most, which this currency does not have: choose another one.',
      holds: ({ currency }) => !isCurrency(currency) || minorDigits(currency) <= 2,
    },
  ],
);

type Wants = {
  /** The name that its rules have in the standard. */
  readonly as: string;
  readonly called: string;
  readonly sellerHas: 'a tax number' | 'a VAT number' | 'no VAT number';
  readonly buyerHas: '' | 'a number' | 'a VAT number' | 'no VAT number';
  readonly rate: 'above 0' | '0' | 'none';
  readonly why: boolean;
};

/** What each tax category wants (6.4.3 to 6.4.9). */
const CATEGORIES: Readonly<Record<Category, Wants>> = {
  S: { as: 'S', called: 'taxed', sellerHas: 'a tax number', buyerHas: '', rate: 'above 0', why: false },
  Z: { as: 'Z', called: 'taxed at 0', sellerHas: 'a tax number', buyerHas: '', rate: '0', why: false },
  E: { as: 'E', called: 'exempt', sellerHas: 'a tax number', buyerHas: '', rate: '0', why: true },
  AE: {
    as: 'AE',
    called: 'under reverse charge',
    sellerHas: 'a tax number',
    buyerHas: 'a number',
    rate: '0',
    why: true,
  },
  G: { as: 'G', called: 'exported', sellerHas: 'a VAT number', buyerHas: '', rate: '0', why: true },
  O: {
    as: 'O',
    called: 'outside the scope of tax',
    sellerHas: 'no VAT number',
    buyerHas: 'no VAT number',
    rate: 'none',
    why: true,
  },
  K: {
    as: 'IC',
    called: 'delivered within the EU',
    sellerHas: 'a VAT number',
    buyerHas: 'a VAT number',
    rate: '0',
    why: true,
  },
};

const has = (party: Party, what: Wants['buyerHas'] | Wants['sellerHas']): boolean => {
  if (what === '') return true;
  if (what === 'no VAT number') return !said(party.vatId);
  return said(party.vatId) || (what !== 'a VAT number' && said(party.taxNumber));
};

const rateFits = (rate: string, wants: Wants['rate']): boolean => {
  if (wants === 'none') return rate === '';
  const isZero = /^0+(\.0*)?$/.test(rate);
  return said(rate) && (wants === '0' ? isZero : !isZero);
};

const NUMBERS: Readonly<Record<Wants['sellerHas'], string>> = {
  'a tax number': 'needs your tax number: write it in the profile',
  'a VAT number': 'needs your VAT number, with its country’s letters: write it in the profile',
  'no VAT number': 'names no VAT number of yours',
};
const BUYERS: Readonly<Record<Exclude<Wants['buyerHas'], ''>, string>> = {
  'a number': 'needs the customer’s tax number: write it on their record',
  'a VAT number': 'needs the customer’s VAT number, with its country’s letters: write it on their record',
  'no VAT number': 'names no VAT number of the customer’s',
};

/** The rules of one category: 01 its breakdown, 02 to 04 the parties' numbers, 05 to 07 rates, 08 to 10 the breakdown. */
function categoryRules(category: Category): [string, Rule][] {
  const { as, called, sellerHas, buyerHas, rate, why } = CATEGORIES[category];
  const mine = <T extends Taxed>(list: readonly T[]): T[] => list.filter((one) => one.category === category);
  const numbers = (of: EInvoice): boolean => has(of.seller, sellerHas) && has(of.buyer, buyerHas);
  const numberWords = `What is ${called} ${NUMBERS[sellerHas]}${buyerHas ? `, and ${BUYERS[buyerHas]}` : ''}.`;
  const rateWords =
    rate === 'none'
      ? `What is ${called} has no rate.`
      : `The rate of what is ${called} is ${rate === '0' ? '0' : 'above 0'}.`;
  const where: [string, (of: EInvoice) => readonly Taxed[]][] = [
    ['lines', ({ lines }) => lines],
    ['allowances', ({ allowances }) => allowances],
    ['charges', ({ charges }) => charges],
  ];
  return [
    [
      `BR-${as}-01`,
      {
        words: `What is ${called} has its tax breakdown${category === 'S' ? '' : ', and one only'}.`,
        holds: (of) => {
          const used = [...of.lines, ...changes(of)].filter((one) => one.category === category);
          const groups = mine(of.groups);
          if (category !== 'S') return used.length === 0 ? groups.length === 0 : groups.length === 1;
          return used.every((one) => groups.some((group) => groupKey(group) === groupKey(one)));
        },
      },
    ],
    ...where.map(([, list], at): [string, Rule] => [
      `BR-${as}-0${at + 2}`,
      { words: numberWords, holds: (of) => mine(list(of)).length === 0 || numbers(of) },
    ]),
    ...where.map(([, list], at): [string, Rule] => [
      `BR-${as}-0${at + 5}`,
      { words: rateWords, holds: (of) => mine(list(of)).every((one) => rateFits(one.rate, rate)) },
    ]),
    [
      `BR-${as}-08`,
      {
        words:
          'The taxable amount of a category and rate is the sum of its lines less its allowances plus its charges.',
        holds: (of) =>
          mine(of.groups).every((group) => {
            const own = <T extends Taxed>(list: readonly T[]) =>
              list.filter((one) => groupKey(one) === groupKey(group));
            return (
              group.base ===
              sum(own(of.lines).map(({ net }) => net)) -
                sum(own(of.allowances).map(({ amount }) => amount)) +
                sum(own(of.charges).map(({ amount }) => amount))
            );
          }),
      },
    ],
    [
      `BR-${as}-09`,
      {
        words:
          rate === 'above 0'
            ? 'The tax is the taxable amount times its rate.'
            : `There is no tax on what is ${called}.`,
        holds: (of) =>
          mine(of.groups).every(({ base, rate: percent, amount }) =>
            rate === 'above 0' ? amount === taxOn(base, percent) : amount === 0n,
          ),
      },
    ],
    [
      `BR-${as}-10`,
      {
        words: why
          ? `Say why no tax applies to what is ${called}.`
          : `What is ${called} gives no reason for being exempt.`,
        holds: (of) => mine(of.groups).every(({ reason, reasonCode }) => (said(reason) || said(reasonCode)) === why),
      },
    ],
  ];
}

/** Nothing else stands beside what is outside the scope (6.4.9). */
const ALONE: [string, Rule][] = (
  [
    ['BR-O-11', ({ groups }) => groups],
    ['BR-O-12', ({ lines }) => lines],
    ['BR-O-13', ({ allowances }) => allowances],
    ['BR-O-14', ({ charges }) => charges],
  ] as [string, (of: EInvoice) => readonly Taxed[]][]
).map(([rule, list]) => [
  rule,
  {
    words: 'Nothing that is taxed stands beside what is outside the scope of tax.',
    holds: (of) =>
      of.groups.every(({ category }) => category !== 'O') || list(of).every(({ category }) => category === 'O'),
  },
]);

/**
 * The business rules of EN 16931-1 that can apply to what is written here, by name. Those that are left out speak of what is
 * never written: payees, tax representatives, cards, several delivery places, item attributes, special regimes of islands.
 */
export const RULES: Readonly<Record<string, Rule>> = {
  ...PRESENCE,
  ...TOGETHER,
  ...Object.fromEntries(DECIMALS),
  ...Object.fromEntries((Object.keys(CATEGORIES) as Category[]).flatMap(categoryRules)),
  ...Object.fromEntries(ALONE),
};

/** The rules that an e-invoice breaks; empty for a good one. */
export const brokenRules = (of: EInvoice): BrokenRule[] =>
  Object.entries(RULES)
    .filter(([, { holds }]) => !holds(of))
    .map(([rule, { words }]) => ({ rule, words }));

/** What keeps an e-invoice from being a good one, each once, in words that say what to do. */
export const eInvoiceProblems = (of: EInvoice): string[] => [...new Set(brokenRules(of).map(({ words }) => words))];
