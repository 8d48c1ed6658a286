// npm run bench:memory [-- --files N] : reads many files in one run as the server does, and prints memory on the way: it should stay level.
import { parseArgs } from 'node:util';
import { ReadingPool } from '../../server/reading/pool.ts';
import { make } from './draw.ts';

const { values: option } = parseArgs({ options: { files: { type: 'string', default: '500' } } });
const files = Number(option.files),
  pool = new ReadingPool(1);
const rss: number[] = [];
const started = performance.now();
for (let i = 1; i <= files; i++) {
  const result = await pool.read(new Uint8Array(await make(600_000 + i).sheet.pdf()));
  if (!result.ok) throw new Error(`File ${i} was not read: ${result.fault}`);
  rss.push(process.memoryUsage().rss / 1024 / 1024);
  if (i % 50 === 0)
    console.log(
      `${i} files: ${Math.max(...rss.slice(-50)).toFixed(0)} MB at most, ${((performance.now() - started) / i).toFixed(0)} ms a file with making it`,
    );
}
await pool.close();
