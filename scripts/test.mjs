// npm test: installs what is missing, then types, lint, unit, server and browser tests. Ends with one line of counts.
import { spawn } from 'node:child_process';
import { prepareBrowser, preparePackages, prepareWeb, root } from './prepare.mjs';
import { Stop } from './system.mjs';

let passed = 0,
  failed = 0;

/** What a command said, without the lines that only tell how far it is: else they push what failed out of a short log. */
const said = (out) => out.split('\n').filter((line) => !/^\[\d+\/\d+\] /.test(line));
/** One command of ours; what it says is shown where it fails. */
async function step(name, args, env = {}) {
  const started = Date.now();
  const child = spawn('npx', ['--no-install', ...args], {
    cwd: root,
    stdio: ['ignore', 'pipe', 'pipe'],
    env: { ...process.env, FORCE_COLOR: '0', npm_config_loglevel: 'error', ...env },
  });
  let out = '';
  for (const stream of [child.stdout, child.stderr]) stream.on('data', (d) => (out += String(d)));
  const status = await new Promise((done) => child.once('close', done));
  const tests = [...out.matchAll(/(?:Tests\s.*?)?(\d+) passed/g)].at(-1);
  if (tests) passed += Number(tests[1]);
  console.log(`\n— ${name}`);
  if (status !== 0) {
    failed += 1;
    console.log(said(out).slice(-120).join('\n'));
  }
  console.log(
    `${status === 0 ? 'passed' : 'FAILED'} in ${Math.round((Date.now() - started) / 1000)} s${tests ? `, ${tests[1]} tests` : ''}`,
  );
}
/** Several, one after another. */
async function steps(...all) {
  for (const [name, args] of all) await step(name, args);
}

try {
  preparePackages();
  prepareBrowser();
  prepareWeb();
  // What is only looked at goes on two cores at once; what is run has the machine to itself.
  await Promise.all([
    steps(['types', ['tsc', '--noEmit']], ['types of the web application', ['tsc', '--noEmit', '-p', 'web']]),
    steps(['lint', ['eslint', '.', '--max-warnings', '0']], ['format', ['prettier', '--check', '.']]),
  ]);
  await step('unit and server tests', ['vitest', 'run']);
  // They wait more than they work: each part has a Ledgerline of its own.
  await Promise.all(['0', '1'].map((PART) => step(`browser tests, part ${Number(PART) + 1}`, ['playwright', 'test'], { PART })));
} catch (error) {
  failed += 1;
  console.error(error instanceof Stop ? error.message : error);
}
console.log(`\n${passed} passed, ${failed} failed`);
process.exitCode = failed ? 1 : 0;
