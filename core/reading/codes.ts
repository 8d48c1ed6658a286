import { digitLike, letterLike } from './confusions.ts';
import type { ReadLine } from './types.ts';

/** Where a code has letters and where digits: "N05" is "A99". */
const shapeOf = (code: string): string => code.replace(/\p{L}/gu, 'A').replace(/\d/g, '9');

/** A code brought to a shape by swapping letters and digits that look alike; null where that is not enough. */
function shaped(code: string, shape: string): string | null {
  if (code.length !== shape.length) return null;
  const out = [...code].map((c, i) => (shapeOf(c) === shape[i] ? c : (digitLike[c] ?? letterLike[c] ?? c))).join('');
  return shapeOf(out) === shape ? out : null;
}

/** As many other codes must have a shape as to make it the usual one. */
const fewest = 3;

/**
 * The lines of a document that was read from ink, with codes put right that have a letter where all others have a digit, or a digit for
 * a letter: "NOS" among "N05", "W12" and "T40". Says what was read at first, and is not sure.
 */
export function codesAlike(lines: ReadLine[]): ReadLine[] {
  const shapes = new Map<string, number>();
  for (const code of new Set(lines.flatMap((l) => l.code?.value ?? []))) shapes.set(shapeOf(code), (shapes.get(shapeOf(code)) ?? 0) + 1);
  const usual = [...shapes].filter(([, n]) => n >= fewest).sort((a, b) => b[1] - a[1]);
  return lines.map((line) => {
    const { code } = line;
    if (!code || (shapes.get(shapeOf(code.value)) ?? 0) >= fewest) return line;
    for (const [shape] of usual) {
      const value = shaped(code.value, shape);
      if (value)
        return { ...line, code: { ...code, value, confidence: 0.8, repaired: `read ${code.value}, ${value} is built like the others` } };
    }
    return line;
  });
}
