import PgBoss from 'pg-boss';
import { logError } from '../log.ts';

export interface Jobs {
  boss: PgBoss;
  queueReading(documentId: string): Promise<void>;
  queueScanning(documentId: string): Promise<void>;
  /** Begins to work: documents are read as they come; those with pages that are pictures in a line of their own, so that they hold up none of the others. */
  work(read: (documentId: string, patient: boolean) => Promise<void>): Promise<void>;
  close(): Promise<void>;
}

/** Each queue: how many documents are in hand at once, how long one may take, in seconds, and whether its pages may be pictures. */
const queues = {
  'read-document': { atOnce: 4, seconds: 300, patient: false },
  'read-pictures': { atOnce: 2, seconds: 3600, patient: true },
} as const;

/** The job queues on the same database. A job that fails is tried again; done twice equals done once. */
export async function startJobs(url: string): Promise<Jobs> {
  const boss = new PgBoss({ connectionString: url, max: 4, application_name: 'ledgerline-jobs' });
  boss.on('error', (error) => void logError('the job queue', error));
  await boss.start();
  for (const name of Object.keys(queues)) await boss.createQueue(name);
  const send = (name: keyof typeof queues) => async (documentId: string) => {
    await boss.send(name, { documentId }, { retryLimit: 2, expireInSeconds: queues[name].seconds, singletonKey: documentId });
  };
  return {
    boss,
    queueReading: send('read-document'),
    queueScanning: send('read-pictures'),
    async work(read) {
      for (const [name, { atOnce, patient }] of Object.entries(queues))
        for (let i = 0; i < atOnce; i++)
          await boss.work<{ documentId: string }>(name, { pollingIntervalSeconds: 0.5, batchSize: 1 }, async ([job]) => {
            if (job) await read(job.data.documentId, patient);
          });
    },
    close: () => boss.stop({ graceful: true, timeout: 5000 }),
  };
}
