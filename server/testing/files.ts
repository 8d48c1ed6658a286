import type { ImportListName, ImportRun } from '@ledgerline/contract';
import { newDimension, newDimensionValue } from '../dimensions/service.ts';
import { bringIn, takeFile } from '../imports/service.ts';
import { showRun } from '../imports/store.ts';
import type { World } from './world.ts';

/** Two dimensions with a value each, so that every list has all its columns. */
export async function withDimensions(world: World): Promise<void> {
  const kit = await world.as('Kit Arden');
  for (const name of ['Project', 'Fund']) await world.run(newDimension, kit, {}, { name, always: false, active: true });
  for (const field of ['dimension1', 'dimension2'])
    await world.run(newDimensionValue, kit, {}, { field, code: 'ROOF', name: 'Roof', active: true, validFrom: null, validTo: null });
}

/** Has an administrator give a file to a list; it is looked through. */
export async function take(world: World, list: ImportListName, content: string | Uint8Array, name = 'list.csv'): Promise<ImportRun> {
  const bytes = typeof content === 'string' ? new TextEncoder().encode(content) : content;
  const id = await takeFile(world.services, await world.as('Kit Arden'), list, { name, bytes });
  return showRun(world.database.db, world.master.company('MBG').id, id);
}

/** Brings its rows in, the good ones alone where `goodOnly`. */
export async function through(world: World, run: ImportRun, goodOnly = false): Promise<ImportRun> {
  await world.run(bringIn, await world.as('Kit Arden'), { id: run.id }, { goodOnly });
  await world.drain();
  return showRun(world.database.db, world.master.company('MBG').id, run.id);
}
