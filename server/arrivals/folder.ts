import { watch, type FSWatcher, type Stats } from 'node:fs';
import { lstat, mkdir, rename } from 'node:fs/promises';
import { and, asc, like, notInArray, sql } from 'drizzle-orm';
import { alone } from '../db/alone.ts';
import { company, notice } from '../db/schema/index.ts';
import { codeOf, isFull, isGone } from '../db/faults.ts';
import { logError, logLine } from '../log.ts';
import { mediaTypeOf } from '../reading/filetype.ts';
import type { Services } from '../services.ts';
import { bytesOf, lookThrough, under, type Candidate } from './folder-look.ts';
import { takeIn } from './take.ts';

const limit = 100 * 1024 * 1024;
const lookOf = (s: Stats) => `${s.mtimeMs} ${s.size} ${s.ino}`;

/**
 * The scan folder: what lies there is taken in and moved to "done" beside it. It is looked through when something changes, and every
 * minute whatever happened: nothing is missed while the database was away, the organisation was not set up yet, or the system told nothing.
 */
export class ScanFolder {
  readonly #root: Buffer;
  readonly #services: Services;
  readonly #settle: number;
  readonly #watchers = new Map<string, FSWatcher>();
  readonly #seen = new Map<string, { look: string; since: number }>();
  #timer: ReturnType<typeof setTimeout> | null = null;
  #looking: Promise<void> | null = null;
  #again = false;
  #closed = false;

  /** `settle`: a file is taken once it has looked the same for so long; `every`: how often all is looked through, in milliseconds. */
  constructor(
    services: Services,
    readonly folder: string,
    settle = 1500,
    readonly every = 60_000,
  ) {
    this.#services = services;
    this.#root = Buffer.from(folder);
    this.#settle = settle;
  }

  async begin(): Promise<void> {
    await mkdir(this.folder, { recursive: true });
    this.#watch(this.#root);
    await this.look();
  }

  /** Looks the folder through now; once more where it is being looked through already. */
  look(): Promise<void> {
    if (this.#looking) {
      this.#again = true;
      return this.#looking;
    }
    const done = this.#whole().finally(() => {
      this.#looking = null;
      if (this.#again && !this.#closed) {
        this.#again = false;
        this.#soon(0);
      }
    });
    return (this.#looking = done);
  }

  #soon(after: number): void {
    if (this.#closed) return;
    if (this.#timer) clearTimeout(this.#timer);
    this.#timer = setTimeout(() => void this.look(), after);
    this.#timer.unref();
  }

  /** What the system tells is a reason to look, no more. Whether it is watched from now on. */
  #watch(folder: Buffer): boolean {
    const key = folder.toString('latin1');
    if (this.#watchers.has(key) || this.#closed) return false;
    try {
      const watcher = watch(folder, { persistent: false }, () => this.#soon(50));
      watcher.on('error', () => {
        watcher.close();
        this.#watchers.delete(key);
      });
      this.#watchers.set(key, watcher);
      return true;
    } catch {
      // Then it is looked through every minute.
      return false;
    }
  }

  async #whole(): Promise<void> {
    let next = this.every;
    try {
      const waits = await alone(this.#services.database.pool, 'scan folder', () => this.#pass());
      if (waits) next = this.#settle;
    } catch (error) {
      if (isGone(error) || isFull(error)) next = Math.min(this.every, 5000);
      // A folder that goes while it is looked into is no fault; the next look begins anew.
      else if (codeOf(error) !== 'ENOENT') logError('the scan folder', error);
    }
    this.#soon(next);
  }

  /** One look through the folder; whether something there still grows. */
  async #pass(): Promise<boolean> {
    const companies = await this.#services.database.db
      .select({ id: company.id, code: company.code })
      .from(company)
      .orderBy(asc(company.code));
    // Before there is a company, what lies here waits.
    if (companies.length === 0) return false;
    const { candidates, folders, wrong } = await lookThrough(this.#root, companies);
    const watched = folders.map((folder) => this.#watch(folder));
    const now = Date.now(),
      there = new Set<string>();
    let growing = false;
    for (const one of candidates) {
      const key = one.path.toString('latin1'),
        look = lookOf(one.stats),
        before = this.#seen.get(key);
      there.add(key);
      if (before?.look !== look) this.#seen.set(key, { look, since: now });
      if (before?.look !== look || now - before.since < this.#settle) {
        growing = true;
        continue;
      }
      await this.#take(one, one.own ?? companies[0]!.id, wrong);
    }
    for (const key of this.#seen.keys()) if (!there.has(key)) this.#seen.delete(key);
    await this.#tell(wrong);
    // What came into a folder between the look and the watch shows in another look.
    return growing || watched.some(Boolean);
  }

  async #take(one: Candidate, companyId: string, wrong: Map<string, string>): Promise<void> {
    const { name, stats, folder, path } = one;
    try {
      const done = under(folder, 'done');
      await mkdir(done, { recursive: true });
      if (!(await lstat(done)).isDirectory()) {
        wrong.set('done', `“done” in the scan folder is no folder, so nothing can be moved there and nothing is taken in. Remove it.`);
        return;
      }
      const tooLarge = stats.size > limit;
      const bytes = tooLarge ? null : await bytesOf(one);
      if (!tooLarge && !bytes) return;
      await takeIn(this.#services, {
        companyId,
        channel: 'folder',
        sender: 'Scan folder',
        subject: name,
        personId: null,
        note: tooLarge ? `${name} is larger than 100 MB and was not taken in. It lies in the folder “done”.` : null,
        doorKey: `folder ${path.toString('latin1')} ${lookOf(stats)}`,
        files: bytes ? [{ name, mediaType: mediaTypeOf(name), bytes }] : [],
      });
      const at = new Date().toISOString().replace(/[:.]/g, '-');
      await rename(path, under(done, Buffer.concat([Buffer.from(`${at} `), path.subarray(folder.length + 1)])));
    } catch (error) {
      if (isGone(error) || isFull(error)) throw error;
      // It was taken away by somebody else.
      if (codeOf(error) === 'ENOENT') return;
      logError('taking a scan in', error);
      wrong.set(name, `“${name}” in the scan folder could not be taken in; it is left where it is. See that it may be read and moved.`);
    }
  }

  /** Says what is wrong now, and no more what was. */
  async #tell(wrong: Map<string, string>): Promise<void> {
    const { db } = this.#services.database;
    const keys = [...wrong.keys()].map((place) => `folder ${place}`.slice(0, 500));
    const gone = and(like(notice.key, 'folder %'), keys.length ? notInArray(notice.key, keys) : undefined);
    await db.delete(notice).where(gone);
    if (keys.length === 0) return;
    const rows = [...wrong.values()].map((sentence, i) => ({ key: keys[i]!, sentence, since: this.#services.now() }));
    const made = await db.insert(notice).values(rows.slice(0, 50)).onConflictDoNothing().returning({ key: notice.key });
    if (made.length > 0) {
      logLine('The scan folder holds something that cannot be taken in; Arrivals says what.');
      await db.execute(
        sql`select pg_notify('ledgerline', json_build_object('type', 'arrival', 'company', ${company.id}, 'id', null)::text) from ${company}`,
      );
    }
  }

  async close(): Promise<void> {
    this.#closed = true;
    if (this.#timer) clearTimeout(this.#timer);
    for (const watcher of this.#watchers.values()) watcher.close();
    await this.#looking?.catch(() => undefined);
  }
}
