// npm run test:full [-- --times 10 --seed 1]: a working day on a small disk that is full again and again; then what is there is judged. Needs the right to
// mount (root), for a disk of its own in memory.
import { spawnSync } from 'node:child_process';
import { closeSync, openSync, writeSync } from 'node:fs';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout as wait } from 'node:timers/promises';
import { parseArgs } from 'node:util';
import nodemailer from 'nodemailer';
import { companies } from '@ledgerline/documents/companies';
import { seeded } from '@ledgerline/documents/random';
import { actors } from './actors.ts';
import { judge, settled } from './judge.ts';
import { startMachines, type Machines } from './machines.ts';

const { values } = parseArgs({
  options: {
    times: { type: 'string', default: '10' },
    seed: { type: 'string', default: '1' },
    megabytes: { type: 'string', default: '700' },
  },
});
const random = seeded(Number(values.seed));
const folder = await mkdtemp(join(tmpdir(), 'ledgerline-trial-')),
  disk = await mkdtemp(join(tmpdir(), 'ledgerline-disk-')),
  filler = join(disk, 'filler');
const mounted = spawnSync('mount', ['-t', 'tmpfs', '-o', `size=${values.megabytes}m,mode=755`, 'tmpfs', disk], { encoding: 'utf8' });
if (mounted.status !== 0) throw new Error(`A disk of its own could not be made: ${mounted.stderr.trim()}`);

/** Leaves no room at all. */
function fill(): void {
  const file = openSync(filler, 'a');
  for (let size = 1 << 20; size >= 1; size >>= 4)
    try {
      for (;;) writeSync(file, Buffer.alloc(size));
    } catch {
      // No room for a piece of this size; a smaller one may still fit.
    }
  closeSync(file);
}

/** What the doors say while there is no room. */
async function asked({ base, smtpPort }: Machines, cookie: string, company: string): Promise<string[]> {
  const form = new FormData();
  form.append('file', new File([Buffer.alloc(2_000_000, random.int(1, 255))], 'large.bin'));
  const upload = await fetch(`${base}/api/companies/${company}/arrivals`, {
    method: 'POST',
    headers: { cookie },
    body: form,
    signal: AbortSignal.timeout(30_000),
  }).then(
    (a) => String(a.status),
    (e: Error) => e.name,
  );
  const transport = nodemailer.createTransport({ host: '127.0.0.1', port: smtpPort, ignoreTLS: true, socketTimeout: 30_000 });
  const mail = await transport
    .sendMail({
      from: 'a@quillhavengl.example',
      to: companies.find((c) => c.code === 'MBG')!.mailAddress,
      subject: 'Large',
      text: 'x'.repeat(70).concat('\n').repeat(30_000),
    })
    .then(
      () => '250',
      (e: { responseCode?: number; code?: string }) => String(e.responseCode ?? e.code),
    );
  transport.close();
  return [`upload ${upload}`, `mail ${mail}`];
}

const machines = await startMachines(join(disk, 'data'), join(folder, 'scans'));
let good = false;
try {
  const day = actors(machines, Number(values.seed)),
    { cookie, company } = await day.signedIn(),
    told: Record<string, number> = {},
    began = Date.now();
  for (let i = 1; i <= Number(values.times); i++) {
    await wait(3000 + random.int(0, 5000));
    fill();
    for (const said of await asked(machines, cookie, company)) told[said] = (told[said] ?? 0) + 1;
    await wait(random.int(0, 6000));
    await rm(filler);
    console.log(
      `full ${i} times in ${Math.round((Date.now() - began) / 1000)} s: ${JSON.stringify(day.handed.done)} ${JSON.stringify(told)}`,
    );
  }
  await day.end();
  await settled(machines);
  const { wrong, counts } = await judge(machines, day.handed);
  console.log(`there: ${JSON.stringify(counts)}; server and worker were started ${machines.starts()} times`);
  console.log(wrong.length === 0 ? 'Nothing is wrong.' : `WRONG:\n${wrong.join('\n')}`);
  good = wrong.length === 0;
} finally {
  await machines.end();
  // Lazily: this process itself still holds the database's log.
  spawnSync('umount', ['-l', disk]);
  await rm(folder, { recursive: true, force: true });
  await rm(disk, { recursive: true, force: true });
}
process.exitCode = good ? 0 : 1;
