import { eq, sql } from 'drizzle-orm';
import type { Scanned, ScanWanted } from '../imaging/result.ts';
import { document, scannedPage } from '../db/schema/index.ts';
import { logError } from '../log.ts';
import { alone } from '../db/alone.ts';
import type { Services } from '../services.ts';
import type { Progress, Shelf } from './pool.ts';

/** Told no more often than this, in milliseconds: each time goes to every screen that shows arrivals. */
const often = 700;

/** Pages kept in the database, and a document's progress told there. `settled` waits for what is being written. */
export function shelfFor(services: Services, documentId: string): Shelf & { settled(): Promise<void> } {
  const { db } = services.database;
  let writing: Promise<unknown> = Promise.resolve(),
    told = 0;
  return {
    async find(wanted: ScanWanted[]): Promise<Scanned[]> {
      if (wanted.length === 0) return [];
      const rows = await db
        .select()
        .from(scannedPage)
        .where(sql`(${scannedPage.sha256}, ${scannedPage.page}) in ${wanted.map((w) => sql`(${w.sha}, ${w.page})`)}`);
      return wanted.flatMap((w): Scanned[] => {
        const row = rows.find((r) => r.sha256 === w.sha && r.page === w.page && (w.turn === null ? r.auto : r.turn === w.turn));
        return row ? [{ sha: w.sha, page: w.page, turn: row.turn, auto: w.turn === null, read: row.read, fault: null }] : [];
      });
    },
    async put({ sha, page, turn, auto, read }: Scanned): Promise<void> {
      // A page that failed is not kept: trying again is to try.
      if (!read || sha === '') return;
      await db
        .insert(scannedPage)
        .values({ sha256: sha, page, turn, auto, read })
        .onConflictDoUpdate({
          target: [scannedPage.sha256, scannedPage.page, scannedPage.turn],
          set: { read, auto: sql`${scannedPage.auto} or ${auto}` },
        });
    },
    async alone(wanted: ScanWanted, scan: () => Promise<Scanned>): Promise<Scanned> {
      const work = async (): Promise<Scanned> => {
        const [kept] = await this.find([wanted]);
        if (kept) return kept;
        const made = await scan();
        await this.put(made);
        return made;
      };
      const key = `page ${wanted.sha} ${wanted.page} ${wanted.turn}`;
      return (wanted.sha === '' ? null : await alone(services.database.pool, key, work, true)) ?? work();
    },
    tell(progress: Progress): void {
      const now = Date.now();
      if (now - told < often) return;
      told = now;
      writing = writing
        .then(() => db.update(document).set({ progress }).where(eq(document.id, documentId)))
        .catch((error: unknown) => void logError('telling progress', error));
    },
    settled: async () => void (await writing),
  };
}
