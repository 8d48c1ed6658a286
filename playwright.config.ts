import { readdirSync } from 'node:fs';
import { defineConfig } from '@playwright/test';
import { partOf, portOf, parts } from './e2e/parts.ts';

// A journey in no part would never run.
const found = readdirSync(new URL('e2e', import.meta.url)).flatMap((f) => (f.endsWith('.spec.ts') ? [f.replace('.spec.ts', '')] : []));
if ([...found].sort().join() !== parts.flat().sort().join()) throw new Error('e2e/parts.ts does not have each journey once.');

const part = partOf(process.env['PART']);
export default defineConfig({
  testDir: 'e2e',
  ...(part === null ? {} : { testMatch: parts[part]!.map((name) => `${name}.spec.ts`) }),
  outputDir: `test-results/${part ?? 'all'}`,
  timeout: 90_000,
  expect: { timeout: 20_000 },
  workers: 1,
  reporter: 'line',
  globalSetup: './e2e/setup.ts',
  use: {
    baseURL: `http://127.0.0.1:${portOf('web')}`,
    viewport: { width: 1280, height: 800 },
    locale: 'en-GB',
    launchOptions: { executablePath: '/usr/bin/chromium', args: ['--no-sandbox'] },
  },
});
