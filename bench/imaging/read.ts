// npm run bench:scans -- [--from N] [--count N] [--kind scan|fax|photo] [--show PATH] : reads made-up documents from worn paper and compares.
import { parseArgs } from 'node:util';
import type { Reading } from '@ledgerline/core/reading';
import { ReadingPool } from '../../server/reading/pool.ts';
import { make } from '../reading/draw.ts';
import { score } from '../reading/score.ts';
import { kinds, wornDocument, type Kind } from './worn.ts';

const { values: option } = parseArgs({
  options: {
    from: { type: 'string', default: '700001' },
    count: { type: 'string', default: '20' },
    kind: { type: 'string' },
    show: { type: 'string' },
  },
});
const pool = new ReadingPool();
const share = (a: number, b: number) => `${((100 * a) / Math.max(1, b)).toFixed(1)}%`;
for (const kind of kinds.filter((k) => !option.kind || k === option.kind) as Kind[]) {
  // Documents of one page: what is measured is ink, not paging.
  const seeds: number[] = [];
  for (let seed = Number(option.from); seeds.length < Number(option.count); seed++)
    if (make(seed).sheet.pages().length === 1) seeds.push(seed);
  const readings = new Map<number, Reading>();
  const line = [...seeds];
  const work = async () => {
    for (let seed = line.shift(); seed !== undefined; seed = line.shift()) {
      const { file } = await wornDocument(seed, kind);
      const result = await pool.read(file);
      if (result.ok) readings.set(seed, result.parts[0]!.reading);
    }
  };
  await Promise.all([work(), work()]);
  const s = score(
    seeds.filter((seed) => readings.has(seed)),
    (m) => readings.get(m.seed)!,
  );
  console.log(
    `${kind}: ${s.documents} documents: header ${share(s.headerRight, s.headerAll)}, rows F1 ${share(2 * s.rowsRight, s.rowsTruth + s.rowsSaid)}, right ${share(s.right, s.documents)}, untouched ${share(s.untouched, s.documents)}, silent ${s.silent} (${share(s.silent, s.values)})`,
  );
  for (const [from, to] of [
    [0, 0.6],
    [0.6, 0.9],
    [0.9, 0.97],
    [0.97, 1.01],
  ] as const) {
    const own = s.judged.filter((j) => j.confidence >= from && j.confidence < to);
    if (own.length)
      console.log(
        `  said ${from.toFixed(2)}–${Math.min(1, to).toFixed(2)}: ${own.length} values, right ${share(own.filter((j) => j.right).length, own.length)}`,
      );
  }
  if (option.show !== undefined)
    for (const m of s.misses.filter((x) => x.path.includes(option.show!)).slice(0, 60))
      console.log(`  #${m.seed} ${m.path}: ${m.expected} | ${m.got}${m.flagged ? ' (flagged)' : ''}`);
}
await pool.close();
