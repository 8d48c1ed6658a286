import { en } from './en.ts';
import { de } from './de.ts';
import { es } from './es.ts';
import { fr } from './fr.ts';
import { it } from './it.ts';
import { nl } from './nl.ts';
import { sv } from './sv.ts';
import { tokensOf } from './tokens.ts';
import type { Lexicon } from './types.ts';

export type { FieldLabel, ColumnLabel, TotalLabel, KindLabel } from './types.ts';

const languages: Lexicon[] = [en, de, fr, nl, es, it, sv];

export interface Phrase<Role> {
  tokens: string[];
  role: Role;
  weak: boolean;
}
/** Phrases by their first token, longest first, and every word that stands in one. */
export interface PhraseBook<Role> {
  phrases: Map<string, Phrase<Role>[]>;
  words: ReadonlySet<string>;
}

function book<Role extends string>(pick: (lexicon: Lexicon) => Partial<Record<Role, string[]>>): PhraseBook<Role> {
  const map = new Map<string, Phrase<Role>[]>(),
    words = new Set<string>();
  const seen = new Set<string>();
  for (const lexicon of languages)
    for (const [role, phrases] of Object.entries(pick(lexicon)) as [Role, string[]][])
      for (const raw of phrases) {
        const weak = raw.startsWith('?');
        const tokens = (weak ? raw.slice(1) : raw).split(' ').flatMap(tokensOf);
        if (tokens.length === 0 || seen.has(tokens.join(' '))) continue;
        seen.add(tokens.join(' '));
        for (const token of tokens) words.add(token);
        const list = map.get(tokens[0]!) ?? [];
        list.push({ tokens, role, weak });
        map.set(
          tokens[0]!,
          list.sort((a, b) => b.tokens.length - a.tokens.length),
        );
      }
  return { phrases: map, words };
}

export const fieldBook = book((l) => l.fields);
export const columnBook = book((l) => l.columns);
export const totalBook = book((l) => l.totals);
export const kindBook = book((l) => l.kinds);

const units = new Set(languages.flatMap((l) => l.units.split(' ')));
/** Whether a word is a unit in which things are counted, weighed or timed: "kg", "Stück", "pcs.". */
export const isUnit = (text: string): boolean => units.has(text.normalize('NFKD').replace(/\p{M}/gu, '').toLowerCase().replace(/\.$/, ''));
