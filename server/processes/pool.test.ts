import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { afterEach, expect, it } from 'vitest';
import { Ending, ProcessPool } from './pool.ts';
import type { Doing, Done } from '../testing/does.ts';

const file = new URL('../testing/does.ts', import.meta.url);
const pools: ProcessPool<Doing, Done>[] = [];
const pool = (limits = { seconds: 20, megabytes: 300 }, size = 1) => {
  const made = new ProcessPool<Doing, Done>(file, size, limits);
  pools.push(made);
  return made;
};
afterEach(async () => {
  for (const one of pools.splice(0)) await one.close();
});
const ask = (of: ProcessPool<Doing, Done>, doing: Doing) => of.ask(() => doing);

it('answers, from the same process as long as it is well', async () => {
  const one = pool();
  const first = await ask(one, { do: 'who' });
  expect(first).toEqual({ answer: { pid: expect.any(Number), env: expect.not.objectContaining({ DATABASE_URL: expect.anything() }) } });
  expect(await ask(one, { do: 'who' })).toEqual(first);
});
it('a process that dies, hangs or throws costs its own question only', async () => {
  const one = pool({ seconds: 3, megabytes: 300 });
  expect(await Promise.all(['exit', 'who', 'hang', 'who', 'reject', 'who'].map((what) => ask(one, { do: what as 'who' })))).toEqual([
    { fault: 'broken' },
    { answer: expect.anything() },
    { fault: 'too-long' },
    { answer: expect.anything() },
    { fault: 'too-long' },
    { answer: expect.anything() },
  ]);
});
it.each(['heap', 'buffers', 'wasm'] as const)('memory is limited for whatever takes it: %s', async (kind) => {
  const one = pool({ seconds: 20, megabytes: 300 });
  const result = await ask(one, { do: 'eat', kind });
  // Refused by the system it throws, or the engine gives up.
  expect('fault' in result ? ['too-heavy', 'broken'] : [(result as { answer: Done }).answer]).toContainEqual(
    'fault' in result ? result.fault : { most: expect.any(Number) },
  );
  if ('answer' in result) expect((result.answer as { most: number }).most).toBeLessThan(300);
  expect(await ask(one, { do: 'who' })).toMatchObject({ answer: {} });
});
it('what is asked while it ends, or after, is told so: it is nobody’s fault', async () => {
  const one = pool();
  await ask(one, { do: 'who' });
  const asked = [ask(one, { do: 'hang' }), ask(one, { do: 'who' })].map((a) => expect(a).rejects.toBeInstanceOf(Ending));
  await one.close();
  await Promise.all(asked);
  await expect(ask(one, { do: 'who' })).rejects.toBeInstanceOf(Ending);
});
it('a process dies with its server, whatever it is doing', async () => {
  const parent = spawn(process.execPath, ['--import', 'tsx', fileURLToPath(new URL('../testing/asks.ts', import.meta.url))], {
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  const [line] = (await once(parent.stdout!, 'data')) as [Buffer];
  const child = Number(/(\d+)/.exec(String(line))![1]);
  const lives = () => {
    try {
      return !/^State:\s+[ZX]/m.test(readFileSync(`/proc/${child}/status`, 'utf8'));
    } catch {
      return false;
    }
  };
  expect(lives()).toBe(true);
  parent.kill('SIGKILL');
  await once(parent, 'exit');
  await expect.poll(lives, { timeout: 5000 }).toBe(false);
});
