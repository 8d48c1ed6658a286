import { afterAll, beforeAll, expect, it } from 'vitest';
import { clientOf } from '../testing/client.ts';
import { makeWorld, type World } from '../testing/world.ts';
import { keepPersonViews, personViews } from './person.ts';
import { changeView, newView, removeView, viewsFor } from './service.ts';

let world: World;
beforeAll(async () => {
  world = await makeWorld();
});
afterAll(() => world.close());
const view = { name: 'Late ones', shared: false, q: 'due:late', sort: 'due' as const, order: 'asc' as const, columns: ['supplier', 'due'] };
const names = async (who: string, code?: string) => {
  const caller = await world.as(who, code);
  return (await viewsFor(world.database.db, caller.company.id, caller.me.id)).map((v) => [v.name, v.own]);
};

it('a view is its maker’s alone until it is shared with the company; only they change and remove it', async () => {
  const ines = await world.as('Ines Okafor'),
    tobias = await world.as('Tobias Fenn');
  const { id } = await world.run(newView, ines, {}, view);
  expect([await names('Ines Okafor'), await names('Tobias Fenn')]).toEqual([[['Late ones', true]], []]);
  await expect(world.run(removeView, tobias, { id }, {})).rejects.toMatchObject({ status: 404 });
  await world.run(changeView, ines, { id }, { ...view, shared: true });
  expect([await names('Tobias Fenn'), await names('Ines Okafor', 'MNT')]).toEqual([[['Late ones', false]], []]);
  await expect(world.run(changeView, tobias, { id }, view)).rejects.toMatchObject({ status: 403 });
  await world.run(removeView, ines, { id }, {});
  expect(await names('Ines Okafor')).toEqual([]);
});
it('what is no column or no order is refused, and so is the fifty-first view', async () => {
  const ines = await world.as('Ines Okafor');
  await expect(world.run(newView, ines, {}, { ...view, columns: ['password'] })).rejects.toMatchObject({ status: 400 });
  await expect(world.run(newView, ines, {}, { ...view, sort: 'id' })).rejects.toMatchObject({ status: 400 });
  for (let i = 0; i < 50; i++) await world.run(newView, ines, {}, { ...view, name: `V ${i}` });
  await expect(world.run(newView, ines, {}, view)).rejects.toThrow('You have 50 views already');
});
it('how a person looks at a place is theirs, is kept by place, and is closed to anything else', async () => {
  const { me } = await world.as('Ines Okafor');
  const desk = { side: 'right', share: 0.5, zoom: 1, widths: { amount: 90 }, hidden: [], shown: [] };
  await keepPersonViews(world.database.db, me.id, { desk });
  await keepPersonViews(world.database.db, me.id, { bills: { columns: ['supplier'], preview: true } });
  expect(await personViews(world.database.db, me.id)).toEqual({ desk, bills: { columns: ['supplier'], preview: true } });
  expect(await personViews(world.database.db, (await world.as('Tobias Fenn')).me.id)).toEqual({});
  const ask = clientOf(world);
  expect((await ask('Ines', 'PUT', '//you/views', { desk: { ...desk, script: 'x' } })).status).not.toBe(200);
});
