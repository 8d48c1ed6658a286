import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { serve } from '@hono/node-server';
import type { Hono } from 'hono';
import type { Server } from 'node:http';
import { makeApp } from './app.ts';
import { ScanFolder } from './arrivals/folder.ts';
import { Opener } from './arrivals/opener.ts';
import { SheetPool } from './imports/pool.ts';
import { importJob } from './imports/run.ts';
import { comeBack } from './bills/come-back.ts';
import { sweepPresence } from './bills/presence.ts';
import { sweepTries } from './auth/attempts.ts';
import { sweepSessions } from './auth/sessions.ts';
import { checkVersion, connect, Unready } from './db/client.ts';
import { isGone } from './db/faults.ts';
import { tooMighty } from './db/grants.ts';
import { prepareDatabase, roleOf } from './db/prepare.ts';
import { makeHealth } from './http/health.ts';
import { doorOf } from './http/door.ts';
import { startJobs } from './jobs/jobs.ts';
import { sweepJobs } from './jobs/sweep.ts';
import { makeTurns } from './repeats/turns.ts';
import { Live } from './live/live.ts';
import { logError } from './log.ts';
import { openJob } from './mail/message.ts';
import { mailReceiver } from './mail/receiver.ts';
import { ReadingPool } from './reading/pool.ts';
import { readJob } from './reading/service.ts';
import type { Services } from './services.ts';

/** What one process of Ledgerline does, and where. Each part is there where it is named. */
export interface Settings {
  /** As the application's own role, which is neither owner nor superuser. */
  databaseUrl: string;
  /** As the owner: then the structure is brought up to date first. */
  ownerUrl?: string | undefined;
  /** Web and API. */
  web?: { port: number; host?: string; folder?: string } | undefined;
  /** Only whether it is well: for a worker. */
  health?: { port: number; host?: string } | undefined;
  /** The mailbox. */
  mail?: { port: number; host?: string } | undefined;
  /** Reading and other jobs. */
  work?: boolean;
  /** The folder that scanners write to. */
  scanFolder?: string | undefined;
  /** The address under which people open it, where a proxy with TLS stands before it; other names that are answered to. */
  publicUrl?: string | undefined;
  hosts?: string[];
}
export interface Running {
  services: Services;
  close(): Promise<void>;
}

const loopback = '127.0.0.1';
const portTaken = (port: number, name: string) =>
  new Unready(`Port ${port} is taken by another program. Set ${name} to a free one, for example ${name}=${port + 1} npm start.`);

/** Starts the parts that are named. Everything that was begun ends with close(), or at once when a part can't start. */
export async function start(settings: Settings): Promise<Running> {
  const begun: (() => Promise<unknown>)[] = [];
  const close = async () => {
    for (const end of begun.splice(0).reverse()) await end();
  };
  try {
    const { databaseUrl } = settings;
    if (settings.ownerUrl) await prepareDatabase(settings.ownerUrl, roleOf(databaseUrl));
    const database = connect(databaseUrl);
    begun.push(() => database.close());
    await checkVersion(database);
    const mighty = await tooMighty(database.pool);
    if (mighty) throw new Unready(mighty);
    const live = new Live();
    begun.push(() => live.close());
    await live.listen(databaseUrl);
    const reader = new ReadingPool(1),
      opener = new Opener(),
      sheets = new SheetPool();
    begun.push(() => Promise.all([reader.close(), opener.close(), sheets.close()]));
    const jobs = await startJobs(databaseUrl, { supervise: Boolean(settings.work) });
    begun.push(() => jobs.close());
    const services: Services = {
      database,
      reader,
      opener,
      sheets,
      live,
      queue: jobs,
      door: doorOf(settings.publicUrl, settings.hosts),
      now: () => new Date(),
    };
    const { web, health } = settings;
    if (web) {
      const folder = web.folder ?? join(fileURLToPath(new URL('..', import.meta.url)), 'web/dist');
      begun.push(await serveWeb(makeApp(services, folder), web.port, web.host ?? loopback));
    }
    if (health) begun.push(await serveWeb(makeHealth(services), health.port, health.host ?? loopback));
    if (settings.mail) begun.push(await serveMail(services, settings.mail.port, settings.mail.host ?? loopback));
    if (settings.work) {
      jobs.work({
        open: (id) => openJob(services, id),
        read: (id, patient) => readJob(services, id, patient),
        bringIn: (id) => importJob(services, id),
      });
      begun.push(every(60_000, 'taking up what was set aside', () => comeBack(services)));
      begun.push(every(60_000, 'making bills that repeat', () => makeTurns(services)));
      begun.push(every(20_000, 'looking for work left lying', () => sweepJobs(services)));
    }
    begun.push(
      every(600_000, 'clearing what is over', async () => {
        await sweepSessions(database.db, services.now());
        await sweepTries(database.db, services.now());
        await sweepPresence(database.db, services.now());
      }),
    );
    if (settings.scanFolder) {
      const folder = new ScanFolder(services, settings.scanFolder);
      begun.push(() => folder.close());
      await folder.begin();
    }
    return { services, close };
  } catch (error) {
    await close();
    throw error;
  }
}

/** Does something now and again; a database that is away is waited for. Gives how to end it. */
function every(milliseconds: number, what: string, work: () => Promise<unknown>): () => Promise<unknown> {
  let running: Promise<unknown> = Promise.resolve();
  const once = () => {
    running = work().catch((error: unknown) => {
      if (!isGone(error)) logError(what, error);
    });
  };
  once();
  const timer = setInterval(once, milliseconds);
  timer.unref();
  return () => {
    clearInterval(timer);
    return running;
  };
}

async function serveWeb(app: Hono, port: number, hostname: string): Promise<() => Promise<unknown>> {
  const web = await new Promise<Server>((done, fail) => {
    const server = serve({ fetch: app.fetch, port, hostname }, () => done(server)) as Server;
    server.once('error', (error: NodeJS.ErrnoException) => fail(error.code === 'EADDRINUSE' ? portTaken(port, 'PORT') : error));
  });
  return () => {
    const ended = new Promise((done) => web.close(done));
    web.closeAllConnections();
    return ended;
  };
}

async function serveMail(services: Services, port: number, host: string): Promise<() => Promise<void>> {
  const mail = mailReceiver(services);
  await new Promise<void>((done, fail) => {
    mail.once('error', (error: NodeJS.ErrnoException) => fail(error.code === 'EADDRINUSE' ? portTaken(port, 'SMTP_PORT') : error));
    mail.listen(port, host, () => {
      mail.on('error', (error: Error) => {
        // A caller that breaks off is no matter of ours.
        if (!('remote' in error)) logError('the mailbox', error);
      });
      done();
    });
  });
  return () => new Promise<void>((done) => mail.close(() => done()));
}
