import { type Change, type EInvoice, type EInvoiceLine, type Party, sum, type Taxed } from '@/core/einvoice/einvoice';
import { categoryOf, decimal, isTrue, priceOfOne, sumsIn } from '../xml/figures';
import { first, list, type Node, text } from '../xml/tree';

const taxed = (node: Node | undefined): Taxed => ({
  category: categoryOf(text(node, 'ID')),
  rate: decimal(text(node, 'Percent'), text(node, 'ID') === 'O' ? '' : '0'),
});

function party(node: Node | undefined): Party {
  const at = first(node, 'PostalAddress');
  const numbers = list(node?.PartyTaxScheme);
  const isVat = (one: Node) => text(one, 'TaxScheme', 'ID').toUpperCase() === 'VAT';
  const vat = numbers.find(isVat);
  const other = numbers.find((one) => !isVat(one));
  const [legal, called] = [text(node, 'PartyLegalEntity', 'RegistrationName'), text(node, 'PartyName', 'Name')];
  return {
    name: legal || called,
    tradingName: legal && called !== legal ? called : '',
    email:
      text(node, 'Contact', 'ElectronicMail') ||
      (first(node, 'EndpointID')?.['@schemeID'] === 'EM' ? text(node, 'EndpointID') : ''),
    lines: [text(at, 'StreetName'), text(at, 'AdditionalStreetName'), text(at, 'AddressLine', 'Line')].filter(Boolean),
    city: text(at, 'CityName'),
    postalCode: text(at, 'PostalZone'),
    region: text(at, 'CountrySubentity'),
    country: text(at, 'Country', 'IdentificationCode'),
    vatId: text(vat, 'CompanyID'),
    taxNumber: text(other, 'CompanyID') || text(node, 'PartyLegalEntity', 'CompanyID'),
  };
}

/** Reads a UBL 2.1 invoice or credit note; null where the document is neither. @throws NotAnInvoice */
export function readUbl(tree: Node): EInvoice | null {
  const invoice = first(tree, 'Invoice');
  const root = invoice ?? first(tree, 'CreditNote');
  if (!root) return null;
  const currency = text(root, 'DocumentCurrencyCode');
  const sumIn = sumsIn(currency);
  const minor = (node: Node | undefined, ...path: string[]): bigint => sumIn(text(node, ...path), path.join('/'));
  const isCharge = (node: Node) => isTrue(text(node, 'ChargeIndicator'));
  const change = (node: Node): Change => ({
    amount: minor(node, 'Amount'),
    ...taxed(first(node, 'TaxCategory')),
    reason: text(node, 'AllowanceChargeReason'),
  });
  const changes = list(root.AllowanceCharge);
  const quantityName = invoice ? 'InvoicedQuantity' : 'CreditedQuantity';
  const line = (node: Node): EInvoiceLine => ({
    name: text(node, 'Item', 'Name') || text(node, 'Item', 'Description') || text(node, 'ID'),
    quantity: decimal(text(node, quantityName), '1'),
    unit: String(first(node, quantityName)?.['@unitCode'] ?? ''),
    price: priceOfOne(
      decimal(text(node, 'Price', 'PriceAmount'), '0'),
      decimal(text(node, 'Price', 'BaseQuantity'), '1'),
    ),
    allowance: sum(list(node.AllowanceCharge).map((one) => (isCharge(one) ? -1n : 1n) * minor(one, 'Amount'))),
    net: minor(node, 'LineExtensionAmount'),
    ...taxed(first(node, 'Item', 'ClassifiedTaxCategory')),
    code:
      text(node, 'Item', 'SellersItemIdentification', 'ID') || text(node, 'Item', 'StandardItemIdentification', 'ID'),
    note: [text(node, 'Note'), text(node, 'Item', 'Name') ? text(node, 'Item', 'Description') : '']
      .filter(Boolean)
      .join('\n'),
    on: text(node, 'InvoicePeriod', 'StartDate'),
  });
  const totals = first(root, 'LegalMonetaryTotal');
  // A card or a cheque may stand before the account.
  const account = list(root.PaymentMeans)
    .map((means) => first(means, 'PayeeFinancialAccount'))
    .find((one) => text(one, 'ID'));
  // A second tax total is the same in the currency of the books (BT-111).
  const [taxTotal] = list(root.TaxTotal).filter(
    (one) => first(one, 'TaxAmount')?.['@currencyID'] === currency || !text(root, 'TaxCurrencyCode'),
  );
  return {
    kind: invoice ? 'invoice' : 'credit-note',
    number: text(root, 'ID'),
    issuedOn: text(root, 'IssueDate'),
    dueOn: text(root, 'DueDate') || text(root, 'PaymentMeans', 'PaymentDueDate'),
    currency,
    note: list(root.Note)
      .map((one) => text(one))
      .filter(Boolean)
      .join('\n'),
    reference: text(root, 'BuyerReference') || text(root, 'OrderReference', 'ID'),
    terms: text(root, 'PaymentTerms', 'Note'),
    from: text(root, 'InvoicePeriod', 'StartDate') || text(root, 'Delivery', 'ActualDeliveryDate'),
    to: text(root, 'InvoicePeriod', 'EndDate'),
    preceding: text(root, 'BillingReference', 'InvoiceDocumentReference', 'ID'),
    seller: party(first(root, 'AccountingSupplierParty', 'Party')),
    buyer: party(first(root, 'AccountingCustomerParty', 'Party')),
    transfer: text(account, 'ID')
      ? {
          account: text(account, 'ID'),
          holder: text(account, 'Name'),
          bankCode: text(account, 'FinancialInstitutionBranch', 'ID'),
        }
      : null,
    lines: list(root[invoice ? 'InvoiceLine' : 'CreditNoteLine']).map(line),
    allowances: changes.filter((one) => !isCharge(one)).map(change),
    charges: changes.filter(isCharge).map(change),
    groups: list(taxTotal?.TaxSubtotal).map((node) => ({
      ...taxed(first(node, 'TaxCategory')),
      base: minor(node, 'TaxableAmount'),
      amount: minor(node, 'TaxAmount'),
      reason: text(node, 'TaxCategory', 'TaxExemptionReason'),
      reasonCode: text(node, 'TaxCategory', 'TaxExemptionReasonCode'),
    })),
    sumOfLines: minor(totals, 'LineExtensionAmount'),
    allowanceTotal: minor(totals, 'AllowanceTotalAmount'),
    chargeTotal: minor(totals, 'ChargeTotalAmount'),
    withoutTax: minor(totals, 'TaxExclusiveAmount'),
    taxTotal: minor(taxTotal, 'TaxAmount'),
    withTax: minor(totals, 'TaxInclusiveAmount'),
    paid: minor(totals, 'PrepaidAmount'),
    rounding: minor(totals, 'PayableRoundingAmount'),
    due: minor(totals, 'PayableAmount'),
  };
}
