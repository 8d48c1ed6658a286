import { readFileSync } from 'node:fs';
import { seeded } from '@ledgerline/documents/random';
import { makeApi } from './server/app.ts';
import { connect } from './server/db/client.ts';
import { doorOf } from './server/http/door.ts';
import { Live } from './server/live/live.ts';
import { questions } from './bench/scale/questions.ts';
const url = readFileSync('/tmp/scale.url', 'utf8');
const database = connect(url, { statementSeconds: 0, most: 1 });
const services = { database, live: new Live(), door: doorOf(), now: () => new Date(), reader: {}, opener: {}, queue: {} } as never;
const api = makeApi(services);
let log: [number, string][] = [];
const c = await database.pool.connect(); const proto = Object.getPrototypeOf(c); c.release();
const q0 = proto.query;
proto.query = function (...a: any[]) { const t = performance.now(); const r = q0.apply(this, a); if (r && r.then) return r.then((x: any) => { log.push([performance.now() - t, (a[0].text ?? a[0]).slice(0, 300)]); return x; }); return r; };
const s = await api.app.request('/api/session', { method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify({ email: 'halina@marrowby.example', password: 'glasshouse-demo' }) });
const cookie = s.headers.getSetCookie()[0]!.split(';')[0]!;
const json = async (p: string) => (await api.app.request('/api' + p, { headers: { cookie } })).json() as any;
const me = (await json('/session')).me; const company = '/companies/' + me.companies.find((x: any) => x.code === 'MBG').id;
const ids = async (p: string, of: string) => (await json(company + p))[of].map((r: any) => r.id);
const ground = { company, bills: await ids('/bills?limit=100', 'bills'), suppliers: await ids('/suppliers?limit=100', 'suppliers'), accounts: await ids('/accounts?limit=50', 'accounts'), largest: (await database.pool.query(`select s.id from supplier_bills b join supplier s on s.id=b.supplier_id join company c on c.id=s.company_id where c.code='MBG' order by bills desc limit 5`)).rows.map((r) => r.id) };
const only = process.argv[2];
for (const q of questions(ground)) {
  if (only && !q.name.includes(only)) continue;
  const r = seeded(3); const times: number[] = []; let worst: [number, string][] = []; let worstT = 0, worstP = '';
  for (let i = 0; i < 8; i++) { const p = q.path(r); log = []; const t = performance.now(); const a = await api.app.request('/api' + p, { headers: { cookie } }); await a.text(); const d = performance.now() - t; if (i > 0) { times.push(d); if (d > worstT) { worstT = d; worst = log; worstP = p; } } }
  times.sort((a, b) => a - b);
  console.log(q.name.padEnd(30), times[3]!.toFixed(0), 'max', worstT.toFixed(0), decodeURIComponent(worstP.split('?')[1] ?? '').slice(0, 80), '|', worst.length, 'q', worst.filter((w) => w[0] > 8).map((w) => `${w[0].toFixed(0)}ms ${only ? w[1] : w[1].slice(0, 60)}`).join(' || '));
}
process.exit(0);
