// npm run test:kill [-- --times 100 --seed 1]: a working day during which server, worker and database are killed at random; then what is there is judged.
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout as wait } from 'node:timers/promises';
import { parseArgs } from 'node:util';
import { seeded } from '@ledgerline/documents/random';
import { actors } from './actors.ts';
import { judge, settled } from './judge.ts';
import { startMachines } from './machines.ts';

const { values } = parseArgs({ options: { times: { type: 'string', default: '100' }, seed: { type: 'string', default: '1' } } });
const times = Number(values.times),
  random = seeded(Number(values.seed));
const folder = await mkdtemp(join(tmpdir(), 'ledgerline-trial-'));
const machines = await startMachines(folder);
let good = false;
try {
  const day = actors(machines, Number(values.seed)),
    began = Date.now(),
    killed: Record<string, number> = {};
  for (let i = 1; i <= times; i++) {
    await wait(1000 + random.int(0, 11_000));
    const victim = random.pick(['server', 'worker', 'database'] as const);
    machines.kill(victim);
    killed[victim] = (killed[victim] ?? 0) + 1;
    if (i % 10 === 0) console.log(`${i} kills in ${Math.round((Date.now() - began) / 1000)} s: ${JSON.stringify(day.handed.done)}`);
  }
  await day.end();
  await settled(machines);
  const { wrong, counts } = await judge(machines, day.handed);
  console.log(`seed ${values.seed}: killed ${JSON.stringify(killed)} in ${Math.round((Date.now() - began) / 1000)} s`);
  console.log(`done: ${JSON.stringify(day.handed.done)}\nthere: ${JSON.stringify(counts)}`);
  console.log(wrong.length === 0 ? 'Nothing is wrong.' : `WRONG:\n${wrong.join('\n')}`);
  good = wrong.length === 0;
} finally {
  await machines.end();
  if (good) await rm(folder, { recursive: true, force: true });
  else console.log(`What is there is kept in ${folder}.`);
}
process.exitCode = good ? 0 : 1;
