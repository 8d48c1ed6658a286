import { fromCii } from './cii.ts';
import type { EInvoice } from './types.ts';
import { fromUbl } from './ubl.ts';
import { parseXml, UnreadableXml, type XmlLimits } from './xml.ts';

export type { EInvoice, EInvoiceLine, Adjustment, Party, TaxShare } from './types.ts';
export { UnreadableXml } from './xml.ts';
export { check, type Broken } from './rules.ts';
export { toReading } from './reading.ts';
export { compare, withMarks, type Difference } from './compare.ts';
export { render } from './render.ts';
export { unitWord } from './units.ts';

/**
 * Reads an e-invoice after EN 16931 from its XML, whichever of the two syntaxes. Throws UnreadableXml for what is no such file or
 * is hostile.
 */
export function readEInvoice(bytes: Uint8Array, limits?: XmlLimits): EInvoice {
  const root = parseXml(bytes, limits);
  if ((root.name === 'Invoice' || root.name === 'CreditNote') && root.ns.startsWith('urn:oasis:names:specification:ubl:schema:xsd:'))
    return fromUbl(root);
  if (root.name === 'CrossIndustryInvoice' && root.ns.startsWith('urn:un:unece:uncefact:data:standard:CrossIndustryInvoice'))
    return fromCii(root);
  throw new UnreadableXml('This XML file is not an e-invoice that Ledgerline knows (UBL or CII after EN 16931). It is kept as it came.');
}

/** True for a file that begins like XML. */
export const looksLikeXml = (bytes: Uint8Array): boolean => {
  const head = new TextDecoder(bytes[0] === 0xff && bytes[1] === 0xfe ? 'utf-16le' : bytes[0] === 0xfe ? 'utf-16be' : 'utf-8')
    .decode(bytes.subarray(0, 400))
    .replace(/^\uFEFF/, '')
    .trimStart();
  return /^<(\?xml|[A-Za-z][\w.-]*[:\s/>]|!--|!DOCTYPE)/.test(head) && !/^<(!doctype )?html/i.test(head);
};
