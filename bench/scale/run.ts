// npm run bench:scale [-- --bills 1000000 --folder DIR --pause 1000 --seconds 60 --json]: a company of a million bills, twenty people at once.
import { spawn, type ChildProcess } from 'node:child_process';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { parseArgs } from 'node:util';
// @ts-expect-error plain JavaScript
import { startDatabase } from '../../scripts/database.mjs';
import { seeded } from '@ledgerline/documents/random';
import { writeMaster } from '../../demo/load.ts';
import { demoPassword, people } from '../../demo/people.ts';
import { transaction } from '../../server/events/record.ts';
import { connect } from '../../server/db/client.ts';
import { prepareDatabase, roleOf } from '../../server/db/prepare.ts';
import { generate, isMade } from './generate.ts';
import { postingRatio } from './posting.ts';
import { questions, type Ground } from './questions.ts';

const { values } = parseArgs({
  options: {
    bills: { type: 'string', default: '1000000' },
    folder: { type: 'string', default: join(tmpdir(), 'ledgerline-scale') },
    sessions: { type: 'string', default: '20' },
    pause: { type: 'string', default: '1000' },
    seconds: { type: 'string', default: '60' },
    json: { type: 'boolean', default: false },
    posting: { type: 'string', default: '10000' },
  },
});
const say = (line: string) => (values.json ? console.error(line) : console.log(line));
const wish = { bills: Number(values.bills), suppliers: Math.max(50, Math.round(Number(values.bills) / 100)), linesEach: 5 };

interface Cluster {
  url: string;
  ownerUrl: string;
  stop(): Promise<void>;
}
const cluster = (await startDatabase(join(values.folder, 'database'))) as Cluster;
let server: ChildProcess | null = null;
try {
  await prepareDatabase(cluster.ownerUrl, roleOf(cluster.url));
  if (!(await isMade(cluster.ownerUrl, wish))) {
    const began = Date.now();
    const database = connect(cluster.ownerUrl, { statementSeconds: 0 });
    await transaction(database.db, async (tx) => void (await writeMaster(tx, new Date().toISOString().slice(0, 10))));
    await database.db.execute('update organisation set ready = true');
    await database.close();
    await generate(cluster.ownerUrl, wish, say);
    say(`made ${wish.bills} bills, ${wish.bills * wish.linesEach} lines in ${((Date.now() - began) / 60_000).toFixed(1)} min`);
  }
  const port = 4397;
  server = await serve(port);
  const base = `http://127.0.0.1:${port}/api`;
  const ground = await groundOf(base);
  const asked = questions(ground);
  // Once each, so that what is measured is not the first reading from the disk.
  for (const q of asked) await ask(base, ground.cookie, q.path(seeded(1)));
  const took = await measure(base, ground.cookie, asked);
  const p = (times: number[], share: number) =>
    [...times].sort((a, b) => a - b)[Math.min(times.length - 1, Math.floor(times.length * share))]!;
  const result: Record<string, number> = {};
  say(
    `\n${values.sessions} sessions, ${values.pause} ms between what each asks, ${values.seconds} s\n${'question'.padEnd(34)}   n   p50   p95   most (ms)`,
  );
  for (const [name, times] of [...took].sort()) {
    result[name] = Math.round(p(times, 0.95));
    say(
      `${name.padEnd(34)} ${String(times.length).padStart(3)} ${p(times, 0.5).toFixed(0).padStart(5)} ${p(times, 0.95).toFixed(0).padStart(5)} ${Math.max(
        ...times,
      )
        .toFixed(0)
        .padStart(6)}`,
    );
  }
  await ended(server);
  server = null;
  if (Number(values.posting) > 0) {
    const { ratio, posted, plain } = await postingRatio(cluster, Number(values.posting), say);
    say(
      `\nposting ${values.posting} bills of ${wish.linesEach} lines: ${posted.toFixed(1)} s; the same rows inserted plainly: ${plain.toFixed(1)} s; ratio ${ratio.toFixed(2)}`,
    );
    result['posting ratio'] = Number(ratio.toFixed(2));
  }
  if (values.json) console.log(JSON.stringify(result));
} finally {
  if (server) await ended(server);
  await cluster.stop();
}

function serve(port: number): Promise<ChildProcess> {
  const child = spawn(process.execPath, ['scripts/serve.mjs'], {
    env: { ...process.env, DATABASE_URL: cluster.url, DATABASE_OWNER_URL: '', PORT: String(port), SMTP_PORT: '' },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  return new Promise((ready, fail) => {
    child.stdout!.on('data', (d: Buffer) => {
      if (/serves at/.test(String(d))) ready(child);
    });
    child.once('exit', () => fail(new Error('The server did not start')));
  });
}

/** Ends the server, which lets go of its database. */
async function ended(child: ChildProcess): Promise<void> {
  const gone = new Promise((done) => child.once('exit', done));
  child.kill('SIGTERM');
  await gone;
}

async function ask(base: string, cookie: string, path: string): Promise<number> {
  const began = performance.now();
  const answer = await fetch(base + path, { headers: { cookie } });
  await answer.arrayBuffer();
  if (!answer.ok) throw new Error(`${answer.status} ${path}`);
  return performance.now() - began;
}

/** Somebody with every role in the largest company, and what there is to ask for. */
async function groundOf(base: string): Promise<Ground & { cookie: string }> {
  const halina = people.find((p) => p.name === 'Halina Voss')!;
  const signedIn = await fetch(`${base}/session`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ email: halina.email, password: demoPassword }),
  });
  const cookie = signedIn.headers.getSetCookie()[0]!.split(';')[0]!;
  const json = async (path: string) => (await fetch(base + path, { headers: { cookie } })).json() as Promise<never>;
  const session: { me: { companies: { id: string; code: string }[] } } = await json('/session');
  const company = `/companies/${session.me.companies.find((c) => c.code === 'MBG')!.id}`;
  const ids = async (path: string, of: string) => ((await json(company + path)) as Record<string, { id: string }[]>)[of]!.map((r) => r.id);
  return {
    cookie,
    company,
    bills: [...(await ids('/bills?limit=100', 'bills')), ...(await ids('/bills?limit=100&order=asc', 'bills'))],
    suppliers: await ids('/suppliers?limit=100', 'suppliers'),
    accounts: await ids('/accounts?limit=50', 'accounts'),
    largest: await largest(),
  };
}

/** The suppliers with the most bills: the worst case of an account. */
async function largest(): Promise<string[]> {
  const database = connect(cluster.ownerUrl);
  const { rows } = await database.pool.query(
    `select s.id from supplier_bills b join supplier s on s.id = b.supplier_id join company c on c.id = s.company_id where c.code = 'MBG' order by bills desc limit 5`,
  );
  await database.close();
  return rows.map((r) => r.id);
}

/** Sessions that each ask one thing after another, with a pause between, as people do. Times by question, in milliseconds. */
async function measure(base: string, cookie: string, asked: ReturnType<typeof questions>): Promise<Map<string, number[]>> {
  const took = new Map<string, number[]>();
  const until = Date.now() + Number(values.seconds) * 1000;
  await Promise.all(
    Array.from({ length: Number(values.sessions) }, async (_, session) => {
      const random = seeded(session + 7);
      await new Promise((done) => setTimeout(done, random.next() * Number(values.pause)));
      while (Date.now() < until) {
        const q = random.pick(asked);
        const time = await ask(base, cookie, q.path(random));
        took.set(q.name, [...(took.get(q.name) ?? []), time]);
        await new Promise((done) => setTimeout(done, Number(values.pause) * (0.5 + random.next())));
      }
    }),
  );
  return took;
}
