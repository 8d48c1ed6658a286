import { spawnSync } from 'node:child_process';
import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { afterAll, beforeAll, expect, it, vi } from 'vitest';
import { makeInvoice } from '@ledgerline/documents/invoice';
import { makePdf } from '@ledgerline/documents/maker';
import { seeded } from '@ledgerline/documents/random';
import { suppliers } from '@ledgerline/documents/suppliers';
import { readFiles } from './cli.ts';

let folder = '';
beforeAll(async () => void (folder = await mkdtemp(join(tmpdir(), 'ledgerline-cli-'))));
afterAll(() => rm(folder, { recursive: true }));

/** What the command line prints, a document a line. */
async function printed(
  args: string[],
): Promise<{ code: number; lines: { file: string; documents: Record<string, unknown>[]; error?: string }[] }> {
  const said: string[] = [];
  const log = vi.spyOn(console, 'log').mockImplementation((line: string) => void said.push(line));
  try {
    return { code: await readFiles(args), lines: said.map((line) => JSON.parse(line) as never) };
  } finally {
    log.mockRestore();
  }
}

it('prints what is read of each file, in their order; one that cannot be read says why', async () => {
  const invoice = makeInvoice(suppliers[0]!, seeded(5), { number: 'CLI-1', issueDate: '2026-11-03', lines: 2 });
  const [good, bad, ours] = ['good.pdf', 'bad.pdf', 'ours.json'].map((name) => join(folder, name)) as [string, string, string];
  await writeFile(good, await makePdf(invoice));
  await writeFile(bad, 'no PDF at all');
  await writeFile(ours, JSON.stringify([{ name: 'Marrowby Botanic Gardens' }]));
  const { code, lines } = await printed(['--companies', ours, good, bad]);
  expect(lines.map((l) => l.file)).toEqual(['good.pdf', 'bad.pdf']);
  expect(lines[0]!.documents[0]).toMatchObject({ invoiceNumber: 'CLI-1', issueDate: '2026-11-03', supplier: { name: suppliers[0]!.name } });
  expect([code, lines[1]!.documents, lines[1]!.error]).toEqual([1, [], expect.stringMatching(/\w/)]);
});
it('a list of companies that is none is refused', async () => {
  const list = join(folder, 'list.json');
  await writeFile(list, '{"name": "x"}');
  await expect(printed(['--companies', list, list])).rejects.toThrow('list.json is not a list of firms');
});
it('as a command of its own it ends with 0 once all is read', async () => {
  const good = join(folder, 'own.pdf');
  await writeFile(good, await makePdf(makeInvoice(suppliers[1]!, seeded(6), { number: 'CLI-2', issueDate: '2026-11-04', lines: 2 })));
  const command = fileURLToPath(new URL('../../bin/ledgerline.mjs', import.meta.url));
  const { status, stdout } = spawnSync(process.execPath, [command, 'read', good], { encoding: 'utf8' });
  expect([status, stdout.trim().split('\n').length]).toEqual([0, 1]);
});
