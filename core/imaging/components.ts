import { foursOf } from './pixels.ts';

/** A connected piece of ink: its box and how many pixels it has. `runs` are the places of its runs in the list of all runs. */
export interface Piece {
  x: number;
  y: number;
  w: number;
  h: number;
  area: number;
}

export interface Pieces {
  pieces: Piece[];
  /** Runs of ink, four numbers each: row, first column, column after the last, number of the piece. */ runs: Int32Array;
  count: number;
}

/** The first run of the piece that a run belongs to (union-find; paths are halved on the way). */
function rootOf(parent: Int32Array, i: number): number {
  while (parent[i] !== i) {
    parent[i] = parent[parent[i]!]!;
    i = parent[i]!;
  }
  return i;
}

function longer(list: Int32Array): Int32Array<ArrayBuffer> {
  const more = new Int32Array(list.length * 2);
  more.set(list);
  return more;
}

/** Finds the connected pieces of ink (eight neighbours), by joining the runs of each row with those of the row before. */
export function piecesOf(ink: Uint8Array, width: number, height: number): Pieces {
  const fours = foursOf(ink);
  let runs = new Int32Array(4 * 65536),
    count = 0;
  let parent = new Int32Array(65536);
  let above = 0,
    aboveEnd = 0;
  for (let y = 0; y < height; y++) {
    const first = count;
    let at = above;
    for (let x = 0, i = y * width; x < width;) {
      if (!ink[i + x]) {
        x += ((i + x) & 3) === 0 && fours[(i + x) >> 2] === 0 ? 4 : 1;
        continue;
      }
      const from = x;
      while (x < width && ink[i + x]) x++;
      if (count * 4 >= runs.length) {
        runs = longer(runs);
        parent = longer(parent);
      }
      const to = count * 4;
      runs[to] = y;
      runs[to + 1] = from;
      runs[to + 2] = x;
      parent[count] = count;
      while (at < aboveEnd && runs[at * 4 + 2]! < from) at++;
      for (let k = at; k < aboveEnd && runs[k * 4 + 1]! <= x; k++) {
        const a = rootOf(parent, k),
          b = rootOf(parent, count);
        if (a !== b) parent[Math.max(a, b)] = Math.min(a, b);
      }
      count++;
    }
    above = first;
    aboveEnd = count;
  }
  const numbers = new Int32Array(count).fill(-1),
    pieces: Piece[] = [];
  for (let i = 0; i < count; i++) {
    const r = rootOf(parent, i),
      y = runs[i * 4]!,
      from = runs[i * 4 + 1]!,
      to = runs[i * 4 + 2]!;
    if (numbers[r] === -1) {
      numbers[r] = pieces.length;
      pieces.push({ x: from, y, w: to - from, h: 1, area: 0 });
    }
    const p = pieces[numbers[r]!]!,
      right = Math.max(p.x + p.w, to);
    p.x = Math.min(p.x, from);
    p.w = right - p.x;
    p.h = y - p.y + 1;
    p.area += to - from;
    runs[i * 4 + 3] = numbers[r]!;
  }
  return { pieces, runs, count };
}
