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
  for (const path of files) {
    const file = basename(path);
    try {
      const result = await pool.read(await readFile(path));
      if (!result.ok) code = 1;
      console.log(JSON.stringify(result.ok ? toFormat(file, result.parts.map(inFile)) : { file, documents: [], error: noteOf(result) }));
    } catch (error) {
      code = 1;
      console.log(
        JSON.stringify({
          file,
          documents: [],
          error: `This file could not be opened: ${error instanceof Error ? error.message : String(error)}`,
        }),
      );
    }
  }
  await pool.close();
  return code;
}
