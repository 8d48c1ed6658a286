import { mkdir, mkdtemp, readdir, rename, rm, symlink, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import fc from 'fast-check';
import { afterAll, beforeAll, expect, it, vi } from 'vitest';
import { makeWorld, type World } from '../testing/world.ts';
import { ScanFolder } from './folder.ts';

/** Devices, people and outages around a scan folder, in any order: each whole file is taken in once, and nothing else is touched. */
let world: World;
beforeAll(async () => {
  world = await makeWorld();
});
afterAll(() => world.close());

const place = fc.constantFrom('', 'mbg', 'MNT');
const act = fc.oneof(
  { weight: 5, arbitrary: fc.record({ do: fc.constant('drop' as const), place }) },
  { weight: 2, arbitrary: fc.record({ do: fc.constant('drop slowly' as const), place }) },
  { weight: 1, arbitrary: fc.record({ do: fc.constant('link' as const), place }) },
  { weight: 1, arbitrary: fc.record({ do: fc.constant('wrong folder' as const) }) },
  { weight: 4, arbitrary: fc.record({ do: fc.constant('look' as const), both: fc.boolean() }) },
  { weight: 1, arbitrary: fc.record({ do: fc.constant('look while the database is away' as const) }) },
);

it('takes each whole file in once', async () => {
  const quiet = vi.spyOn(console, 'error').mockImplementation(() => undefined);
  await fc.assert(
    fc.asyncProperty(fc.array(act, { minLength: 3, maxLength: 14 }), async (acts) => {
      const folder = await mkdtemp(join(tmpdir(), 'scans-')),
        outside = await mkdtemp(join(tmpdir(), 'outside-'));
      for (const own of ['mbg', 'MNT']) await mkdir(join(folder, own));
      await writeFile(join(outside, 'not-ours.txt'), 'left alone');
      const scans = [0, 1].map(() => new ScanFolder(world.services, folder, 0, 3_600_000));
      const key = folder.split('-').pop()!;
      const whole: string[] = [];
      let n = 0;
      for (const a of acts) {
        const name = `${key}-${++n}.txt`;
        if (a.do === 'drop') {
          await writeFile(join(folder, a.place, `.${name}`), `scan ${name}`);
          await rename(join(folder, a.place, `.${name}`), join(folder, a.place, name));
          whole.push(name);
        } else if (a.do === 'drop slowly') {
          await writeFile(join(folder, a.place, name), 'half');
          await scans[0]!.look();
          await writeFile(join(folder, a.place, name), `scan ${name}`);
          whole.push(name);
        } else if (a.do === 'link') await symlink(join(outside, 'not-ours.txt'), join(folder, a.place, name));
        else if (a.do === 'wrong folder') {
          await mkdir(join(folder, `garten-${n}`));
          await writeFile(join(folder, `garten-${n}`, name), 'x');
        } else if (a.do === 'look') await Promise.all((a.both ? scans : scans.slice(0, 1)).map((s) => s.look()));
        else {
          const { pool } = world.services.database,
            connect = pool.connect;
          const gone = Object.assign(new Error('gone'), { code: '57P01' });
          // The pool itself asks by callback; a look that a timer began is away as well.
          pool.connect = ((told?: (error: Error) => void) => (told ? told(gone) : Promise.reject(gone))) as never;
          await scans[0]!.look();
          pool.connect = connect;
        }
      }
      for (let i = 0; i < 3; i++) for (const s of scans) await s.look();
      const taken = await world.rows(
        `select d.name, convert_from(f.bytes, 'UTF8') as text from document d join file f on f.sha256 = d.file_sha256 where d.name like $1 order by 1`,
        `${key}-%`,
      );
      expect(taken.map((t) => t.name)).toEqual([...whole].sort());
      for (const { name, text } of taken) expect(text, name).toBe(`scan ${name}`);
      const moved = (await Promise.all(['', 'mbg', 'MNT'].map((own) => readdir(join(folder, own, 'done')).catch(() => [])))).flat();
      expect(moved.map((m) => m.split(' ')[1]).sort()).toEqual([...whole].sort());
      expect(await readdir(outside)).toEqual(['not-ours.txt']);
      for (const s of scans) await s.close();
      await rm(folder, { recursive: true });
      await rm(outside, { recursive: true });
    }),
    { numRuns: 25, endOnFailure: true },
  );
  quiet.mockRestore();
}, 120_000);
