/** How many of a list's numbers lie within a tolerance of one: they are sorted once, and looked up. */
export function countNear(values: readonly number[], tolerance: number): (value: number) => number {
  const sorted = Float64Array.from(values).sort();
  /** The place of the first that is not below so. */
  const first = (below: (v: number) => boolean): number => {
    let from = 0,
      to = sorted.length;
    while (from < to) {
      const middle = (from + to) >> 1;
      if (below(sorted[middle]!)) from = middle + 1;
      else to = middle;
    }
    return from;
  };
  return (value) => first((v) => v < value || v - value < tolerance) - first((v) => value - v >= tolerance);
}
