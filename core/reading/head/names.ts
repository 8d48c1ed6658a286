import { union, type Mark, type Segment } from '../../page/index.ts';
import type { Layout } from '../layout.ts';
import { plainWord } from '../learned/features.ts';
import { bearsHead, type Surroundings } from './around.ts';
import { hasLetters } from '../letters.ts';

/** A company as the application knows it. */
export interface Known {
  name: string;
  taxId?: string | null | undefined;
  iban?: string | null | undefined;
  email?: string | null | undefined;
  address?: string | null | undefined;
}

/** A printed piece that may be somebody's name. */
export interface PrintedName {
  at: number;
  segment: Segment;
  text: string;
  /** Its words, in lower case without signs. */ plain: string;
  /** Part of a longer piece. */ part: boolean;
  /** Two pieces under each other: printed alike, or not. */ stacked: 'alike' | 'other' | null;
  mark: Mark;
}

export const plainName = (text: string): string =>
  text
    .split(/[^\p{L}\p{N}]+/u)
    .map(plainWord)
    .filter(Boolean)
    .join(' ');

/** What parts a name from what stands beside it in the same piece. */
const seams =
  /\s+[|·•–—-]\s+|,\s+|;\s+|\s+(?:for|to|trading as|t\/a|on behalf of|account name|in favour of|au nom de|op naam van|ten name van|t\.n\.v\.|an)\s+|[()"“”]|:\s+|\s{2,}/iu;
const legalForms =
  's c a|s coop|soc coop|sccl|ltd|limited|plc|llp|llc|lp|inc|incorporated|corp|corporation|co|company|cic|cio|gmbh|mbh|ag|kg|kgaa|ohg|ug|gbr|e k|ek|e v|eg|e g|bv|b v|nv|n v|vof|v o f|cv|bvba|vzw|sarl|s a r l|sas|s a s|sa|s a|eurl|sasu|snc|s n c|sci|scop|scea|gaec|sl|s l|slu|s c|c b|srl|s r l|srls|spa|s p a|sas di|ab|hb|kb|aktiebolag|as|a s|asa|ans|da|enk|oy|oyj|ky|ay|tmi|osk|aps|ivs|i s|k s|lda|ltda|unipessoal lda|sp z o o|z o o|sp j|sp k|s j|s r o|spol s r o|v o s|a s|kk|k k|gk|pty|pty ltd|pvt ltd|pte ltd|kft|doo|d o o|zn|zn en zn|zoon|zonen|en zonen|sohn|sohne|fils|et fils|hijos|figli|e figli|filhos|synowie|and sons|and daughters|sons|daughters|brothers|bros|gebr|partners|associates|partnership|cooperative|co operative';
export const legalForm = new RegExp(`(?:^| )(${legalForms})$`);
/** Legal forms as they are written at the end of a name in running text. */
const endsName =
  /^(Ltd|Limited|PLC|plc|LLP|LLC|Inc|Corp|CIC|GmbH|AG|KG|e\.?K|eG|OHG|UG|B\.?V|N\.?V|V\.?O\.?F|SARL|S\.A\.R\.L|SAS|S\.A\.S|SA|S\.A|EURL|SNC|s\.n\.c|S\.?L\.?U?|S\.?r\.?l|S\.?p\.?A|AB|Aktiebolag|A\/S|ApS|AS|ASA|Oy|Oyj|Lda|Ltda|s\.r\.o|a\.s|o\.o|K\.K)\.?,?$/;
/** A legal form that a comma parts from its name: "Hoz de Arriba, S.L.". */
const legalFirst =
  /^\(?(Ltd|Limited|L\.?L\.?C|L\.?L\.?P|Inc|S\.?\s?L\.?\s?U?|S\.?\s?A\.?|S\.?\s?R\.?\s?L|S\.?\s?p\.?\s?A|S\.?\s?n\.?\s?c|Lda|GmbH|B\.?\s?V|N\.?\s?V|C\.?\s?B|S\.?\s?C\.?\s?A|S\.?\s?Coop)\b\.?/i;
function nameOf(text: string): string {
  return text
    .replace(/^[\s.,;:|·•–—"“”*]+|[\s,;:|·•–—"“”*]+$/g, '')
    .replace(/(?<!\b(?:inc|ltd|co|b\.v|n\.v|s\.a|s\.r\.l|s\.p\.a|k\.k|o\.o|s\.l|e\.k|corp|lda))\.$/i, '')
    .trim();
}

const labelled = /^\p{L}[\p{L} .-]{1,24}\s?:\s+\S/u;

/** How a piece is printed: its face and whether it is in capitals. */
const manner = ({ font, text }: Segment): string => `${font} ${text === text.toUpperCase()}`;

/** Every piece of the document that may be a name: whole pieces, their parts, and two that stand under each other. */
export function printedNames(layout: Layout, all: Surroundings): PrintedName[] {
  const found: PrintedName[] = [],
    texts = new Map<Segment, Set<string>>();
  const put = (at: number, segment: Segment, raw: string, part: boolean, more?: Segment) => {
    const text = nameOf(raw);
    if (text.length < 3 || text.length > 70 || !hasLetters(text)) return;
    const same = texts.get(segment) ?? texts.set(segment, new Set()).get(segment)!;
    if (same.has(text)) return;
    same.add(text);
    const words = more ? [...segment.words, ...more.words] : segment.words;
    const own = part ? words.filter((w) => text.includes(w.text.replace(/[,;:()"“”]/g, ''))) : words;
    const stacked = !more ? null : manner(segment) === manner(more) ? 'alike' : 'other';
    found.push({
      at,
      segment,
      text,
      plain: plainName(text),
      part,
      stacked,
      mark: { page: segment.page, ...union(own.length ? own : words) },
    });
  };
  for (const row of layout.rows) {
    if (!bearsHead(all, row.page)) continue;
    for (const segment of row.segments) {
      // What a label stands before is its value alone: "Supplier: …".
      if (!labelled.test(segment.text)) put(row.index, segment, segment.text, false);
      const parts = segment.text.split(seams).filter((p) => p?.trim());
      if (parts.length > 1)
        for (const [i, part] of parts.entries()) {
          put(row.index, segment, part, true);
          const form = legalFirst.exec(parts[i + 1] ?? '')?.[0];
          if (form) put(row.index, segment, `${part}, ${form}`, true);
        }
      // A legal form ends a name: "Stoll Lifts Ltd Company 09912208 VAT registration …".
      for (const [i, word] of segment.words.entries())
        if (i > 0 && i < segment.words.length - 1 && endsName.test(word.text)) {
          const head = segment.words
            .slice(0, i + 1)
            .map((w) => w.text)
            .join(' ');
          put(
            row.index,
            segment,
            head
              .split(seams)
              .filter((p) => p?.trim())
              .at(-1) ?? head,
            true,
          );
          if (/,/.test(head)) put(row.index, segment, head, true);
        }
      const sentence =
        /(?:payable to|pay(?:ment)? to|remit to|in the name of|paid to|zugunsten|betaling aan|à l'ordre de)\s+(.+?)(?:[.,]\s|$)/i.exec(
          segment.text,
        )?.[1];
      if (sentence) put(row.index, segment, sentence, true);
      if (segment.words.length > 6) continue;
      const under = layout.rows
        .slice(row.index + 1, row.index + 3)
        .filter((r) => r.page === row.page)
        .flatMap((r) => r.segments)
        .find(
          (s) =>
            (Math.abs(s.x - segment.x) < 3 || Math.abs(s.x + s.w / 2 - segment.x - segment.w / 2) < 4) &&
            Math.abs(s.size - segment.size) < 0.6 &&
            s.y - segment.y < 1.7 * segment.size,
        );
      if (under && under.words.length <= 4) put(row.index, segment, `${segment.text} ${under.text}`, true, under);
    }
  }
  return found;
}
