/** A pair that may go together: rows and columns by their place, and how well they do (higher is better). */
export interface Pair {
  row: number;
  column: number;
  score: number;
}

/**
 * The pairs of the greatest total score in which no row and no column stands twice. Only pairs that are given can be chosen, and none that
 * is worth nothing. Parts of the graph that share nothing are solved apart, each by shortest augmenting paths (Jonker and Volgenant,
 * Computing 38, 1987), so that many lines with few candidates each are quick.
 */
export function assign(pairs: readonly Pair[]): Pair[] {
  return components(pairs.filter((p) => p.score > 0)).flatMap(solve);
}

/** Pairs in groups that have neither a row nor a column in common. */
function components(pairs: readonly Pair[]): Pair[][] {
  const parent = new Map<string, string>();
  const root = (of: string): string => {
    let at = of;
    while (parent.get(at) !== at) at = parent.get(at)!;
    parent.set(of, at);
    return at;
  };
  for (const { row, column } of pairs) {
    const [r, c] = [`r${row}`, `c${column}`];
    for (const node of [r, c]) if (!parent.has(node)) parent.set(node, node);
    parent.set(root(r), root(c));
  }
  const groups = new Map<string, Pair[]>();
  for (const pair of pairs) {
    const key = root(`r${pair.row}`),
      group = groups.get(key);
    if (group) group.push(pair);
    else groups.set(key, [pair]);
  }
  return [...groups.values()];
}

function solve(pairs: Pair[]): Pair[] {
  if (pairs.length === 1) return pairs;
  const rows = [...new Set(pairs.map((p) => p.row))],
    columns = [...new Set(pairs.map((p) => p.column))];
  const rowAt = new Map(rows.map((r, i) => [r, i])),
    columnAt = new Map(columns.map((c, i) => [c, i]));
  // Each row may also stay alone, for nothing: a column of its own for each.
  const n = rows.length,
    m = columns.length + n;
  const cost = Array.from({ length: n }, (_, i) => {
    const line = new Float64Array(m).fill(forbidden);
    line[columns.length + i] = 0;
    return line;
  });
  for (const { row, column, score } of pairs) cost[rowAt.get(row)!]![columnAt.get(column)!] = -score;
  const chosen = cheapest(cost, m);
  const byPlace = new Map(pairs.map((p) => [`${rowAt.get(p.row)} ${columnAt.get(p.column)}`, p]));
  return chosen.flatMap((column, row) => byPlace.get(`${row} ${column}`) ?? []);
}
/** Costs more than any choice could gain. */
const forbidden = 1e9;

/** For each row the column that makes the sum of costs least; there are at least as many columns as rows. */
function cheapest(cost: readonly Float64Array[], m: number): number[] {
  const n = cost.length;
  const u = new Float64Array(n + 1),
    v = new Float64Array(m + 1),
    rowOf = new Int32Array(m + 1),
    way = new Int32Array(m + 1);
  for (let i = 1; i <= n; i++) {
    rowOf[0] = i;
    let at = 0;
    const least = new Float64Array(m + 1).fill(Infinity),
      used = new Uint8Array(m + 1);
    do {
      used[at] = 1;
      const row = rowOf[at]!,
        line = cost[row - 1]!;
      let delta = Infinity,
        next = 0;
      for (let j = 1; j <= m; j++) {
        if (used[j]) continue;
        const reduced = line[j - 1]! - u[row]! - v[j]!;
        if (reduced < least[j]!) {
          least[j] = reduced;
          way[j] = at;
        }
        if (least[j]! < delta) {
          delta = least[j]!;
          next = j;
        }
      }
      for (let j = 0; j <= m; j++)
        if (used[j]) {
          u[rowOf[j]!]! += delta;
          v[j]! -= delta;
        } else least[j]! -= delta;
      at = next;
    } while (rowOf[at] !== 0);
    do {
      const before = way[at]!;
      rowOf[at] = rowOf[before]!;
      at = before;
    } while (at !== 0);
  }
  const columns = new Array<number>(n).fill(-1);
  for (let j = 1; j <= m; j++) if (rowOf[j]! > 0) columns[rowOf[j]! - 1] = j - 1;
  return columns;
}
