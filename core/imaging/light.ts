import type { Gray } from './types.ts';

/** How bright paper is made. */
export const white = 247;

/** Paper that is white already. */
export const evenPaper: Paper = { columns: 1, rows: 1, cell: 1, light: Float32Array.of(white), usual: white };

/** Lighter than this is paper with its grain, once the paper is white. */
export const paperGrain = 215;

/** How bright the paper is, cell by cell; `cell` is the width of one in pixels. */
export interface Paper {
  columns: number;
  rows: number;
  cell: number;
  light: Float32Array;
  /** What paper mostly is once its bright grain is white. */
  usual: number;
}

/**
 * How bright the paper is all over the page, on a coarse grid: the bright end of each cell, with cells that hold no paper (dark bands,
 * pictures) filled from those around them, then smoothed.
 */
export function paperOf(gray: Gray, cell: number): Paper {
  const columns = Math.max(1, Math.ceil(gray.width / cell)),
    rows = Math.max(1, Math.ceil(gray.height / cell));
  let light: Float32Array = new Float32Array(columns * rows);
  const middle = new Float32Array(columns * rows);
  const histogram = new Uint32Array(256),
    // A few hundred pixels tell the brightness of a cell.
    step = Math.max(1, Math.round(cell / 18));
  for (let r = 0; r < rows; r++) {
    for (let c = 0; c < columns; c++) {
      histogram.fill(0);
      for (let y = r * cell; y < Math.min(gray.height, (r + 1) * cell); y += step)
        for (let x = c * cell; x < Math.min(gray.width, (c + 1) * cell); x += step) histogram[gray.data[y * gray.width + x]!]!++;
      let total = 0;
      for (let i = 0; i < 256; i++) total += histogram[i]!;
      let bright = 0,
        i = 0;
      for (; i < 255 && (bright += histogram[i]!) < total * 0.5; i++);
      middle[r * columns + c] = i;
      for (; i < 255 && bright < total * 0.8; bright += histogram[++i]!);
      light[r * columns + c] = i;
    }
  }
  // Paper changes slowly: a cell much darker than the brightest a few cells away holds something else.
  const reach = 13,
    paper = new Uint8Array(light.length);
  for (let r = 0; r < rows; r++)
    for (let c = 0; c < columns; c++) {
      let most = 0;
      for (let y = Math.max(0, r - reach); y <= Math.min(rows - 1, r + reach); y++)
        for (let x = Math.max(0, c - reach); x <= Math.min(columns - 1, c + reach); x++) most = Math.max(most, light[y * columns + x]!);
      paper[r * columns + c] = light[r * columns + c]! > most * 0.72 ? 1 : 0;
    }
  // The middle one of the cells, as most hold more paper than ink.
  const shares = [...light].map((l, i) => middle[i]! / Math.max(1, l)).filter((_, i) => paper[i]),
    share = shares.sort((a, b) => a - b)[shares.length >> 1] ?? 1;
  light = fill(light, paper, columns, rows);
  for (let i = 0; i < 3; i++) light = smooth(light, columns, rows);
  return { columns, rows, cell, light, usual: Math.round(white * share) };
}

/** Gives cells without paper the mean of their nearest neighbours that have it, ring by ring. */
function fill(light: Float32Array, paper: Uint8Array, columns: number, rows: number): Float32Array {
  const out = light.slice();
  if (!paper.includes(1)) return out.fill(255);
  const known = paper.slice();
  for (let left = true; left;) {
    left = false;
    const before = known.slice();
    for (let r = 0; r < rows; r++)
      for (let c = 0; c < columns; c++) {
        const i = r * columns + c;
        if (before[i]) continue;
        let sum = 0,
          n = 0;
        for (const [dy, dx] of [
          [-1, 0],
          [1, 0],
          [0, -1],
          [0, 1],
        ] as const) {
          const y = r + dy,
            x = c + dx;
          if (y >= 0 && x >= 0 && y < rows && x < columns && before[y * columns + x]) {
            sum += out[y * columns + x]!;
            n++;
          }
        }
        if (n) {
          out[i] = sum / n;
          known[i] = 1;
        } else left = true;
      }
  }
  return out;
}

function smooth(light: Float32Array, columns: number, rows: number): Float32Array {
  const out = new Float32Array(light.length);
  for (let r = 0; r < rows; r++)
    for (let c = 0; c < columns; c++) {
      let sum = 0,
        n = 0;
      for (let y = Math.max(0, r - 1); y <= Math.min(rows - 1, r + 1); y++)
        for (let x = Math.max(0, c - 1); x <= Math.min(columns - 1, c + 1); x++) {
          sum += light[y * columns + x]!;
          n++;
        }
      out[r * columns + c] = sum / n;
    }
  return out;
}

/** How bright the paper is at a place of the page, between the middles of cells evenly; never taken for darker than a deep shadow. */
export function brightnessAt({ columns, rows, cell, light }: Paper, x: number, y: number): number {
  const fx = Math.min(columns - 1, Math.max(0, x / cell - 0.5)),
    fy = Math.min(rows - 1, Math.max(0, y / cell - 0.5)),
    c = Math.floor(fx),
    r = Math.floor(fy);
  const right = c + 1 < columns ? 1 : 0,
    at = r * columns + c,
    low = r + 1 < rows ? at + columns : at;
  const above = light[at]! + (light[at + right]! - light[at]!) * (fx - c),
    below = light[low]! + (light[low + right]! - light[low]!) * (fx - c);
  return Math.max(30, above + (below - above) * (fy - r));
}
