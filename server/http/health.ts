import { Hono } from 'hono';
import type { Services } from '../services.ts';

/** A database that is asked whether it is there has so long to answer, in milliseconds. */
const patience = 2000;

/** Whether the process lives, and whether it can do its work now: for whoever watches over it. Says nothing about what is in it. */
export function makeHealth({ database, live }: Services): Hono {
  const app = new Hono();
  app.get('/health/live', (c) => c.json({ alive: true }));
  app.get('/health/ready', async (c) => {
    const asked = database.pool.query('select 1').then(
      () => true,
      () => false,
    );
    const answers = await Promise.race([asked, new Promise<boolean>((done) => setTimeout(() => done(false), patience).unref())]);
    const ready = answers && live.hears;
    return c.json({ ready, database: answers, liveUpdates: live.hears }, ready ? 200 : 503);
  });
  return app;
}
