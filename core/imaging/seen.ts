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

/** The step from one character to the next in a word, in points: from its first letter's left edge to its last one's right edge is about a third less. */
const stepOf = (w: SeenWord, toPoints: number): number => ((w.x1 - w.x0) * toPoints) / (w.text.length - 0.33);

/**
 * In a typewriter's face all characters are equally wide, 0.6 of the text height. The step that most words of a page keep; null for other
 * faces, in which words of narrow letters are shorter. Digits are equally wide in all faces and tell nothing.
 */
function pitchOf(seen: SeenWord[], toPoints: number): number | null {
  const steps = seen.filter((w) => /^\p{L}{4,}$/u.test(w.text)).map((w) => stepOf(w, toPoints));
  if (steps.length < 10) return null;
  const middle = median([...steps]);
  return steps.filter((s) => Math.abs(s - middle) < middle * 0.07).length > steps.length * 0.7 ? middle : null;
}

/** The text heights of a typewritten line as its words' steps tell, those of its letters' heights for headings and for lines of single characters. */
function typedSize(words: SeenWord[], tall: number, pitch: number, usual: number, toPoints: number): number {
  const steps = words.filter((w) => w.text.length >= 3 && /^[\p{L}\p{N}].*[\p{L}\p{N}]$/u.test(w.text)).map((w) => stepOf(w, toPoints));
  if (Math.abs(tall - usual) < usual * 0.25 && steps.every((s) => Math.abs(s - pitch) < pitch * 0.15)) return pitch / 0.6;
  return steps.length > 0 ? median(steps) / 0.6 : (tall / usual) * (pitch / 0.6);
}

/** One text height for each line, and one for all lines that are about as tall: ink varies by a pixel where type does not. */
function sizesOf(seen: SeenWord[], toPoints: number): { sizes: Map<number, number>; typed: boolean } {
  const lines = new Map<number, { sizes: number[]; words: SeenWord[] }>();
  for (const word of seen) {
    const size = sizeOf(word, toPoints);
    if (size === null) continue;
    const line = lines.get(word.line) ?? { sizes: [], words: [] };
    for (let i = 0; i < word.text.length; i++) line.sizes.push(size);
    line.words.push(word);
    lines.set(word.line, line);
  }
  const pitch = pitchOf(seen, toPoints),
    usual = pitch === null ? 0 : median([...lines.values()].flatMap((l) => l.sizes));
  const told = [...lines]
    .map(([line, { sizes, words }]) => ({
      line,
      size: pitch === null ? median(sizes) : typedSize(words, median([...sizes]), pitch, usual, toPoints),
      letters: sizes.length,
    }))
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

/** The beginning of a figure that ends with the sign before its next digits, or with whole thousands. */
const hanging = /^\W?\d[\d.,'’]*[.,;'’]$/,
  // What follows in a date, as in "27, 2025" and "15. 07.", is none of these.
  rest = /^(\d{2}|\d{3}([.,;'’](\d{2,3})?)*)[)%€-]?$/,
  thousands = /^[-−(£$€]?\d{1,3}([.,'’]\d{3})*$/;

/** Two words beside each other on one baseline as one figure, if they are that; null where they are not. */
function figureOf(left: SeenWord, right: SeenWord, by: number): SeenWord | null {
  const apart = (right.x0 - left.x1) * by,
    tall = right.base - right.y0;
  // The recogniser draws a word's box too wide now and then, over the next one; a comma reaches below the baseline.
  if (left === right || right.x0 <= left.x0 || right.x1 <= left.x1 - tall || Math.abs(left.base - right.base) > tall * 0.4) return null;
  if (apart > Math.max(5, tall * by * 1.2) || apart < -tall * by * 1.3) return null;
  const whole = { ...left, x1: Math.max(left.x1, right.x1), y0: Math.min(left.y0, right.y0), y1: Math.max(left.y1, right.y1) };
  if ((/\d[.,]\d$/.test(left.text) && /^\d$/.test(right.text)) || (hanging.test(left.text) && rest.test(right.text)))
    return { ...whole, text: left.text.replace(/;$/, ',') + right.text, confidence: Math.min(left.confidence, right.confidence) };
  if (!thousands.test(left.text) || !/^\d{3}[.,]\d{2}$/.test(right.text)) return null;
  const sign = /[.,'’]/.exec(left.text)?.[0] ?? (right.text[3] === '.' ? ',' : '.');
  return { ...whole, text: left.text + sign + right.text, confidence: Math.min(0.5, right.confidence) };
}

/**
 * Joins what belongs to one figure: digits after a sign that hangs at the end of a word stood a little apart, as in a typewriter's face
 * ("2," "611.60"), or the sign between thousands was lost ("1" "639.08").
 */
function joined(words: SeenWord[], by: number): SeenWord[] {
  const out: SeenWord[] = [];
  for (let word of [...words].sort((a, b) => a.x0 - b.x0)) {
    for (let at = 0; at >= 0;) {
      at = out.findLastIndex((left) => figureOf(left, word, by));
      if (at >= 0) word = figureOf(out.splice(at, 1)[0]!, word, by)!;
    }
    out.push(word);
  }
  return out;
}

/**
 * "Feed 16 l": a one that stands alone behind a figure at the end of a text is the unit, litres. Words from left to right.
 */
function withLitres(words: SeenWord[]): SeenWord[] {
  const beside = (a: SeenWord | undefined, b: SeenWord) =>
    a !== undefined && Math.abs(a.base - b.base) < (b.y1 - b.y0) * 0.5 && b.x0 - a.x1 < (b.y1 - b.y0) * 0.9 && b.x0 > a.x0;
  const before = (w: SeenWord) => words.findLast((o) => o !== w && beside(o, w));
  return words.map((w) => {
    if (!/^[1I]$/.test(w.text)) return w;
    const figure = before(w),
      text = figure && /^\d{1,4}$/.test(figure.text) ? before(figure) : undefined;
    const last = !words.some((o) => o.x0 > w.x0 && o.x0 - w.x1 < (w.y1 - w.y0) * 2 && Math.abs(o.base - w.base) < (w.y1 - w.y0) * 0.5);
    return text && /\p{L}{3}/u.test(text.text) && last ? { ...w, text: 'l' } : w;
  });
}

/** One sign for both thousands and decimals is no figure in any country: the thousands' sign was misread. */
function parted(read: string): string {
  const text = read.replace(/(?<=\d);(?=\d{2,3}\b)/g, ',');
  const same = /^(\D{0,2}\d{1,3}(?:([.,])\d{3})+)\2(\d{2}\D?)$/.exec(text);
  if (!same) return text;
  const [, whole, sign, rest] = same as unknown as [string, string, string, string];
  return `${whole.replaceAll(sign, sign === '.' ? ',' : '.')}${sign}${rest}`;
}

/** An O in a code's letters that was seen twice, as a letter and as a digit: "P0O-4711"; or as a digit in what is short for a purchase order: "P0-4711". */
const once = (text: string): string => text.replace(/(?<=^\p{Lu}{1,3})(0O|O0)(?=-?\d)/u, 'O').replace(/^P0(?=-\d{3})/, 'PO');

/** What a recogniser saw without specks, strokes of lines, and lines of which it made no sense. */
export function sensible(seen: SeenWord[], dpi: number): SeenWord[] {
  const by = 72 / dpi,
    noise = senseless(seen);
  return seen.filter((w) => w.text.trim() !== '' && w.x1 > w.x0 && w.y1 > w.y0 && !noise.has(w.line) && !isDust(w, by));
}

/** Words in points from what the recogniser saw at `dpi`; specks and strokes that were taken for letters are left out. */
export function wordsOfSeen(seen: SeenWord[], dpi: number): Word[] {
  const by = 72 / dpi,
    kept = withLitres(joined(sensible(seen, dpi), by));
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
