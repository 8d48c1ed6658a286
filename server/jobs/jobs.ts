import PgBoss from 'pg-boss';
import { sql, type SQL } from 'drizzle-orm';
import type { Executor } from '../db/client.ts';
import { logError } from '../log.ts';
import type { Queue } from '../services.ts';
import { Taking } from './taking.ts';

/** What the jobs of each queue do with their subject. */
export interface Work {
  open(arrivalId: string): Promise<void>;
  read(documentId: string, patient: boolean): Promise<void>;
  bringIn(runId: string): Promise<void>;
}
export interface Jobs extends Queue {
  /** Begins to work: documents are read as they come; those with pages that are pictures in a line of their own, so that they hold up none of the others. */
  work(work: Work): void;
  close(): Promise<void>;
}

/** Each queue: how many of its jobs are in hand at once. A job that takes long is never given to a second worker by the clock alone: whoever works on a subject holds it. */
const queues = { 'open-message': 2, 'read-document': 4, 'read-pictures': 2, 'bring-in-rows': 1 } as const;
type QueueName = keyof typeof queues;
const dayLong = 20 * 3600;

/** Makes or updates what the queues need in the database: by its owner, before anybody queues. */
export async function prepareJobs(ownerUrl: string): Promise<void> {
  const boss = new PgBoss({ connectionString: ownerUrl, max: 2, supervise: false, schedule: false });
  boss.on('error', (error) => void logError('preparing the job queues', error));
  await boss.start();
  // One of a kind waits at most, whoever asks for it how often: the sweep asks again for everything.
  for (const name of Object.keys(queues)) {
    await boss.createQueue(name, { name, policy: 'short' });
    await boss.updateQueue(name, { name, policy: 'short' });
  }
  await boss.stop({ graceful: false, wait: true });
}

/** A statement with numbered parameters as part of a transaction. */
function numbered(text: string, values: unknown[]): SQL {
  const parts: SQL[] = [];
  let at = 0;
  for (const match of text.matchAll(/\$(\d+)/g)) {
    parts.push(sql.raw(text.slice(at, match.index)), sql`${values[Number(match[1]) - 1] ?? null}`);
    at = match.index + match[0].length;
  }
  return sql.join([...parts, sql.raw(text.slice(at))]);
}
const within = (tx: Executor) => ({
  executeSql: async (text: string, values: unknown[]) =>
    tx.execute(numbered(text, values)) as Promise<{ rows: unknown[]; rowCount: number }>,
});

/** The job queues on the same database. A job that fails is tried again; done twice equals done once. */
export async function startJobs(url: string, { supervise = true } = {}): Promise<Jobs> {
  const boss = new PgBoss({
    connectionString: url,
    max: 4,
    application_name: 'ledgerline-jobs',
    migrate: false,
    schedule: false,
    supervise,
  });
  boss.on('error', (error) => void logError('the job queue', error));
  await boss.start();
  const takings: Taking[] = [];
  const send = (name: QueueName) => async (tx: Executor, id: string) => {
    const how = { retryLimit: 5, retryDelay: 2, expireInSeconds: dayLong, singletonKey: id, db: within(tx) };
    await boss.send(name, { id }, how as PgBoss.SendOptions);
  };
  return {
    opening: send('open-message'),
    reading: send('read-document'),
    scanning: send('read-pictures'),
    importing: send('bring-in-rows'),
    work(work) {
      const does: Record<QueueName, (id: string) => Promise<void>> = {
        'open-message': (id) => work.open(id),
        'read-document': (id) => work.read(id, false),
        'read-pictures': (id) => work.read(id, true),
        'bring-in-rows': (id) => work.bringIn(id),
      };
      for (const name of Object.keys(queues) as QueueName[]) {
        const taking = new Taking(boss, name, does[name]);
        taking.begin(queues[name]);
        takings.push(taking);
      }
    },
    // What is in hand goes on elsewhere: whoever waits for the end waits briefly.
    async close() {
      await Promise.all(takings.map((taking) => taking.end(1500)));
      await boss.stop({ graceful: false, wait: true });
    },
  };
}
