import type { Payer, PrintedInvoice, Seller } from '../invoice/printed';
import { decimalText, roundedQuotient, scaledDecimal } from '../money/decimal';
import type { ExemptAs } from '../paper/exempt';
import { isNoAddress, NO_ADDRESS } from '../place/address';
import {
  type Category,
  type Change,
  type EInvoice,
  type EInvoiceLine,
  groupKey,
  type Party,
  sum,
  type Taxed,
  UNIT_CODES,
} from './einvoice';
import { grossOf, shared, sumsOf, withoutTaxOf } from './sums';

/** Category, and the code of its reason (CEF VATEX list), for what a whole document is without tax as. */
const EXEMPT: Readonly<Record<ExemptAs, { readonly category: Category; readonly reasonCode: string }>> = {
  exempt: { category: 'E', reasonCode: '' },
  'reverse-charge': { category: 'AE', reasonCode: 'VATEX-EU-AE' },
  export: { category: 'G', reasonCode: 'VATEX-EU-G' },
  outside: { category: 'O', reasonCode: 'VATEX-EU-O' },
};

const NOT_TAXED = 'Not subject to tax';

/**
 * How lines, delivery and fees are taxed in the standard's words. Nothing on the document taxed: all of it is outside the scope.
 * Something is: what bears no tax beside it is exempt, since the standard lets nothing stand beside what is outside (BR-O-11).
 */
function taxedBy(invoice: PrintedInvoice): (taxIds: readonly string[]) => Taxed {
  const { category } = EXEMPT[invoice.exemptAs];
  const isAnyTaxed = [...invoice.lines, ...invoice.fees, ...(invoice.delivery ? [invoice.delivery] : [])].some(
    ({ taxIds }) => (taxIds ?? []).length > 0,
  );
  return (taxIds) => {
    if (invoice.exempt) return category === 'O' ? { category, rate: '' } : { category, rate: '0' };
    const rates = invoice.taxes
      .filter((tax) => taxIds.includes(tax.id))
      .map((tax) => scaledDecimal(tax.rate, 4, 'bad_rate', 'rate'));
    if (rates.length === 0) return isAnyTaxed ? { category: 'E', rate: '0' } : { category: 'O', rate: '' };
    const rate = decimalText(sum(rates), 4);
    return { category: rate === '0' ? 'Z' : 'S', rate };
  };
}

const whyOf =
  (invoice: PrintedInvoice) =>
  (category: Category): { reason: string; reasonCode: string } => {
    if (category === 'S' || category === 'Z') return { reason: '', reasonCode: '' };
    if (invoice.exempt) return { reason: invoice.exempt, reasonCode: EXEMPT[invoice.exemptAs].reasonCode };
    return { reason: NOT_TAXED, reasonCode: category === 'O' ? EXEMPT.outside.reasonCode : '' };
  };

/** The countries whose VAT numbers begin with other letters than their code. */
const VAT_PREFIX: Readonly<Record<string, string>> = { GR: 'EL', GB: 'XI' };

/** A typed tax number as the standard has it: with its country's prefix it is one of VAT (BR-CO-9), else another one. */
function taxNumbers(typed: string, country: string): Pick<Party, 'vatId' | 'taxNumber'> {
  const plain = typed.replace(/[\s.-]/g, '').toUpperCase();
  const prefixes = [country, VAT_PREFIX[country]].filter(Boolean);
  const isVat = prefixes.some((prefix) => prefix && plain.startsWith(prefix) && /\d/.test(plain));
  return isVat ? { vatId: plain, taxNumber: '' } : { vatId: '', taxNumber: typed.trim() };
}

/** A party as printed. What was printed before its address was kept in parts has its lines, and its country alone. */
export function partyOf(of: Seller | Payer, otherwise: string): Party {
  const at = of.place && !isNoAddress(of.place) ? of.place : { ...NO_ADDRESS, lines: of.address };
  const country = at.country || of.place?.country || of.country || otherwise;
  return {
    name: ('legalName' in of && of.legalName) || of.name,
    tradingName: 'legalName' in of && of.legalName ? of.name : '',
    email: of.email,
    lines: at.lines.map((line) => line.trim()).filter(Boolean),
    city: at.city,
    postalCode: at.postalCode,
    region: at.region,
    country,
    ...taxNumbers(of.taxNumber ?? '', country),
  };
}

/** Whoever is outside the scope of VAT names no number of it (BR-O-2 to 4); it goes along as another one. */
const withoutVat = (party: Party): Party => ({ ...party, vatId: '', taxNumber: party.taxNumber || party.vatId });

/** The two parties of a document, in the way its categories allow. */
export function partiesOf(
  { seller, payer }: Pick<PrintedInvoice, 'seller' | 'payer'>,
  isOutside: boolean,
): Pick<EInvoice, 'seller' | 'buyer'> {
  const parties = { seller: partyOf(seller, ''), buyer: partyOf(payer, seller.country ?? '') };
  return isOutside ? { seller: withoutVat(parties.seller), buyer: withoutVat(parties.buyer) } : parties;
}

/** The price of one without the tax that it holds at a rate (none: as it is), to 6 digits. */
function priceWithout(price: string, rate: string): string {
  const scaled = scaledDecimal(price, 6, 'bad_price', 'price');
  const divisor = 1_000_000n + scaledDecimal(rate || '0', 4, 'bad_rate', 'rate');
  return decimalText(roundedQuotient(scaled * 1_000_000n, divisor), 6);
}

/**
 * A printed invoice in the model of EN 16931: prices without tax, one tax breakdown for each category and rate, the discount on
 * the document shared out over them as it was for the taxes.
 *
 * @param paidMinor what has been paid and credited, minor units
 */
export function eInvoiceOf(invoice: PrintedInvoice, paidMinor = 0n): EInvoice {
  const taxed = taxedBy(invoice);
  const bare = (minor: bigint, { rate }: Taxed) => (invoice.pricesIncludeTax ? withoutTaxOf(minor, rate) : minor);
  const lines = invoice.lines.map((line): EInvoiceLine => {
    const group = taxed(line.taxIds ?? []);
    const net = bare(BigInt(line.net), group);
    const price = priceWithout(line.unitPrice, invoice.pricesIncludeTax ? group.rate : '');
    return {
      name: line.what,
      quantity: line.quantity,
      unit: UNIT_CODES[line.unit],
      price,
      allowance: grossOf(line.quantity, price, invoice.currency) - net,
      net,
      ...group,
      code: line.code ?? '',
      note: line.note ?? '',
      on: line.on ?? '',
    };
  });
  const weights = new Map<string, { group: Taxed; minor: bigint }>();
  invoice.lines.forEach((line, at) => {
    const group = lines[at];
    if (!group) return;
    const key = groupKey(group);
    weights.set(key, { group, minor: (weights.get(key)?.minor ?? 0n) + BigInt(line.net) });
  });
  const perLine = shared(
    BigInt(invoice.discount),
    invoice.lines.map(({ net }) => BigInt(net)),
  );
  const allowances = [...weights].flatMap(([key, { group }]): Change[] => {
    const minor = sum(perLine.filter((_, at) => lines[at] && groupKey(lines[at]) === key));
    const { category, rate } = group;
    return minor === 0n ? [] : [{ category, rate, amount: bare(minor, group), reason: 'Discount' }];
  });
  const charge = (minor: number, taxIds: readonly string[], reason: string): Change => {
    const group = taxed(taxIds);
    return { ...group, amount: bare(BigInt(minor), group), reason };
  };
  const charges = [
    ...(invoice.delivery && invoice.delivery.amount > 0
      ? [charge(invoice.delivery.amount, invoice.delivery.taxIds, 'Delivery')]
      : []),
    ...invoice.fees.map((fee) => charge(fee.amount, fee.taxIds, fee.name)),
    // A flat tax has no rate: it is stated as a charge that no other tax is on.
    ...invoice.flatTaxes.map((tax) => charge(tax.amount, [], tax.name)),
  ];
  const asked = BigInt(invoice.total);
  const sums = sumsOf({ lines, allowances, charges, whyOf: whyOf(invoice), asked, paid: paidMinor });
  const { transfer } = invoice.ways;
  return {
    kind: 'invoice',
    number: invoice.number,
    issuedOn: invoice.issuedOn,
    dueOn: invoice.dueOn,
    currency: invoice.currency,
    note: invoice.note,
    reference: invoice.reference,
    terms: invoice.terms?.name ?? '',
    from: invoice.serviceFrom,
    to: invoice.serviceFrom && (invoice.serviceTo || invoice.serviceFrom),
    preceding: '',
    ...partiesOf(
      invoice,
      sums.groups.some(({ category }) => category === 'O'),
    ),
    transfer: transfer && {
      account: transfer.account.replace(/\s/g, ''),
      holder: transfer.holder || invoice.seller.legalName || invoice.seller.name,
      bankCode: transfer.bankCode,
    },
    lines,
    allowances,
    charges,
    ...sums,
  };
}
