import { XMLBuilder } from 'fast-xml-parser';
import type { Change, EInvoice, EInvoiceLine, Party, Taxed, TaxGroup } from '@/core/einvoice/einvoice';
import { minorDigits } from '@/core/money/currency';
import { decimalText } from '@/core/money/decimal';

const builder = new XMLBuilder({
  ignoreAttributes: false,
  attributeNamePrefix: '@',
  textNodeName: '#',
  format: true,
  suppressEmptyNode: true,
});

/** XML 1.0 takes no control characters but tab and line breaks; anything else is left out. */
const clean = (text: string): string =>
  // biome-ignore lint/suspicious/noControlCharactersInRegex: these are what has to go
  text.replace(/[\u0000-\u0008\u000b\u000c\u000e-\u001f\ufffe\uffff]/g, '');

/** An element with this text; none where there is none. */
const element = (name: string, text: string): object => (text.trim() ? { [name]: clean(text.trim()) } : {});

const scheme = (id: string) => ({ 'cac:TaxScheme': { 'cbc:ID': id } });

const category = ({ category: id, rate }: Taxed, reason: Partial<TaxGroup> = {}) => ({
  'cbc:ID': id,
  ...element('cbc:Percent', rate),
  ...element('cbc:TaxExemptionReasonCode', reason.reasonCode ?? ''),
  ...element('cbc:TaxExemptionReason', reason.reason ?? ''),
  ...scheme('VAT'),
});

/** A party; the tax number that is none of VAT is the seller's other tax registration (BT-32), the buyer's own number (BT-47). */
function party(of: Party, is: 'seller' | 'buyer'): object {
  const [street = '', ...more] = of.lines;
  const taxes = [
    ...(of.vatId ? [{ 'cbc:CompanyID': clean(of.vatId), ...scheme('VAT') }] : []),
    ...(of.taxNumber && is === 'seller' ? [{ 'cbc:CompanyID': clean(of.taxNumber), ...scheme('TAX') }] : []),
  ];
  return {
    'cac:Party': {
      ...(of.email ? { 'cbc:EndpointID': { '#': clean(of.email), '@schemeID': 'EM' } } : {}),
      ...(of.taxNumber && !of.vatId && is === 'seller'
        ? { 'cac:PartyIdentification': { 'cbc:ID': clean(of.taxNumber) } }
        : {}),
      'cac:PartyName': { 'cbc:Name': clean(of.tradingName || of.name) },
      'cac:PostalAddress': {
        ...element('cbc:StreetName', street),
        ...element('cbc:AdditionalStreetName', more.join(', ')),
        ...element('cbc:CityName', of.city),
        ...element('cbc:PostalZone', of.postalCode),
        ...element('cbc:CountrySubentity', of.region),
        'cac:Country': { 'cbc:IdentificationCode': of.country },
      },
      ...(taxes.length > 0 ? { 'cac:PartyTaxScheme': taxes } : {}),
      'cac:PartyLegalEntity': {
        'cbc:RegistrationName': clean(of.name),
        ...(is === 'buyer' ? element('cbc:CompanyID', of.taxNumber) : {}),
      },
      ...(of.email ? { 'cac:Contact': { 'cbc:ElectronicMail': clean(of.email) } } : {}),
    },
  };
}

const means = (transfer: NonNullable<EInvoice['transfer']>, number: string) => ({
  'cac:PaymentMeans': {
    'cbc:PaymentMeansCode': '30',
    'cbc:PaymentID': clean(number),
    'cac:PayeeFinancialAccount': {
      'cbc:ID': clean(transfer.account),
      ...element('cbc:Name', transfer.holder),
      ...(transfer.bankCode ? { 'cac:FinancialInstitutionBranch': { 'cbc:ID': clean(transfer.bankCode) } } : {}),
    },
  },
});

const period = (from: string, to: string): object =>
  from || to ? { 'cac:InvoicePeriod': { ...element('cbc:StartDate', from), ...element('cbc:EndDate', to) } } : {};

/**
 * An e-invoice or a credit note as UBL 2.1 in the syntax binding of EN 16931 (EN 16931-3-2). What it holds is written as it is:
 * whether it keeps the standard's rules is `brokenRules`' to say.
 */
export function eInvoiceXml(of: EInvoice): string {
  const digits = minorDigits(of.currency);
  const number = (minor: bigint): string => {
    const text = decimalText(minor, digits);
    if (digits === 0) return text;
    const [whole = '0', fraction = ''] = text.split('.');
    return `${whole}.${fraction.padEnd(digits, '0')}`;
  };
  const amount = (minor: bigint) => ({ '#': number(minor), '@currencyID': of.currency });
  const change = (one: Change, charge: boolean) => ({
    'cbc:ChargeIndicator': String(charge),
    'cbc:AllowanceChargeReason': clean(one.reason),
    'cbc:Amount': amount(one.amount),
    'cac:TaxCategory': category(one),
  });
  const isCredit = of.kind === 'credit-note';
  const line = (one: EInvoiceLine, at: number) => ({
    'cbc:ID': String(at + 1),
    ...element('cbc:Note', one.note),
    [isCredit ? 'cbc:CreditedQuantity' : 'cbc:InvoicedQuantity']: { '#': one.quantity, '@unitCode': one.unit },
    'cbc:LineExtensionAmount': amount(one.net),
    ...period(one.on, one.on),
    ...(one.allowance === 0n
      ? {}
      : {
          'cac:AllowanceCharge': {
            'cbc:ChargeIndicator': String(one.allowance < 0n),
            'cbc:AllowanceChargeReason': one.allowance < 0n ? 'Rounding' : 'Discount',
            'cbc:Amount': amount(one.allowance < 0n ? -one.allowance : one.allowance),
          },
        }),
    'cac:Item': {
      'cbc:Name': clean(one.name),
      ...(one.code ? { 'cac:SellersItemIdentification': { 'cbc:ID': clean(one.code) } } : {}),
      'cac:ClassifiedTaxCategory': category(one),
    },
    'cac:Price': { 'cbc:PriceAmount': { '#': one.price, '@currencyID': of.currency } },
  });
  const root = isCredit ? 'CreditNote' : 'Invoice';
  return builder.build({
    '?xml': { '@version': '1.0', '@encoding': 'UTF-8' },
    [root]: {
      '@xmlns': `urn:oasis:names:specification:ubl:schema:xsd:${root}-2`,
      '@xmlns:cac': 'urn:oasis:names:specification:ubl:schema:xsd:CommonAggregateComponents-2',
      '@xmlns:cbc': 'urn:oasis:names:specification:ubl:schema:xsd:CommonBasicComponents-2',
      'cbc:CustomizationID': 'urn:cen.eu:en16931:2017',
      'cbc:ID': clean(of.number),
      'cbc:IssueDate': of.issuedOn,
      ...(isCredit ? {} : element('cbc:DueDate', of.dueOn)),
      ...(isCredit ? { 'cbc:CreditNoteTypeCode': '381' } : { 'cbc:InvoiceTypeCode': '380' }),
      ...element('cbc:Note', of.note),
      'cbc:DocumentCurrencyCode': of.currency,
      ...element('cbc:BuyerReference', of.reference),
      ...period(of.from, of.to),
      ...(of.preceding
        ? { 'cac:BillingReference': { 'cac:InvoiceDocumentReference': { 'cbc:ID': clean(of.preceding) } } }
        : {}),
      'cac:AccountingSupplierParty': party(of.seller, 'seller'),
      'cac:AccountingCustomerParty': party(of.buyer, 'buyer'),
      ...(of.transfer ? means(of.transfer, of.number) : {}),
      ...(of.terms ? { 'cac:PaymentTerms': { 'cbc:Note': clean(of.terms) } } : {}),
      'cac:AllowanceCharge': [
        ...of.allowances.map((one) => change(one, false)),
        ...of.charges.map((one) => change(one, true)),
      ],
      'cac:TaxTotal': {
        'cbc:TaxAmount': amount(of.taxTotal),
        'cac:TaxSubtotal': of.groups.map((group) => ({
          'cbc:TaxableAmount': amount(group.base),
          'cbc:TaxAmount': amount(group.amount),
          'cac:TaxCategory': category(group, group),
        })),
      },
      'cac:LegalMonetaryTotal': {
        'cbc:LineExtensionAmount': amount(of.sumOfLines),
        'cbc:TaxExclusiveAmount': amount(of.withoutTax),
        'cbc:TaxInclusiveAmount': amount(of.withTax),
        'cbc:AllowanceTotalAmount': amount(of.allowanceTotal),
        'cbc:ChargeTotalAmount': amount(of.chargeTotal),
        'cbc:PrepaidAmount': amount(of.paid),
        ...(of.rounding === 0n ? {} : { 'cbc:PayableRoundingAmount': amount(of.rounding) }),
        'cbc:PayableAmount': amount(of.due),
      },
      [`cac:${root}Line`]: of.lines.map(line),
    },
  }) as string;
}
