import { isCalendarDate } from '../dates/calendar-date';
import { type BusinessBank, bankFor } from '../invoice/printed';
import type { Unit } from '../item/item';
import { minorDigits } from '../money/currency';
import { decimalText } from '../money/decimal';
import { money } from '../money/money';
import { moneyText } from '../money/money-text';
import type { ExemptAs } from '../paper/exempt';
import { newLine, type Paper, type PaperLine } from '../paper/paper';
import { type BusinessTax, STANDARD } from '../tax/business-tax';
import { type Category, type EInvoice, type Party, sum, type Taxed, UNIT_CODES } from './einvoice';

/** What a paper is made against. */
export type PaperHouse = {
  readonly name: string;
  readonly taxNumber: string;
  readonly locale: string;
  readonly taxes: readonly BusinessTax[];
  readonly bank: BusinessBank;
  /** Whether the invoice's number is given already. */
  readonly numberTaken: boolean;
  readonly newId: () => string;
};

/** An e-invoice as a paper, and in words for the person what of it the paper could not keep, each once. */
export type BroughtIn = { readonly paper: Partial<Paper>; readonly notKept: readonly string[] };

const UNITS = new Map(Object.entries(UNIT_CODES).map(([unit, code]) => [code as string, unit as Unit]));
/** Other codes of UN/ECE recommendation 20 and 21 for what is counted here too. */
const MORE_UNITS: Readonly<Record<string, Unit>> = {
  EA: 'piece',
  PCE: 'piece',
  XPP: 'piece',
  NAR: 'piece',
  ANN: 'flat',
};

const EXEMPT_AS: Readonly<Partial<Record<Category, ExemptAs>>> = {
  E: 'exempt',
  AE: 'reverse-charge',
  G: 'export',
  O: 'outside',
  K: 'exempt',
};

const NUMBER = /^[\p{L}\p{N} ./_-]{1,40}$/u;
const plain = (text: string): string => text.replace(/[^\p{L}\p{N}]/gu, '').toLowerCase();

/** Whether a party is this business: by its tax number where both have one, else by its name. */
export function isHouse(party: Party, house: Pick<PaperHouse, 'name' | 'taxNumber'>): boolean {
  const numbers = [party.vatId, party.taxNumber].map(plain).filter(Boolean);
  if (numbers.length > 0 && plain(house.taxNumber)) return numbers.includes(plain(house.taxNumber));
  return plain(party.name) === plain(house.name);
}

/**
 * A read e-invoice as it would be typed. Nothing is dropped without a word: what the paper has no place for, or the business no
 * tax for, is said.
 */
export function paperOfEInvoice(read: EInvoice, house: PaperHouse): BroughtIn {
  const said = new Set<string>();
  const say = (words: string) => void said.add(words);
  const { currency } = read;
  const figure = (minor: bigint): string => decimalText(minor, minorDigits(currency));
  const shown = (minor: bigint): string => moneyText(money(minor, currency), house.locale);
  const taxesOf = ({ category, rate }: Taxed): string[] => {
    if (category !== 'S') return [];
    const tax = house.taxes.find((one) => !one.retired && Number(one.rate) === Number(rate));
    if (tax) return [tax.id];
    say(`A tax of ${rate} % is not among yours, so its lines have none: add it under Records, Taxes, and choose it.`);
    return [];
  };
  const lines: PaperLine[] = [];
  const fees: Paper['fees'][number][] = [];
  const fee = (name: string, minor: bigint, of: Taxed) =>
    fees.push({ id: house.newId(), name: name.slice(0, 120), amount: figure(minor), taxes: taxesOf(of) });
  let taken = read.allowanceTotal;
  read.lines.forEach((line, at) => {
    const called = `Line ${at + 1}`;
    if (line.net < 0n || line.quantity.startsWith('-') || line.price.startsWith('-')) {
      taken -= line.net;
      return say(`${called} (“${line.name}”) takes ${shown(-line.net)} off: it is part of the discount on the whole.`);
    }
    const unit = UNITS.get(line.unit) ?? MORE_UNITS[line.unit];
    if (!unit) say(`${called} is counted in “${line.unit || 'nothing'}”, which is not known here: it counts pieces.`);
    if (line.allowance < 0n) {
      fee(`Added on ${line.name}`, -line.allowance, line);
      say(`${called} has a charge of its own: it stands as a fee.`);
    }
    if (line.name.length > 500) say(`${called} has more than 500 letters: the end is cut off.`);
    if (line.note.length > 1000) say(`${called} has a note of more than 1,000 letters: its end is cut off.`);
    if (line.on && !isCalendarDate(line.on)) say(`${called}: “${line.on}” is no day.`);
    lines.push(
      newLine(house.newId(), unit ?? 'piece', {
        what: line.name.slice(0, 500),
        quantity: line.quantity,
        price: line.price,
        discount: line.allowance > 0n ? figure(line.allowance) : '',
        taxesBy: 'person',
        taxes: taxesOf(line),
        taxClass: STANDARD,
        ...(line.code ? { code: line.code.slice(0, 40) } : {}),
        ...(line.note ? { note: line.note.slice(0, 1000) } : {}),
        ...(isCalendarDate(line.on) ? { on: line.on } : {}),
      }),
    );
  });
  for (const charge of read.charges) fee(charge.reason || 'Charge', charge.amount, charge);
  for (const { reason, amount } of read.allowances)
    if (reason && reason !== 'Discount')
      say(`${shown(amount)} are taken off for “${reason}”: the discount has no words.`);

  const reasonless = read.groups.filter(({ category }) => !EXEMPT_AS[category]);
  const [exempt] = read.groups.length > 0 && reasonless.length === 0 ? read.groups : [];
  if (!exempt)
    for (const { reason } of read.groups) if (reason) say(`Part of it is without tax: “${reason}”. Say so in a note.`);
  if (exempt?.category === 'K') say('It is a delivery within the EU: choose the reason without tax yourself.');

  const number = NUMBER.test(read.number) && !house.numberTaken ? read.number : '';
  if (!number)
    say(
      house.numberTaken
        ? `You have an invoice ${read.number} already: this one gets the next number.`
        : `“${read.number}” cannot be a number here: it gets the next one.`,
    );
  if (!isCalendarDate(read.issuedOn)) say(`Its day of issue, “${read.issuedOn}”, is no day.`);
  if (read.dueOn && !isCalendarDate(read.dueOn)) say(`Its due date, “${read.dueOn}”, is no day.`);
  if (read.terms) say(`Its terms of payment: “${read.terms}”.`);
  if (read.preceding) say(`It follows invoice ${read.preceding}.`);
  if (read.paid !== 0n) say(`${shown(read.paid)} were paid before: write them down on its sheet once it is sent.`);
  if (read.rounding !== 0n) say(`It is rounded by ${shown(read.rounding)}.`);
  if (read.transfer && plain(read.transfer.account) !== plain(bankFor(house.bank, currency).account))
    say(`It asks for a transfer to ${read.transfer.account}: yours is in the profile.`);
  if (!isHouse(read.seller, house)) say(`It is from ${read.seller.name || 'somebody without a name'}, not from you.`);
  if (read.reference.length > 120) say('Its reference has more than 120 signs: the end is cut off.');

  const total = sum([read.withTax, read.rounding]);
  return {
    paper: {
      currency,
      number,
      reference: read.reference.slice(0, 120),
      note: read.note.slice(0, 4000),
      ...(isCalendarDate(read.issuedOn) ? { issuedOn: read.issuedOn } : {}),
      ...(isCalendarDate(read.dueOn) ? { due: { kind: 'date', date: read.dueOn } as const } : {}),
      serviceFrom: isCalendarDate(read.from) ? read.from : '',
      serviceTo: isCalendarDate(read.to) && read.to !== read.from ? read.to : '',
      pricesIncludeTax: false,
      lines,
      fees,
      discount: taken > 0n ? figure(taken) : '',
      exempt: exempt ? exempt.reason.slice(0, 300) || exempt.reasonCode || 'Exempt' : null,
      exemptAs: (exempt && EXEMPT_AS[exempt.category]) ?? 'exempt',
    },
    notKept: [...said, ...(total < 0n ? ['Its total is below 0.'] : [])],
  };
}

/** That the paper comes to something else than the file says; empty where it does not. Minor units. */
export const totalDiffers = (read: EInvoice, total: bigint, locale: string): string[] => {
  const asked = sum([read.withTax, read.rounding]);
  const shown = (minor: bigint) => moneyText(money(minor, read.currency), locale);
  return asked === total
    ? []
    : [`The file comes to ${shown(asked)}, this draft to ${shown(total)}: look at the lines.`];
};
