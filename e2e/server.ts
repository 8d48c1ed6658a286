import { spawn } from 'node:child_process';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

/** Starts Ledgerline as its users do, on a data folder of its own. Gives how to end it. */
export async function serve({
  port,
  smtpPort,
  empty = false,
}: {
  port: number;
  smtpPort: number;
  empty?: boolean;
}): Promise<() => Promise<void>> {
  const data = await mkdtemp(join(tmpdir(), 'ledgerline-e2e-'));
  const child = spawn(process.execPath, ['scripts/start.mjs', ...(empty ? ['--empty'] : [])], {
    env: { ...process.env, LEDGERLINE_DATA: join(data, 'data'), PORT: String(port), SMTP_PORT: String(smtpPort), DATABASE_URL: '' },
    stdio: ['ignore', 'pipe', 'pipe'],
  });
  let said = '';
  await new Promise<void>((ready, fail) => {
    for (const stream of [child.stdout, child.stderr])
      stream.on('data', (d: Buffer) => {
        said += String(d);
        if (/Ledgerline is ready/.test(said)) ready();
      });
    child.once('exit', () => fail(new Error(`Ledgerline did not start:\n${said}`)));
  });
  return async () => {
    const gone = new Promise<void>((done) => child.once('exit', () => done()));
    child.kill('SIGINT');
    await gone;
    await rm(data, { recursive: true, force: true });
  };
}
