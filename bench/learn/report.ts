import type { DocumentScore } from './score.ts';
import type { Sample } from './samples.ts';

const share = (a: number, b: number): string => `${((100 * a) / Math.max(1, b)).toFixed(1)}%`;

/** Prints how documents were read, by kind of family, and in how many families what was wrong; lists faults whose path contains `show`. */
export function report(read: readonly { sample: Sample; score: DocumentScore }[], show: string | undefined): void {
  const groups = [
    ['samples', read.filter((r) => !r.sample.family.startsWith('strange '))],
    ['strange', read.filter((r) => r.sample.family.startsWith('strange '))],
  ] as const;
  for (const [name, own] of groups) {
    if (own.length === 0) continue;
    const sum = (of: (s: DocumentScore) => number) => own.reduce((a, r) => a + of(r.score), 0);
    console.log(
      `${name}: ${own.length} documents: header ${share(
        sum((s) => s.header.right),
        sum((s) => s.header.all),
      )}, rows F1 ${share(
        sum((s) => 2 * s.rows.right),
        sum((s) => s.rows.wanted + s.rows.said),
      )}, right ${sum((s) => Number(s.right))} (${share(
        sum((s) => Number(s.right)),
        own.length,
      )}), untouched ${share(
        sum((s) => Number(s.untouched)),
        own.length,
      )}, silent ${sum((s) => s.silent)} (${share(
        sum((s) => s.silent),
        sum((s) => s.values),
      )})`,
    );
    const by = new Map<string, { families: Set<string>; times: number; silent: number }>();
    for (const { sample, score } of own)
      for (const f of score.faults) {
        const path = f.path.replace(/\[\d+\]/, '[]');
        const one = by.get(path) ?? by.set(path, { families: new Set(), times: 0, silent: 0 }).get(path)!;
        one.families.add(sample.family);
        one.times++;
        if (!f.flagged) one.silent++;
      }
    for (const [path, { families, times, silent }] of [...by].sort((a, b) => b[1].families.size - a[1].families.size))
      console.log(`  ${String(families.size).padStart(3)} families  ${path} (${times}, ${silent} not flagged)`);
  }
  if (show !== undefined)
    for (const { sample, score } of read)
      for (const f of score.faults.filter((one) => one.path.includes(show)).slice(0, 8))
        console.log(`${sample.name}\t${f.path}${f.flagged ? '' : ' !'}\t${f.wanted} | ${f.said}`);
}
