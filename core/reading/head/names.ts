import { union, type Mark, type Segment } from '../../page/index.ts';
import { findEmails, findIbans, findTaxIds, squash } from '../identifiers.ts';
import { findLabels } from '../labels.ts';
import type { Layout } from '../layout.ts';
import { Features, plainWord } from '../learned/features.ts';
import { kindBook } from '../lexicon/index.ts';
import { bearsHead, speaks, type Surroundings } from './around.ts';
import { Labelled } from './labelled.ts';

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
const legalForm = new RegExp(`(?:^| )(${legalForms})$`);
/** Legal forms as they are written at the end of a name in running text. */
const endsName =
  /^(Ltd|Limited|PLC|plc|LLP|LLC|Inc|Corp|CIC|GmbH|AG|KG|e\.?K|eG|OHG|UG|B\.?V|N\.?V|V\.?O\.?F|SARL|S\.A\.R\.L|SAS|S\.A\.S|SA|S\.A|EURL|SNC|s\.n\.c|S\.?L\.?U?|S\.?r\.?l|S\.?p\.?A|AB|Aktiebolag|A\/S|ApS|AS|ASA|Oy|Oyj|Lda|Ltda|s\.r\.o|a\.s|o\.o|K\.K)\.?,?$/;
/** A legal form that a comma parts from its name: "Hoz de Arriba, S.L.". */
const legalFirst =
  /^\(?(Ltd|Limited|L\.?L\.?C|L\.?L\.?P|Inc|S\.?\s?L\.?\s?U?|S\.?\s?A\.?|S\.?\s?R\.?\s?L|S\.?\s?p\.?\s?A|S\.?\s?n\.?\s?c|Lda|GmbH|B\.?\s?V|N\.?\s?V|C\.?\s?B|S\.?\s?C\.?\s?A|S\.?\s?Coop)\b\.?/i;
const address =
  /\b(road|street|lane|avenue|row|place|yard|court|park|way|square|building|unit|rue|route|chemin|straat|dijk|weg|laan|kade|strasse|straße|gasse|calle|avenida|plaza|via|corso|piazza|viale|gatan|vägen|vej|gate|ulica|postfach|postbus|box)\b|\b[A-Z]{1,2}\d{1,2}[A-Z]? ?\d[A-Z]{2}\b|\b\d{4,5}\b/iu;

function nameOf(text: string): string {
  return text
    .replace(/^[\s.,;:|·•–—"“”*]+|[\s,;:|·•–—"“”*]+$/g, '')
    .replace(/(?<!\b(?:inc|ltd|co|b\.v|n\.v|s\.a|s\.r\.l|s\.p\.a|k\.k|o\.o|s\.l|e\.k|corp|lda))\.$/i, '')
    .trim();
}

/** Every piece of the document that may be a name: whole pieces, their parts, and two that stand under each other. */
export function printedNames(layout: Layout, all: Surroundings): PrintedName[] {
  const found: PrintedName[] = [];
  const put = (at: number, segment: Segment, raw: string, part: boolean, more?: Segment) => {
    const text = nameOf(raw);
    if (text.length < 3 || text.length > 70 || !/\p{L}{2}/u.test(text)) return;
    if (found.some((n) => n.segment === segment && n.text === text)) return;
    const words = more ? [...segment.words, ...more.words] : segment.words;
    const own = part ? words.filter((w) => text.includes(w.text.replace(/[,;:()"“”]/g, ''))) : words;
    found.push({ at, segment, text, plain: plainName(text), part, mark: { page: segment.page, ...union(own.length ? own : words) } });
  };
  for (const row of layout.rows) {
    if (!bearsHead(all, row.page)) continue;
    for (const segment of row.segments) {
      put(row.index, segment, segment.text, false);
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

/** Words of mail and web addresses on the page: "brackwater" of "accounts@brackwater.example". */
const domainsOf = (text: string): string[] => [
  ...new Set(
    [
      ...findEmails(text).map((e) => e.split('@')[1]!),
      ...[...text.matchAll(/(?:www\.|https?:\/\/)([\w-]+(?:\.[\w-]+)+)/gi)].map((m) => m[1]!),
    ].map((d) => squash(d.split('.').slice(0, -1).join('')).toLowerCase()),
  ),
];

function letterPairs(text: string): Map<string, number> {
  const pairs = new Map<string, number>();
  for (let i = 0; i + 1 < text.length; i++) pairs.set(text.slice(i, i + 2), (pairs.get(text.slice(i, i + 2)) ?? 0) + 1);
  return pairs;
}
/** How alike two names are, 0 to 1: by shared pairs of letters (Dice). */
export function alike(a: string, b: string): number {
  const [x, y] = [letterPairs(a.replace(/ /g, '')), letterPairs(b.replace(/ /g, ''))];
  let shared = 0,
    all = 0;
  for (const [pair, n] of x) shared += Math.min(n, y.get(pair) ?? 0);
  for (const n of [...x.values(), ...y.values()]) all += n;
  return all === 0 ? 0 : (2 * shared) / all;
}

/** What a piece of text holds beside names; each piece is looked at once. */
interface Facts {
  address: boolean;
  contact: boolean;
  web: boolean;
  taxId: boolean;
  account: boolean;
  bank: boolean;
}
function factsOf(text: string): Facts {
  const upper = text.toUpperCase(),
    digits = /\d{6}|\d{2,4} \d{2,4}/.test(text);
  return {
    address: address.test(text),
    contact: /@|\btel\b|www|phone|telefon|tél/i.test(text),
    web: /@|www\./i.test(text),
    taxId: digits && findTaxIds(upper).length > 0,
    account: digits && findIbans(upper).length > 0,
    bank: /IBAN|BIC|sort code|account n/i.test(text),
  };
}

/** Evidence for each name of a document: as the supplier's and as the buyer's alike. */
export function nameFeatures(layout: Layout, all: Surroundings, names: PrintedName[], own: readonly Known[]): Features[] {
  const labels = new Labelled(layout);
  const domains = domainsOf(layout.text);
  const times = new Map<string, number>();
  for (const n of names) times.set(n.plain, (times.get(n.plain) ?? 0) + 1);
  const distinct = [...times.keys()];
  const largest = Math.max(...names.filter((n) => !n.part).map((n) => n.segment.size), 1);
  const ours = own.map((c) => plainName(c.name));
  const facts = new Map<string, Facts>();
  const seen = (text: string): Facts => facts.get(text) ?? facts.set(text, factsOf(text)).get(text)!;
  return names.map((n) => {
    const f = new Features();
    const { row, tokens } = all.rows[n.at]!;
    const page = all.sizes.get(row.page)!;
    const words = n.plain.split(' ');
    const s = n.segment;
    const y = (row.y + row.h / 2) / page.height;
    f.add(`y${Math.floor(y * 12)}`);
    f.add(`x${Math.floor((s.x / page.width) * 5)}`);
    f.add(`y${Math.floor(y * 5)}x${Math.floor((s.x / page.width) * 3)}`);
    f.add(`page ${Math.min(2, row.page)}`);
    f.add(`size ${Math.floor(Math.min(5, (s.size / all.body) * 2))}`);
    if (s.size >= 0.97 * largest && s.size > 1.15 * all.body) f.add('largest');
    if (legalForm.test(n.plain)) f.add('legal form');
    if (n.part) f.add('part');
    f.add(`words ${Math.min(8, words.length)}`);
    if (/\d/.test(n.text)) f.add('digits');
    if (/[@/]|www|http/i.test(n.text)) f.add('web');
    if (n.text === n.text.toUpperCase()) f.add('capitals');
    if (/^\p{Ll}/u.test(n.text)) f.add('begins small');
    if (words.length > 1 && n.text.split(/\s+/).every((w) => !/^\p{Ll}{4}/u.test(w))) f.add('each word capital');
    if (address.test(n.text)) f.add('like an address');
    if (findLabels(s.words, kindBook).length > 0) f.add('title word');
    speaks(f, 'name', words.slice(0, 6));
    f.word('first', words[0] ?? '', 0.7);
    f.word('last', words.at(-1) ?? '', 0.9);
    for (const w of words.slice(0, 8)) f.add(`has ${w}`, 0.6);
    const joined = n.plain.replace(/ /g, '');
    const inDomain = words.filter((w) => w.length > 3 && domains.some((d) => d.includes(w))).reduce((a, w) => a + w.length, 0);
    if (inDomain) f.add('in a domain', Math.min(1.2, (inDomain / Math.max(6, joined.length)) * 1.5));
    if (domains.some((d) => d.length >= 4 && joined.startsWith(d.slice(0, 6)))) f.add('begins like a domain');
    const likeness = Math.max(0, ...ours.map((o) => alike(n.plain, o)));
    const within = n.plain.length > 5 && ours.some((o) => o.includes(n.plain) || n.plain.includes(o));
    if (likeness > 0.8 || within) f.add('ours');
    if (likeness > 0.93) f.add('just ours');
    f.add(`times ${Math.min(4, times.get(n.plain)!)}`);
    if (distinct.some((d) => d !== n.plain && d.includes(n.plain) && d.length <= n.plain.length + 30)) f.add('longer form elsewhere');
    if (distinct.some((d) => d !== n.plain && d.length > 4 && n.plain.startsWith(d))) f.add('shorter form elsewhere');
    labels.add(f, row.page, tokens.find((t) => t.word === s.words[0]) ?? tokens[0]!);
    const first = tokens.findIndex((t) => t.word === s.words[0]);
    for (const [k, t] of tokens
      .slice(Math.max(0, first - 3), first)
      .reverse()
      .entries())
      f.word(k === 0 ? 'left' : 'left 2', plainWord(t.text), k === 0 ? 0.8 : 0.5);
    if (n.part) {
      const before = s.text.slice(0, s.text.indexOf(n.text.slice(0, 4)));
      for (const w of before.split(/\s+/).slice(-3)) f.word('before', plainWord(w), 0.7);
      speaks(f, 'before', before.split(/\s+/).slice(-3));
    }
    speaks(
      f,
      'left',
      tokens.slice(Math.max(0, first - 3), Math.max(0, first)).map((t) => t.text),
    );
    if (first === 0) f.add('begins the row');
    for (let k = 1; k <= 2; k++) {
      const up = all.rows[n.at - k];
      if (!up || up.row.page !== row.page) continue;
      const over = up.row.segments.filter((o) => Math.abs(o.x - s.x) < 9 || (o.x < s.x + s.w && o.x + o.w > s.x));
      for (const o of over) {
        if (row.y - (o.y + o.h) > 3.5 * all.body) continue;
        for (const w of o.words.slice(0, 3)) f.word(k === 1 ? 'above' : 'above 2', plainWord(w.text), k === 1 ? 0.6 : 0.35);
      }
      speaks(
        f,
        k === 1 ? 'above' : 'above 2',
        over.flatMap((o) => (row.y - (o.y + o.h) > 3.5 * all.body ? [] : o.words.slice(0, 3).map((w) => w.text))),
      );
      if (k === 1 && over.length === 0) f.add('nothing above');
    }
    const below = all.rows
      .slice(n.at + 1, n.at + 6)
      .filter((r) => r.row.page === row.page && r.row.y - row.y < 6 * all.body)
      .flatMap((r) => r.row.segments)
      .filter((o) => Math.abs(o.x - s.x) < 12 || (o.x < s.x + s.w && o.x + o.w > s.x))
      .map((o) => seen(o.text));
    if (below.some((o) => o.address)) f.add('address below');
    if (below.some((o) => o.contact)) f.add('contact below');
    if (below.some((o) => o.taxId)) f.add('tax number below');
    const beside = seen(row.text);
    if (beside.web) f.add('web beside');
    if (beside.taxId) f.add('tax number beside');
    if (beside.account) f.add('account beside');
    if (beside.address && row.text.length > n.text.length + 8) f.add('address beside');
    if (all.rows.slice(Math.max(0, n.at - 3), n.at + 4).some((r) => r.row.page === row.page && seen(r.row.text).bank))
      f.add('account near');
    f.add(`amounts ${Math.min(2, row.words.filter((w) => /\d[.,]\d{2}\D?$/.test(w.text)).length)}`);
    f.add(`segments ${Math.min(4, row.segments.length)}`);
    return f;
  });
}
