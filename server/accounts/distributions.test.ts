import { afterAll, beforeAll, expect, it } from 'vitest';
import { makeWorld, type World } from '../testing/world.ts';
import { changeDistribution, listDistributions, newDistribution } from './distributions.ts';

let world: World;
beforeAll(async () => {
  world = await makeWorld();
});
afterAll(() => world.close());
const kit = () => world.as('Kit Arden');
const centre = (code: string, company = 'MBG') => world.master.company(company).centre(code);
const key = (...parts: [code: string, weight: string][]) => ({
  name: 'Rent',
  active: true,
  parts: parts.map(([code, weight]) => ({ costCentreId: centre(code), weight })),
});
const kept = async () =>
  (await listDistributions(world.database.db, world.master.company('MBG').id)).map((k) => [
    k.name,
    k.parts.map((p) => [p.costCentre, p.weight]),
  ]);

it('a distribution key is made and changed, its parts in order, with both in the event log', async () => {
  const { id } = await world.run(newDistribution, await kit(), {}, key(['210', '60'], ['200', '40']));
  expect(await kept()).toEqual([['Rent', [['210 Palm House', '60'], ['200 Arboretum', '40']]]]); // prettier-ignore
  await world.run(changeDistribution, await kit(), { id }, key(['200', '1.5'], ['210', '2']));
  expect(await kept()).toEqual([['Rent', [['200 Arboretum', '1.5'], ['210 Palm House', '2']]]]); // prettier-ignore
  await world.run(changeDistribution, await kit(), { id }, key(['200', '1.50'], ['210', '2']));
  expect(await world.rows(`select verb, after->>'parts' as parts from event where subject_id = $1 order by seq`, id)).toEqual([
    { verb: 'made', parts: '210 60, 200 40' },
    { verb: 'changed', parts: '200 1.5, 210 2' },
  ]);
});
it('what makes no sense is refused, and nothing of it is kept', async () => {
  const before = await kept();
  const refused = async (body: object, sentence: string, who = 'Kit Arden') =>
    expect(
      world.run(newDistribution, await world.as(who), {}, { ...key(['200', '1'], ['210', '2']), name: 'Other', ...body }),
    ).rejects.toThrow(sentence);
  await refused({ parts: key(['200', '1'], ['200', '2']).parts }, 'stands in it twice');
  await refused({ parts: key(['200', '1'], ['210', '0']).parts }, 'above zero');
  await refused(
    { parts: [...key(['200', '1']).parts, { costCentreId: centre('200', 'MNT'), weight: '1' }] },
    'does not belong to this company',
  );
  await refused({ name: 'Rent' }, 'of this name already');
  await refused({}, 'does not allow this', 'Ines Okafor');
  await expect(world.rows(`update distribution_part set weight = -1`)).rejects.toThrow('distribution_part_weight');
  expect(await kept()).toEqual(before);
});
