import { findDates } from '../../dates/index.ts';
import { findIbans } from '../iban.ts';
import { squash } from '../identifiers.ts';
import { findLabels } from '../labels.ts';
import type { Layout } from '../layout.ts';
import { Features, plainWord } from '../learned/features.ts';
import { checkDigitsHold, findTaxIds, taxNumberOf } from '../taxnumbers.ts';
import { kindBook } from '../lexicon/index.ts';
import { around, bearsHead, type Piece, type Surroundings } from './around.ts';
import { Labelled } from './labelled.ts';
import { markOf, type Token } from './tokens.ts';
import { hasLetter } from '../letters.ts';

/** A printed piece that may be a number of the document, as it is compared: letters and digits without spaces. */
export interface Reference extends Piece {
  key: string;
  value: string;
}

const trimmed = (text: string): string => text.replace(/[\u2010\u2011\u2212]/g, '-').replace(/^[#:(№°.,;[\]-]+|[.,;:)\]]+$/g, '');
/** Nothing of this is in a number. */
const foreign = /[£$€¥%@,!?"“”=<>*]|\.\.|:\/\/|www\./;

const smallWord = /^\p{Ll}+\.?$/u,
  longWord = /\p{Ll}{4}/u;

/** Ends the tax numbers of some countries. */
const taxWord = /^(MVA|MWST|TVA|IVA)\.?$/;

/** Runs of tokens that are a date together: "6/11" and "2026" are no numbers of their own. */
function partsOfDates(tokens: readonly Token[]): { from: number; to: number }[] {
  const starts: number[] = [];
  let text = '';
  for (const t of tokens) {
    starts.push(text.length);
    text += `${t.text} `;
  }
  return findDates(text)
    .map(({ index, length }) => ({
      from: starts.findLastIndex((at) => at <= index),
      to: starts.findLastIndex((at) => at < index + length) + 1,
    }))
    .filter(({ from, to }) => tokens[from]!.segment === tokens[to - 1]!.segment);
}

/** Every run of up to four words that stand together and may be a number: it has a digit in its last word, and no sign of money. */
export function references(all: Surroundings): Reference[] {
  const found: Reference[] = [];
  for (const [at, row] of all.rows.entries()) {
    if (!bearsHead(all, row.row.page)) continue;
    const { tokens } = row;
    const dated = partsOfDates(tokens);
    for (let from = 0; from < tokens.length; from++) {
      // "nr", "no": a word before a number and no part of it.
      if (smallWord.test(tokens[from]!.text)) continue;
      // A number in groups may have more of them: "NO 999 888 777 MVA".
      for (let to = from + 1; to <= Math.min(tokens.length, from + 6); to++) {
        const last = tokens[to - 1]!;
        if (dated.some((d) => d.from <= from && to <= d.to && d.to - d.from > to - from)) continue;
        if (to - from > 4 && !tokens.slice(from + 1, to).every((t) => /^[\dA-Z]{1,4}[.,;)]?$/.test(t.text))) break;
        if (to - from > 1) {
          const before = tokens[to - 2]!;
          if (last.segment !== before.segment || last.x - before.end > 0.75 * last.word.size || /[:;,]$/.test(before.text)) break;
        }
        // A letter behind a stroke is part of it: "26-7 / B".
        const lettered = to - from > 2 && /^[A-Z]$/.test(last.text) && /^[/-]$/.test(tokens[to - 2]!.text);
        if (!/\d/.test(last.text) && !lettered && !(to - from > 1 && taxWord.test(last.text))) continue;
        // What ends with its country's word for tax is not cut short.
        const after = tokens[to];
        if (after && after.segment === last.segment && taxWord.test(after.text) && after.x - last.end < 0.75 * last.word.size) continue;
        const value = trimmed(
          tokens
            .slice(from, to)
            .map((t) => t.text)
            .join(' '),
        );
        const key = value.replace(/\s+/g, '').toUpperCase();
        // "VAT reg. no 667 320 137": Norway's numbers, which begin so, end with their word.
        if (to - from > 1 && /^n[or]\.?$/i.test(tokens[from]!.text) && !key.endsWith('MVA')) continue;
        if (key.length < 2 || key.length > 24 || foreign.test(value) || !/\d/.test(key)) continue;
        // Words before a number are its label; one short one, or one in capitals, may be part of it.
        if (to - from > 1 && tokens.slice(from, to - 1).some((t) => longWord.test(t.text) || t.text.length > 12)) continue;
        found.push({ at, from, to, text: value, key, value, mark: markOf(row, tokens.slice(from, to)) });
      }
    }
  }
  return found;
}

/** Digits and letters by how many stand together. */
const shapeIn = (key: string): string =>
  key.replace(/\d+/g, (d) => (d.length > 2 ? '9' : '8')).replace(/\p{L}+/gu, (l) => (l.length > 3 ? 'B' : 'A'));

/** Countries whose tax numbers have letters where nothing else has, or an own sign. */
const telling = new Set(['in', 'jp', 'ch', 'ca', 'directive']);

/** Evidence for each reference of a document, for every role alike. */
export function referenceFeatures(layout: Layout, all: Surroundings, pieces: Reference[]): Features[] {
  const labels = new Labelled(layout);
  const known = new Map<string, string>();
  const shapeOf = (key: string): string => known.get(key) ?? known.set(key, shapeIn(key)).get(key)!;
  const times = new Map<string, number>(),
    shapes = new Map<string, number>(),
    pages = new Map<string, Set<number>>();
  for (const p of pieces) {
    times.set(p.key, (times.get(p.key) ?? 0) + 1);
    const { row, tokens } = all.rows[p.at]!;
    const column = `${row.page} ${Math.round(tokens[p.from]!.x / 3)} ${shapeOf(p.key)}`;
    shapes.set(column, (shapes.get(column) ?? 0) + 1);
    (pages.get(p.key) ?? pages.set(p.key, new Set()).get(p.key)!).add(row.page);
  }
  const accounts = new Set(findIbans(layout.text).map((i) => i.iban.slice(0, 2)));
  const titles = layout.rows.flatMap((row) =>
    row.segments.flatMap((s) =>
      s.size > 1.12 * all.body || s.text === s.text.toUpperCase() ? findLabels(s.words, kindBook).map(() => ({ row, s })) : [],
    ),
  );
  return pieces.map((p) => {
    const f = new Features();
    const { row, tokens } = all.rows[p.at]!;
    const first = tokens[p.from]!,
      own = tokens.slice(p.from, p.to);
    around(f, all, p);
    labels.add(f, row.page, first);
    f.of('words ', p.to - p.from);
    f.of('length ', Math.min(14, p.key.length));
    f.of('digits ', Math.floor((p.key.replace(/\D/g, '').length / p.key.length) * 4));
    f.of('shape ', shapeOf(p.key).slice(0, 8));
    const letters = /^\p{L}+/u.exec(p.key)?.[0];
    if (letters) f.word('begins', letters.toLowerCase().slice(0, 8), 0.8);
    for (const t of own.slice(0, -1)) f.word('inside', plainWord(t.text), 0.7);
    if (/^0\d/.test(p.key)) f.add('leading zero');
    if (/(19|20)\d\d/.test(p.key)) f.add('has a year');
    if (/^(19|20)\d\d$/.test(p.key)) f.add('is a year');
    if (/[-/.]/.test(p.key)) f.of('sign ', /[-/.]/.exec(p.key)![0]);
    if (findDates(own.map((t) => t.text).join(' ')).some((d) => d.length >= p.value.length - 2)) f.add('is a date');
    if (/^\d{1,3}(\.\d{3})*\.\d{2}$|^\d+\.\d{1,2}$/.test(p.key)) f.add('is an amount');
    if (findIbans(p.key).length > 0 || /^[A-Z]{2}\d{2}[A-Z]{4}\d{6,}/.test(p.key)) f.add('is an account');
    if (findTaxIds(p.key).length > 0) f.add('is a tax number');
    const plain = squash(p.key),
      countries = taxNumberOf(plain);
    for (const shape of countries) f.of('like ', shape);
    if (countries.length > 0) f.add(hasLetter(p.key) ? 'like a tax number' : 'as long as a tax number');
    if (countries.some((c) => telling.has(c))) f.add('only a tax number looks so');
    if (countries.length > 0 && checkDigitsHold(plain)) f.add('check digits hold');
    // A firm has its account where it is registered, mostly.
    if (/^[A-Z]{2}.*\d{7}/.test(p.key) && accounts.size > 0)
      f.add(accounts.has(p.key.slice(0, 2)) ? 'country of an account' : 'country of no account');
    if (own.length > 1 && own.every((t) => /^\d{2,4}\W?$/.test(t.text))) f.add('groups of digits');
    if (/^[A-Z]{1,2}\d{1,2}[A-Z]?\d[A-Z]{2}$/.test(p.key)) f.add('is a postcode');
    // "Portland, OR 97204"
    const town = tokens[p.from - 1];
    if (town?.segment === first.segment && /,$/.test(town.text) && /^[A-Z]{2,3} \d{4,5}(-\d{4})?$/.test(p.value)) f.add('is a postcode');
    if (/^(\+|00)\d|^0\d{3,4} ?\d/.test(p.value) && p.to - p.from > 1) f.add('is a telephone');
    if (/^\d{2}-\d{2}-\d{2}$/.test(p.key)) f.add('is a sort code');
    if (/^\d+(KG|G|MM|CM|M|L|ML|W|V|H|X\d+)$/.test(p.key)) f.add('is a measure');
    f.of('times ', Math.min(4, times.get(p.key)!));
    if (pages.get(p.key)!.size > 1) f.add('on several pages');
    const column = shapes.get(`${row.page} ${Math.round(first.x / 3)} ${shapeOf(p.key)}`)!;
    f.of('like it below ', Math.min(5, column));
    const amounts = row.words.filter((w) => /\d[.,]\d{2}\D?$/.test(w.text)).length;
    f.of('amounts ', Math.min(3, amounts));
    if (p.from > 0 && first.segment === tokens[p.from - 1]!.segment && /\d/.test(tokens[p.from - 1]!.text)) f.add('digits before');
    const next = tokens[p.to];
    if (next && next.segment === own.at(-1)!.segment && /\d/.test(next.text)) f.add('digits after');
    const title = titles.filter((t) => t.row.page === row.page);
    if (title.some((t) => t.row === row)) f.add('beside a title');
    else if (title.some((t) => Math.abs(t.row.y - row.y) < 4 * all.body)) f.add('near a title');
    if (title.some((t) => t.s.words.includes(first.word))) f.add('in a title');
    return f;
  });
}
