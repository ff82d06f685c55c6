import { XMLBuilder } from 'fast-xml-parser';
import { eInvoiceOf } from '@/core/einvoice/einvoice';
import type { PrintedInvoice } from '@/core/invoice/printed';
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

/**
 * An invoice as UBL 2.1 in the syntax binding of EN 16931 (EN 16931-3-2).
 *
 * @param paidMinor what has been paid and credited, minor units
 */
export function invoiceXml(invoice: PrintedInvoice, paidMinor = 0n): string {
  const of = eInvoiceOf(invoice, paidMinor);
  const digits = minorDigits(invoice.currency);
  const number = (minor: bigint): string => {
    const text = decimalText(minor, digits);
    if (digits === 0) return text;
    const [whole = '0', fraction = ''] = text.split('.');
    return `${whole}.${fraction.padEnd(digits, '0')}`;
  };
  const amount = (minor: bigint) => ({ '#': number(minor), '@currencyID': invoice.currency });
  const category = (group: { category: string; rate: string; reason?: string }) => ({
    'cbc:ID': group.category,
    ...(group.category === 'O' ? {} : { 'cbc:Percent': group.rate }),
    ...(group.reason ? { 'cbc:TaxExemptionReason': clean(group.reason) } : {}),
    'cac:TaxScheme': { 'cbc:ID': 'VAT' },
  });
  const changes = (list: typeof of.allowances, charge: boolean) =>
    list.map((one) => ({
      'cbc:ChargeIndicator': String(charge),
      'cbc:AllowanceChargeReason': clean(one.reason),
      'cbc:Amount': amount(one.amount),
      'cac:TaxCategory': category({ category: one.category, rate: one.rate }),
    }));
  const party = (
    name: string,
    lines: readonly string[],
    country: string | undefined,
    taxNumber: string | undefined,
    email: string,
  ) => ({
    'cac:Party': {
      ...(email ? { 'cbc:EndpointID': { '#': clean(email), '@schemeID': 'EM' } } : {}),
      'cac:PartyName': { 'cbc:Name': clean(name) },
      'cac:PostalAddress': {
        ...(lines[0] ? { 'cbc:StreetName': clean(lines[0]) } : {}),
        ...(lines.length > 1 ? { 'cbc:AdditionalStreetName': clean(lines.slice(1).join(', ')) } : {}),
        ...(country ? { 'cac:Country': { 'cbc:IdentificationCode': country } } : {}),
      },
      ...(taxNumber
        ? { 'cac:PartyTaxScheme': { 'cbc:CompanyID': clean(taxNumber), 'cac:TaxScheme': { 'cbc:ID': 'VAT' } } }
        : {}),
      'cac:PartyLegalEntity': { 'cbc:RegistrationName': clean(name) },
      ...(email ? { 'cac:Contact': { 'cbc:ElectronicMail': clean(email) } } : {}),
    },
  });
  const { seller, payer } = invoice;
  const { transfer } = invoice.ways;
  return builder.build({
    '?xml': { '@version': '1.0', '@encoding': 'UTF-8' },
    Invoice: {
      '@xmlns': 'urn:oasis:names:specification:ubl:schema:xsd:Invoice-2',
      '@xmlns:cac': 'urn:oasis:names:specification:ubl:schema:xsd:CommonAggregateComponents-2',
      '@xmlns:cbc': 'urn:oasis:names:specification:ubl:schema:xsd:CommonBasicComponents-2',
      'cbc:CustomizationID': 'urn:cen.eu:en16931:2017',
      'cbc:ID': clean(invoice.number),
      'cbc:IssueDate': invoice.issuedOn,
      'cbc:DueDate': invoice.dueOn,
      'cbc:InvoiceTypeCode': '380',
      ...(invoice.note ? { 'cbc:Note': clean(invoice.note) } : {}),
      'cbc:DocumentCurrencyCode': invoice.currency,
      ...(invoice.reference ? { 'cbc:BuyerReference': clean(invoice.reference) } : {}),
      ...(invoice.serviceFrom
        ? {
            'cac:InvoicePeriod': {
              'cbc:StartDate': invoice.serviceFrom,
              'cbc:EndDate': invoice.serviceTo || invoice.serviceFrom,
            },
          }
        : {}),
      'cac:AccountingSupplierParty': party(seller.name, seller.address, seller.country, seller.taxNumber, seller.email),
      'cac:AccountingCustomerParty': party(
        payer.name,
        payer.address,
        payer.country || seller.country,
        payer.taxNumber,
        payer.email,
      ),
      ...(transfer
        ? {
            'cac:PaymentMeans': {
              'cbc:PaymentMeansCode': '30',
              'cbc:PaymentID': clean(invoice.number),
              'cac:PayeeFinancialAccount': {
                'cbc:ID': clean(transfer.account.replace(/\s/g, '')),
                'cbc:Name': clean(transfer.holder || seller.name),
                ...(transfer.bankCode
                  ? { 'cac:FinancialInstitutionBranch': { 'cbc:ID': clean(transfer.bankCode) } }
                  : {}),
              },
            },
          }
        : {}),
      ...(invoice.terms ? { 'cac:PaymentTerms': { 'cbc:Note': clean(invoice.terms.name) } } : {}),
      'cac:AllowanceCharge': [...changes(of.allowances, false), ...changes(of.charges, true)],
      'cac:TaxTotal': {
        'cbc:TaxAmount': amount(of.taxTotal),
        'cac:TaxSubtotal': of.groups.map((group) => ({
          'cbc:TaxableAmount': amount(group.base),
          'cbc:TaxAmount': amount(group.amount),
          'cac:TaxCategory': category(group),
        })),
      },
      'cac:LegalMonetaryTotal': {
        'cbc:LineExtensionAmount': amount(of.sumOfLines),
        'cbc:TaxExclusiveAmount': amount(of.withoutTax),
        'cbc:TaxInclusiveAmount': amount(of.withTax),
        'cbc:AllowanceTotalAmount': amount(of.allowanceTotal),
        'cbc:ChargeTotalAmount': amount(of.chargeTotal),
        'cbc:PrepaidAmount': amount(of.paid),
        'cbc:PayableAmount': amount(of.due),
      },
      'cac:InvoiceLine': of.lines.map((line, at) => ({
        'cbc:ID': String(at + 1),
        ...(line.note ? { 'cbc:Note': clean(line.note) } : {}),
        'cbc:InvoicedQuantity': { '#': line.quantity, '@unitCode': line.unit },
        'cbc:LineExtensionAmount': amount(line.net),
        ...(line.on ? { 'cac:InvoicePeriod': { 'cbc:StartDate': line.on, 'cbc:EndDate': line.on } } : {}),
        ...(line.allowance === 0n
          ? {}
          : {
              'cac:AllowanceCharge': {
                'cbc:ChargeIndicator': String(line.allowance < 0n),
                'cbc:AllowanceChargeReason': line.allowance < 0n ? 'Rounding' : 'Discount',
                'cbc:Amount': amount(line.allowance < 0n ? -line.allowance : line.allowance),
              },
            }),
        'cac:Item': {
          'cbc:Name': clean(line.name),
          'cac:ClassifiedTaxCategory': category({ category: line.category, rate: line.rate }),
        },
        'cac:Price': { 'cbc:PriceAmount': { '#': line.price, '@currencyID': invoice.currency } },
      })),
    },
  }) as string;
}
