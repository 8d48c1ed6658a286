// npm test: installs what is missing, then types, lint, unit, server and browser tests. Ends with one line of counts.
import { spawnSync } from 'node:child_process';
import { prepareBrowser, preparePackages, prepareWeb, root } from './prepare.mjs';
import { Stop } from './system.mjs';

let passed = 0,
  failed = 0;

function step(name, args) {
  console.log(`\n— ${name}`);
  const started = Date.now();
  const {
    status,
    stdout = '',
    stderr = '',
  } = spawnSync('npx', ['--no-install', ...args], {
    cwd: root,
    encoding: 'utf8',
    maxBuffer: 1 << 28,
    env: { ...process.env, FORCE_COLOR: '0', npm_config_loglevel: 'error' },
  });
  const out = stdout + stderr;
  const tests = [...out.matchAll(/(?:Tests\s.*?)?(\d+) passed/g)].at(-1);
  if (tests) passed += Number(tests[1]);
  if (status !== 0) {
    failed += 1;
    console.log(out.split('\n').slice(-120).join('\n'));
  }
  console.log(
    `${status === 0 ? 'passed' : 'FAILED'} in ${Math.round((Date.now() - started) / 1000)} s${tests ? `, ${tests[1]} tests` : ''}`,
  );
}

try {
  preparePackages();
  prepareBrowser();
  prepareWeb();
  step('types', ['tsc', '--noEmit']);
  step('types of the web application', ['tsc', '--noEmit', '-p', 'web']);
  step('lint', ['eslint', '.', '--max-warnings', '0']);
  step('format', ['prettier', '--check', '.']);
  step('unit and server tests', ['vitest', 'run']);
  step('browser tests', ['playwright', 'test']);
} catch (error) {
  failed += 1;
  console.error(error instanceof Stop ? error.message : error);
}
console.log(`\n${passed} passed, ${failed} failed`);
process.exitCode = failed ? 1 : 0;
