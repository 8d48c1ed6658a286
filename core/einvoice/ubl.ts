import type { Adjustment, EInvoice, EInvoiceLine, Party } from './types.ts';
import { all, at, dayOfText, textAt, type Element } from './xml.ts';

const adjustmentOf = (e: Element): Adjustment => ({
  charge: textAt(e, 'ChargeIndicator') === 'true',
  amount: textAt(e, 'Amount'),
  base: textAt(e, 'BaseAmount'),
  percent: textAt(e, 'MultiplierFactorNumeric'),
  reason: textAt(e, 'AllowanceChargeReason') ?? textAt(e, 'AllowanceChargeReasonCode'),
  category: textAt(e, 'TaxCategory', 'ID'),
  rate: textAt(e, 'TaxCategory', 'Percent'),
});

function partyOf(party: Element | null): Party {
  const address = at(party, 'PostalAddress');
  const tax = all(party, 'PartyTaxScheme').find((t) => textAt(t, 'TaxScheme', 'ID')?.toUpperCase() === 'VAT') ?? null;
  const place = [textAt(address, 'PostalZone'), textAt(address, 'CityName')].filter(Boolean).join(' ');
  return {
    name: textAt(party, 'PartyLegalEntity', 'RegistrationName') ?? textAt(party, 'PartyName', 'Name'),
    taxId: textAt(tax, 'CompanyID'),
    registration: textAt(party, 'PartyLegalEntity', 'CompanyID') ?? textAt(party, 'PartyIdentification', 'ID'),
    address: [textAt(address, 'StreetName'), textAt(address, 'AdditionalStreetName'), place].filter((line): line is string =>
      Boolean(line),
    ),
    country: textAt(address, 'Country', 'IdentificationCode'),
    email: textAt(party, 'Contact', 'ElectronicMail'),
  };
}

function lineOf(e: Element): EInvoiceLine {
  const quantity = at(e, 'InvoicedQuantity') ?? at(e, 'CreditedQuantity'),
    item = at(e, 'Item'),
    price = at(e, 'Price');
  const category = at(item, 'ClassifiedTaxCategory');
  return {
    id: textAt(e, 'ID'),
    name: textAt(item, 'Name'),
    description: textAt(item, 'Description'),
    code: textAt(item, 'SellersItemIdentification', 'ID'),
    quantity: quantity?.text || null,
    unit: quantity?.attributes['unitCode'] ?? null,
    price: textAt(price, 'PriceAmount'),
    priceQuantity: textAt(price, 'BaseQuantity'),
    amount: textAt(e, 'LineExtensionAmount'),
    category: textAt(category, 'ID'),
    rate: textAt(category, 'Percent'),
    adjustments: all(e, 'AllowanceCharge').map(adjustmentOf),
  };
}

/** Reads a UBL 2.1 Invoice or CreditNote (EN 16931-3-2). */
export function fromUbl(root: Element): EInvoice {
  const credit = root.name === 'CreditNote';
  const currency = textAt(root, 'DocumentCurrencyCode');
  const inCurrency = (list: Element[]): Element | null =>
    list.find((t) => at(t, 'TaxAmount')?.attributes['currencyID'] === currency) ?? list[0] ?? null;
  const tax = inCurrency(all(root, 'TaxTotal')),
    totals = at(root, 'LegalMonetaryTotal');
  const typeCode = textAt(root, 'InvoiceTypeCode') ?? textAt(root, 'CreditNoteTypeCode');
  const means = all(root, 'PaymentMeans'),
    account = means.map((m) => at(m, 'PayeeFinancialAccount')).find((a) => a !== null) ?? null;
  return {
    syntax: 'UBL',
    profile: textAt(root, 'CustomizationID'),
    kind: credit || isCreditCode(typeCode) ? 'credit-note' : 'invoice',
    typeCode,
    number: textAt(root, 'ID'),
    issueDate: dayOfText(textAt(root, 'IssueDate')),
    dueDate: [textAt(root, 'DueDate'), ...means.map((m) => textAt(m, 'PaymentDueDate'))].map(dayOfText).find(Boolean) ?? null,
    deliveryDate: dayOfText(textAt(root, 'Delivery', 'ActualDeliveryDate')),
    terms: textAt(root, 'PaymentTerms', 'Note'),
    currency,
    orderReference: textAt(root, 'OrderReference', 'ID'),
    buyerReference: textAt(root, 'BuyerReference'),
    precedingInvoice: textAt(root, 'BillingReference', 'InvoiceDocumentReference', 'ID'),
    notes: all(root, 'Note')
      .map((n) => n.text)
      .filter(Boolean),
    seller: partyOf(at(root, 'AccountingSupplierParty', 'Party')),
    buyer: partyOf(at(root, 'AccountingCustomerParty', 'Party')),
    payment: {
      iban: textAt(account, 'ID'),
      bic: textAt(account, 'FinancialInstitutionBranch', 'ID'),
      reference: means.map((m) => textAt(m, 'PaymentID')).find(Boolean) ?? null,
    },
    lines: all(root, credit ? 'CreditNoteLine' : 'InvoiceLine').map(lineOf),
    adjustments: all(root, 'AllowanceCharge').map(adjustmentOf),
    taxes: all(tax, 'TaxSubtotal').map((t) => ({
      category: textAt(t, 'TaxCategory', 'ID'),
      rate: textAt(t, 'TaxCategory', 'Percent'),
      base: textAt(t, 'TaxableAmount'),
      tax: textAt(t, 'TaxAmount'),
      reason: textAt(t, 'TaxCategory', 'TaxExemptionReason') ?? textAt(t, 'TaxCategory', 'TaxExemptionReasonCode'),
    })),
    totals: {
      lines: textAt(totals, 'LineExtensionAmount'),
      allowances: textAt(totals, 'AllowanceTotalAmount'),
      charges: textAt(totals, 'ChargeTotalAmount'),
      net: textAt(totals, 'TaxExclusiveAmount'),
      tax: textAt(tax, 'TaxAmount'),
      gross: textAt(totals, 'TaxInclusiveAmount'),
      prepaid: textAt(totals, 'PrepaidAmount'),
      rounding: textAt(totals, 'PayableRoundingAmount'),
      payable: textAt(totals, 'PayableAmount'),
    },
    attachments: all(root, 'AdditionalDocumentReference').flatMap((r) => {
      const object = at(r, 'Attachment', 'EmbeddedDocumentBinaryObject');
      return object?.text
        ? [
            {
              name: object.attributes['filename'] ?? textAt(r, 'ID') ?? 'attachment',
              mediaType: object.attributes['mimeCode'] ?? 'application/octet-stream',
              base64: object.text,
            },
          ]
        : [];
    }),
  };
}

/** Codes of UNTDID 1001 that stand for a credit note. */
export const isCreditCode = (code: string | null): boolean =>
  ['381', '396', '261', '262', '81', '83', '308', '420', '458', '532'].includes(code ?? '');
