import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { serve } from '@hono/node-server';
import type { Server } from 'node:http';
import { makeApp } from './app.ts';
import { watchFolder } from './arrivals/folder.ts';
import { connect, migrate } from './db/client.ts';
import { startJobs } from './jobs/jobs.ts';
import { Live } from './live/live.ts';
import { mailReceiver } from './mail/receiver.ts';
import { ReadingPool } from './reading/pool.ts';
import { readArrived, resumeReading } from './reading/service.ts';
import type { Services } from './services.ts';

export interface Settings { databaseUrl: string; port: number; smtpPort: number; scanFolder: string; webFolder?: string }
export interface Running { services: Services; close(): Promise<void> }

const portTaken = (port: number, name: string) => new Error(`Port ${port} is taken by another program. Set ${name} to a free one, for example ${name}=${port + 1} npm start.`);

/** Starts web, API, mailbox, scan folder and worker on loopback. Everything it began ends with close(). */
export async function start(settings: Settings): Promise<Running> {
  const database = connect(settings.databaseUrl);
  await migrate(database);
  const live = new Live();
  await live.listen(settings.databaseUrl);
  const jobs = await startJobs(settings.databaseUrl);
  const reader = new ReadingPool(1);
  const services: Services = { database, reader, live, queueReading: jobs.queueReading, now: () => new Date() };
  await jobs.work((id) => readArrived(services, id));
  const app = makeApp(services, settings.webFolder ?? join(fileURLToPath(new URL('..', import.meta.url)), 'web/dist'));
  const web = await new Promise<Server>((done, fail) => {
    const server = serve({ fetch: app.fetch, port: settings.port, hostname: '127.0.0.1' }, () => done(server as Server)) as Server;
    server.once('error', (error: NodeJS.ErrnoException) => fail(error.code === 'EADDRINUSE' ? portTaken(settings.port, 'PORT') : error));
  });
  const mail = mailReceiver(services);
  await new Promise<void>((done, fail) => {
    mail.once('error', (error: NodeJS.ErrnoException) => fail(error.code === 'EADDRINUSE' ? portTaken(settings.smtpPort, 'SMTP_PORT') : error));
    mail.listen(settings.smtpPort, '127.0.0.1', () => { mail.on('error', () => undefined); done(); });
  });
  const folder = await watchFolder(services, settings.scanFolder);
  await resumeReading(services);
  return {
    services,
    async close() {
      await folder.close();
      await new Promise<void>((done) => mail.close(() => done()));
      web.closeAllConnections();
      await new Promise<void>((done) => web.close(() => done()));
      await jobs.close();
      await reader.close();
      await live.close();
      await database.close();
    },
  };
}
