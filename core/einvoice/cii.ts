import type { Adjustment, EInvoice, EInvoiceLine, Party } from './types.ts';
import { isCreditCode } from './ubl.ts';
import { all, at, dayOfText, textAt, type Element } from './xml.ts';

function dateAt(element: Element | null, ...path: string[]): string | null {
  return dayOfText(textAt(element, ...path, 'DateTimeString') ?? textAt(element, ...path, 'DateString') ?? textAt(element, ...path));
}

function adjustmentOf(e: Element): Adjustment {
  return {
    charge: textAt(e, 'ChargeIndicator', 'Indicator') === 'true',
    amount: textAt(e, 'ActualAmount'),
    base: textAt(e, 'BasisAmount'),
    percent: textAt(e, 'CalculationPercent'),
    reason: textAt(e, 'Reason') ?? textAt(e, 'ReasonCode'),
    category: textAt(e, 'CategoryTradeTax', 'CategoryCode'),
    rate: textAt(e, 'CategoryTradeTax', 'RateApplicablePercent'),
  };
}

function partyOf(party: Element | null): Party {
  const address = at(party, 'PostalTradeAddress');
  const tax =
    all(party, 'SpecifiedTaxRegistration')
      .map((r) => at(r, 'ID'))
      .find((id) => id?.attributes['schemeID'] === 'VA') ?? null;
  const place = [textAt(address, 'PostcodeCode'), textAt(address, 'CityName')].filter(Boolean).join(' ');
  return {
    name: textAt(party, 'Name'),
    taxId: tax?.text || null,
    registration: textAt(party, 'SpecifiedLegalOrganization', 'ID') ?? textAt(party, 'ID') ?? textAt(party, 'GlobalID'),
    address: [textAt(address, 'LineOne'), textAt(address, 'LineTwo'), place].filter((line): line is string => Boolean(line)),
    country: textAt(address, 'CountryID'),
    email: textAt(party, 'DefinedTradeContact', 'EmailURIUniversalCommunication', 'URIID'),
  };
}

function lineOf(e: Element): EInvoiceLine {
  const product = at(e, 'SpecifiedTradeProduct'),
    price = at(e, 'SpecifiedLineTradeAgreement', 'NetPriceProductTradePrice'),
    settlement = at(e, 'SpecifiedLineTradeSettlement');
  const quantity = at(e, 'SpecifiedLineTradeDelivery', 'BilledQuantity'),
    tax = at(settlement, 'ApplicableTradeTax');
  return {
    id: textAt(e, 'AssociatedDocumentLineDocument', 'LineID'),
    name: textAt(product, 'Name'),
    description: textAt(product, 'Description'),
    code: textAt(product, 'SellerAssignedID'),
    quantity: quantity?.text || null,
    unit: quantity?.attributes['unitCode'] ?? null,
    price: textAt(price, 'ChargeAmount'),
    priceQuantity: textAt(price, 'BasisQuantity'),
    amount: textAt(settlement, 'SpecifiedTradeSettlementLineMonetarySummation', 'LineTotalAmount'),
    category: textAt(tax, 'CategoryCode'),
    rate: textAt(tax, 'RateApplicablePercent'),
    adjustments: all(settlement, 'SpecifiedTradeAllowanceCharge').map(adjustmentOf),
  };
}

/** Reads a UN/CEFACT Cross Industry Invoice, D16B (EN 16931-3-3), in any of its profiles. */
export function fromCii(root: Element): EInvoice {
  const context = at(root, 'ExchangedDocumentContext'),
    head = at(root, 'ExchangedDocument'),
    deal = at(root, 'SupplyChainTradeTransaction');
  const agreement = at(deal, 'ApplicableHeaderTradeAgreement'),
    settlement = at(deal, 'ApplicableHeaderTradeSettlement'),
    sums = at(settlement, 'SpecifiedTradeSettlementHeaderMonetarySummation');
  const typeCode = textAt(head, 'TypeCode'),
    currency = textAt(settlement, 'InvoiceCurrencyCode');
  const means = all(settlement, 'SpecifiedTradeSettlementPaymentMeans'),
    account = means.find((m) => at(m, 'PayeePartyCreditorFinancialAccount')) ?? null;
  const terms = all(settlement, 'SpecifiedTradePaymentTerms'),
    taxSums = all(sums, 'TaxTotalAmount');
  return {
    syntax: 'CII',
    profile: textAt(context, 'GuidelineSpecifiedDocumentContextParameter', 'ID'),
    kind: isCreditCode(typeCode) ? 'credit-note' : 'invoice',
    typeCode,
    number: textAt(head, 'ID'),
    issueDate: dateAt(head, 'IssueDateTime'),
    dueDate: terms.map((t) => dateAt(t, 'DueDateDateTime')).find(Boolean) ?? null,
    deliveryDate: dateAt(deal, 'ApplicableHeaderTradeDelivery', 'ActualDeliverySupplyChainEvent', 'OccurrenceDateTime'),
    terms: terms.map((t) => textAt(t, 'Description')).find(Boolean) ?? null,
    currency,
    orderReference: textAt(agreement, 'BuyerOrderReferencedDocument', 'IssuerAssignedID'),
    buyerReference: textAt(agreement, 'BuyerReference'),
    precedingInvoice: textAt(settlement, 'InvoiceReferencedDocument', 'IssuerAssignedID'),
    notes: all(head, 'IncludedNote')
      .map((n) => textAt(n, 'Content') ?? '')
      .filter(Boolean),
    seller: partyOf(at(agreement, 'SellerTradeParty')),
    buyer: partyOf(at(agreement, 'BuyerTradeParty')),
    payment: {
      iban:
        textAt(account, 'PayeePartyCreditorFinancialAccount', 'IBANID') ??
        textAt(account, 'PayeePartyCreditorFinancialAccount', 'ProprietaryID'),
      bic: textAt(account, 'PayeeSpecifiedCreditorFinancialInstitution', 'BICID'),
      reference: textAt(settlement, 'PaymentReference'),
    },
    lines: all(deal, 'IncludedSupplyChainTradeLineItem').map(lineOf),
    adjustments: all(settlement, 'SpecifiedTradeAllowanceCharge').map(adjustmentOf),
    taxes: all(settlement, 'ApplicableTradeTax').map((t) => ({
      category: textAt(t, 'CategoryCode'),
      rate: textAt(t, 'RateApplicablePercent'),
      base: textAt(t, 'BasisAmount'),
      tax: textAt(t, 'CalculatedAmount'),
      reason: textAt(t, 'ExemptionReason') ?? textAt(t, 'ExemptionReasonCode'),
    })),
    totals: {
      lines: textAt(sums, 'LineTotalAmount'),
      allowances: textAt(sums, 'AllowanceTotalAmount'),
      charges: textAt(sums, 'ChargeTotalAmount'),
      net: textAt(sums, 'TaxBasisTotalAmount'),
      tax: (taxSums.find((t) => t.attributes['currencyID'] === currency) ?? taxSums[0])?.text || null,
      gross: textAt(sums, 'GrandTotalAmount'),
      prepaid: textAt(sums, 'TotalPrepaidAmount'),
      rounding: textAt(sums, 'RoundingAmount'),
      payable: textAt(sums, 'DuePayableAmount'),
    },
    attachments: all(agreement, 'AdditionalReferencedDocument').flatMap((d) => {
      const object = at(d, 'AttachmentBinaryObject');
      return object?.text
        ? [
            {
              name: object.attributes['filename'] ?? textAt(d, 'IssuerAssignedID') ?? 'attachment',
              mediaType: object.attributes['mimeCode'] ?? 'application/octet-stream',
              base64: object.text,
            },
          ]
        : [];
    }),
  };
}
