import { createHash } from 'node:crypto';
import { mkdir, rename, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { setTimeout as wait } from 'node:timers/promises';
import MailComposer from 'nodemailer/lib/mail-composer/index.js';
import nodemailer from 'nodemailer';
import { companies } from '@ledgerline/documents/companies';
import { makeInvoice, type Invoice } from '@ledgerline/documents/invoice';
import { makePdf } from '@ledgerline/documents/maker';
import { pictureOf } from '@ledgerline/documents/picture';
import { seeded } from '@ledgerline/documents/random';
import { suppliers } from '@ledgerline/documents/suppliers';
import { demoPassword, people } from '../demo/people.ts';
import type { Machines } from './machines.ts';

/** What was handed in at the doors, to be found again: the bytes by their address, and the invoices by their numbers. */
export interface HandedIn {
  originals: Map<string, string>;
  invoices: string[];
  /** What each posting request was answered, as often as it was. */
  postings: Map<string, Set<string>>;
  done: Record<string, number>;
}
const addressOf = (bytes: Uint8Array): string => createHash('sha256').update(bytes).digest('hex');

/** The people and devices of a working day, each doing one thing over and over; what fails is done again until it is answered for. */
export function actors({ base, smtpPort, scanFolder }: Machines, seed: number) {
  const random = seeded(seed),
    handed: HandedIn = { originals: new Map(), invoices: [], postings: new Map(), done: {} };
  let over = false,
    made = 0;
  const count = (what: string) => void (handed.done[what] = (handed.done[what] ?? 0) + 1);
  const fresh = (): Invoice => {
    const supplier = random.pick(suppliers.filter((s) => s.company === 'MBG'));
    const invoice = makeInvoice(supplier, random, {
      number: `KT${seed}-${String(++made).padStart(5, '0')}`,
      issueDate: new Date().toISOString().slice(0, 10),
      lines: random.int(1, 4),
    });
    handed.invoices.push(invoice.number);
    return invoice;
  };
  /** Does something until it is answered for; whatever is down comes back. */
  async function surely<T>(work: () => Promise<T>): Promise<T> {
    for (;;) {
      try {
        return await work();
      } catch {
        await wait(150 + random.int(0, 200));
      }
    }
  }
  const timed = () => AbortSignal.timeout(20_000);

  async function mail(): Promise<void> {
    const invoice = fresh();
    const to = companies.find((c) => c.code === 'MBG')!.mailAddress;
    const attachments = [{ filename: `${invoice.number}.pdf`, content: Buffer.from(await makePdf(invoice)) }];
    const raw = await new MailComposer({
      from: 'accounts@quillhavengl.example',
      to,
      subject: invoice.number,
      text: 'Please pay.',
      attachments,
    })
      .compile()
      .build();
    handed.originals.set(addressOf(attachments[0]!.content), `mail ${invoice.number}`);
    await surely(async () => {
      const transport = nodemailer.createTransport({
        host: '127.0.0.1',
        port: smtpPort,
        ignoreTLS: true,
        connectionTimeout: 3000,
        socketTimeout: 15_000,
      });
      try {
        await transport.sendMail({ envelope: { from: 'accounts@quillhavengl.example', to }, raw });
      } finally {
        transport.close();
      }
    });
    count('mails');
  }
  async function scan(): Promise<void> {
    const invoice = fresh();
    const picture = random.next() < 0.05;
    const bytes = picture ? await pictureOf([invoice]) : await makePdf(invoice);
    handed.originals.set(addressOf(bytes), `scan ${invoice.number}`);
    const folder = join(scanFolder, 'mbg'),
      name = `${invoice.number}.${picture ? 'png' : 'pdf'}`;
    await mkdir(folder, { recursive: true });
    await writeFile(join(folder, `${name}.part`), bytes);
    await rename(join(folder, `${name}.part`), join(folder, name));
    count('scans');
  }

  const cookies = new Map<string, string>();
  let company = '';
  async function cookieOf(name: string): Promise<string> {
    const there = cookies.get(name);
    if (there) return there;
    const answer = await fetch(`${base}/api/session`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ email: people.find((p) => p.name === name)!.email, password: demoPassword }),
      signal: timed(),
    });
    const cookie = answer.headers.getSetCookie()[0]?.split(';')[0];
    if (!cookie) throw new Error('not signed in');
    const session = (await (await fetch(`${base}/api/session`, { headers: { cookie }, signal: timed() })).json()) as {
      me: { companies: { id: string; code: string }[] };
    };
    company = session.me.companies.find((c) => c.code === 'MBG')!.id;
    cookies.set(name, cookie);
    return cookie;
  }
  /** Asks as somebody; anything but an answer in words (a server that is away, a database that is) is to be tried again. */
  async function ask(as: string, method: string, path: string, body?: unknown): Promise<{ status: number; data: never }> {
    const cookie = await cookieOf(as);
    const answer = await fetch(`${base}/api/companies/${company}${path}`, {
      method,
      headers: { cookie, ...(body instanceof FormData ? {} : { 'content-type': 'application/json' }) },
      ...(body === undefined ? {} : { body: body instanceof FormData ? body : JSON.stringify(body) }),
      signal: timed(),
    });
    const data = (await answer.json()) as never;
    if (answer.status >= 500 || answer.status === 401) throw new Error(String(answer.status));
    return { status: answer.status, data };
  }
  const listed = async (as: string, q: string) =>
    surely(
      async () =>
        (
          (await ask(as, 'GET', `/bills?limit=50&q=${encodeURIComponent(q)}`)).data as {
            bills: { id: string; rowVersion: number; invoiceNumber: string }[];
          }
        ).bills,
    );

  async function upload(): Promise<void> {
    const invoice = fresh(),
      bytes = await makePdf(invoice);
    handed.originals.set(addressOf(bytes), `upload ${invoice.number}`);
    await surely(async () => {
      const form = new FormData();
      form.append('file', new Blob([new Uint8Array(bytes)], { type: 'application/pdf' }), `${invoice.number}.pdf`);
      await ask('Ines Okafor', 'POST', '/arrivals', form);
    });
    count('uploads');
  }
  async function edit(): Promise<void> {
    const bills = await listed('Ines Okafor', 'stage:read,returned');
    if (bills.length === 0) return void (await wait(200));
    const bill = random.pick(bills);
    const changed = await surely(() =>
      ask('Ines Okafor', 'PATCH', `/bills/${bill.id}`, {
        rowVersion: bill.rowVersion,
        operations: [{ do: 'set', field: 'terms', value: `net ${random.int(7, 60)}` }],
      }),
    );
    if (changed.status === 200) count('edits');
    const now = await surely(() => ask('Ines Okafor', 'GET', `/bills/${bill.id}`));
    const { rowVersion, exceptions } = now.data as { rowVersion: number; exceptions: { severity: string }[] };
    if (now.status !== 200 || exceptions.some((e) => e.severity === 'stops')) return;
    if ((await surely(() => ask('Ines Okafor', 'POST', `/bills/${bill.id}/send`, { rowVersion }))).status === 200) count('sent on');
  }
  async function approve(): Promise<void> {
    const bills = await listed('Marguerite Sable', 'stage:coded');
    if (bills.length === 0) return void (await wait(200));
    const bill = random.pick(bills);
    if ((await surely(() => ask('Marguerite Sable', 'POST', `/bills/${bill.id}/approve`, { rowVersion: bill.rowVersion }))).status === 200)
      count('approvals');
  }
  async function post(): Promise<void> {
    const bills = await listed('Halina Voss', 'stage:approved');
    if (bills.length === 0) return void (await wait(300));
    const key = `trial-${seed}-${++made}`,
      billIds = bills.slice(0, random.int(1, 8)).map((b) => b.id);
    const answers = handed.postings.get(key) ?? new Set<string>();
    handed.postings.set(key, answers);
    // The same request again, whatever became of the first: it posts once.
    const { status, data } = await surely(() => ask('Halina Voss', 'POST', '/postings', { key, billIds }));
    if (status === 200) {
      // What is posted and under which number, in whatever order its parts are told.
      const told = (of: unknown) =>
        JSON.stringify((of as { posted: { billId: string; number: number }[] }).posted.map((p) => [p.billId, p.number]));
      answers.add(told(data));
      const again = await surely(() => ask('Halina Voss', 'POST', '/postings', { key, billIds }));
      answers.add(told(again.data));
      count('postings');
    }
  }

  const loop = async (work: () => Promise<void>, pause: number): Promise<void> => {
    while (!over) {
      await work();
      await wait(random.int(0, pause));
    }
  };
  const lives = [
    loop(mail, 4000),
    loop(scan, 4000),
    loop(upload, 5000),
    loop(edit, 600),
    loop(edit, 600),
    loop(approve, 600),
    loop(post, 1200),
  ];
  return {
    handed,
    signedIn: async (as = 'Ines Okafor') => ({ cookie: await surely(() => cookieOf(as)), company }),
    /** Nothing new is begun; what was begun is brought to its end. */
    async end(): Promise<void> {
      over = true;
      await Promise.all(lives);
    },
  };
}
