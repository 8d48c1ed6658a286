import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { TestProject } from 'vitest/node';
// @ts-expect-error plain JavaScript
import { startDatabase } from '../../scripts/database.mjs';
import { connect, migrate } from '../db/client.ts';

declare module 'vitest' {
  export interface ProvidedContext {
    templateUrl: string;
  }
}

/** One throwaway cluster for all server tests, with one migrated database as their template. */
export default async function setup(project: TestProject): Promise<() => Promise<void>> {
  const folder = await mkdtemp(join(tmpdir(), 'ledgerline-test-'));
  const cluster = (await startDatabase(join(folder, 'db'), { name: 'template_ledgerline', quick: true })) as {
    url: string;
    home: string;
    stop(): Promise<void>;
  };
  const database = connect(cluster.url);
  await migrate(database);
  await database.close();
  project.provide('templateUrl', cluster.url);
  return async () => {
    await cluster.stop();
    await rm(folder, { recursive: true, force: true });
    if (!cluster.home.startsWith(folder)) await rm(cluster.home, { recursive: true, force: true });
  };
}
