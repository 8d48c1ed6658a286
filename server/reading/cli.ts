import { readFile } from 'node:fs/promises';
import { basename } from 'node:path';
import { parseArgs } from 'node:util';
import { matchSupplier, tracesOf, weighKnown } from '@ledgerline/core/matching';
import { toFormat, type Known, type Reading } from '@ledgerline/core/reading';
import { noteOf } from './notes.ts';
import { ReadingPool } from './pool.ts';
import { inFile } from './result.ts';

/** A firm of a list, a supplier with the numbers of its earlier invoices. */
type Firm = Known & { numbers?: string[] };

/** A list of firms in JSON: name, and as far as they are known taxId, iban, email, address, numbers. */
async function firms(file: string | undefined): Promise<Firm[]> {
  if (!file) return [];
  const list: unknown = JSON.parse(await readFile(file, 'utf8'));
  if (!Array.isArray(list) || !list.every((one: unknown) => typeof (one as Known | null)?.name === 'string'))
    throw new Error(`${basename(file)} is not a list of firms: [{ "name": … }, …]`);
  return list as Firm[];
}

/** `ledgerline read [--companies FILE] [--suppliers FILE] FILE…`: one JSON document a file in the reading format; a file that can't be read says why. Exit code 1 then. */
export async function readFiles(args: string[]): Promise<number> {
  const { values, positionals: files } = parseArgs({
    args,
    allowPositionals: true,
    options: { companies: { type: 'string' }, suppliers: { type: 'string' } },
  });
  const companies = await firms(values.companies),
    suppliers = (await firms(values.suppliers)).map(({ name, taxId, iban, email, numbers }, i) => ({
      id: String(i),
      name,
      taxId: taxId ?? null,
      iban: iban ?? null,
      email: email ?? null,
      numbers,
    }));
  const pool = new ReadingPool(1);
  let code = 0;
  const weighed = (reading: Reading, fileName: string): Reading => {
    const match = matchSupplier(tracesOf(reading), suppliers),
      sender = suppliers.find((s) => s.id === match?.id) ?? null;
    return weighKnown(reading, { suppliers, sender, numbers: sender?.numbers ?? [], fileName });
  };
  const read = async (path: string): Promise<unknown> => {
    const file = basename(path);
    try {
      const result = await pool.read(new Uint8Array(await readFile(path)), path, { companies });
      if (!result.ok) code = 1;
      return result.ok
        ? toFormat(
            file,
            result.parts.map((p) => (p.findings ? inFile(p) : weighed(inFile(p), file))),
          )
        : { file, documents: [], error: noteOf(result) };
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
