import type { Segment } from '../../page/index.ts';
import { findIbans } from '../iban.ts';
import { findEmails, squash } from '../identifiers.ts';
import { findTaxIds } from '../taxnumbers.ts';
import { findLabels } from '../labels.ts';
import type { Layout } from '../layout.ts';
import { Features, plainWord } from '../learned/features.ts';
import { kindBook } from '../lexicon/index.ts';
import { speaks, type Surroundings } from './around.ts';
import { Labelled } from './labelled.ts';
import { legalForm, plainName, type Known, type PrintedName } from './names.ts';
import { beginsSmall } from '../letters.ts';

const address =
  /\b(road|street|lane|avenue|row|place|yard|court|park|way|square|building|unit|rue|route|chemin|straat|dijk|weg|laan|kade|strasse|straße|gasse|calle|avenida|plaza|via|corso|piazza|viale|gatan|vägen|vej|gate|ulica|postfach|postbus|box)\b|\b[A-Z]{1,2}\d{1,2}[A-Z]? ?\d[A-Z]{2}\b|\b\d{4,5}\b/iu;

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

/** Evidence of a piece of text that may hold names: where it stands and what is round it. */
function placeFeatures(
  all: Surroundings,
  at: number,
  s: Segment,
  largest: number,
  labels: Labelled,
  seen: (text: string) => Facts,
): Features {
  const f = new Features();
  const { row, tokens } = all.rows[at]!;
  const page = all.sizes.get(row.page)!;
  const y = (row.y + row.h / 2) / page.height;
  f.of('y', Math.floor(y * 12));
  f.of('x', Math.floor((s.x / page.width) * 5));
  f.add(`y${Math.floor(y * 5)}x${Math.floor((s.x / page.width) * 3)}`);
  f.of('page ', Math.min(2, row.page));
  f.of('size ', Math.floor(Math.min(5, (s.size / all.body) * 2)));
  if (s.size >= 0.97 * largest && s.size > 1.15 * all.body) f.add('largest');
  if (findLabels(s.words, kindBook).length > 0) f.add('title word');
  labels.add(f, row.page, tokens.find((t) => t.word === s.words[0]) ?? tokens[0]!);
  const first = tokens.findIndex((t) => t.word === s.words[0]);
  const before = tokens.slice(Math.max(0, first - 3), Math.max(0, first));
  for (const [k, t] of [...before].reverse().entries()) f.word(k === 0 ? 'left' : 'left 2', plainWord(t.text), k === 0 ? 0.8 : 0.5);
  speaks(
    f,
    'left',
    before.map((t) => t.text),
  );
  if (first === 0) f.add('begins the row');
  const overlaps = (o: Segment, slack: number) => Math.abs(o.x - s.x) < slack || (o.x < s.x + s.w && o.x + o.w > s.x);
  for (let k = 1; k <= 2; k++) {
    const up = all.rows[at - k];
    if (!up || up.row.page !== row.page) continue;
    const over = up.row.segments.filter((o) => overlaps(o, 9));
    const words = over.flatMap((o) => (row.y - (o.y + o.h) > 3.5 * all.body ? [] : o.words.slice(0, 3).map((w) => w.text)));
    for (const w of words) f.word(k === 1 ? 'above' : 'above 2', plainWord(w), k === 1 ? 0.6 : 0.35);
    speaks(f, k === 1 ? 'above' : 'above 2', words);
    if (k === 1 && over.length === 0) f.add('nothing above');
  }
  const below = all.rows
    .slice(at + 1, at + 6)
    .filter((r) => r.row.page === row.page && r.row.y - row.y < 6 * all.body)
    .flatMap((r) => r.row.segments)
    .filter((o) => overlaps(o, 12))
    .map((o) => seen(o.text));
  if (below.some((o) => o.address)) f.add('address below');
  if (below.some((o) => o.contact)) f.add('contact below');
  if (below.some((o) => o.taxId)) f.add('tax number below');
  const beside = seen(row.text);
  if (beside.web) f.add('web beside');
  if (beside.taxId) f.add('tax number beside');
  if (beside.account) f.add('account beside');
  if (all.rows.slice(Math.max(0, at - 3), at + 4).some((r) => r.row.page === row.page && seen(r.row.text).bank)) f.add('account near');
  f.of('amounts ', Math.min(2, row.words.filter((w) => /\d[.,]\d{2}\D?$/.test(w.text)).length));
  f.of('segments ', Math.min(4, row.segments.length));
  return f;
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
  const places = new Map<Segment, Features>();
  const placeOf = ({ at, segment: s }: PrintedName) =>
    places.get(s) ?? places.set(s, placeFeatures(all, at, s, largest, labels, seen)).get(s)!;
  return names.map((n) => {
    const f = new Features();
    const { row } = all.rows[n.at]!;
    const words = n.plain.split(' ');
    const s = n.segment;
    f.take(placeOf(n));
    if (legalForm.test(n.plain)) f.add('legal form');
    if (n.part) f.add('part');
    if (n.stacked) f.of('stacked ', n.stacked);
    f.of('words ', Math.min(8, words.length));
    if (/\d/.test(n.text)) f.add('digits');
    if (/[@/]|www|http/i.test(n.text)) f.add('web');
    if (n.text === n.text.toUpperCase()) f.add('capitals');
    if (beginsSmall(n.text)) f.add('begins small');
    if (words.length > 1 && n.text.split(/\s+/).every((w) => !/^\p{Ll}{4}/u.test(w))) f.add('each word capital');
    if (address.test(n.text)) f.add('like an address');
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
    f.of('times ', Math.min(4, times.get(n.plain)!));
    const length = n.plain.length;
    if (distinct.some((d) => d.length > length && d.length <= length + 30 && d.includes(n.plain))) f.add('longer form elsewhere');
    if (distinct.some((d) => d.length > 4 && d.length < length && n.plain.startsWith(d))) f.add('shorter form elsewhere');
    if (n.part) {
      const before = s.text
        .slice(0, s.text.indexOf(n.text.slice(0, 4)))
        .split(/\s+/)
        .slice(-3);
      for (const w of before) f.word('before', plainWord(w), 0.7);
      speaks(f, 'before', before);
    }
    if (seen(row.text).address && row.text.length > n.text.length + 8) f.add('address beside');
    return f;
  });
}
