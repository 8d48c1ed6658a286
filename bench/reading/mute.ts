// npm run bench:mute -- --folder DIR [--folder DIR …] [--made N]: how many rows of lines are read where every label and heading is a word without meaning.
import { fileURLToPath } from 'node:url';
import { parseArgs } from 'node:util';
import { seeded } from '@ledgerline/documents/random';
import type { Page } from '@ledgerline/core/page';
import { plainWord } from '../../core/reading/learned/features.ts';
import { readDocument, toFormat } from '../../core/reading/index.ts';
import { madeSamples, samplesOf, type Sample, type Truth } from '../learn/samples.ts';
import { similarity } from '../learn/similarity.ts';

const letters = ['bdfglmnprstvz', 'aeiou'] as const;

/** A word of the same length and case that means nothing; the same word is always the same. */
function meaningless(word: string, seen: Map<string, string>): string {
  const plain = word.toLowerCase();
  let made = seen.get(plain);
  if (made === undefined) {
    const r = seeded([...plain].reduce((h, c) => (Math.imul(h, 31) + c.charCodeAt(0)) >>> 0, 17));
    made = [...plain].map((c, i) => (/\p{L}/u.test(c) ? r.pick([...letters[i % 2]!]) : c)).join('');
    seen.set(plain, made);
  }
  return [...made].map((c, i) => (word[i] !== word[i]?.toLowerCase() ? c.toUpperCase() : c)).join('');
}

/** Pages on which every word says nothing that is no part of a line, a name or a number: only figures, types and places are left. */
export function mute(pages: readonly Page[], truth: Truth): Page[] {
  const kept = new Set(
    [...truth.lines.flatMap((l) => [l.description, l.code]), truth.supplier.name, truth.buyer.name].flatMap((t) =>
      (t ?? '').split(/\s+/).map(plainWord),
    ),
  );
  const seen = new Map<string, string>();
  return pages.map((page) => ({
    ...page,
    words: page.words.map((w) =>
      /\d/.test(w.text) || !/\p{L}{2}/u.test(w.text) || kept.has(plainWord(w.text)) ? w : { ...w, text: meaningless(w.text, seen) },
    ),
  }));
}

/** Right rows among those read and those there are. */
export function rowsOf(sample: Sample, pages: Page[]): { right: number; said: number; there: number } {
  const read = (toFormat('', [readDocument(pages)]) as { documents: { lines: Record<string, string | null>[] }[] }).documents[0]!.lines;
  const left = [...read];
  let right = 0;
  const same = (a: string | null | undefined, b: string | null) =>
    b === null ? (a ?? null) === null : a !== null && a !== undefined && Number(a) === Number(b);
  for (const line of sample.truth.lines) {
    const at = left.findIndex(
      (l) =>
        same(l['amount'], line.amount) &&
        similarity(l['description'] ?? '', line.description ?? '') >= 0.85 &&
        same(l['quantity'], line.quantity) &&
        same(l['unitPrice'], line.unitPrice),
    );
    if (at < 0) continue;
    left.splice(at, 1);
    right++;
  }
  return { right, said: read.length, there: sample.truth.lines.length };
}

if (process.argv[1] === fileURLToPath(import.meta.url)) {
  const { values: option } = parseArgs({
    options: { folder: { type: 'string', multiple: true, default: [] }, made: { type: 'string', default: '0' } },
  });
  const samples = [...(await samplesOf(option.folder)), ...madeSamples(Number(option.made))].filter(
    (s) => s.truth.kind !== 'other' && s.truth.lines.length > 0,
  );
  for (const [name, pages] of [
    ['as printed', (s: Sample) => s.pages],
    ['muted', (s: Sample) => mute(s.pages, s.truth)],
  ] as const) {
    const all = samples.map((s) => rowsOf(s, pages(s)));
    const sum = (of: 'right' | 'said' | 'there') => all.reduce((a, x) => a + x[of], 0);
    const whole = all.filter((x) => x.right === x.there && x.said === x.there).length;
    console.log(
      `${name.padEnd(11)} rows F1 ${((200 * sum('right')) / (sum('said') + sum('there'))).toFixed(1)}%, all rows right in ${whole} of ${all.length} documents`,
    );
  }
}
