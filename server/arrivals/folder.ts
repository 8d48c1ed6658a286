import { mkdir, readFile, rename, stat } from 'node:fs/promises';
import { basename, dirname, join, relative, sep } from 'node:path';
import { watch, type FSWatcher } from 'chokidar';
import { asc } from 'drizzle-orm';
import { company } from '../db/schema/index.ts';
import { mediaTypeOf } from '../reading/filetype.ts';
import type { Services } from '../services.ts';
import { takeIn } from './take.ts';

const limit = 100 * 1024 * 1024;
const temporary = /(^\.)|(^~)|\.(part|tmp|crdownload|filepart)$/i;

/** Takes one scan in and moves the original to "done" beside it. The folder's name says the company; else the first one, until the page says more. */
export async function takeScan(services: Services, folder: string, path: string): Promise<void> {
  const companies = await services.database.db.select().from(company).orderBy(asc(company.code));
  const first = companies[0];
  if (!first) return;
  const inside = relative(folder, path).split(sep);
  const own = inside.length > 1 ? companies.find((c) => c.code.toLowerCase() === inside[0]!.toLowerCase()) : undefined;
  const { size } = await stat(path);
  const name = basename(path);
  const tooLarge = size > limit;
  const bytes = tooLarge ? null : new Uint8Array(await readFile(path));
  await takeIn(services, {
    companyId: (own ?? first).id,
    channel: 'folder',
    sender: 'Scan folder',
    subject: name,
    body: null,
    headers: null,
    original: null,
    personId: null,
    note: tooLarge ? `${name} is larger than 100 MB and was not taken in. It lies in the folder “done”.` : null,
    files: bytes ? [{ name, mediaType: mediaTypeOf(name), bytes }] : [],
  });
  const done = join(dirname(path), 'done');
  await mkdir(done, { recursive: true });
  await rename(path, join(done, `${services.now().toISOString().replace(/[:.]/g, '-')} ${name}`));
}

/** Watches the scan folder. A file is taken once it has stopped growing; names that devices use while writing are left alone. */
export async function watchFolder(services: Services, folder: string, settle = 1500): Promise<FSWatcher> {
  await mkdir(folder, { recursive: true });
  const watcher = watch(folder, {
    depth: 1,
    ignored: (path) => path !== folder && (temporary.test(basename(path)) || relative(folder, path).split(sep).includes('done')),
    awaitWriteFinish: { stabilityThreshold: settle, pollInterval: 100 },
  });
  // One after another: the same file dropped twice at once is still noticed.
  let line: Promise<void> = Promise.resolve();
  watcher.on('add', (path) => {
    line = line
      .then(() => takeScan(services, folder, path))
      .catch((error: unknown) => console.error(`A scan could not be taken in: ${error instanceof Error ? error.message : String(error)}`));
  });
  await new Promise<void>((ready) => watcher.once('ready', () => ready()));
  return watcher;
}
