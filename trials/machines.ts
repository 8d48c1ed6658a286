import { spawn, type ChildProcess } from 'node:child_process';
import { join } from 'node:path';
import { setTimeout as wait } from 'node:timers/promises';
// @ts-expect-error plain JavaScript
import { startDatabase } from '../scripts/database.mjs';
// @ts-expect-error plain JavaScript
import { freePort } from '../scripts/system.mjs';
import { writeMaster } from '../demo/load.ts';
import { connect } from '../server/db/client.ts';
import { prepareDatabase, roleOf } from '../server/db/prepare.ts';
import { transaction } from '../server/events/record.ts';

export interface Database {
  url: string;
  ownerUrl: string;
  pid(): number;
  stop(): Promise<void>;
}

/** A program of ours that is started again whenever it ends, until all ends. */
class Kept {
  #child: ChildProcess | null = null;
  #over = false;
  starts = 0;

  constructor(
    readonly script: string,
    readonly env: Record<string, string>,
  ) {
    void this.#run();
  }

  async #run(): Promise<void> {
    while (!this.#over) {
      this.starts++;
      const child = spawn(process.execPath, [`scripts/${this.script}.mjs`], { env: { ...process.env, ...this.env }, stdio: 'ignore' });
      this.#child = child;
      await new Promise((gone) => child.once('exit', gone));
      await wait(100);
    }
  }
  kill(signal: 'SIGKILL' | 'SIGTERM'): void {
    this.#child?.kill(signal);
  }
  async end(): Promise<void> {
    this.#over = true;
    const child = this.#child;
    if (!child || child.exitCode !== null || child.signalCode !== null) return;
    const gone = new Promise((done) => child.once('exit', done));
    child.kill('SIGTERM');
    await gone;
  }
}

/** Ledgerline as it runs on one machine: a database, a server with mailbox, a worker with scan folder; each may be killed. */
export interface Machines {
  database: Database;
  base: string;
  smtpPort: number;
  scanFolder: string;
  kill(victim: 'server' | 'worker' | 'database'): void;
  /** How often server and worker were started. */ starts(): number;
  end(): Promise<void>;
}

export async function startMachines(folder: string, scanFolder = join(folder, 'scans')): Promise<Machines> {
  const database = (await startDatabase(join(folder, 'database'))) as Database;
  await prepareDatabase(database.ownerUrl, roleOf(database.url));
  const owner = connect(database.ownerUrl);
  await transaction(owner.db, async (tx) => void (await writeMaster(tx, new Date().toISOString().slice(0, 10))));
  await owner.db.execute('update organisation set ready = true');
  await owner.close();
  const [port, smtpPort] = [await freePort(), await freePort()];
  const env = { DATABASE_URL: database.url, DATABASE_OWNER_URL: '' };
  const server = new Kept('serve', { ...env, PORT: String(port), SMTP_PORT: String(smtpPort) });
  const worker = new Kept('worker', { ...env, SCAN_FOLDER: scanFolder, PORT: '' });
  const base = `http://127.0.0.1:${port}`;
  for (let i = 0; i < 600; i++) {
    if (await fetch(`${base}/health/ready`).then((a) => a.ok, () => false)) break; // prettier-ignore
    await wait(100);
  }
  return {
    database,
    base,
    smtpPort,
    scanFolder,
    kill(victim) {
      if (victim === 'server') server.kill('SIGKILL');
      else if (victim === 'worker') worker.kill('SIGKILL');
      else
        try {
          process.kill(database.pid(), 'SIGKILL');
        } catch {
          // It is being started again just now.
        }
    },
    starts: () => server.starts + worker.starts,
    async end() {
      await Promise.all([server.end(), worker.end()]);
      await database.stop();
    },
  };
}
