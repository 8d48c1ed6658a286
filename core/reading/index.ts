export { readDocument, sure, unread } from './read.ts';
export { toFormat } from './format.ts';
export { findIbans, isIban } from './iban.ts';
export { findEmails, squash } from './identifiers.ts';
export { findTaxIds } from './taxnumbers.ts';
export {
  headerFields,
  type FurtherCell,
  type HeaderField,
  type Kind,
  type Read,
  type ReadCharge,
  type Reading,
  type ReadLine,
  type ReadTax,
} from './types.ts';
export { headOf, sumsClose } from './head.ts';
export { readScanned, type ScannedReading } from './scanned.ts';
export type { Spot, SpotSeen } from './secondlook.ts';
export type { Context, Known } from './head/index.ts';
export { alike } from './head/namefeatures.ts';
export { headerPaths } from './paths.ts';
