import type { Database } from './db/client.ts';
import type { Door } from './http/door.ts';
import type { Live } from './live/live.ts';
import type { ReadingPool } from './reading/pool.ts';

/** What use cases need from outside, handed in so that tests can bring their own. */
export interface Services {
  database: Database;
  reader: ReadingPool;
  live: Live;
  /** How it is reached from outside. */
  door: Door;
  /** Puts a document in the queue to be read. */
  queueReading(documentId: string): Promise<void>;
  /** Puts a document in the queue of those whose pages have to be read as pictures first. */
  queueScanning(documentId: string): Promise<void>;
  now(): Date;
}

export const today = (services: Services): string => services.now().toISOString().slice(0, 10);
