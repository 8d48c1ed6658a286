// npm run bench:scan-speed -- [--pages N] [--memory N] : time to read a page that is a picture, as a ratio to plain recognition of the same cleaned page
// by the same engine, told the page's language beforehand, in the same run; beside Debian's tesseract where it is installed; pages a minute on two threads; memory over many pages.
import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { parseArgs } from 'node:util';
import type { Language } from '@ledgerline/core/page';
import { ScanPool } from '../../server/imaging/pool.ts';
import { Ocr } from '../../server/imaging/ocr.ts';
import { prepareSheet, scanSheet, sheetOf } from '../../server/imaging/scan.ts';
import { make } from '../reading/draw.ts';
import { kinds, wornDocument } from './worn.ts';

const { values: option } = parseArgs({ options: { pages: { type: 'string', default: '9' }, memory: { type: 'string', default: '0' } } });
const total = (values: number[]) => values.reduce((a, b) => a + b, 0);
const median = (values: number[]) => [...values].sort((a, b) => a - b)[values.length >> 1]!;
const seeds = Array.from({ length: Number(option.pages) }, (_, i) => 800_001 + i);
const files = await Promise.all(seeds.map(async (seed, i) => (await wornDocument(seed, kinds[i % 3]!, 1)).file));
/** How many of the words that were printed on a page a recogniser has as they stand, and how many there are. */
function found(seed: number, seen: string[]): [number, number] {
  const printed = make(seed)
      .sheet.pages()[0]!
      .words.map((w) => w.text),
    left = [...seen];
  const right = printed.filter((text) => {
    const at = left.indexOf(text);
    if (at >= 0) left.splice(at, 1);
    return at >= 0;
  });
  return [right.length, printed.length];
}
const share = (pairs: [number, number][]) =>
  `${(
    (100 * pairs.reduce((t, [n]) => t + n, 0)) /
    Math.max(
      1,
      pairs.reduce((t, [, all]) => t + all, 0),
    )
  ).toFixed(1)}%`;

const ocr = new Ocr();
const folder = mkdtempSync(join(tmpdir(), 'ledgerline-bench-'));
const native = !spawnSync('tesseract', ['--version']).error;
const plain: number[] = [],
  whole: number[] = [],
  cleaning: number[] = [],
  peer: number[] = [];
/** The least of a few runs of each work, in turns, in milliseconds: what else the machine does only adds to it. */
async function least(...works: (() => unknown)[]): Promise<number[]> {
  const best = works.map(() => Infinity);
  for (let round = 0; round < 4; round++)
    for (const [i, work] of works.entries()) {
      const from = performance.now();
      await work();
      best[i] = Math.min(best[i]!, performance.now() - from);
    }
  return best;
}
const own: [number, number][] = [],
  other: [number, number][] = [];
for (const [i, file] of files.entries()) {
  const sheet = await sheetOf(file, 1),
    { gray, dpi } = prepareSheet(sheet, null);
  const path = join(folder, 'page.pgm');
  writeFileSync(path, Buffer.concat([Buffer.from(`P5\n${gray.width} ${gray.height}\n255\n`), gray.data]));
  const { language } = (await scanSheet(ocr, sheet, null, null, () => undefined)).scan!;
  const [all, clean, bare] = await least(
    async () => scanSheet(ocr, await sheetOf(file, 1), null, null, () => undefined),
    () => prepareSheet(sheet, null),
    () => ocr.read(gray, { dpi, language: language as Language }),
  );
  whole.push(all!);
  cleaning.push(clean!);
  plain.push(bare!);
  own.push(
    found(
      seeds[i]!,
      (await ocr.read(gray, { dpi })).map((w) => w.text),
    ),
  );
  if (!native) continue;
  const run = () =>
    spawnSync('tesseract', [path, '-', '--psm', '11', '--dpi', String(dpi)], {
      env: { ...process.env, OMP_THREAD_LIMIT: '1' },
      encoding: 'utf8',
    });
  peer.push(...(await least(run)));
  other.push(found(seeds[i]!, run().stdout.split(/\s+/)));
}
await ocr.close();
rmSync(folder, { recursive: true });
console.log(
  `${files.length} pages, median: whole ${median(whole).toFixed(0)} ms, cleaning ${median(cleaning).toFixed(0)} ms, plain recognition ${median(plain).toFixed(0)} ms; whole ÷ plain, all pages together, ${(total(whole) / total(plain)).toFixed(2)}${native ? `; Debian's tesseract on the same pages ${median(peer).toFixed(0)} ms` : ''}`,
);

console.log(
  `words as they stand, English model, page as it was cleaned: ${share(own)}${native ? `; Debian's tesseract ${share(other)}` : ''}`,
);

const pool = new ScanPool();
const turn = async (count: number) => {
  const started = performance.now();
  await Promise.all(
    Array.from({ length: count }, (_, i) => pool.scan(files[i % files.length]!, { sha: `${i}`, page: 1, turn: null }, () => null)),
  );
  return (count * 60_000) / (performance.now() - started);
};
await turn(2);
console.log(`${(await turn(files.length * 2)).toFixed(1)} pages a minute on two threads`);
for (let done = 0; done < Number(option.memory); done += 20) {
  await turn(20);
  console.log(`${done + 20} pages: ${(process.memoryUsage().rss / 1024 / 1024).toFixed(0)} MB`);
}
await pool.close();
