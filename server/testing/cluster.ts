import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { TestProject } from 'vitest/node';
// @ts-expect-error plain JavaScript
import { startDatabase } from '../../scripts/database.mjs';
import { prepareDatabase, roleOf } from '../db/prepare.ts';

declare module 'vitest' {
  export interface ProvidedContext {
    /** The template database's addresses: as its owner, and as the application's role. */
    templateUrl: string;
    applicationUrl: string;
  }
}

/** One throwaway cluster for all server tests, with one migrated database as their template. */
export default async function setup(project: TestProject): Promise<() => Promise<void>> {
  const folder = await mkdtemp(join(tmpdir(), 'ledgerline-test-'));
  const cluster = (await startDatabase(join(folder, 'db'), { name: 'template_ledgerline', quick: true })) as {
    url: string;
    ownerUrl: string;
    home: string;
    stop(): Promise<void>;
  };
  await prepareDatabase(cluster.ownerUrl, roleOf(cluster.url));
  project.provide('templateUrl', cluster.ownerUrl);
  project.provide('applicationUrl', cluster.url);
  return async () => {
    await cluster.stop();
    await rm(folder, { recursive: true, force: true });
    if (!cluster.home.startsWith(folder)) await rm(cluster.home, { recursive: true, force: true });
  };
}
