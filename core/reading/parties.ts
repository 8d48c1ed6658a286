import { union, type Mark, type Segment, type Word } from '../page/index.ts';
import { kindBook } from './lexicon/index.ts';
import { bareTaxId, findEmails, findIbans, findTaxIds, squash } from './identifiers.ts';
import { findLabels } from './labels.ts';
import type { LabelledRow, Layout } from './layout.ts';
import type { Read } from './types.ts';

// Legal forms of the countries whose languages are read, as they end a firm's name.
const legalForm = new RegExp(
  `(?:^|[\\s,])(${[
    'ltd|limited|plc|llp|llc|lp|inc|incorporated|corp|corporation|co|company|cic|& sons|& co|& partners',
    'gmbh|mbh|ag|kg|kgaa|ohg|ug|gbr|e\\.?k|e\\.?g|& söhne',
    'b\\.?v|n\\.?v|v\\.?o\\.?f|c\\.?v|& zonen',
    's\\.?a\\.?r\\.?l|s\\.?a\\.?s|s\\.?a|eurl|sasu|s\\.?n\\.?c|sci|scop|& fils|& cie',
    's\\.?l|s\\.?l\\.?u|s\\.?coop|s\\.?c',
    's\\.?r\\.?l|s\\.?r\\.?l\\.?s|s\\.?p\\.?a|& figli',
    'ab|hb|kb|aktiebolag|& söner',
    'a\\.?s|oy|aps|kk|k\\.k',
  ].join('|')})\\.?$`,
  'i',
);
const address =
  /\b(road|street|lane|avenue|row|place|yard|court|house|farm|mill|park|way|square|building|unit|depot|box|rue|straat|dijk|weg|laan|kade|strasse|straße|gasse|route|chemin|allée|calle|avenida|plaza|via|corso|piazza|viale|gatan|vägen|postfach|postbus|apartado)\b|\p{L}(straße|strasse|gasse|weg|straat|laan|dijk|gatan|vägen) \d|\b[A-Z]{1,2}\d{1,2}[A-Z]? ?\d[A-Z]{2}\b|\b\d{4} ?[A-Z]{2}\b|\b\d{5}\b/iu;
// Ink makes letters of the digits in a British postcode now and then: "MBI 4QT".
const postcode = /\b(?=[A-Z\d]* ?[A-Z\d]*\d)[A-Z]{1,2}[\dIO]{1,2}[A-Z]? ?[\dIO][A-Z]{2}\b|\b\d{4} ?[A-Z]{2}\b|\b\d{5}(-\d{4})?\b/;
const notAName =
  /[@:]|\d{3}|\b(page|invoice|credit note|tel|telephone|phone|fax|email|vat|www|statement|date|total|terms|factuur|facture|rechnung|number|order|united kingdom|since)\b/i;

const mark = (s: Segment, words: Word[] = s.words): Mark => ({ page: s.page, ...union(words) });
const read = (value: string, m: Mark | null, confidence: number): Read => ({ value, mark: m, confidence, proof: null });
/** Pieces of a segment parted by bars, dots or commas before an address: "Hobbet Ltd | Depot 9, …". */
const pieces = (text: string): string[] => text.split(/\s+[|·•–-]\s+/);
/** True when a segment is nothing but a label or a title. */
function isLabel(segment: Segment, row: LabelledRow): boolean {
  const covers = (l: { words: Word[] }): boolean =>
    l.words[0] === segment.words[0] && segment.words.slice(l.words.length).every((w) => !/\p{L}{2}/u.test(w.text));
  return (
    row.fields.some(covers) ||
    row.columns.some(covers) ||
    row.totals.some(covers) ||
    (segment.words.length <= 5 && findLabels(segment.words, kindBook).some(covers))
  );
}

const nameOf = (text: string): string =>
  text
    .replace(/^(the )?(trading as|t\/a)\s+/i, '')
    .replace(/[,;.]+$/, (end) => (/(inc|ltd|b\.v|n\.v|co|s\.a|s\.r\.l|k\.k)\.$/i.test(text) ? end.replace(/[,;]/g, '') : ''))
    .trim();

export interface Parties {
  supplierName: Read | null;
  buyerName: Read | null;
  supplierTaxId: Read | null;
  supplierIban: Read | null;
  supplierEmails: string[];
}

/** The label under which the buyer's address stands: not a delivery address. */
function buyerBlock(layout: Layout): Read | null {
  for (const strength of [false, true])
    for (const row of layout.rows)
      for (const label of row.fields.filter((f) => f.role === 'billTo' && f.weak === strength)) {
        const home = row.segments.find((s) => s.words.includes(label.words[0]!))!;
        const rest = home.words.slice(home.words.indexOf(label.words[label.words.length - 1]!) + 1).filter((w) => /\p{L}/u.test(w.text));
        if (strength && home.words.indexOf(label.words[0]!) > 0) continue;
        if (rest.length >= 2)
          return read(
            nameOf(
              rest
                .map((w) => w.text)
                .join(' ')
                .split(',')[0]!,
            ),
            mark(home, rest),
            0.85,
          );
        if (rest.length > 0) continue;
        for (const next of layout.rows.slice(row.index + 1, row.index + 4)) {
          const s =
            next.page === row.page && next.segments.find((x) => Math.abs(x.x - home.x) < home.size * 1.2 && /\p{L}{3}/u.test(x.text));
          if (s && !notAName.test(s.text) && !next.fields.some((f) => s.words.includes(f.words[0]!)))
            return read(nameOf(s.text), mark(s), 0.9);
          if (s) break;
        }
      }
  return null;
}

/** Without a label: the first line of the address block that has no contact details of its own. */
function unlabelledBuyer(layout: Layout, supplier: string | null): Read | null {
  const first = layout.pages[0]?.number;
  const rows = layout.rows.filter((r) => r.page === first && r.y < (layout.pages[0]?.height ?? 800) * 0.45);
  for (const row of rows)
    for (const s of row.segments) {
      if (notAName.test(s.text) || address.test(s.text) || (supplier && similar(s.text, supplier)) || s.words.length < 2) continue;
      const below = rows
        .filter((r) => r.y > row.y && r.y - row.y < s.size * 9)
        .flatMap((r) => r.segments.filter((x) => Math.abs(x.x - s.x) < s.size * 0.5));
      // An address stands together: a gap ends it.
      const end = below.findIndex((x, i) => x.y - (below[i - 1] ?? s).y > Math.max(x.size, s.size) * 2.6);
      const block = end < 0 ? below : below.slice(0, end);
      const at = block.findIndex((x) => postcode.test(x.text) && x.words.length <= 3);
      if (at >= 1 && at <= 5 && !block.slice(0, at + 1).some((x) => /@|\bvat\b|\btel\b/i.test(x.text)))
        return read(nameOf(s.text), mark(s), 0.8);
    }
  return null;
}

const similar = (a: string, b: string): boolean => squash(a).includes(squash(b)) || squash(b).includes(squash(a));

interface NameCandidate {
  name: string;
  segment: Segment;
  score: number;
}

function supplierCandidates(layout: Layout, emails: string[], buyer: string | null): NameCandidate[] {
  const first = layout.pages[0];
  if (!first) return [];
  const sizes = first.words.map((w) => w.size).sort((a, b) => a - b);
  const body = sizes[Math.floor(sizes.length / 2)] ?? 10;
  const all = squash(layout.text);
  const domains = emails.map((e) => squash(e.split('@')[1]!.split('.').slice(0, -1).join('')));
  const sites = [...layout.text.matchAll(/www\.([\w-]+)\./gi)].map((m) => squash(m[1]!));
  const found: NameCandidate[] = [];
  const consider = (text: string, segment: Segment, row: LabelledRow, bonus: number) => {
    const name = nameOf(text);
    if (name.length < 4 || name.length > 60 || !/^\p{Lu}/u.test(name) || notAName.test(name)) return;
    if (buyer && similar(name, buyer)) return;
    const form = legalForm.test(name);
    if (!form && (address.test(name) || name.split(' ').length > 6)) return;
    let score = bonus + (form ? 4 : 0);
    if (segment.size > body * 1.15) score += Math.min(3, (segment.size / body - 1) * 4);
    if (row.page === first.number && row.y < first.height * 0.2) score += 1.5;
    const squashed = squash(name);
    if (
      [...domains, ...sites].some(
        (d) =>
          d.length > 3 && (squashed.includes(d) || d.includes(squashed) || (d.split(/(?=[A-Z])/).length > 0 && sharesStart(squashed, d))),
      )
    )
      score += 3;
    score += Math.min(2, all.split(squashed).length - 2) * 0.8;
    found.push({ name, segment, score });
  };
  for (const row of layout.rows) {
    for (const segment of row.segments)
      if (!isLabel(segment, row))
        for (const piece of pieces(segment.text)) {
          consider(piece, segment, row, 0);
          if (piece.includes(',')) consider(piece.split(',')[0]!, segment, row, -0.5);
        }
    const payee = /(?:payable to|pay(?:ment)? to:?|remit to|in the name of|paid to)\s+(.+?)(?:[,.]\s|$)/i.exec(row.text)?.[1];
    if (payee) consider(payee, row.segments[0]!, row, 0);
  }
  // A name broken over two printed rows: "Grapnel & Spanner Tool" / "Hire Ltd".
  for (const row of layout.rows.filter((r) => r.page === first.number && r.y < first.height * 0.4))
    for (const s of row.segments) {
      const next = layout.rows
        .slice(row.index + 1, row.index + 3)
        .flatMap((r) => r.segments)
        .find((x) => Math.abs(x.x - s.x) < 2 && x.size === s.size && x.y - s.y < s.size * 1.6);
      if (!next || !legalForm.test(next.text) || legalForm.test(s.text) || next.words.length > 3) continue;
      found.splice(0, found.length, ...found.filter((f) => f.segment !== next && f.segment !== s));
      consider(`${s.text} ${next.text}`, s, row, 0.2);
    }
  return found.sort((a, b) => b.score - a.score);
}

/** True when a domain is the name's first letters, or the name's main words run together. */
function sharesStart(name: string, domain: string): boolean {
  const n = Math.min(name.length, domain.length, 8);
  return n >= 5 && name.slice(0, n) === domain.slice(0, n);
}

/** A text with its IBANs blanked out: their letters and digits also have the shape of tax numbers. */
function withoutIbans(text: string): string {
  return findIbans(text.toUpperCase()).reduce(
    (rest, hit) => rest.slice(0, hit.index) + ' '.repeat(hit.length) + rest.slice(hit.index + hit.length),
    text.toUpperCase(),
  );
}

function supplierTaxId(layout: Layout): Read | null {
  const found: { read: Read; score: number }[] = [];
  for (const row of layout.rows) {
    const customer = row.fields.filter((f) => f.role === 'buyerTaxId');
    const above = layout.rows[row.index - 1]?.fields.some((f) => f.role === 'taxId');
    for (const s of row.segments) {
      if (
        customer.some((c) => s.words.includes(c.words[0]!)) ||
        (/\b(customer|your|client|buyer|uw|ihre|votre|vs|vostra|su|ert)\b/i.test(s.text) && !row.fields.some((f) => f.role === 'taxId'))
      )
        continue;
      for (const id of findTaxIds(withoutIbans(s.text))) {
        const labelled =
          /\b(vat|btw|tax|tva|ust\S*|mwst|p?iva|moms\S*|nif|cif|registration)\b/i.test(s.text) ||
          row.fields.some((f) => f.role === 'taxId');
        found.push({ read: read(id.taxId, mark(s), labelled || above ? 0.96 : 0.7), score: labelled ? 2 : above ? 1.5 : 0.5 });
      }
    }
    for (const label of row.fields.filter((f) => f.role === 'taxId' && !f.weak)) {
      const rest = row.words
        .slice(label.to + 1)
        .map((w) => w.text)
        .join(' ');
      const own = rest || layout.rows[row.index + 1]?.segments.find((s) => Math.abs(s.x - label.box.x) < 8)?.text || '';
      const bare = bareTaxId(own.replace(/^[:#]\s*/, ''));
      if (bare && bare.length >= 8 && !customer.length)
        found.push({ read: read(bare, mark(row.segments.find((s) => s.words.includes(label.words[0]!))!), 0.9), score: 1 });
    }
  }
  return found.sort((a, b) => b.score - a.score)[0]?.read ?? null;
}

function supplierIban(layout: Layout): Read | null {
  for (const [i, row] of layout.rows.entries()) {
    const next = layout.rows[i + 1];
    const hit = findIbans(row.text)[0] ?? (/\bIBAN\b[ :]*$/i.test(row.text) && next ? findIbans(next.text)[0] : undefined);
    if (hit) return read(hit.iban, { page: row.page, ...union(row.words) }, 0.99);
  }
  return null;
}

/**
 * Who sends the document and to whom. The supplier's name is the most prominent name of a firm that is not the buyer:
 * by legal form, size, place, repetition, and likeness to its mail domain.
 */
export function readParties(layout: Layout): Parties {
  const emails = [...new Set(findEmails(layout.text))];
  const labelled = buyerBlock(layout);
  const names = supplierCandidates(layout, emails, labelled?.value ?? null);
  let top = names[0];
  const buyer = labelled ?? unlabelledBuyer(layout, top && top.score >= 4.5 ? top.name : null);
  if (!labelled && buyer && top && similar(top.name, buyer.value)) top = names.find((n) => !similar(n.name, buyer.value));
  const rival = names.find((n) => top && !similar(n.name, top.name) && (!buyer || !similar(n.name, buyer.value)));
  const margin = top ? top.score - (rival?.score ?? 0) : 0;
  return {
    supplierName: top && top.score > 1.5 ? read(top.name, mark(top.segment), Math.max(0.5, Math.min(0.97, 0.72 + margin * 0.06))) : null,
    buyerName: buyer,
    supplierTaxId: supplierTaxId(layout),
    supplierIban: supplierIban(layout),
    supplierEmails: emails,
  };
}
