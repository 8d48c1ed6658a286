import { serve } from '../../e2e/server.ts';
import { demoPassword, people } from '../../demo/people.ts';

/**
 * npm run bench:import: 50,000 accounts from a CSV file through the API of a running server on the demo: looked through, brought in,
 * brought in again with every name changed. Beside it what the same bytes cost to send and to take apart alone: a file of heads that no
 * list knows, so that nothing is looked up or written.
 */
const port = 4396,
  rows = 50_000;
const end = await serve({ port, smtpPort: port + 1 });
const root = `http://127.0.0.1:${port}/api`;

async function signedIn(): Promise<{ cookie: string; company: string }> {
  const { email } = people.find((p) => p.name === 'Kit Arden')!;
  const answer = await fetch(`${root}/session`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ email, password: demoPassword }),
  });
  const cookie = answer.headers.getSetCookie()[0]!.split(';')[0]!;
  const { me } = (await (await fetch(`${root}/session`, { headers: { cookie } })).json()) as { me: { companies: { id: string }[] } };
  return { cookie, company: me.companies[0]!.id };
}

const chart = (heads: string, name: string): string =>
  [
    heads,
    ...Array.from({ length: rows }, (_, i) => {
      const code = (n: number) => `B${String(n).padStart(6, '0')}`;
      return `${code(i)},${name} ${i},expense,${i % 100 ? code(i - (i % 100)) : ''},S20,Plots,yes,2026-01-01`;
    }),
  ].join('\n');
const heads = 'Code,Name,Kind,Under,Usual tax code,Group,Needs a cost centre,From';

try {
  const { cookie, company } = await signedIn();
  const at = `${root}/companies/${company}`;
  const seconds = (from: number) => (performance.now() - from) / 1000;
  const send = async (text: string): Promise<string> => {
    const form = new FormData();
    form.append('file', new File([text], 'chart.csv', { type: 'text/csv' }));
    const answer = await fetch(`${at}/imports/accounts`, { method: 'POST', headers: { cookie }, body: form });
    if (!answer.ok) throw new Error(await answer.text());
    return ((await answer.json()) as { id: string }).id;
  };
  const bringIn = async (id: string): Promise<Record<string, number>> => {
    await fetch(`${at}/imports/${id}/run`, {
      method: 'POST',
      headers: { cookie, 'content-type': 'application/json' },
      body: JSON.stringify({ goodOnly: false }),
    });
    for (;;) {
      const run = (await (await fetch(`${at}/imports/${id}`, { headers: { cookie } })).json()) as { state: string; note: string | null; counts: Record<string, number> }; // prettier-ignore
      if (run.state === 'done') return run.counts;
      if (run.state === 'failed') throw new Error(run.note ?? 'failed');
      await new Promise((soon) => setTimeout(soon, 200));
    }
  };
  await send(chart('A,B,C,D,E,F,G,H', 'Warm'));
  let from = performance.now();
  await send(chart('A,B,C,D,E,F,G,H', 'Plot'));
  const alone = seconds(from);
  console.log(`${rows.toLocaleString('en-GB')} rows sent and taken apart alone: ${alone.toFixed(1)} s`);
  for (const [what, name] of [
    ['new', 'Plot'],
    ['all changed', 'Bed'],
  ] as const) {
    // prettier-ignore
    from = performance.now();
    const id = await send(chart(heads, name));
    const looked = seconds(from);
    const counts = await bringIn(id);
    const all = seconds(from);
    console.log(
      `${what}: looked through in ${looked.toFixed(1)} s, in after ${all.toFixed(1)} s (${(all / alone).toFixed(1)} times): ${counts['made']} made, ${counts['changed']} changed`,
    );
  }
} finally {
  await end();
}
