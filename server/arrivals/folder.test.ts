import { execFileSync } from 'node:child_process';
import { mkdir, mkdtemp, readdir, readFile, rm, symlink, utimes, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, afterEach, beforeAll, beforeEach, describe, expect, it, vi } from 'vitest';
import { makePdf } from '@ledgerline/documents/maker';
import { invoiceOf, makeWorld, type World } from '../testing/world.ts';
import { ScanFolder } from './folder.ts';

let world: World;
let folder = '';
let scans: ScanFolder;
beforeAll(async () => {
  world = await makeWorld();
});
afterAll(() => world.close());
beforeEach(async () => {
  folder = await mkdtemp(join(tmpdir(), 'scans-'));
  scans = new ScanFolder(world.services, folder, 0, 3_600_000);
  await mkdir(join(folder, 'mbg'));
});
afterEach(async () => {
  await scans.close();
  await rm(folder, { recursive: true, force: true });
});
const page = (number: string, i = 1) => makePdf(invoiceOf(i, { number, lines: 1 }));
/** The first look notes how a file looks, the second takes what looks the same. */
const looked = async () => {
  await scans.look();
  await scans.look();
  await world.drain();
};
const bills = async (like: string) =>
  (await world.rows(`select invoice_number, company_id from bill where invoice_number like $1 order by 1`, like)).map(
    (b) => b.invoice_number,
  );
const notices = async () => (await world.rows('select sentence from notice order by 1')).map((r) => r.sentence as string);

describe('the scan folder', () => {
  it('takes a scan in, for the company of its folder or the one on its page, and moves it to done', async () => {
    await writeFile(join(folder, 'mbg', 'one.pdf'), await page('F-1'));
    await writeFile(join(folder, 'two.pdf'), await page('F-2', 9));
    await looked();
    expect(await bills('F-_')).toEqual(['F-1', 'F-2']);
    expect((await world.rows(`select company_id from bill where invoice_number = 'F-2'`))[0].company_id).toBe(
      world.master.company('MNT').id,
    );
    expect([await readdir(join(folder, 'mbg')), await readdir(folder)]).toEqual([['done'], ['done', 'mbg']]);
    expect(await readdir(join(folder, 'done'))).toEqual([expect.stringMatching(/ two\.pdf$/)]);
  });
  it('is told by the system of a file in a company’s folder, one that was empty or is new', async () => {
    const told = new ScanFolder(world.services, folder, 50, 3_600_000);
    await told.begin();
    const gone = (where: string, name: string) =>
      expect.poll(async () => (await readdir(join(folder, where))).includes(name), { timeout: 10_000 }).toBe(false);
    await writeFile(join(folder, 'mbg', 'told.pdf'), await page('T-1'));
    await gone('mbg', 'told.pdf');
    await mkdir(join(folder, 'MNT'));
    await writeFile(join(folder, 'MNT', 'new.pdf'), await page('T-2', 9));
    await gone('MNT', 'new.pdf');
    await told.close();
    await world.drain();
    expect(await bills('T-_')).toEqual(['T-1', 'T-2']);
  });
  it('leaves a file that still grows, and takes it when it has stopped', async () => {
    const whole = await page('F-3'),
      path = join(folder, 'slow.pdf');
    for (const part of [0.3, 0.6, 1]) {
      await writeFile(path, whole.subarray(0, Math.round(whole.length * part)));
      await utimes(path, 1_700_000_000 + part * 10, 1_700_000_000 + part * 10);
      await scans.look();
      expect(await readdir(folder)).toContain('slow.pdf');
    }
    await looked();
    expect(await bills('F-3')).toEqual(['F-3']);
  });
  it('follows no link, and moves nothing from outside', async () => {
    const outside = await mkdtemp(join(tmpdir(), 'outside-'));
    await writeFile(join(outside, 'secret.pdf'), await page('OUT-1'));
    await symlink(join(outside, 'secret.pdf'), join(folder, 'link.pdf'));
    await symlink(outside, join(folder, 'mnt'));
    await symlink(folder, join(folder, 'mbg', 'round'));
    await symlink('/dev/zero', join(folder, 'zero.pdf'));
    await looked();
    expect(await bills('OUT-%')).toEqual([]);
    expect(await readdir(outside)).toEqual(['secret.pdf']);
    expect(await notices()).toEqual([
      expect.stringContaining('“MBG/round”'),
      expect.stringContaining('“link.pdf”'),
      expect.stringContaining('“mnt”'),
      expect.stringContaining('“zero.pdf”'),
    ]);
    await rm(outside, { recursive: true });
  });
  it('moves nothing where “done” is a link', async () => {
    const outside = await mkdtemp(join(tmpdir(), 'outside-'));
    await symlink(outside, join(folder, 'done'));
    await writeFile(join(folder, 'a.pdf'), await page('F-4'));
    await looked();
    expect([await readdir(outside), await bills('F-4')]).toEqual([[], []]);
    expect((await notices()).join()).toContain('“done”');
    await rm(join(folder, 'done'));
    await looked();
    expect(await bills('F-4')).toEqual(['F-4']);
    await rm(outside, { recursive: true });
  });
  it('is not held up by a pipe, a socket or a device', async () => {
    execFileSync('mkfifo', [join(folder, 'a-pipe.pdf')]);
    await writeFile(join(folder, 'behind.pdf'), await page('F-5'));
    await looked();
    expect(await bills('F-5')).toEqual(['F-5']);
    expect(await readdir(folder)).toContain('a-pipe.pdf');
    expect((await notices()).join()).toContain('a-pipe.pdf');
  });
  it('takes names in any encoding, and moves them as they are', async () => {
    const odd = Buffer.concat([Buffer.from(`${folder}/rech`), Buffer.from([0xfc, 0xe9]), Buffer.from('.pdf')]);
    await writeFile(odd, await page('F-6'));
    await writeFile(join(folder, 'ñandú – 🌿.pdf'), await page('F-7'));
    await looked();
    expect(await bills('F-_')).toEqual(expect.arrayContaining(['F-6', 'F-7']));
    expect((await world.rows(`select name from document where name like 'rech%'`)).map((r) => r.name)).toEqual(['rechüé.pdf']);
    const moved = await readdir(Buffer.from(join(folder, 'done')), { encoding: 'buffer' });
    expect(moved.some((name) => name.includes(Buffer.from([0x68, 0xfc, 0xe9, 0x2e])))).toBe(true);
  });
  it('says which folders belong to nobody or lie too deep, and no more once they are gone', async () => {
    await mkdir(join(folder, 'garten'));
    await writeFile(join(folder, 'garten', 'a.pdf'), 'x');
    await mkdir(join(folder, 'mbg', 'monday'));
    await mkdir(join(folder, 'nothing-in-it'));
    await looked();
    expect(await notices()).toEqual([expect.stringContaining('“MBG/monday” lies too deep'), expect.stringMatching(/“garten”.*MBG, MNT/)]);
    await rm(join(folder, 'garten'), { recursive: true });
    await rm(join(folder, 'mbg', 'monday'), { recursive: true });
    await looked();
    expect(await notices()).toEqual([]);
  });
  it('takes what lay there while the database was away, once it is back', async () => {
    const error = vi.spyOn(console, 'error').mockImplementation(() => undefined);
    await writeFile(join(folder, 'away.pdf'), await page('F-8'));
    await scans.look();
    const { pool } = world.services.database;
    const connect = pool.connect.bind(pool);
    pool.connect = (() => Promise.reject(Object.assign(new Error('gone'), { code: 'ECONNREFUSED' }))) as never;
    await scans.look();
    pool.connect = connect;
    expect(await readFile(join(folder, 'away.pdf'))).toBeTruthy();
    await looked();
    expect(await bills('F-8')).toEqual(['F-8']);
    error.mockRestore();
  });
  it('waits for an organisation, and takes everything then', async () => {
    const empty = await makeWorld(false);
    const early = new ScanFolder(empty.services, folder, 0, 3_600_000);
    await writeFile(join(folder, 'early.pdf'), await page('F-9'));
    await early.look();
    await early.look();
    expect(await readdir(folder)).toContain('early.pdf');
    await empty.fill();
    await early.look();
    await early.look();
    await empty.drain();
    expect((await empty.rows(`select invoice_number from bill`)).map((b) => b.invoice_number)).toEqual(['F-9']);
    await early.close();
    await empty.close();
  });
  it('takes nothing twice: not by two who watch it, not when it could not be moved', async () => {
    const other = new ScanFolder(world.services, folder, 0, 3_600_000);
    for (let i = 0; i < 4; i++) await writeFile(join(folder, `${i}.pdf`), await page(`FX-${i}`));
    await Promise.all([scans.look(), other.look()]);
    for (let i = 0; i < 3; i++) await Promise.all([scans.look(), other.look()]);
    await world.drain();
    expect(await bills('FX-%')).toEqual(['FX-0', 'FX-1', 'FX-2', 'FX-3']);
    expect((await world.rows(`select count(*)::int as n from arrival where subject ~ '^[0-3].pdf$'`))[0].n).toBe(4);
    await other.close();
  });
});
