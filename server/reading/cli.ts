import { readFile } from 'node:fs/promises';
import { basename } from 'node:path';
import { toFormat } from '@ledgerline/core/reading';
import { noteOf } from './notes.ts';
import { ReadingPool } from './pool.ts';
import { inFile } from './result.ts';

/** `ledgerline read FILE…`: one JSON document a file in the reading format; a file that can't be read says why. Exit code 1 then. */
export async function readFiles(files: string[]): Promise<number> {
  const pool = new ReadingPool(1);
  let code = 0;
  const read = async (path: string): Promise<unknown> => {
    const file = basename(path);
    try {
      const result = await pool.read(await readFile(path), path);
      if (!result.ok) code = 1;
      return result.ok ? toFormat(file, result.parts.map(inFile)) : { file, documents: [], error: noteOf(result) };
    } catch (error) {
      code = 1;
      return { file, documents: [], error: `This file could not be opened: ${error instanceof Error ? error.message : String(error)}` };
    }
  };
  // A few at once keep all threads busy; what is printed keeps the order of the files.
  const line: Promise<unknown>[] = [];
  for (const [i, path] of files.entries()) {
    line.push(i < 3 ? read(path) : line[i - 3]!.then(() => read(path)));
  }
  for (const done of line) console.log(JSON.stringify(await done));
  await pool.close();
  return code;
}
