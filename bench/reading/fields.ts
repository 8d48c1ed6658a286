import { headerPaths } from '../../core/reading/paths.ts';

/** Paths of the header that are compared with the truth. */
export const header: readonly string[] = ['kind', ...Object.values(headerPaths).filter((path) => path !== 'paymentTerms')];

/** What a bill cannot be posted without: a document counts as right when these and its lines are. */
export const needed: ReadonlySet<string> = new Set(
  header.filter((path) => !['supplier.taxId', 'supplier.iban', 'buyer.name'].includes(path)),
);
