import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest';
import { makePdf } from '@ledgerline/documents/maker';
import { sql } from 'drizzle-orm';
import { mailOf, password } from '../testing/master.ts';
import { browser } from '../testing/browser.ts';
import { invoiceOf, makeWorld, type World } from '../testing/world.ts';
import { shelfFor } from '../reading/shelf.ts';
import { connect } from './client.ts';
import { away } from './faults.ts';

let world: World;
beforeAll(async () => {
  world = await makeWorld();
});
afterAll(() => world.close());

describe('a machine that can’t just now', () => {
  it('stops a statement that takes too long, and says so', async () => {
    const hasty = connect(world.url, { statementSeconds: 0.1 });
    const error = await hasty.db.execute(sql`select pg_sleep(5)`).catch((e: unknown) => e);
    expect(away(error)).toMatchObject({ status: 503, message: expect.stringContaining('took too long') });
    await hasty.close();
  });
  it('without room refuses an upload in words, keeps nothing half, and goes on when there is room', async () => {
    const own = browser(world.api.app);
    await own('POST', '/session', { email: mailOf('Ines Okafor'), password });
    const bytes = await makePdf(invoiceOf(0, { number: 'FULL-1', lines: 1 }));
    const upload = async () => {
      const form = new FormData();
      form.append('file', new Blob([new Uint8Array(bytes)]), 'full.pdf');
      const cookie = [...own.cookies].map(([name, value]) => `${name}=${value}`).join('; ');
      const answer = await world.api.app.request(`/api/companies/${world.master.company('MBG').id}/arrivals`, {
        method: 'POST',
        headers: { cookie },
        body: form,
      });
      return { status: answer.status, title: ((await answer.json()) as { title?: string }).title };
    };
    const log = vi.spyOn(console, 'error').mockImplementation(() => undefined);
    await world.rows(
      `create function no_room() returns trigger language plpgsql as $$ begin raise exception using errcode = 'disk_full'; end $$`,
    );
    await world.rows('create trigger no_room before insert on document for each row execute function no_room()');
    expect(await upload()).toEqual({ status: 507, title: expect.stringContaining('disk is full') });
    expect(await world.rows('select count(*)::int as n from arrival union all select count(*)::int from file')).toEqual([
      { n: 0 },
      { n: 0 },
    ]);
    await world.rows('drop trigger no_room on document');
    expect((await upload()).status).toBe(200);
    await world.drain();
    expect((await world.rows(`select count(*)::int as n from bill where invoice_number = 'FULL-1'`))[0].n).toBe(1);
    log.mockRestore();
  });
});

describe('a page', () => {
  it('is scanned by one at a time, however long it takes; who waits takes what the other kept', async () => {
    const [file] = await world.rows('select sha256 from file limit 1');
    const page = { sha: file.sha256, page: 1, turn: null };
    let running = 0,
      most = 0,
      scans = 0;
    const scan = async () => {
      running++;
      scans++;
      most = Math.max(most, running);
      await new Promise((done) => setTimeout(done, 300));
      running--;
      return { sha: page.sha, page: 1, turn: 0, auto: true, fault: null, read: { width: 1, height: 1, words: [] } };
    };
    const ids = ['01900000-0000-7000-8000-000000000001', '01900000-0000-7000-8000-000000000002', '01900000-0000-7000-8000-000000000003'];
    const got = await Promise.all(ids.map((id) => shelfFor(world.services, id).alone(page, scan)));
    expect([most, scans, got.map((g) => g.read?.width)]).toEqual([1, 1, [1, 1, 1]]);
  });
});
