import { typewriter, type Word } from '../page/index.ts';

/** A word as a character recogniser saw it; boxes in pixels of the cleaned page. */
export interface SeenWord {
  text: string;
  /** 0 to 1, as the recogniser has it. */
  confidence: number;
  x0: number;
  y0: number;
  x1: number;
  y1: number;
  /** Height of the baseline under the middle of the word. */
  base: number;
  /** Words that the recogniser saw on one line share its number. */
  line: number;
}

/** Letters that rise to the height of a capital, and letters that have no part above the small ones. */
const rises = /[A-Z0-9bdfhklt£$€%&@#/()[\]ÄÖÜÉß]/;
const small = /^[acegmnopqrsuvwxyzıæœ.,:;-]+$/;

/**
 * The text height in points that a word's ink above the baseline stands for: capitals and digits are about 0.74 of it with the
 * blur at their edges, small letters a little more than half. Null for a word that tells nothing, such as a dash.
 */
function sizeOf(word: SeenWord, toPoints: number): number | null {
  const above = (word.base - word.y0) * toPoints;
  if (above <= 0 || !/[\p{L}\p{N}]/u.test(word.text)) return null;
  return above / (rises.test(word.text) ? 0.74 : small.test(word.text) ? 0.545 : 0.69);
}

const median = (values: number[]): number => values.sort((a, b) => a - b)[values.length >> 1]!;

/**
 * In a typewriter's face all characters are equally wide, 0.6 of the text height, and its capitals are low. By how much the text is taller
 * than its capitals say; null for other faces.
 */
function pitchOf(seen: SeenWord[], lines: Map<number, { sizes: number[] }>, toPoints: number): number | null {
  const ratios: number[] = [];
  for (const w of seen) {
    const size = lines.get(w.line);
    // From the first letter's left edge to the last one's right edge: about a third of a step less than all steps.
    if (size && w.text.length >= 4) ratios.push(((w.x1 - w.x0) * toPoints) / (w.text.length - 0.33) / 0.6 / median([...size.sizes]));
  }
  if (ratios.length < 12) return null;
  const middle = median([...ratios]);
  return ratios.filter((r) => Math.abs(r - middle) < middle * 0.07).length > ratios.length * 0.75 ? middle : null;
}

/** One text height for each line, and one for all lines that are about as tall: ink varies by a pixel where type does not. */
function sizesOf(seen: SeenWord[], toPoints: number): { sizes: Map<number, number>; typed: boolean } {
  const lines = new Map<number, { sizes: number[]; letters: number }>();
  for (const word of seen) {
    const size = sizeOf(word, toPoints);
    if (size === null) continue;
    const line = lines.get(word.line) ?? { sizes: [], letters: 0 };
    for (let i = 0; i < word.text.length; i++) line.sizes.push(size);
    line.letters += word.text.length;
    lines.set(word.line, line);
  }
  const pitch = pitchOf(seen, lines, toPoints);
  const told = [...lines]
    .map(([line, { sizes, letters }]) => ({ line, size: pitch ? median(sizes) * pitch : median(sizes), letters }))
    .sort((a, b) => b.letters - a.letters);
  const kinds: { size: number; letters: number }[] = [];
  const out = new Map<number, number>();
  for (const { size, letters } of told) {
    const kind = kinds.find((k) => Math.abs(k.size - size) < k.size * 0.12);
    if (kind) {
      kind.size += ((size - kind.size) * letters) / (kind.letters + letters);
      kind.letters += letters;
    } else kinds.push({ size, letters });
  }
  // Kinds that drifted towards each other while they grew are one.
  for (let i = 0; i < kinds.length; i++)
    for (let k = kinds.length - 1; k > i; k--) {
      const [a, b] = [kinds[i]!, kinds[k]!];
      if (Math.abs(a.size - b.size) >= Math.min(a.size, b.size) * 0.09) continue;
      a.size = (a.size * a.letters + b.size * b.letters) / (a.letters + b.letters);
      a.letters += b.letters;
      kinds.splice(k, 1);
    }
  for (const { line, size } of told)
    out.set(line, kinds.reduce((a, b) => (Math.abs(b.size - size) < Math.abs(a.size - size) ? b : a)).size);
  return { sizes: out, typed: pitch !== null };
}

/** Marks that dust and remains of lines are read as. */
const dust = /^[^\p{L}\p{N}£$€%]+$/u;
/** What the remains of an upright line are read as. */
const stroke = /^[Il|!i[\]{}]$/;
const isDust = (w: SeenWord, by: number): boolean =>
  (dust.test(w.text) && (w.confidence < 0.6 || !/^[-–—.:,&#/()+*]+$/.test(w.text))) ||
  (w.y1 - w.y0) * by < 1.2 ||
  (w.confidence < 0.25 && w.text.length < 3) ||
  (stroke.test(w.text) && w.confidence < 0.9);

/** Lines of which the recogniser makes no sense: stamps, signatures, patterns. */
function senseless(seen: SeenWord[]): Set<number> {
  const lines = new Map<number, { sure: number; letters: number; best: number }>();
  for (const { line, text, confidence } of seen) {
    const l = lines.get(line) ?? { sure: 0, letters: 0, best: 0 };
    lines.set(line, { sure: l.sure + confidence * text.length, letters: l.letters + text.length, best: Math.max(l.best, confidence) });
  }
  return new Set([...lines].filter(([, l]) => l.sure / l.letters < 0.45 && l.best < 0.7).map(([line]) => line));
}

/** Joins what belongs to one figure: its last decimal stood a little apart. */
function joined(words: SeenWord[], by: number): SeenWord[] {
  const out: SeenWord[] = [];
  for (const w of words) {
    const before = out[out.length - 1];
    const close = before?.line === w.line && (w.x0 - before.x1) * by < 5 && w.x0 >= before.x1;
    if (before && close && /\d[.,]\d?$/.test(before.text) && /^\d{1,2}$/.test(w.text))
      out[out.length - 1] = { ...before, text: before.text + w.text, x1: w.x1, confidence: Math.min(before.confidence, w.confidence) };
    else out.push(w);
  }
  return out;
}

/** One sign for both thousands and decimals is no figure in any country: the thousands' sign was misread. */
function parted(text: string): string {
  const same = /^(\D{0,2}\d{1,3}(?:([.,])\d{3})+)\2(\d{2}\D?)$/.exec(text);
  if (!same) return text;
  const [, whole, sign, rest] = same as unknown as [string, string, string, string];
  return `${whole.replaceAll(sign, sign === '.' ? ',' : '.')}${sign}${rest}`;
}

/** An O in a code's letters that was seen twice, as a letter and as a digit: "P0O-4711". */
const once = (text: string): string => text.replace(/(?<=^\p{Lu}{1,3})(0O|O0)(?=-?\d)/u, 'O');

/** What a recogniser saw without specks, strokes of lines, and lines of which it made no sense. */
export function sensible(seen: SeenWord[], dpi: number): SeenWord[] {
  const by = 72 / dpi,
    noise = senseless(seen);
  return seen.filter((w) => w.text.trim() !== '' && w.x1 > w.x0 && w.y1 > w.y0 && !noise.has(w.line) && !isDust(w, by));
}

/** Words in points from what the recogniser saw at `dpi`; specks and strokes that were taken for letters are left out. */
export function wordsOfSeen(seen: SeenWord[], dpi: number): Word[] {
  const by = 72 / dpi,
    kept = joined(sensible(seen, dpi), by);
  const { sizes, typed } = sizesOf(kept, by),
    usual = sizes.size ? median([...sizes.values()]) : 10;
  return kept.map((w) => {
    const size = Math.min(72, Math.max(4, sizes.get(w.line) ?? usual));
    return {
      text: parted(once(w.text.normalize('NFKC'))),
      x: w.x0 * by,
      y: w.base * by - size * 0.78,
      w: (w.x1 - w.x0) * by,
      h: size,
      size,
      font: typed ? typewriter : 'ink',
      sure: w.confidence,
    };
  });
}
