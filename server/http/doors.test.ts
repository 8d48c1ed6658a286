import { request } from 'node:http';
import type { AddressInfo } from 'node:net';
import { serve } from '@hono/node-server';
import type { Server } from 'node:http';
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest';
import { makeApp } from '../app.ts';
import { mailOf, password } from '../testing/master.ts';
import { makeWorld, type World } from '../testing/world.ts';

/** What stands before every route, tried over a real connection. */
let world: World;
let server: Server;
let port = 0;
beforeAll(async () => {
  world = await makeWorld();
  const app = makeApp(world.services, '/nowhere');
  await new Promise<void>((done) => {
    server = serve({ fetch: app.fetch, port: 0, hostname: '127.0.0.1' }, () => done()) as Server;
  });
  port = (server.address() as AddressInfo).port;
});
afterAll(async () => {
  server.closeAllConnections();
  server.close();
  await world.close();
});

interface Heard {
  status: number;
  headers: Record<string, string | string[] | undefined>;
  text: string;
  sent: number;
}
/** A request as a program without manners makes it. `send` is called for ever more of the body until it gives none, or the answer is there. */
function raw(
  method: string,
  path: string,
  headers: Record<string, string> = {},
  send: () => Buffer | string | null = () => null,
): Promise<Heard> {
  return new Promise((done, fail) => {
    let sent = 0,
      answered = false;
    const asked = request({ host: '127.0.0.1', port, method, path, headers }, (answer) => {
      answered = true;
      let text = '';
      answer.on('data', (d: Buffer) => (text += String(d)));
      answer.on('end', () => {
        asked.destroy();
        done({ status: answer.statusCode!, headers: answer.headers, text, sent });
      });
    });
    asked.on('error', (error) => {
      if (!answered) fail(error);
    });
    const more = () => {
      while (!answered) {
        const part = send();
        if (part === null) return void asked.end();
        sent += part.length;
        if (!asked.write(part)) return void asked.once('drain', () => setImmediate(more));
      }
    };
    more();
  });
}
const json = { 'content-type': 'application/json' };
async function cookieOf(name: string): Promise<string> {
  let once = 0;
  const body = JSON.stringify({ email: mailOf(name), password });
  const { headers } = await raw('POST', '/api/session', json, () => (once++ ? null : body));
  return (headers['set-cookie'] as string[])[0]!.split(';')[0]!;
}

describe('the name under which it is asked', () => {
  it('is one of ours, or nothing is given', async () => {
    for (const host of ['evil.example', 'localhost.evil.example', '127.0.0.1.evil.example:4310', '0.0.0.0'])
      for (const path of ['/api/session', '/', '/assets/x.js']) {
        const { status, text } = await raw('GET', path, { host });
        expect([status, text], `${host} ${path}`).toEqual([421, expect.stringContaining('not known under this name')]);
      }
    for (const host of ['127.0.0.1:4310', 'localhost', 'localhost:99', '[::1]:4310'])
      expect((await raw('GET', '/api/session', { host })).status, host).toBe(200);
  });
});

describe('another site', () => {
  it('changes nothing, whatever it calls itself', async () => {
    for (const headers of [
      { origin: 'null' },
      { origin: 'https://evil.example' },
      { origin: 'nonsense' },
      { origin: `http://127.0.0.1:${port + 1}` },
      { 'sec-fetch-site': 'cross-site' },
      { 'sec-fetch-site': 'same-site' },
    ] as Record<string, string>[]) {
      const { status, text } = await raw('DELETE', '/api/session', headers);
      expect([status, text], JSON.stringify(headers)).toEqual([403, expect.stringContaining('another site')]);
    }
    expect((await raw('DELETE', '/api/session', { origin: `http://127.0.0.1:${port}` })).status).toBe(200);
  });
});

describe('every answer', () => {
  it('has the headers that keep it where it belongs', async () => {
    for (const path of ['/api/session', '/api/nowhere', '/', '/nowhere.js', '/api/openapi.json']) {
      const { headers } = await raw('GET', path);
      expect(headers, path).toMatchObject({ 'x-content-type-options': 'nosniff', 'referrer-policy': 'same-origin' });
      expect(headers['content-security-policy'], path).toContain("default-src 'self'");
      if (path.startsWith('/api')) expect(headers['cache-control'], path).toBe('no-store');
    }
  });
  it('to what is no path is in words', async () => {
    for (const path of ['/%E0%A4%A', '/%00', '/%', '/api/%E0%A4%A', '/api/companies/%E0%A4%A/bills', '/..%2f..%2fetc/passwd', '/api//'])
      for (const method of ['GET', 'POST', 'PUT', 'DELETE', 'OPTIONS', 'PATCH']) {
        const { status } = await raw(method, path);
        expect([401, 404], `${method} ${path} ${status}`).toContain(status);
      }
  });
});

describe('a body', () => {
  const chunk = Buffer.alloc(64 * 1024, '[');
  it('of a stranger is counted while it comes and left at 16 KB', async () => {
    const { status, sent } = await raw('POST', '/api/session', json, () => chunk);
    expect(status).toBe(413);
    expect(sent).toBeLessThan(8 * 1024 * 1024);
  });
  it('that says how large it is, is not waited for', async () => {
    const { status } = await raw('POST', '/api/session', { ...json, 'content-length': '150000000' }, () => chunk);
    expect(status).toBe(413);
  });
  it('of somebody signed in is left at 2 MB, and nobody else’s is taken at all', async () => {
    const company = world.master.company('MBG').id,
      path = `/api/companies/${company}/periods/year`;
    const { status } = await raw('POST', path, { ...json, cookie: await cookieOf('Halina Voss') }, () => chunk);
    expect(status).toBe(413);
    const stranger = await raw('POST', path, json, () => chunk);
    expect([stranger.status, stranger.sent < 8 * 1024 * 1024]).toEqual([401, true]);
  });
  it('of an upload is counted too, in parts without a length', async () => {
    const company = world.master.company('MBG').id;
    const part = Buffer.alloc(1024 * 1024, 'x');
    const { status, text, sent } = await raw(
      'POST',
      `/api/companies/${company}/arrivals`,
      { 'content-type': 'multipart/form-data; boundary=b', cookie: await cookieOf('Ines Okafor') },
      () => part,
    );
    expect([status, text]).toEqual([413, expect.stringContaining('more than 100 MB')]);
    expect(sent / part.length).toBeLessThan(130);
  });
  it('that is none is refused in words', async () => {
    for (const body of ['', '{', '\u0000', '"x"', '[[[[', Buffer.from([0xff, 0xfe, 0x00])]) {
      let once = 0;
      const { status } = await raw('POST', '/api/session', json, () => (once++ ? null : body));
      expect(status, String(body)).toBe(400);
    }
  });
});

describe('what is left', () => {
  it('becomes an id that the log has, and the log holds nothing of what was said', async () => {
    const log = vi.spyOn(console, 'error').mockImplementation(() => undefined);
    await world.rows('alter table period rename to period_gone');
    try {
      const { status, text } = await raw('GET', `/api/companies/${world.master.company('MBG').id}/periods`, {
        cookie: await cookieOf('Halina Voss'),
      });
      const id = /: ([0-9a-f]{8})\./.exec(JSON.parse(text).title)?.[1];
      expect([status, Boolean(id)]).toEqual([500, true]);
      const lines = log.mock.calls.map((c) => String(c[0]));
      expect(lines.filter((l) => l.includes(id!))).toHaveLength(1);
      expect(lines.join()).toContain('42P01');
      expect(lines.join()).not.toContain(world.master.company('MBG').id);
      expect(lines.join()).not.toMatch(/select/i);
    } finally {
      await world.rows('alter table period_gone rename to period');
      log.mockRestore();
    }
  });
});
