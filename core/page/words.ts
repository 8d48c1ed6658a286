import type { TextRun, Word } from './types.ts';

/** Share of an em that a character takes in a plain proportional face; only its proportion to its neighbours matters. */
function weight(ch: string): number {
  if (/[il.,:;'|!Ij]/.test(ch)) return 0.28;
  if (/[ftr()\-[\]/ ]/.test(ch)) return 0.34;
  if (/[mwMW@%]/.test(ch)) return 0.86;
  if (/[A-Z&]/.test(ch)) return 0.68;
  return 0.55;
}

interface Glyph {
  ch: string;
  x: number;
  end: number;
}

/** Places a run's characters along its measured width in proportion to their usual widths. */
function glyphs(run: TextRun): Glyph[] {
  const chars = [...run.text];
  const total = chars.reduce((t, c) => t + weight(c), 0) || 1;
  let x = run.x;
  return chars.map((ch) => {
    const w = (run.width * weight(ch)) / total;
    const glyph = { ch, x, end: x + w };
    x += w;
    return glyph;
  });
}

// A gap of less than this share of the text height is inside a word: kerning and runs cut mid-word, not a space.
const insideWord = 0.14;
/** Typesetters of formulas set a comma off from the decimals behind it, by less than a space. */
const behindPoint = 0.22;
// Letter-spaced text: single characters at even gaps below this share of the height are one word.
const letterSpaced = 0.36;

function overlapsLine(a: TextRun, b: TextRun): boolean {
  return Math.abs(a.y - b.y) < Math.min(a.size, b.size) * 0.25 && Math.max(a.size, b.size) < Math.min(a.size, b.size) * 1.6;
}

/**
 * Cuts text runs into words, whatever the producer's habits: runs of whole lines, of single letters, or broken inside a word.
 * Words come out in reading order of their runs. Invisible and empty runs must be left out by the caller.
 */
export function wordsOf(runs: TextRun[]): Word[] {
  const lines: TextRun[][] = [];
  for (const run of runs.filter((r) => r.text.trim() !== '').sort((a, b) => a.y - b.y || a.x - b.x)) {
    const line = lines.slice(-12).find((l) => overlapsLine(l[l.length - 1]!, run));
    if (line) line.push(run);
    else lines.push([run]);
  }
  return lines.flatMap((line) => wordsOfLine(line.sort((a, b) => a.x - b.x)));
}

function wordsOfLine(line: TextRun[]): Word[] {
  const words: Word[] = [];
  let word: Word | null = null;
  let end = 0;
  const close = () => {
    if (word) words.push(word);
    word = null;
  };
  for (const run of line) {
    for (const glyph of glyphs(run)) {
      if (/\s/.test(glyph.ch)) {
        close();
        continue;
      }
      const gap = glyph.x - end;
      if (word && (gap > insideWord * run.size || gap < -run.size * 0.5 || (word.font !== run.font && gap > 0.08 * run.size))) close();
      if (!word) word = { text: '', x: glyph.x, y: run.y - run.size * 0.78, w: 0, h: run.size, size: run.size, font: run.font };
      word.text += glyph.ch;
      end = glyph.end;
      word.w = end - word.x;
    }
  }
  close();
  return joinLetterSpaced(joinDecimals(words));
}

/** Joins two decimals to the comma or point before them: "521," and "22". */
function joinDecimals(words: Word[]): Word[] {
  const out: Word[] = [];
  for (const word of words) {
    const before = out.at(-1);
    if (before && /\d[.,]$/.test(before.text) && /^\d\d(?!\d)/.test(word.text) && word.x - before.x - before.w < behindPoint * word.size)
      out[out.length - 1] = { ...before, text: before.text + word.text, w: word.x + word.w - before.x };
    else out.push(word);
  }
  return out;
}

/** Joins three or more single letters at even small gaps: "I N V O I C E". */
function joinLetterSpaced(words: Word[]): Word[] {
  const out: Word[] = [];
  for (let i = 0; i < words.length;) {
    let j = i;
    while (
      j + 1 < words.length &&
      [...words[j + 1]!.text].length === 1 &&
      [...words[j]!.text].length === 1 &&
      words[j + 1]!.x - (words[j]!.x + words[j]!.w) < letterSpaced * words[j]!.size
    )
      j++;
    if (j - i >= 2) {
      const first = words[i]!,
        last = words[j]!;
      out.push({
        ...first,
        text: words
          .slice(i, j + 1)
          .map((w) => w.text)
          .join(''),
        w: last.x + last.w - first.x,
      });
    } else out.push(...words.slice(i, j + 1));
    i = j + 1;
  }
  return out;
}
