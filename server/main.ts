import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { serve } from '@hono/node-server';
import type { Server } from 'node:http';
import { makeApp } from './app.ts';
import { watchFolder } from './arrivals/folder.ts';
import { connect, migrate } from './db/client.ts';
import { startJobs } from './jobs/jobs.ts';
import { doorOf } from './http/door.ts';
import { Live } from './live/live.ts';
import { mailReceiver } from './mail/receiver.ts';
import { ReadingPool } from './reading/pool.ts';
import { readArrived, resumeReading } from './reading/service.ts';
import type { Services } from './services.ts';

export interface Settings {
  databaseUrl: string;
  port: number;
  smtpPort: number;
  scanFolder: string;
  webFolder?: string;
  /** The address under which people open it, where a proxy with TLS stands before it. */
  publicUrl?: string;
}
export interface Running {
  services: Services;
  close(): Promise<void>;
}

const portTaken = (port: number, name: string) =>
  new Error(`Port ${port} is taken by another program. Set ${name} to a free one, for example ${name}=${port + 1} npm start.`);

/** Starts web, API, mailbox, scan folder and worker on loopback. Everything it began ends with close(), or at once when a part can't start. */
export async function start(settings: Settings): Promise<Running> {
  const begun: (() => Promise<unknown>)[] = [];
  const close = async () => {
    for (const end of begun.splice(0).reverse()) await end();
  };
  try {
    const database = connect(settings.databaseUrl);
    begun.push(() => database.close());
    await migrate(database);
    const live = new Live();
    begun.push(() => live.close());
    await live.listen(settings.databaseUrl);
    const reader = new ReadingPool(1);
    begun.push(() => reader.close());
    const jobs = await startJobs(settings.databaseUrl);
    begun.push(() => jobs.close());
    const services: Services = {
      database,
      reader,
      live,
      door: doorOf(settings.publicUrl),
      queueReading: jobs.queueReading,
      queueScanning: jobs.queueScanning,
      now: () => new Date(),
    };
    const web = await serveWeb(
      makeApp(services, settings.webFolder ?? join(fileURLToPath(new URL('..', import.meta.url)), 'web/dist')),
      settings.port,
    );
    begun.push(() => {
      web.closeAllConnections();
      return new Promise((done) => web.close(done));
    });
    const mail = mailReceiver(services);
    await new Promise<void>((done, fail) => {
      mail.once('error', (error: NodeJS.ErrnoException) =>
        fail(error.code === 'EADDRINUSE' ? portTaken(settings.smtpPort, 'SMTP_PORT') : error),
      );
      mail.listen(settings.smtpPort, '127.0.0.1', () => {
        mail.on('error', () => undefined);
        done();
      });
    });
    begun.push(() => new Promise<void>((done) => mail.close(() => done())));
    await jobs.work((id, patient) => readArrived(services, id, patient));
    const folder = await watchFolder(services, settings.scanFolder);
    begun.push(() => folder.close());
    await resumeReading(services);
    return { services, close };
  } catch (error) {
    await close();
    throw error;
  }
}

function serveWeb(app: ReturnType<typeof makeApp>, port: number): Promise<Server> {
  return new Promise((done, fail) => {
    const server = serve({ fetch: app.fetch, port, hostname: '127.0.0.1' }, () => done(server)) as Server;
    server.once('error', (error: NodeJS.ErrnoException) => fail(error.code === 'EADDRINUSE' ? portTaken(port, 'PORT') : error));
  });
}
