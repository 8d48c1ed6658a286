import { execFileSync, spawnSync } from 'node:child_process';
import { existsSync } from 'node:fs';
import { createServer } from 'node:net';

/** A reason to stop that people can act on; shown without a stack. */
export class Stop extends Error {}

export const isRoot = () => process.getuid?.() === 0;

/** Installs Debian packages; when we may not, says which command would. */
export function installPackages(names, what) {
  const command = `apt-get install -y ${names.join(' ')}`;
  if (!isRoot()) throw new Stop(`${what} is missing. Please run: sudo ${command}`);
  if (!existsSync('/usr/bin/apt-get'))
    throw new Stop(`${what} is missing and this machine has no apt-get. Please install ${names.join(' and ')}.`);
  console.log(`Installing ${what} (${names.join(', ')}) …`);
  const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' };
  const run = (args) => spawnSync('apt-get', args, { env, encoding: 'utf8' });
  let done = run(['install', '-y', '--no-install-recommends', ...names]);
  if (done.status !== 0) {
    run(['update']);
    done = run(['install', '-y', '--no-install-recommends', ...names]);
  }
  if (done.status !== 0)
    throw new Stop(`${what} could not be installed. Please run: ${command}\n${(done.stderr ?? '').split('\n').slice(-4).join('\n')}`);
}

/** User and group id of a system user, or null. */
export function userIds(name) {
  try {
    const id = (flag) => Number(execFileSync('id', [flag, name], { encoding: 'utf8', stdio: ['ignore', 'pipe', 'ignore'] }));
    return { uid: id('-u'), gid: id('-g') };
  } catch {
    return null;
  }
}

/** A port on loopback that nobody has now. */
export const freePort = () =>
  new Promise((done, fail) => {
    const probe = createServer();
    probe.once('error', fail);
    probe.listen(0, '127.0.0.1', () => {
      const { port } = probe.address();
      probe.close(() => done(port));
    });
  });
