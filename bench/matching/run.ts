// npm run bench:matching [-- --seed 7 --bills 1000000 --folder DIR --json]: a bill of 500 rows against 2,000 open order lines, and duplicates among a million bills (0: not).
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { parseArgs } from 'node:util';
import { bindRows, type LineToBind, type RowToBind } from '@ledgerline/core/matching';
import { orderedAndBilled } from './company.ts';
import { duplicatesAmong } from './duplicates.ts';

const { values: option } = parseArgs({
  options: {
    seed: { type: 'string', default: '7' },
    bills: { type: 'string', default: '1000000' },
    folder: { type: 'string', default: join(tmpdir(), 'ledgerline-duplicates') },
    json: { type: 'boolean', default: false },
  },
});
const bills = Number(option.bills);
const { lines, rows, truth } = orderedAndBilled(2000, 500, Number(option.seed));

/** The plainest way to do it, for comparison: each row takes the first free line whose text is the same. */
function firstCome(of: readonly RowToBind[], among: readonly LineToBind[]): { row: string; line: string }[] {
  const free = new Set(among);
  return of.flatMap((row) => {
    for (const line of free)
      if (line.description === row.description) {
        free.delete(line);
        return [{ row: row.id, line: line.id }];
      }
    return [];
  });
}
const least = (run: () => void): number =>
  Math.min(
    ...Array.from({ length: 7 }, () => {
      const start = performance.now();
      run();
      return performance.now() - start;
    }),
  );
const right = (found: readonly { row: string; line: string }[]) => {
  const of = found.filter((f) => truth.get(f.row) === f.line).length;
  return { of, wrong: found.length - of };
};
const ours = right(bindRows(rows, lines)),
  plain = right(firstCome(rows, lines));
const matchMs = least(() => void bindRows(rows, lines));
const percent = (n: number) => `${((100 * n) / truth.size).toFixed(1)}%`;
console.log(`${rows.length} rows, ${truth.size} of them of one of ${lines.length} order lines (seed ${option.seed})`);
console.log(
  `  right ${percent(ours.of)}, wrong ${percent(ours.wrong)}; first come, same text: right ${percent(plain.of)}, wrong ${percent(plain.wrong)}`,
);
console.log(`  ${matchMs.toFixed(0)} ms (first come: ${least(() => void firstCome(rows, lines)).toFixed(0)} ms)`);
const many = bills > 0 ? await duplicatesAmong(bills, option.folder, (line) => console.error(line)) : null;
if (many)
  console.log(
    `duplicates among ${bills} bills: ${many.asked} asked, ${many.found} of ${many.planted} with a zero more found; p95 ${many.p95.toFixed(1)} ms, the longest ${many.most.toFixed(1)} ms`,
  );
if (option.json)
  console.log(JSON.stringify({ matchMs: Math.round(matchMs), ...(many ? { duplicatesMs: Number(many.p95.toFixed(1)) } : {}) }));
