import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { installPackages, Stop } from './system.mjs';

export const root = dirname(dirname(fileURLToPath(import.meta.url)));

function run(command, args, failure, env = {}) {
  const done = spawnSync(command, args, { cwd: root, encoding: 'utf8', env: { ...process.env, ...env } });
  if (done.status !== 0) throw new Stop(`${failure}\n${((done.stdout ?? '') + (done.stderr ?? '')).split('\n').slice(-15).join('\n')}`);
}

/** Installs npm packages when they are missing or the lock file changed since. */
export function preparePackages() {
  const [major, minor] = process.versions.node.split('.').map(Number);
  if (major < 20 || (major === 20 && minor < 19)) throw new Stop(`Ledgerline needs Node 20.19 or newer; this is ${process.versions.node}.`);
  const lock = createHash('sha256')
    .update(readFileSync(join(root, 'package-lock.json')))
    .digest('hex');
  const stamp = join(root, 'node_modules/.ledgerline-lock');
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === lock) return;
  console.log('Installing npm packages …');
  run('npm', ['install', '--no-save', '--no-audit', '--no-fund'], 'The npm packages could not be installed.');
  writeFileSync(stamp, lock);
}

function newest(folder) {
  let latest = 0;
  for (const entry of readdirSync(folder, { withFileTypes: true })) {
    if (entry.name === 'node_modules' || entry.name === 'dist' || entry.name.endsWith('.test.ts')) continue;
    const path = join(folder, entry.name);
    latest = Math.max(latest, entry.isDirectory() ? newest(path) : statSync(path).mtimeMs);
  }
  return latest;
}

/** Builds the web application when a source is newer than the last build. */
export function prepareWeb() {
  const stamp = join(root, 'web/dist/.built');
  const sources = Math.max(
    ...['web', 'core', 'contract'].map((f) => newest(join(root, f))),
    statSync(join(root, 'package-lock.json')).mtimeMs,
  );
  if (existsSync(stamp) && Number(readFileSync(stamp, 'utf8')) >= sources) return;
  console.log('Building the web application …');
  run(
    process.execPath,
    [join(root, 'node_modules/vite/bin/vite.js'), 'build', 'web', '--config', 'web/vite.config.ts', '--logLevel', 'error'],
    'The web application could not be built.',
    { NODE_ENV: 'production' },
  );
  mkdirSync(dirname(stamp), { recursive: true });
  writeFileSync(stamp, String(sources));
}

export const chromium = '/usr/bin/chromium';

/** The browser for tests. */
export function prepareBrowser() {
  if (!existsSync(chromium)) installPackages(['chromium'], 'Chromium');
}
