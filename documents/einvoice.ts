import { AFRelationship, PDFDocument } from '@cantoo/pdf-lib';
import { dec } from '@ledgerline/core/money';
import type { Invoice } from './invoice.ts';
import { makePdf } from './maker.ts';

const escape = (text: string): string => text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;').replace(/"/g, '&quot;');
const day = (iso: string): string => iso.replace(/-/g, '');
const category = (rate: string): string => (dec(rate).isZero() ? 'Z' : 'S');
const goods = (i: Invoice): string =>
  dec(i.net)
    .minus(i.charge?.amount ?? 0)
    .toFixed(2);
/** The rate that carries the charge: that of most goods. */
const mainRate = (i: Invoice): string => [...i.taxes].sort((a, b) => dec(b.net).comparedTo(a.net))[0]!.rate;

/** An invoice as UBL 2.1 after EN 16931. `inside` adds what the caller brings before the supplier, such as an attached document. */
export function ublOf(i: Invoice, inside = ''): string {
  const credit = i.kind === 'credit-note',
    root = credit ? 'CreditNote' : 'Invoice',
    money = (tag: string, value: string) => `<cbc:${tag} currencyID="${i.currency}">${value}</cbc:${tag}>`;
  const tax = (tag: string, rate: string) =>
    `<cac:${tag}><cbc:ID>${category(rate)}</cbc:ID><cbc:Percent>${rate}</cbc:Percent><cac:TaxScheme><cbc:ID>VAT</cbc:ID></cac:TaxScheme></cac:${tag}>`;
  const party = (name: string, taxId: string, lines: string[], country: string) =>
    `<cac:Party><cac:PostalAddress><cbc:StreetName>${escape(lines[0] ?? '')}</cbc:StreetName><cbc:CityName>${escape(lines[1] ?? '')}</cbc:CityName><cac:Country><cbc:IdentificationCode>${country}</cbc:IdentificationCode></cac:Country></cac:PostalAddress><cac:PartyTaxScheme><cbc:CompanyID>${taxId}</cbc:CompanyID><cac:TaxScheme><cbc:ID>VAT</cbc:ID></cac:TaxScheme></cac:PartyTaxScheme><cac:PartyLegalEntity><cbc:RegistrationName>${escape(name)}</cbc:RegistrationName></cac:PartyLegalEntity></cac:Party>`;
  return `<?xml version="1.0" encoding="UTF-8"?>
<${root} xmlns="urn:oasis:names:specification:ubl:schema:xsd:${root}-2" xmlns:cac="urn:oasis:names:specification:ubl:schema:xsd:CommonAggregateComponents-2" xmlns:cbc="urn:oasis:names:specification:ubl:schema:xsd:CommonBasicComponents-2">
<cbc:CustomizationID>urn:cen.eu:en16931:2017</cbc:CustomizationID><cbc:ID>${escape(i.number)}</cbc:ID><cbc:IssueDate>${i.issueDate}</cbc:IssueDate>${credit ? '' : `<cbc:DueDate>${i.dueDate}</cbc:DueDate>`}<cbc:${root}TypeCode>${credit ? 381 : 380}</cbc:${root}TypeCode><cbc:DocumentCurrencyCode>${i.currency}</cbc:DocumentCurrencyCode>
${i.purchaseOrder ? `<cac:OrderReference><cbc:ID>${escape(i.purchaseOrder)}</cbc:ID></cac:OrderReference>` : ''}${inside}
<cac:AccountingSupplierParty>${party(i.supplier.name, i.supplier.taxId, [i.supplier.street, i.supplier.town], i.supplier.country)}</cac:AccountingSupplierParty>
<cac:AccountingCustomerParty>${party(i.buyer.name, 'GB402771935', i.buyer.address, 'GB')}</cac:AccountingCustomerParty>
${i.supplier.iban ? `<cac:PaymentMeans><cbc:PaymentMeansCode>30</cbc:PaymentMeansCode><cac:PayeeFinancialAccount><cbc:ID>${i.supplier.iban}</cbc:ID></cac:PayeeFinancialAccount></cac:PaymentMeans>` : ''}<cac:PaymentTerms><cbc:Note>${escape(i.terms)}</cbc:Note></cac:PaymentTerms>
${i.charge ? `<cac:AllowanceCharge><cbc:ChargeIndicator>true</cbc:ChargeIndicator><cbc:AllowanceChargeReason>${escape(i.charge.label)}</cbc:AllowanceChargeReason>${money('Amount', i.charge.amount)}${tax('TaxCategory', mainRate(i))}</cac:AllowanceCharge>` : ''}
<cac:TaxTotal>${money('TaxAmount', i.tax)}${i.taxes.map((t) => `<cac:TaxSubtotal>${money('TaxableAmount', t.net)}${money('TaxAmount', t.tax)}${tax('TaxCategory', t.rate)}</cac:TaxSubtotal>`).join('')}</cac:TaxTotal>
<cac:LegalMonetaryTotal>${money('LineExtensionAmount', goods(i))}${money('TaxExclusiveAmount', i.net)}${money('TaxInclusiveAmount', i.gross)}${i.charge ? money('ChargeTotalAmount', i.charge.amount) : ''}${money('PayableAmount', i.gross)}</cac:LegalMonetaryTotal>
${i.lines.map((l, n) => `<cac:${root}Line><cbc:ID>${n + 1}</cbc:ID><cbc:${credit ? 'Credited' : 'Invoiced'}Quantity unitCode="H87">${l.quantity}</cbc:${credit ? 'Credited' : 'Invoiced'}Quantity>${money('LineExtensionAmount', l.amount)}<cac:Item><cbc:Name>${escape(l.text)}</cbc:Name>${l.code ? `<cac:SellersItemIdentification><cbc:ID>${escape(l.code)}</cbc:ID></cac:SellersItemIdentification>` : ''}${tax('ClassifiedTaxCategory', l.rate)}</cac:Item><cac:Price>${money('PriceAmount', l.price)}</cac:Price></cac:${root}Line>`).join('\n')}
</${root}>`;
}

/** An invoice as a Cross Industry Invoice after EN 16931. */
export function ciiOf(i: Invoice, profile = 'urn:cen.eu:en16931:2017'): string {
  const tax = (tag: string, rate: string, amounts = '') =>
    `<ram:${tag}>${amounts}<ram:TypeCode>VAT</ram:TypeCode><ram:CategoryCode>${category(rate)}</ram:CategoryCode><ram:RateApplicablePercent>${rate}</ram:RateApplicablePercent></ram:${tag}>`;
  const party = (tag: string, name: string, taxId: string, lines: string[], country: string) =>
    `<ram:${tag}><ram:Name>${escape(name)}</ram:Name><ram:PostalTradeAddress><ram:LineOne>${escape(lines[0] ?? '')}</ram:LineOne><ram:CityName>${escape(lines[1] ?? '')}</ram:CityName><ram:CountryID>${country}</ram:CountryID></ram:PostalTradeAddress><ram:SpecifiedTaxRegistration><ram:ID schemeID="VA">${taxId}</ram:ID></ram:SpecifiedTaxRegistration></ram:${tag}>`;
  const date = (iso: string) => `<udt:DateTimeString format="102">${day(iso)}</udt:DateTimeString>`;
  return `<?xml version="1.0" encoding="UTF-8"?>
<rsm:CrossIndustryInvoice xmlns:rsm="urn:un:unece:uncefact:data:standard:CrossIndustryInvoice:100" xmlns:ram="urn:un:unece:uncefact:data:standard:ReusableAggregateBusinessInformationEntity:100" xmlns:udt="urn:un:unece:uncefact:data:standard:UnqualifiedDataType:100">
<rsm:ExchangedDocumentContext><ram:GuidelineSpecifiedDocumentContextParameter><ram:ID>${profile}</ram:ID></ram:GuidelineSpecifiedDocumentContextParameter></rsm:ExchangedDocumentContext>
<rsm:ExchangedDocument><ram:ID>${escape(i.number)}</ram:ID><ram:TypeCode>${i.kind === 'credit-note' ? 381 : 380}</ram:TypeCode><ram:IssueDateTime>${date(i.issueDate)}</ram:IssueDateTime></rsm:ExchangedDocument>
<rsm:SupplyChainTradeTransaction>
${i.lines.map((l, n) => `<ram:IncludedSupplyChainTradeLineItem><ram:AssociatedDocumentLineDocument><ram:LineID>${n + 1}</ram:LineID></ram:AssociatedDocumentLineDocument><ram:SpecifiedTradeProduct>${l.code ? `<ram:SellerAssignedID>${escape(l.code)}</ram:SellerAssignedID>` : ''}<ram:Name>${escape(l.text)}</ram:Name></ram:SpecifiedTradeProduct><ram:SpecifiedLineTradeAgreement><ram:NetPriceProductTradePrice><ram:ChargeAmount>${l.price}</ram:ChargeAmount></ram:NetPriceProductTradePrice></ram:SpecifiedLineTradeAgreement><ram:SpecifiedLineTradeDelivery><ram:BilledQuantity unitCode="H87">${l.quantity}</ram:BilledQuantity></ram:SpecifiedLineTradeDelivery><ram:SpecifiedLineTradeSettlement>${tax('ApplicableTradeTax', l.rate)}<ram:SpecifiedTradeSettlementLineMonetarySummation><ram:LineTotalAmount>${l.amount}</ram:LineTotalAmount></ram:SpecifiedTradeSettlementLineMonetarySummation></ram:SpecifiedLineTradeSettlement></ram:IncludedSupplyChainTradeLineItem>`).join('\n')}
<ram:ApplicableHeaderTradeAgreement>${party('SellerTradeParty', i.supplier.name, i.supplier.taxId, [i.supplier.street, i.supplier.town], i.supplier.country)}${party('BuyerTradeParty', i.buyer.name, 'GB402771935', i.buyer.address, 'GB')}${i.purchaseOrder ? `<ram:BuyerOrderReferencedDocument><ram:IssuerAssignedID>${escape(i.purchaseOrder)}</ram:IssuerAssignedID></ram:BuyerOrderReferencedDocument>` : ''}</ram:ApplicableHeaderTradeAgreement>
<ram:ApplicableHeaderTradeSettlement><ram:InvoiceCurrencyCode>${i.currency}</ram:InvoiceCurrencyCode>${i.supplier.iban ? `<ram:SpecifiedTradeSettlementPaymentMeans><ram:TypeCode>30</ram:TypeCode><ram:PayeePartyCreditorFinancialAccount><ram:IBANID>${i.supplier.iban}</ram:IBANID></ram:PayeePartyCreditorFinancialAccount></ram:SpecifiedTradeSettlementPaymentMeans>` : ''}
${i.taxes.map((t) => tax('ApplicableTradeTax', t.rate, `<ram:CalculatedAmount>${t.tax}</ram:CalculatedAmount><ram:BasisAmount>${t.net}</ram:BasisAmount>`)).join('')}
${i.charge ? `<ram:SpecifiedTradeAllowanceCharge><ram:ChargeIndicator><udt:Indicator>true</udt:Indicator></ram:ChargeIndicator><ram:ActualAmount>${i.charge.amount}</ram:ActualAmount><ram:Reason>${escape(i.charge.label)}</ram:Reason>${tax('CategoryTradeTax', mainRate(i))}</ram:SpecifiedTradeAllowanceCharge>` : ''}
<ram:SpecifiedTradePaymentTerms><ram:Description>${escape(i.terms)}</ram:Description>${i.kind === 'credit-note' ? '' : `<ram:DueDateDateTime>${date(i.dueDate)}</ram:DueDateDateTime>`}</ram:SpecifiedTradePaymentTerms>
<ram:SpecifiedTradeSettlementHeaderMonetarySummation><ram:LineTotalAmount>${goods(i)}</ram:LineTotalAmount>${i.charge ? `<ram:ChargeTotalAmount>${i.charge.amount}</ram:ChargeTotalAmount>` : ''}<ram:TaxBasisTotalAmount>${i.net}</ram:TaxBasisTotalAmount><ram:TaxTotalAmount currencyID="${i.currency}">${i.tax}</ram:TaxTotalAmount><ram:GrandTotalAmount>${i.gross}</ram:GrandTotalAmount><ram:DuePayableAmount>${i.gross}</ram:DuePayableAmount></ram:SpecifiedTradeSettlementHeaderMonetarySummation></ram:ApplicableHeaderTradeSettlement>
</rsm:SupplyChainTradeTransaction></rsm:CrossIndustryInvoice>`;
}

/** A PDF with the invoice's data inside, as hybrid invoices have it. Data and page may be given apart, to differ. */
export async function hybridOf(page: Invoice, data = ciiOf(page), name = 'factur-x.xml'): Promise<Uint8Array> {
  const pdf = await PDFDocument.load(await makePdf(page));
  const when = new Date(`${page.issueDate}T09:00:00Z`);
  await pdf.attach(new TextEncoder().encode(data), name, {
    mimeType: 'text/xml',
    afRelationship: AFRelationship.Alternative,
    creationDate: when,
    modificationDate: when,
  });
  return pdf.save();
}

/** Several documents in one PDF, as a scanner leaves a pile. */
export async function pileOf(invoices: Invoice[]): Promise<Uint8Array> {
  const pile = await PDFDocument.create();
  for (const invoice of invoices) {
    const one = await PDFDocument.load(await makePdf(invoice));
    for (const page of await pile.copyPages(one, one.getPageIndices())) pile.addPage(page);
  }
  return pile.save();
}
