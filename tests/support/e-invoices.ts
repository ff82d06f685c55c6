import type { EInvoice, EInvoiceLine, Party } from '@/core/einvoice/einvoice';

const party = (name: string, more: Partial<Party> = {}): Party => ({
  name,
  tradingName: '',
  email: 'post@somebody.example',
  lines: ['4 Weir Lane', 'Yard 2'],
  city: 'Gdańsk',
  postalCode: '80-001',
  region: 'PL-22',
  country: 'PL',
  vatId: 'PL5260001246',
  taxNumber: '',
  ...more,
});

const line = (more: Partial<EInvoiceLine>): EInvoiceLine => ({
  name: 'Смычок / 弓 / قوس',
  quantity: '2',
  unit: 'H87',
  price: '50',
  allowance: 1000n,
  net: 9000n,
  category: 'S',
  rate: '23',
  code: 'BOW-7',
  note: 'Pernambuco & <ebony>',
  on: '2026-05-03',
  ...more,
});

/** An e-invoice with all that can stand on one: line and document discounts, a fee, two rates, a transfer, a part paid. */
export const wholeEInvoice = (more: Partial<EInvoice> = {}): EInvoice => ({
  kind: 'invoice',
  number: '2026/77',
  issuedOn: '2026-05-04',
  dueOn: '2026-05-18',
  currency: 'EUR',
  note: 'Thank you.',
  reference: 'PO 4711',
  terms: '14 days',
  from: '2026-05-01',
  to: '2026-05-04',
  preceding: '',
  seller: party('Warsztat Skrzypcowy'),
  buyer: party('Ορχήστρα Δυτικής', { vatId: '', taxNumber: '77 12', email: 'o@orchestra.example' }),
  transfer: { account: 'PL61109010140000071219812874', holder: 'Warsztat', bankCode: 'WBKPPLPP' },
  lines: [
    line({}),
    line({ name: 'Rosin', quantity: '3', price: '10', allowance: 0n, net: 3000n, rate: '8', code: '', on: '' }),
  ],
  allowances: [{ amount: 900n, category: 'S', rate: '23', reason: 'Discount' }],
  charges: [{ amount: 500n, category: 'S', rate: '23', reason: 'Delivery' }],
  groups: [
    { category: 'S', rate: '23', base: 8600n, amount: 1978n, reason: '', reasonCode: '' },
    { category: 'S', rate: '8', base: 3000n, amount: 240n, reason: '', reasonCode: '' },
  ],
  sumOfLines: 12_000n,
  allowanceTotal: 900n,
  chargeTotal: 500n,
  withoutTax: 11_600n,
  taxTotal: 2218n,
  withTax: 13_818n,
  paid: 1000n,
  rounding: -1n,
  due: 12_817n,
  ...more,
});

const money = (minor: bigint) =>
  `${minor < 0n ? '-' : ''}${String(minor < 0n ? -minor : minor)
    .padStart(3, '0')
    .replace(/(..)$/, '.$1')}`;
const day = (iso: string) => iso.replaceAll('-', '');
const escaped = (text: string) => text.replace(/&/g, '&amp;').replace(/</g, '&lt;');

/** The same as a Cross Industry Invoice, as another program writes it: other prefixes, comments, zeros at the end. */
export function crossIndustryXml(of: EInvoice): string {
  const tax = (category: string, rate: string, name: string) =>
    `<r:${name}><r:TypeCode>VAT</r:TypeCode><r:CategoryCode>${category}</r:CategoryCode><r:RateApplicablePercent>${rate}.00</r:RateApplicablePercent></r:${name}>`;
  const who = (one: Party, name: string) => `<r:${name}><r:Name>${one.name}</r:Name>
    ${one.vatId ? '' : `<r:SpecifiedLegalOrganization><r:ID>${one.taxNumber}</r:ID></r:SpecifiedLegalOrganization>`}
    <r:DefinedTradeContact><r:EmailURIUniversalCommunication><r:URIID>${one.email}</r:URIID></r:EmailURIUniversalCommunication></r:DefinedTradeContact>
    <r:PostalTradeAddress><r:PostcodeCode>${one.postalCode}</r:PostcodeCode><r:LineOne>${one.lines[0]}</r:LineOne><r:LineTwo>${one.lines[1]}</r:LineTwo>
    <r:CityName>${one.city}</r:CityName><r:CountryID>${one.country}</r:CountryID><r:CountrySubDivisionName>${one.region}</r:CountrySubDivisionName></r:PostalTradeAddress>
    ${one.vatId ? `<r:SpecifiedTaxRegistration><r:ID schemeID="VA">${one.vatId}</r:ID></r:SpecifiedTaxRegistration>` : ''}</r:${name}>`;
  const change = (one: EInvoice['charges'][number], isCharge: boolean) =>
    `<r:SpecifiedTradeAllowanceCharge><r:ChargeIndicator><u:Indicator>${isCharge}</u:Indicator></r:ChargeIndicator><r:ActualAmount>${money(one.amount)}</r:ActualAmount><r:Reason>${one.reason}</r:Reason>${tax(one.category, one.rate, 'CategoryTradeTax')}</r:SpecifiedTradeAllowanceCharge>`;
  const date = (name: string, iso: string) =>
    iso ? `<r:${name}><u:DateTimeString format="102">${day(iso)}</u:DateTimeString></r:${name}>` : '';
  return `\uFEFF<?xml version='1.0' encoding='UTF-8'?><!-- made elsewhere -->
<i:CrossIndustryInvoice xmlns:i="urn:un:unece:uncefact:data:standard:CrossIndustryInvoice:100" xmlns:r="urn:un:unece:uncefact:data:standard:ReusableAggregateBusinessInformationEntity:100" xmlns:u="urn:un:unece:uncefact:data:standard:UnqualifiedDataType:100">
<i:ExchangedDocument><r:ID>${of.number}</r:ID><r:TypeCode>${of.kind === 'invoice' ? 380 : 381}</r:TypeCode>${date('IssueDateTime', of.issuedOn)}<r:IncludedNote><r:Content>${of.note}</r:Content></r:IncludedNote></i:ExchangedDocument>
<i:SupplyChainTradeTransaction>${of.lines
    .map(
      (one, at) => `<r:IncludedSupplyChainTradeLineItem><r:AssociatedDocumentLineDocument><r:LineID>${at + 1}</r:LineID>
  <r:IncludedNote><r:Content>${escaped(one.note)}</r:Content></r:IncludedNote></r:AssociatedDocumentLineDocument>
  <r:SpecifiedTradeProduct>${one.code ? `<r:SellerAssignedID>${one.code}</r:SellerAssignedID>` : ''}<r:Name>${one.name}</r:Name></r:SpecifiedTradeProduct>
  <r:SpecifiedLineTradeAgreement><r:NetPriceProductTradePrice><r:ChargeAmount>${one.price}00.0000</r:ChargeAmount><r:BasisQuantity unitCode="${one.unit}">100</r:BasisQuantity></r:NetPriceProductTradePrice></r:SpecifiedLineTradeAgreement>
  <r:SpecifiedLineTradeDelivery><r:BilledQuantity unitCode="${one.unit}">${one.quantity}.0000</r:BilledQuantity></r:SpecifiedLineTradeDelivery>
  <r:SpecifiedLineTradeSettlement>${tax(one.category, one.rate, 'ApplicableTradeTax')}${one.on ? `<r:BillingSpecifiedPeriod>${date('StartDateTime', one.on)}</r:BillingSpecifiedPeriod>` : ''}
  ${one.allowance ? `<r:SpecifiedTradeAllowanceCharge><r:ChargeIndicator><u:Indicator>false</u:Indicator></r:ChargeIndicator><r:ActualAmount>${money(one.allowance)}</r:ActualAmount></r:SpecifiedTradeAllowanceCharge>` : ''}
  <r:SpecifiedTradeSettlementLineMonetarySummation><r:LineTotalAmount>${money(one.net)}</r:LineTotalAmount></r:SpecifiedTradeSettlementLineMonetarySummation></r:SpecifiedLineTradeSettlement></r:IncludedSupplyChainTradeLineItem>`,
    )
    .join('')}
<r:ApplicableHeaderTradeAgreement><r:BuyerReference>${of.reference}</r:BuyerReference>${who(of.seller, 'SellerTradeParty')}${who(of.buyer, 'BuyerTradeParty')}</r:ApplicableHeaderTradeAgreement>
<r:ApplicableHeaderTradeDelivery/>
<r:ApplicableHeaderTradeSettlement><r:InvoiceCurrencyCode>${of.currency}</r:InvoiceCurrencyCode>
<r:SpecifiedTradeSettlementPaymentMeans><r:TypeCode>58</r:TypeCode><r:PayeePartyCreditorFinancialAccount><r:IBANID>${of.transfer?.account}</r:IBANID><r:AccountName>${of.transfer?.holder}</r:AccountName></r:PayeePartyCreditorFinancialAccount><r:PayeeSpecifiedCreditorFinancialInstitution><r:BICID>${of.transfer?.bankCode}</r:BICID></r:PayeeSpecifiedCreditorFinancialInstitution></r:SpecifiedTradeSettlementPaymentMeans>
${of.groups.map((one) => `<r:ApplicableTradeTax><r:CalculatedAmount>${money(one.amount)}</r:CalculatedAmount><r:TypeCode>VAT</r:TypeCode>${one.reason ? `<r:ExemptionReason>${one.reason}</r:ExemptionReason>` : ''}<r:BasisAmount>${money(one.base)}</r:BasisAmount><r:CategoryCode>${one.category}</r:CategoryCode><r:RateApplicablePercent>${one.rate}</r:RateApplicablePercent></r:ApplicableTradeTax>`).join('')}
<r:BillingSpecifiedPeriod>${date('StartDateTime', of.from)}${date('EndDateTime', of.to)}</r:BillingSpecifiedPeriod>
${of.allowances.map((one) => change(one, false)).join('')}${of.charges.map((one) => change(one, true)).join('')}
<r:SpecifiedTradePaymentTerms><r:Description>${of.terms}</r:Description>${date('DueDateDateTime', of.dueOn)}</r:SpecifiedTradePaymentTerms>
<r:SpecifiedTradeSettlementHeaderMonetarySummation><r:LineTotalAmount>${money(of.sumOfLines)}</r:LineTotalAmount><r:ChargeTotalAmount>${money(of.chargeTotal)}</r:ChargeTotalAmount><r:AllowanceTotalAmount>${money(of.allowanceTotal)}</r:AllowanceTotalAmount><r:TaxBasisTotalAmount>${money(of.withoutTax)}</r:TaxBasisTotalAmount><r:TaxTotalAmount currencyID="${of.currency}">${money(of.taxTotal)}</r:TaxTotalAmount><r:RoundingAmount>${money(of.rounding)}</r:RoundingAmount><r:GrandTotalAmount>${money(of.withTax)}</r:GrandTotalAmount><r:TotalPrepaidAmount>${money(of.paid)}</r:TotalPrepaidAmount><r:DuePayableAmount>${money(of.due)}</r:DuePayableAmount></r:SpecifiedTradeSettlementHeaderMonetarySummation>
</r:ApplicableHeaderTradeSettlement></i:SupplyChainTradeTransaction></i:CrossIndustryInvoice>`;
}
