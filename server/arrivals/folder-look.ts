import { constants, type Stats } from 'node:fs';
import { lstat, open, readdir } from 'node:fs/promises';

/** Names that devices use while they write. */
const temporary = /(^\.)|(^~)|\.(part|tmp|crdownload|filepart)$/i;

/** Names are bytes: what is no UTF-8 is read as Windows wrote it, for showing only. */
export function nameOf(bytes: Buffer): string {
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    return new TextDecoder('windows-1252').decode(bytes);
  }
}
/** A place in a folder, as bytes. */
export const under = (folder: Buffer, name: Buffer | string): Buffer => Buffer.concat([folder, Buffer.from('/'), Buffer.from(name)]);

/** A file that may be taken in: where it lies, how it looked, and whose it is by its folder. */
export interface Candidate {
  path: Buffer;
  folder: Buffer;
  name: string;
  own: string | null;
  stats: Stats;
}
export interface CompanyHere {
  id: string;
  code: string;
}
export interface Found {
  candidates: Candidate[];
  /** All folders that were looked into: whoever is told of their changes hears of new files at once. */
  folders: Buffer[];
  /** What lies there and can't be taken in, in a clerk's words, by its place. */
  wrong: Map<string, string>;
}

/** Looks through the folder and the companies' folders in it. No link is followed, and nothing but regular files and folders is opened. */
export async function lookThrough(root: Buffer, companies: CompanyHere[]): Promise<Found> {
  const found: Found = { candidates: [], folders: [], wrong: new Map() };
  const codes = companies.map((c) => c.code).join(', ');
  const enter = async (folder: Buffer, own: CompanyHere | null, depth: number): Promise<void> => {
    found.folders.push(folder);
    for (const bytes of await readdir(folder, { encoding: 'buffer' })) {
      const name = nameOf(bytes),
        path = under(folder, bytes),
        place = own ? `${own.code}/${name}` : name;
      if (temporary.test(name) || (name === 'done' && depth <= 1)) continue;
      const stats = await lstat(path).catch(() => null);
      if (!stats) continue;
      if (stats.isFile()) {
        found.candidates.push({ path, folder, name, own: own?.id ?? null, stats });
      } else if (!stats.isDirectory()) {
        found.wrong.set(
          place,
          `“${place}” in the scan folder is no file but a link or a device. It is left where it is; put the file itself there.`,
        );
      } else if (depth > 0) {
        found.wrong.set(
          place,
          `The folder “${place}” lies too deep in the scan folder, so nothing in it is taken in. Move its files one level up.`,
        );
      } else {
        const of = companies.find((c) => c.code.toLowerCase() === name.toLowerCase());
        if (of) await enter(path, of, 1);
        else if ((await readdir(path).catch(() => [])).length > 0)
          found.wrong.set(
            place,
            `The folder “${place}” in the scan folder belongs to no company, so nothing in it is taken in. Rename it to one of ${codes}, or move its files.`,
          );
      }
    }
  };
  await enter(root, null, 0);
  return found;
}

/** Reads a regular file through a handle that follows no link and waits for no other side; null where it is none, or another one now. */
export async function bytesOf({ path, stats }: Candidate): Promise<Uint8Array | null> {
  const handle = await open(path, constants.O_RDONLY | constants.O_NOFOLLOW | constants.O_NONBLOCK);
  try {
    const now = await handle.stat();
    if (!now.isFile() || now.ino !== stats.ino || now.size !== stats.size) return null;
    return new Uint8Array(await handle.readFile());
  } finally {
    await handle.close();
  }
}
