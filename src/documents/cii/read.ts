import { type Change, type EInvoice, type EInvoiceLine, type Party, sum, type Taxed } from '@/core/einvoice/einvoice';
import { categoryOf, decimal, isTrue, priceOfOne, sumsIn } from '../xml/figures';
import { first, list, type Node, text } from '../xml/tree';

/** A day as written here (`20261127`, format 102), in ISO 8601. */
const day = (node: Node | undefined, ...path: string[]): string =>
  text(node, ...path, 'DateTimeString').replace(/^(\d{4})(\d{2})(\d{2})$/, '$1-$2-$3');

const taxed = (node: Node | undefined): Taxed => ({
  category: categoryOf(text(node, 'CategoryCode')),
  rate: decimal(text(node, 'RateApplicablePercent'), text(node, 'CategoryCode') === 'O' ? '' : '0'),
});

function party(node: Node | undefined): Party {
  const at = first(node, 'PostalTradeAddress');
  const number = (scheme: string) =>
    list(node?.SpecifiedTaxRegistration)
      .map((one) => first(one, 'ID'))
      .find((id) => id?.['@schemeID'] === scheme);
  return {
    name: text(node, 'Name'),
    tradingName: text(node, 'SpecifiedLegalOrganization', 'TradingBusinessName'),
    email:
      text(node, 'DefinedTradeContact', 'EmailURIUniversalCommunication', 'URIID') ||
      text(node, 'URIUniversalCommunication', 'URIID'),
    lines: [text(at, 'LineOne'), text(at, 'LineTwo'), text(at, 'LineThree')].filter(Boolean),
    city: text(at, 'CityName'),
    postalCode: text(at, 'PostcodeCode'),
    region: text(at, 'CountrySubDivisionName'),
    country: text(at, 'CountryID'),
    vatId: text(number('VA')),
    taxNumber: text(number('FC')) || text(node, 'SpecifiedLegalOrganization', 'ID'),
  };
}

/** Credit notes among the type codes of UNCL 1001. */
const CREDITS = new Set(['81', '83', '261', '262', '296', '308', '381', '396', '420', '458', '532']);

/** Reads a Cross Industry Invoice (UN/CEFACT, EN 16931-3-3); null where the document is none. @throws NotAnInvoice */
export function readCrossIndustry(tree: Node): EInvoice | null {
  const root = first(tree, 'CrossIndustryInvoice');
  if (!root) return null;
  const head = first(root, 'ExchangedDocument');
  const trade = first(root, 'SupplyChainTradeTransaction');
  const agreement = first(trade, 'ApplicableHeaderTradeAgreement');
  const settlement = first(trade, 'ApplicableHeaderTradeSettlement');
  const totals = first(settlement, 'SpecifiedTradeSettlementHeaderMonetarySummation');
  const currency = text(settlement, 'InvoiceCurrencyCode');
  const taxTotal = list(totals?.TaxTotalAmount).find((one) => one['@currencyID'] === currency);
  const sumIn = sumsIn(currency);
  const minor = (node: Node | undefined, ...path: string[]): bigint => sumIn(text(node, ...path), path.join('/'));
  const isCharge = (node: Node) => isTrue(text(node, 'ChargeIndicator', 'Indicator'));
  const change = (node: Node): Change => ({
    amount: minor(node, 'ActualAmount'),
    ...taxed(first(node, 'CategoryTradeTax')),
    reason: text(node, 'Reason'),
  });
  const changes = list(settlement?.SpecifiedTradeAllowanceCharge);
  const line = (node: Node): EInvoiceLine => {
    const product = first(node, 'SpecifiedTradeProduct');
    const price = first(node, 'SpecifiedLineTradeAgreement', 'NetPriceProductTradePrice');
    const quantity = first(node, 'SpecifiedLineTradeDelivery', 'BilledQuantity');
    const own = first(node, 'SpecifiedLineTradeSettlement');
    return {
      name: text(product, 'Name') || text(product, 'Description'),
      quantity: decimal(text(quantity), '1'),
      unit: String(quantity?.['@unitCode'] ?? ''),
      price: priceOfOne(decimal(text(price, 'ChargeAmount'), '0'), decimal(text(price, 'BasisQuantity'), '1')),
      allowance: sum(
        list(own?.SpecifiedTradeAllowanceCharge).map((one) => (isCharge(one) ? -1n : 1n) * minor(one, 'ActualAmount')),
      ),
      net: minor(own, 'SpecifiedTradeSettlementLineMonetarySummation', 'LineTotalAmount'),
      ...taxed(first(own, 'ApplicableTradeTax')),
      code: text(product, 'SellerAssignedID') || text(product, 'GlobalID'),
      note: [
        text(node, 'AssociatedDocumentLineDocument', 'IncludedNote', 'Content'),
        text(product, 'Name') ? text(product, 'Description') : '',
      ]
        .filter(Boolean)
        .join('\n'),
      on: day(own, 'BillingSpecifiedPeriod', 'StartDateTime'),
    };
  };
  // A card or a cheque may stand before the account.
  const idOf = (one: Node | undefined) => text(one, 'IBANID') || text(one, 'ProprietaryID');
  const means = list(settlement?.SpecifiedTradeSettlementPaymentMeans).find((one) =>
    idOf(first(one, 'PayeePartyCreditorFinancialAccount')),
  );
  const account = first(means, 'PayeePartyCreditorFinancialAccount');
  const accountId = idOf(account);
  return {
    kind: CREDITS.has(text(head, 'TypeCode')) ? 'credit-note' : 'invoice',
    number: text(head, 'ID'),
    issuedOn: day(head, 'IssueDateTime'),
    dueOn: day(settlement, 'SpecifiedTradePaymentTerms', 'DueDateDateTime'),
    currency,
    note: list(head?.IncludedNote)
      .map((one) => text(one, 'Content'))
      .filter(Boolean)
      .join('\n'),
    reference: text(agreement, 'BuyerReference') || text(agreement, 'BuyerOrderReferencedDocument', 'IssuerAssignedID'),
    terms: text(settlement, 'SpecifiedTradePaymentTerms', 'Description'),
    from:
      day(settlement, 'BillingSpecifiedPeriod', 'StartDateTime') ||
      day(trade, 'ApplicableHeaderTradeDelivery', 'ActualDeliverySupplyChainEvent', 'OccurrenceDateTime'),
    to: day(settlement, 'BillingSpecifiedPeriod', 'EndDateTime'),
    preceding: text(settlement, 'InvoiceReferencedDocument', 'IssuerAssignedID'),
    seller: party(first(agreement, 'SellerTradeParty')),
    buyer: party(first(agreement, 'BuyerTradeParty')),
    transfer: accountId
      ? {
          account: accountId,
          holder: text(account, 'AccountName'),
          bankCode: text(means, 'PayeeSpecifiedCreditorFinancialInstitution', 'BICID'),
        }
      : null,
    lines: list(trade?.IncludedSupplyChainTradeLineItem).map(line),
    allowances: changes.filter((one) => !isCharge(one)).map(change),
    charges: changes.filter(isCharge).map(change),
    groups: list(settlement?.ApplicableTradeTax).map((node) => ({
      ...taxed(node),
      base: minor(node, 'BasisAmount'),
      amount: minor(node, 'CalculatedAmount'),
      reason: text(node, 'ExemptionReason'),
      reasonCode: text(node, 'ExemptionReasonCode'),
    })),
    sumOfLines: minor(totals, 'LineTotalAmount'),
    allowanceTotal: minor(totals, 'AllowanceTotalAmount'),
    chargeTotal: minor(totals, 'ChargeTotalAmount'),
    withoutTax: minor(totals, 'TaxBasisTotalAmount'),
    // A second tax total is the same in the currency of the books (BT-111).
    taxTotal: sumIn(text(taxTotal ?? first(totals, 'TaxTotalAmount')), 'TaxTotalAmount'),
    withTax: minor(totals, 'GrandTotalAmount'),
    paid: minor(totals, 'TotalPrepaidAmount'),
    rounding: minor(totals, 'RoundingAmount'),
    due: minor(totals, 'DuePayableAmount'),
  };
}
