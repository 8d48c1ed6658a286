import type { Opener } from './arrivals/opener.ts';
import type { Database, Executor } from './db/client.ts';
import type { Door } from './http/door.ts';
import type { Live } from './live/live.ts';
import type { SheetPool } from './imports/pool.ts';
import type { ReadingPool } from './reading/pool.ts';

/** Work to be done soon, queued in the transaction that makes it needed: there with it, or not at all. */
export interface Queue {
  /** A message to be taken apart. */
  opening(tx: Executor, arrivalId: string): Promise<void>;
  /** A document to be read. */
  reading(tx: Executor, documentId: string): Promise<void>;
  /** A document whose pages have to be read as pictures first. */
  scanning(tx: Executor, documentId: string): Promise<void>;
  /** A file's rows to be brought into a list. */
  importing(tx: Executor, runId: string): Promise<void>;
}

/** What use cases need from outside, handed in so that tests can bring their own. */
export interface Services {
  database: Database;
  reader: ReadingPool;
  live: Live;
  /** How it is reached from outside. */
  door: Door;
  opener: Opener;
  sheets: SheetPool;
  queue: Queue;
  now(): Date;
}

export const today = (services: Services): string => services.now().toISOString().slice(0, 10);
