import { alike } from '../reading/index.ts';
import type { ImportField, ListSpec } from './types.ts';

/** Which field each column holds, by the columns' order; null for a column that is left out. */
export type Mapping = (string | null)[];

const plain = (text: string): string =>
  text
    .normalize('NFKD')
    .replace(/\p{M}/gu, '')
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, ' ')
    .trim();

/** Less alike than this is another thing. */
const enough = 0.72;

/** The name itself tells most, then its other names in their order: the first are the usual ones. */
function fit(head: string, field: ImportField): number {
  const own = alike(head, plain(field.label));
  const others = field.names.map((other, i) => alike(head, plain(other)) * 0.99 - 0.001 * i);
  return Math.max(own, ...others);
}

/** The likeliest field of each column, each field once, the surest first. */
export function likelyMapping(heads: readonly string[], spec: ListSpec): Mapping {
  const fits = heads.flatMap((head, column) =>
    spec.fields.map((field) => ({ column, key: field.key, share: plain(head) ? fit(plain(head), field) : 0 })),
  );
  const mapping: Mapping = heads.map(() => null);
  for (const { column, key } of fits.filter((f) => f.share >= enough).sort((a, b) => b.share - a.share))
    if (mapping[column] === null && !mapping.includes(key)) mapping[column] = key;
  return mapping;
}

/** What keeps a mapping from being used: a field twice, or one that is needed and has no column. Null where it can be. */
export function mappingFault(mapping: Mapping, spec: ListSpec): string | null {
  const chosen = mapping.filter((key) => key !== null);
  const label = (key: string) => spec.fields.find((f) => f.key === key)?.label;
  const unknown = chosen.find((key) => label(key) === undefined);
  if (unknown !== undefined) return 'A column is for a field that this list does not have. Choose it again.';
  const twice = chosen.find((key, i) => chosen.indexOf(key) < i);
  if (twice !== undefined) return `Two columns are for ${label(twice)}. Choose one of them.`;
  const missing = spec.fields.filter((f) => f.required && !chosen.includes(f.key)).map((f) => f.label);
  return missing.length > 0 ? `Say which column holds: ${missing.join(', ')}.` : null;
}
