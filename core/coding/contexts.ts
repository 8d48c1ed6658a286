import { plainName } from '../matching/index.ts';
import type { LineSaid } from './types.ts';

/** How a context is called in a reason, and how it weighs: from the most general to the most particular. */
export type ContextKind =
  'company' | 'words' | 'supplier' | 'season' | 'size' | 'supplier words' | 'description' | 'description and size' | 'code';
/** Contexts of one kind: several where a line has several words. */
export interface Contexts {
  kind: ContextKind;
  keys: string[];
  /** What each key stands for, for a person: the word, the item code. */ said: string[];
}

/** A line among the contexts that it stands in, the general ones first. */
export interface Standing {
  supplierId: string | null;
  contexts: Contexts[];
}

/** Words of fewer letters, and figures, tell nothing of what a line is for. */
const shortest = 3,
  mostWords = 12;

/** The words that tell what a line is for, each once. */
export const tellingWords = (text: string): string[] =>
  [...new Set(plainName(text).split(' '))].filter((w) => w.length >= shortest && !/\d/.test(w)).slice(0, mostWords);

/** Amounts of about the same size: two steps for each factor of ten. */
const sizeOf = (amount: string | null): string | null => {
  const value = Math.abs(Number(amount ?? 0));
  return value > 0 ? String(Math.floor(2 * Math.log10(value))) : null;
};
const seasonOf = (day: string | null): string | null => (day ? String(Math.floor((Number(day.slice(5, 7)) - 1) / 3)) : null);

/** In what contexts a line stands. What is learned of it is kept under their keys. */
export function contextsOf(line: LineSaid): Standing {
  const words = tellingWords(line.description),
    text = [...words].sort().join(' '),
    size = sizeOf(line.amount),
    season = seasonOf(line.day),
    own = line.supplierId ? `s:${line.supplierId}` : null;
  const one = (kind: ContextKind, key: string | null, said = ''): Contexts[] => (key === null ? [] : [{ kind, keys: [key], said: [said] }]);
  const all: Contexts[] = [...one('company', 'all'), { kind: 'words', keys: words.map((w) => `w:${w}`), said: words }];
  if (!own) return { supplierId: null, contexts: all };
  const contexts: Contexts[] = [
    ...all,
    ...one('supplier', own),
    ...one('season', season && `${own} q:${season}`),
    ...one('size', size && `${own} a:${size}`),
    { kind: 'supplier words', keys: words.map((w) => `${own} w:${w}`), said: words },
    ...one('description', text ? `${own} d:${text}` : null),
    ...one('description and size', text && size ? `${own} d:${text} a:${size}` : null),
    ...one('code', line.code ? `${own} c:${line.code}` : null, line.code ?? ''),
  ];
  return { supplierId: line.supplierId, contexts };
}
