import { XMLParser, XMLValidator } from 'fast-xml-parser';
import { type Category, type EInvoice, UNIT_CODES } from '@/core/einvoice/einvoice';
import { isCurrency, minorDigits } from '@/core/money/currency';
import { scaledDecimal } from '@/core/money/decimal';

/** An e-invoice as read: who it is from, its dates, its figures. */
export type ReadInvoice = {
  readonly number: string;
  readonly issuedOn: string;
  readonly dueOn: string;
  readonly note: string;
  readonly reference: string;
  readonly seller: string;
  readonly buyer: string;
  readonly figures: EInvoice;
};

/** The file is no UBL invoice, or one of its figures cannot be read. */
export class NotAnInvoice extends Error {
  override readonly name = 'NotAnInvoice';
}

type Node = { readonly [name: string]: unknown };

// Entities are not expanded and documents with their own definitions are refused: nothing in a file can grow.
const parser = new XMLParser({
  ignoreAttributes: false,
  attributeNamePrefix: '@',
  textNodeName: '#',
  removeNSPrefix: true,
  parseTagValue: false,
  parseAttributeValue: false,
  processEntities: true,
  trimValues: true,
});

const LARGEST = 5_000_000;

const list = (value: unknown): Node[] =>
  (Array.isArray(value) ? value : value === undefined || value === '' ? [] : [value]).map((one) =>
    typeof one === 'object' && one !== null ? (one as Node) : { '#': one },
  );
const first = (node: Node | undefined, ...path: string[]): Node | undefined => {
  let at: Node | undefined = node;
  for (const name of path) at = at ? list(at[name])[0] : undefined;
  return at;
};
const text = (node: Node | undefined, ...path: string[]): string => {
  const found = first(node, ...path);
  return found ? String(found['#'] ?? '').trim() : '';
};

/**
 * Reads a UBL 2.1 invoice (EN 16931) as far as its figures go. Namespaces' prefixes do not matter.
 *
 * @throws NotAnInvoice with what is missing or wrong
 */
export function readInvoiceXml(xml: string): ReadInvoice {
  if (xml.length > LARGEST) throw new NotAnInvoice('The file is too large');
  if (/<!DOCTYPE|<!ENTITY/i.test(xml)) throw new NotAnInvoice('The file holds definitions of its own');
  if (XMLValidator.validate(xml) !== true) throw new NotAnInvoice('The file is no well-formed XML');
  const root = first(parser.parse(xml) as Node, 'Invoice');
  if (!root) throw new NotAnInvoice('There is no invoice in the file');
  const currency = text(root, 'DocumentCurrencyCode');
  if (!isCurrency(currency)) throw new NotAnInvoice(`The currency ${currency || 'is missing'}`);
  const digits = minorDigits(currency);
  const minor = (node: Node | undefined, ...path: string[]): bigint => {
    const typed = text(node, ...path);
    if (typed === '') return 0n;
    const negative = typed.startsWith('-');
    try {
      const amount = scaledDecimal(
        typed
          .replace(/^-/, '')
          .replace(/(\.\d*?)0+$/, '$1')
          .replace(/\.$/, ''),
        digits,
        'bad_input',
        path.join('/'),
      );
      return negative ? -amount : amount;
    } catch {
      throw new NotAnInvoice(`${path.join('/')} is no amount of ${currency}: ${typed}`);
    }
  };
  const decimal = (typed: string, otherwise: string): string => (/^\d+(\.\d+)?$/.test(typed) ? tidy(typed) : otherwise);
  const category = (node: Node | undefined): { category: Category; rate: string } => ({
    category: (text(node, 'ID') || 'S') as Category,
    rate: decimal(text(node, 'Percent'), '0'),
  });
  const changes = list(root.AllowanceCharge).map((node) => ({
    charge: text(node, 'ChargeIndicator') === 'true',
    amount: minor(node, 'Amount'),
    ...category(first(node, 'TaxCategory')),
    reason: text(node, 'AllowanceChargeReason'),
  }));
  const [allowances, charges] = [false, true].map((charge) =>
    changes.filter((one) => one.charge === charge).map(({ charge: _, ...one }) => one),
  );
  const totals = first(root, 'LegalMonetaryTotal');
  const lines = list(root.InvoiceLine).map((node) => {
    const quantity = decimal(text(node, 'InvoicedQuantity'), '1');
    const base = decimal(text(node, 'Price', 'BaseQuantity'), '1');
    const net = minor(node, 'LineExtensionAmount');
    const price = decimal(text(node, 'Price', 'PriceAmount'), '0');
    const own = list(node.AllowanceCharge);
    return {
      name: text(node, 'Item', 'Name') || text(node, 'Item', 'Description') || text(node, 'ID'),
      quantity,
      unit: String(first(node, 'InvoicedQuantity')?.['@unitCode'] ?? ''),
      price: base === '1' ? price : divided(price, base),
      allowance: own.reduce(
        (sum, one) => sum + (text(one, 'ChargeIndicator') === 'true' ? -minor(one, 'Amount') : minor(one, 'Amount')),
        0n,
      ),
      net,
      ...category(first(node, 'Item', 'ClassifiedTaxCategory')),
      note: text(node, 'Note'),
      on: text(node, 'InvoicePeriod', 'StartDate'),
    };
  });
  if (lines.length === 0) throw new NotAnInvoice('The invoice has no lines');
  const subtotals = list(root.TaxTotal).flatMap((total) => list(total.TaxSubtotal));
  return {
    number: text(root, 'ID'),
    issuedOn: text(root, 'IssueDate'),
    dueOn: text(root, 'DueDate'),
    note: text(root, 'Note'),
    reference: text(root, 'BuyerReference'),
    seller: partyName(first(root, 'AccountingSupplierParty', 'Party')),
    buyer: partyName(first(root, 'AccountingCustomerParty', 'Party')),
    figures: {
      currency,
      lines,
      allowances: allowances ?? [],
      charges: charges ?? [],
      groups: subtotals.map((node) => ({
        ...category(first(node, 'TaxCategory')),
        base: minor(node, 'TaxableAmount'),
        amount: minor(node, 'TaxAmount'),
        reason: text(node, 'TaxCategory', 'TaxExemptionReason'),
      })),
      sumOfLines: minor(totals, 'LineExtensionAmount'),
      allowanceTotal: minor(totals, 'AllowanceTotalAmount'),
      chargeTotal: minor(totals, 'ChargeTotalAmount'),
      withoutTax: minor(totals, 'TaxExclusiveAmount'),
      taxTotal: minor(first(root, 'TaxTotal'), 'TaxAmount'),
      withTax: minor(totals, 'TaxInclusiveAmount'),
      paid: minor(totals, 'PrepaidAmount'),
      due: minor(totals, 'PayableAmount'),
    },
  };
}

const partyName = (party: Node | undefined): string =>
  text(party, 'PartyLegalEntity', 'RegistrationName') || text(party, 'PartyName', 'Name');

/** Without needless zeros at either end. */
const tidy = (decimal: string): string => {
  const [whole = '0', fraction = ''] = decimal.split('.');
  const kept = fraction.replace(/0+$/, '');
  return `${whole.replace(/^0+(?=\d)/, '')}${kept ? `.${kept}` : ''}`;
};

/** A price that is stated for several, for one; to 6 digits. */
const divided = (price: string, base: string): string => tidy((Number(price) / Number(base)).toFixed(6));

const UNITS = new Map(
  Object.entries(UNIT_CODES).map(([unit, code]) => [code as string, unit as keyof typeof UNIT_CODES]),
);

/** Our unit for a code of UN/ECE recommendation 20; pieces for any other. */
export const unitOf = (code: string): keyof typeof UNIT_CODES => UNITS.get(code) ?? 'piece';
