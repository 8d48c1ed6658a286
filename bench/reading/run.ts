// npm run bench:reading -- [--from N] [--count N] [--show PATH] [--rough] : reads made-up documents that no rule has seen and compares.
import { writeFileSync } from 'node:fs';
import { parseArgs } from 'node:util';
import { readDocument } from '@ledgerline/core/reading';
import { make } from './draw.ts';
import { rough } from './rough.ts';
import { score } from './score.ts';

const { values: option } = parseArgs({
  options: {
    from: { type: 'string', default: '1' },
    count: { type: 'string', default: '300' },
    show: { type: 'string' },
    pdf: { type: 'string' },
    text: { type: 'string' },
    rough: { type: 'boolean', default: false },
  },
});
if (option.pdf) {
  const { sheet, content } = make(Number(option.pdf));
  writeFileSync(`${option.pdf}.pdf`, await sheet.pdf());
  console.log(JSON.stringify(content, null, 1));
} else if (option.text) {
  const { sheet } = make(Number(option.text));
  for (const d of sheet.drawn) console.log(`${d.page} ${d.y.toFixed(0)} ${d.x.toFixed(0)} ${d.text}`);
} else {
  const from = Number(option.from),
    count = Number(option.count);
  const s = score(
    Array.from({ length: count }, (_, i) => from + i),
    (m) => readDocument(m.sheet.pages()),
    option.rough ? rough : make,
  );
  const share = (a: number, b: number) => `${((100 * a) / Math.max(1, b)).toFixed(1)}%`;
  console.log(
    `${s.documents} documents: header ${share(s.headerRight, s.headerAll)}, rows F1 ${share(2 * s.rowsRight, s.rowsTruth + s.rowsSaid)}, right ${share(s.right, s.documents)}, untouched ${share(s.untouched, s.documents)}, silent ${s.silent} (${share(s.silent, s.values)})`,
  );
  const by = new Map<string, { all: number; silent: number; seeds: Set<number> }>();
  for (const m of s.misses) {
    const path = m.path.replace(/\[\d+\]/, '[]');
    const e = by.get(path) ?? { all: 0, silent: 0, seeds: new Set() };
    e.all++;
    if (!m.flagged && m.got !== null) e.silent++;
    e.seeds.add(m.seed);
    by.set(path, e);
  }
  for (const [path, e] of [...by].sort((a, b) => b[1].seeds.size - a[1].seeds.size))
    console.log(`  ${path}: ${e.all} in ${e.seeds.size} documents, ${e.silent} silent`);
  if (option.show !== undefined)
    for (const m of s.misses.filter((x) => x.path.includes(option.show!)).slice(0, 60))
      console.log(`  #${m.seed} ${m.path}: ${m.expected} | ${m.got}${m.flagged ? ' (flagged)' : ''}`);
}
