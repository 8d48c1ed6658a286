// npm run test:fuzz [-- --count 10000 --seed 1]: damaged PDFs, e-invoices, pictures, mails and zips through the real doors. Each must be kept as it came and
// answered for; nothing may die, hang or be lost.
import { createHash } from 'node:crypto';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { parseArgs } from 'node:util';
import nodemailer from 'nodemailer';
import MailComposer from 'nodemailer/lib/mail-composer/index.js';
import pg from 'pg';
import sharp from 'sharp';
import { companies } from '@ledgerline/documents/companies';
import { damaged } from '@ledgerline/documents/damage';
import { ciiOf, hybridOf, ublOf } from '@ledgerline/documents/einvoice';
import { zipOf } from '@ledgerline/documents/hostile';
import { makeInvoice } from '@ledgerline/documents/invoice';
import { makePdf } from '@ledgerline/documents/maker';
import { pictureOf } from '@ledgerline/documents/picture';
import { seeded } from '@ledgerline/documents/random';
import { suppliers } from '@ledgerline/documents/suppliers';
import { demoPassword, people } from '../demo/people.ts';
import { settled } from './judge.ts';
import { startMachines } from './machines.ts';

const { values } = parseArgs({ options: { count: { type: 'string', default: '10000' }, seed: { type: 'string', default: '1' } } });
const count = Number(values.count),
  seed = Number(values.seed),
  random = seeded(seed);
type Kind = 'pdf' | 'xml' | 'picture' | 'mail' | 'zip';
interface Whole {
  kind: Kind;
  name: string;
  bytes: Uint8Array;
}

/** Whole files of every kind, to be damaged. Pictures are small: what is tried is the door, not the recogniser. */
async function wholes(): Promise<Whole[]> {
  const all: Whole[] = [];
  const text = (s: string) => new TextEncoder().encode(s);
  const small = await sharp(await pictureOf([makeInvoice(suppliers[0]!, seeded(1), { number: 'FZ-1', issueDate: '2026-11-16' })]))
    .resize({ width: 300 })
    .toBuffer();
  for (let i = 0; i < 24; i++) {
    const invoice = makeInvoice(suppliers[i % suppliers.length]!, seeded(i), { number: `FZ-${i}`, issueDate: '2026-11-16' });
    const pdf = await makePdf(invoice);
    all.push({ kind: 'pdf', name: `${i}.pdf`, bytes: pdf }, { kind: 'pdf', name: `${i}h.pdf`, bytes: await hybridOf(invoice) });
    all.push({ kind: 'xml', name: `${i}.xml`, bytes: text(i % 2 ? ublOf(invoice) : ciiOf(invoice)) });
    const format = (['png', 'jpeg', 'tiff', 'webp'] as const)[i % 4]!;
    all.push({ kind: 'picture', name: `${i}.${format}`, bytes: new Uint8Array(await sharp(small).toFormat(format).toBuffer()) });
    const attachments = [{ filename: `${i}.pdf`, content: Buffer.from(pdf) }];
    all.push({
      kind: 'mail',
      name: `${i}.eml`,
      bytes: new Uint8Array(
        await new MailComposer({ from: 'a@b.example', to: 'x@y.example', subject: `Fuzz ${i}`, text: 'x', attachments }).compile().build(),
      ),
    });
    all.push({
      kind: 'zip',
      name: `${i}.zip`,
      bytes: zipOf([
        { name: 'in/a.pdf', bytes: pdf },
        { name: 'b.xml', bytes: text(ublOf(invoice)) },
      ]),
    });
  }
  return all;
}

const folder = await mkdtemp(join(tmpdir(), 'ledgerline-fuzz-'));
const machines = await startMachines(folder);
const sent = new Map<string, Kind>();
const slow: number[] = [];
let good = false;
try {
  const { base, smtpPort } = machines;
  const signedIn = await fetch(`${base}/api/session`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ email: people[0]!.email, password: demoPassword }),
  });
  const cookie = signedIn.headers.getSetCookie()[0]!.split(';')[0]!;
  const session = (await (await fetch(`${base}/api/session`, { headers: { cookie } })).json()) as {
    me: { companies: { id: string; code: string }[] };
  };
  const company = session.me.companies.find((c) => c.code === 'MBG')!.id,
    to = companies.find((c) => c.code === 'MBG')!.mailAddress;
  const all = await wholes(),
    began = Date.now(),
    refused: string[] = [];
  const transport = nodemailer.createTransport({
    host: '127.0.0.1',
    port: smtpPort,
    ignoreTLS: true,
    pool: true,
    maxConnections: 2,
    maxMessages: 1e6,
  });
  for (let at = 0; at < count;) {
    const form = new FormData();
    for (let i = 0; i < 25 && at < count; i++, at++) {
      const { kind, name, bytes } = random.pick(all),
        broken = damaged(bytes, seed * 1_000_003 + at);
      if (kind === 'mail') {
        await transport
          .sendMail({ envelope: { from: 'a@b.example', to }, raw: Buffer.from(broken) })
          .catch((error: Error) => refused.push(`mail ${at}: ${error.message}`));
        sent.set(createHash('sha256').update(broken).digest('hex'), kind);
      } else {
        sent.set(createHash('sha256').update(broken).digest('hex'), kind);
        form.append('file', new Blob([new Uint8Array(broken)]), name);
      }
    }
    const t = performance.now();
    const answer = await fetch(`${base}/api/companies/${company}/arrivals`, { method: 'POST', headers: { cookie }, body: form });
    slow.push(performance.now() - t);
    if (!answer.ok) refused.push(`upload before ${at}: ${answer.status} ${(await answer.text()).slice(0, 200)}`);
    if (at % 1000 < 25) console.log(`${at} sent in ${Math.round((Date.now() - began) / 1000)} s`);
  }
  transport.close();
  await settled(machines, 60);
  const client = new pg.Client({ connectionString: machines.database.ownerUrl });
  await client.connect();
  const rows = async (text: string) => (await client.query(text)).rows;
  const kept = new Set((await rows('select sha256 from file')).map((r) => r.sha256 as string));
  const mails = (await rows(`select count(*)::int as n from arrival where channel = 'email' and file_sha256 is not null`))[0].n as number;
  const lost = [...sent].filter(([address, kind]) => kind !== 'mail' && !kept.has(address)).map(([, kind]) => kind);
  const states = await rows(`select state, count(*)::int as n from document group by 1 order by 1`);
  const notes = await rows(
    `select left(note, 60) as note, count(*)::int as n from document where state = 'unreadable' group by 1 order by 2 desc limit 12`,
  );
  await client.end();
  const byKind = Object.fromEntries([...new Set(sent.values())].map((kind) => [kind, [...sent.values()].filter((k) => k === kind).length]));
  console.log(`${count} damaged files in ${Math.round((Date.now() - began) / 1000)} s: ${JSON.stringify(byKind)}`);
  console.log(`messages kept: ${mails}; documents: ${states.map((s) => `${s.n} ${s.state}`).join(', ')}`);
  console.log(notes.map((r) => `  ${String(r.n).padStart(5)}  ${r.note}`).join('\n'));
  console.log(
    `an upload of 25: ${Math.round(slow.sort((a, b) => a - b)[slow.length >> 1]!)} ms in the middle, ${Math.round(slow.at(-1)!)} ms at most`,
  );
  const starts = machines.starts();
  if (refused.length) console.log(`REFUSED:\n${refused.slice(0, 10).join('\n')}`);
  if (lost.length) console.log(`LOST: ${lost.length} ${lost.slice(0, 10).join(', ')}`);
  console.log(starts === 2 ? 'Server and worker went on all the time.' : `DIED: server and worker were started ${starts} times.`);
  const distinct = [...sent.values()].filter((kind) => kind === 'mail').length;
  if (mails !== distinct) console.log(`LOST: ${distinct - mails} messages`);
  good = refused.length === 0 && lost.length === 0 && mails === distinct && starts === 2;
} finally {
  await machines.end();
  await rm(folder, { recursive: true, force: true });
}
process.exitCode = good ? 0 : 1;
