import PgBoss from 'pg-boss';

export interface Jobs {
  boss: PgBoss;
  queueReading(documentId: string): Promise<void>;
  work(read: (documentId: string) => Promise<void>): Promise<void>;
  close(): Promise<void>;
}

const queue = 'read-document';

/** The job queue on the same database. A job that fails is tried again; done twice equals done once. */
export async function startJobs(url: string): Promise<Jobs> {
  const boss = new PgBoss({ connectionString: url, max: 4, application_name: 'ledgerline-jobs' });
  boss.on('error', (error) => console.error(`Job queue: ${error.message}`));
  await boss.start();
  await boss.createQueue(queue);
  return {
    boss,
    async queueReading(documentId) {
      await boss.send(queue, { documentId }, { retryLimit: 2, expireInSeconds: 300, singletonKey: documentId });
    },
    async work(read) {
      await boss.work<{ documentId: string }>(queue, { pollingIntervalSeconds: 0.5, batchSize: 4 }, async (jobs) => {
        for (const job of jobs) await read(job.data.documentId);
      });
    },
    close: () => boss.stop({ graceful: true, timeout: 5000 }),
  };
}
