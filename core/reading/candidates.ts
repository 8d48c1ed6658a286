import { textOf, union, type Mark, type Segment, type Word } from '../page/index.ts';
import type { Found } from './labels.ts';
import type { FieldLabel } from './lexicon/index.ts';
import type { LabelledRow, Layout } from './layout.ts';

/** A piece of text that may be the value of a label, with how well it stands to the label. */
export interface Candidate {
  text: string;
  words: Word[];
  mark: Mark;
  label: Found<FieldLabel>;
  /** 0 to 1 */ geometry: number;
  row: LabelledRow;
}

const markOf = (page: number, words: Word[]): Mark => ({ page, ...union(words) });

function candidate(row: LabelledRow, words: Word[], label: Found<FieldLabel>, geometry: number): Candidate {
  return { text: textOf(words), words, mark: markOf(row.page, words), label, geometry, row };
}

/** The segment in which the label stands, and the label's last word's place in it. */
function home(row: LabelledRow, label: Found<FieldLabel>): { segment: Segment; at: number; index: number } {
  const last = label.words[label.words.length - 1]!;
  const index = row.segments.findIndex((s) => s.words.includes(last));
  const segment = row.segments[index]!;
  return { segment, at: segment.words.indexOf(last), index };
}

/**
 * Every text that may be this label's value: the words after it in its own run, the segments to its right,
 * and the segments below it that line up with it. Better places first.
 */
export function candidatesOf(layout: Layout, row: LabelledRow, label: Found<FieldLabel>): Candidate[] {
  const found: Candidate[] = [];
  const { segment, at, index } = home(row, label);
  const labelAt = (word: Word) => row.fields.some((f) => !(f.weak && f !== label) && f !== label && f.words.includes(word));
  const after = segment.words.slice(at + 1);
  const stop = after.findIndex(labelAt);
  // A second label right behind the first ("Factuurnummer / Invoice no.") announces the same value.
  const own = stop < 0 ? after : after.slice(0, stop);
  const text = own.filter((w) => /[\p{L}\p{N}]/u.test(w.text));
  if (text.length > 0) found.push(candidate(row, text, label, 1));
  else {
    const right = row.segments.slice(index + 1, index + 3);
    for (const [k, next] of right.entries()) {
      if (next.words.some(labelAt)) break;
      const colon = /:$/.test(segment.text);
      const distance = (next.x - (segment.x + segment.w)) / segment.size;
      found.push(candidate(row, next.words, label, (colon ? 0.97 : 0.92) - 0.1 * k - Math.min(0.35, distance / 100)));
    }
  }
  found.push(...beside(layout, row, label, segment), ...below(layout, row, label, segment));
  return found;
}

/** A value in larger or smaller print just right of the label, on a baseline of its own. */
function beside(layout: Layout, row: LabelledRow, label: Found<FieldLabel>, segment: Segment): Candidate[] {
  return layout.rows
    .slice(Math.max(0, row.index - 1), row.index + 2)
    .filter((r) => r !== row && r.page === row.page)
    .flatMap((other) =>
      other.segments
        .filter(
          (s) =>
            s.x > segment.x + segment.w &&
            s.x - (segment.x + segment.w) < 3 * segment.size &&
            Math.abs(s.size - segment.size) > 1 &&
            Math.min(s.y + s.h, segment.y + segment.h) - Math.max(s.y, segment.y) > 0.4 * Math.min(s.h, segment.h),
        )
        .map((s) => candidate(other, s.words, label, 0.9)),
    );
}

function below(layout: Layout, row: LabelledRow, label: Found<FieldLabel>, segment: Segment): Candidate[] {
  const found: Candidate[] = [];
  const reach = Math.max(segment.size, 8) * 3.4;
  // Values in a band may stand so close that no gap parts them: the next label's place does.
  const next = Math.min(...row.segments.filter((s) => s.x > label.box.x + label.box.w).map((s) => s.x));
  for (let i = row.index + 1; i < layout.rows.length; i++) {
    const lower = layout.rows[i]!;
    if (lower.page !== row.page || lower.y - row.y > reach) break;
    for (const whole of lower.segments) {
      const s = segment.words[0] === label.words[0] ? cut(whole, label.box.x, next) : whole;
      const left = Math.abs(s.x - label.box.x),
        right = Math.abs(s.x + s.w - (label.box.x + label.box.w));
      const overlap = Math.min(s.x + s.w, label.box.x + label.box.w) - Math.max(s.x, label.box.x);
      const aligned = Math.min(left, right) < segment.size * 0.8;
      if (!aligned && overlap < Math.min(s.w, label.box.w) * 0.5) continue;
      if (lower.fields.some((f) => !f.weak && s.words.includes(f.words[0]!))) continue;
      const far = (lower.y - row.y) / reach;
      found.push(candidate(lower, s.words, label, (aligned ? 0.94 : 0.75) - 0.28 * far));
    }
  }
  return found;
}

/** The part of a segment that stands below a label, where the segment runs on below its neighbours. */
function cut(segment: Segment, from: number, to: number): Segment {
  const tolerance = segment.size * 0.4;
  const starts = (x: number) => segment.words.some((w) => Math.abs(w.x - x) < tolerance);
  const left = segment.x < from - tolerance && starts(from) ? from - tolerance : -Infinity;
  const right = starts(to) ? to - tolerance : Infinity;
  const words = segment.words.filter((w) => w.x >= left && w.x < right);
  return words.length === 0 || words.length === segment.words.length
    ? segment
    : { ...segment, ...union(words), words, text: textOf(words) };
}
