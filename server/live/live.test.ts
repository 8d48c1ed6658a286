import { afterAll, beforeAll, expect, it } from 'vitest';
import { changeBill } from '../bills/change.ts';
import { clientOf } from '../testing/client.ts';
import { mailOf, password } from '../testing/master.ts';
import { makeWorld, type World } from '../testing/world.ts';

let world: World;
beforeAll(async () => {
  world = await makeWorld();
  await world.services.live.listen(world.url);
});
afterAll(async () => {
  await world.services.live.close();
  await world.close();
});

async function streamOf(name: string) {
  const signedIn = await world.api.app.request('/api/session', {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ email: mailOf(name), password }),
  });
  const answer = await world.api.app.request('/api/live', { headers: { cookie: signedIn.headers.getSetCookie()[0]!.split(';')[0]! } });
  const reader = answer.body!.pipeThrough(new TextDecoderStream()).getReader();
  let text = '';
  return {
    /** Reads on until something was told. */
    async until(what: RegExp): Promise<string> {
      while (!what.test(text)) {
        const { value, done } = await reader.read();
        if (done) throw new Error(`The stream ended with: ${text}`);
        text += value;
      }
      return text;
    },
    close: () => reader.cancel(),
  };
}

it('a save is told to the members of its company, with the bill that it is about, once it is committed', async () => {
  const [ours, theirs] = [await world.build.bill(), await world.build.bill({ company: 'MNT' })];
  const tobias = await streamOf('Tobias Fenn');
  await tobias.until(/hello/);
  const operations = [{ do: 'set', field: 'terms', value: 'net 9' }];
  await world.run(changeBill, await world.as('Ines Okafor', 'MNT'), { id: theirs }, { rowVersion: 1, operations });
  await expect(world.run(changeBill, await world.as('Ines Okafor'), { id: ours }, { rowVersion: 7, operations })).rejects.toThrow();
  await world.run(changeBill, await world.as('Ines Okafor'), { id: ours }, { rowVersion: 1, operations });
  const told = await tobias.until(/event: changes/).then(() => tobias.until(new RegExp(ours)));
  const changes = [...told.matchAll(/data: (\[.*\])/g)].flatMap((m) => JSON.parse(m[1]!) as object[]);
  expect(changes).toEqual([{ type: 'bill', company: world.master.company('MBG').id, id: ours }]);
  await tobias.close();
});
it('a session that ends ends its stream, wherever it was ended', async () => {
  const kit = await streamOf('Kit Arden');
  await kit.until(/hello/);
  await world.rows('delete from session where person_id = $1', world.master.person('Kit Arden'));
  await kit.until(/event: over/);
});
it('a company that somebody is taken out of is not told to them any more', async () => {
  const rufus = await streamOf('Rufus Pell');
  await rufus.until(/hello/);
  const nursery = world.master.company('MNT').id;
  const id = await world.build.bill({ company: 'MNT' });
  await world.rows('delete from membership where person_id = $1 and company_id = $2', world.master.person('Rufus Pell'), nursery);
  world.services.live.tell({ type: 'person', company: nursery, id: world.master.person('Rufus Pell') });
  world.services.live.tell({ type: 'bill', company: nursery, id });
  world.services.live.tell({ type: 'period', company: world.master.company('MBG').id, id: null });
  expect(await rufus.until(/period/)).not.toContain(id);
  await rufus.close();
});
it('whoever watches is told after every outage, however many there were', async () => {
  const halina = await streamOf('Halina Voss');
  await halina.until(/hello/);
  for (let outage = 1; outage <= 3; outage++) {
    await world.rows(
      `select pg_terminate_backend(pid) from pg_stat_activity where application_name = 'ledgerline-live' and datname = current_database()`,
    );
    await halina.until(new RegExp(`(?:event: changes[^]*){${outage}}`));
  }
  const bill = await world.build.bill();
  await world.run(
    changeBill,
    await world.as('Ines Okafor'),
    { id: bill },
    { rowVersion: 1, operations: [{ do: 'set', field: 'terms', value: 'net 9' }] },
  );
  await halina.until(new RegExp(bill));
  await halina.close();
});
it('a stranger hears nothing', async () => {
  expect((await clientOf(world)(null, 'GET', '//live')).status).toBe(401);
});
