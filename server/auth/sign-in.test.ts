import { Secret, TOTP } from 'otpauth';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { makeApi } from '../app.ts';
import { doorOf } from '../http/door.ts';
import { mailOf, password } from '../testing/master.ts';
import { makeWorld, type World } from '../testing/world.ts';
import { browser } from '../testing/browser.ts';
import { readmit } from './readmit.ts';

/** One attacker at the sign-in, and the people who have to get in meanwhile. */
let world: World;
let clock = new Date('2026-11-23T10:00:00Z');
const later = (minutes: number) => void (clock = new Date(clock.getTime() + minutes * 60_000));
beforeAll(async () => {
  world = await makeWorld();
  world.services.now = () => clock;
});
beforeEach(() => later(60));
afterAll(() => world.close());

const ines = mailOf('Ines Okafor'),
  kit = mailOf('Kit Arden');
const from = (address: string) => {
  const api = makeApi({ ...world.services, door: { ...doorOf(), proxies: 1 } }, true);
  return browser(api.app, { 'x-forwarded-for': address });
};
const wrong = (email: string) => ({ email, password: 'not the right one' });
const right = (email: string, code?: string) => ({ email, password, ...(code ? { code } : {}) });

describe('guessing', () => {
  it('120 wrong passwords at once: ten are looked at, for one person from one address', async () => {
    const stranger = from('203.0.113.1');
    const answers = await Promise.all(Array.from({ length: 120 }, () => stranger('POST', '/session', wrong(ines))));
    expect(answers.filter((a) => a.status === 401)).toHaveLength(10);
    expect(answers.filter((a) => a.status === 429)).toHaveLength(110);
    expect((await stranger('POST', '/session', right(ines))).status).toBe(429);
  });
  it('is told the same about somebody who is there and somebody who is not', async () => {
    const stranger = from('203.0.113.2');
    const told = async (email: string) => {
      const said: unknown[] = [];
      for (let i = 0; i < 12; i++) {
        const { status, data } = await stranger('POST', '/session', wrong(email));
        said.push([status, data]);
      }
      return said;
    };
    expect(await told('nobody@marrowby.example')).toEqual(await told(ines));
  });
  it('from many addresses is held at forty for a person, and locks out nobody who has signed in here before', async () => {
    const own = from('192.0.2.10');
    expect((await own('POST', '/session', right(ines))).status).toBe(200);
    await own('DELETE', '/session', {});
    let looked = 0;
    for (let i = 0; i < 60; i++) looked += (await from(`203.0.113.${100 + i}`)('POST', '/session', wrong(ines))).status === 401 ? 1 : 0;
    expect(looked).toBe(40);
    expect((await from('203.0.113.99')('POST', '/session', right(ines))).status, 'a new browser waits').toBe(429);
    expect((await own('POST', '/session', right(ines))).status, 'the own one does not').toBe(200);
    later(11);
    expect((await from('203.0.113.99')('POST', '/session', right(ines))).status).toBe(200);
  });
  it('of many people from one address is held too', async () => {
    const stranger = from('203.0.113.3');
    const answers = [];
    for (let i = 0; i < 45; i++) answers.push((await stranger('POST', '/session', wrong(`p${i}@marrowby.example`))).status);
    expect(answers.filter((s) => s === 401)).toHaveLength(40);
  });
  it('stands in the event log: who, from where, and that it was held, once', async () => {
    const stranger = from('203.0.113.4');
    for (let i = 0; i < 13; i++) await stranger('POST', '/session', wrong(kit));
    const rows = await world.rows(
      `select e.verb, count(*)::int as n from event e where company_id is null and note like '%203.0.113.4' group by 1 order by 1`,
    );
    expect(rows).toEqual([
      { verb: 'sign-in held', n: 1 },
      { verb: 'sign-in refused', n: 10 },
    ]);
  });
});

describe('a session', () => {
  it('ends when it was idle, and lives on while it is used; what a screen fetches by itself is no use', async () => {
    const own = from('192.0.2.20');
    await own('POST', '/session', right(ines));
    for (let i = 0; i < 3; i++) {
      later(100);
      expect((await own('GET', '/sessions')).status).toBe(200);
    }
    later(100);
    expect((await own('GET', '/sessions', undefined, { 'ledgerline-idle': '1' })).status).toBe(200);
    later(30);
    expect((await own('GET', '/sessions')).status).toBe(401);
  });
  it('ends after fourteen hours, and its row goes', async () => {
    const own = from('192.0.2.21');
    await own('POST', '/session', right(ines));
    for (let i = 0; i < 9; i++) {
      later(100);
      await own('GET', '/sessions');
    }
    expect((await own('GET', '/sessions')).status).toBe(401);
    await from('192.0.2.22')('POST', '/session', right(ines));
    expect((await world.rows('select count(*)::int as n from session where expires_at < $1', clock))[0].n).toBe(0);
  });
  it('of a new sign-in ends the token that the browser had', async () => {
    const own = from('192.0.2.23');
    await own('POST', '/session', right(ines));
    const before = own.cookies.get('ledgerline')!;
    await own('POST', '/session', right(ines));
    own.cookies.set('ledgerline', before);
    expect((await own('GET', '/sessions')).status).toBe(401);
  });
  it('is listed, and ended from elsewhere, one or all', async () => {
    const [desk, phone, home] = [from('192.0.2.24'), from('192.0.2.25'), from('192.0.2.26')];
    for (const one of [desk, phone, home]) await one('POST', '/session', right(kit));
    const { data } = await desk('GET', '/sessions');
    expect(data.sessions.map((s: { address: string; here: boolean }) => [s.address, s.here]).sort()).toEqual([
      ['192.0.2.24', true],
      ['192.0.2.25', false],
      ['192.0.2.26', false],
    ]);
    const other = data.sessions.find((s: { address: string }) => s.address === '192.0.2.25').id;
    const stranger = from('192.0.2.27');
    await stranger('POST', '/session', right(ines));
    expect((await stranger('DELETE', `/sessions/${other}`, {})).status, 'not another person’s').toBe(404);
    expect((await desk('DELETE', `/sessions/${other}`, {})).status).toBe(200);
    expect((await phone('GET', '/sessions')).status).toBe(401);
    expect((await desk('DELETE', '/sessions', {})).status).toBe(200);
    expect((await home('GET', '/sessions')).status).toBe(401);
    expect((await desk('GET', '/sessions')).status).toBe(200);
  });
  it('has a cookie that TLS holds to this host, path and connection', async () => {
    const api = makeApi({ ...world.services, door: doorOf('https://bills.marrowby.example') });
    const answer = await api.app.request('https://bills.marrowby.example/api/session', {
      method: 'POST',
      headers: { 'content-type': 'application/json', host: 'bills.marrowby.example' },
      body: JSON.stringify(right(ines)),
    });
    for (const cookie of answer.headers.getSetCookie()) expect(cookie).toMatch(/^__Host-.*; Path=\/; HttpOnly; Secure; SameSite=Strict$/);
    expect(answer.headers.get('strict-transport-security')).toBeTruthy();
  });
});

describe('a password', () => {
  it('is changed with the one there was, and everywhere else the person is signed out', async () => {
    const [here, there] = [from('192.0.2.30'), from('192.0.2.31')],
      rufus = mailOf('Rufus Pell');
    for (const one of [here, there]) await one('POST', '/session', right(rufus));
    const next = 'forty tall sunflowers';
    expect((await here('PUT', '/session/password', { password: 'guessed', next })).status).toBe(422);
    expect((await here('PUT', '/session/password', { password, next: 'short' })).status).toBe(400);
    expect((await here('PUT', '/session/password', { password, next: password })).status).toBe(422);
    expect((await here('PUT', '/session/password', { password, next })).status).toBe(200);
    expect((await there('GET', '/sessions')).status).toBe(401);
    expect((await here('GET', '/sessions')).status).toBe(200);
    expect((await there('POST', '/session', right(rufus))).status).toBe(401);
    expect((await there('POST', '/session', { email: rufus, password: next })).status).toBe(200);
  });
});

describe('the second factor', () => {
  it('is set up with a code, asked for after the password, and takes each code once', async () => {
    const own = from('192.0.2.40'),
      halina = mailOf('Halina Voss');
    await own('POST', '/session', right(halina));
    expect((await own('POST', '/session/factor', { password: 'no' })).status).toBe(422);
    const { data } = await own('POST', '/session/factor', { password });
    expect(data.uri).toContain(`otpauth://totp/Ledgerline:${encodeURIComponent(halina)}`);
    const digits = () => new TOTP({ secret: Secret.fromBase32(data.secret) }).generate({ timestamp: clock.getTime() });
    const set = { password, secret: data.secret, code: '000000' };
    expect((await own('PUT', '/session/factor', { ...set, code: digits() === '000000' ? '111111' : '000000' })).status).toBe(422);
    expect((await own('PUT', '/session/factor', { ...set, code: digits() })).status).toBe(200);
    expect((await own('GET', '/sessions')).data.secondFactor).toBe(true);
    later(5);
    const fresh = from('192.0.2.41');
    const first = await fresh('POST', '/session', right(halina));
    expect([first.status, first.data.kind]).toEqual([401, 'code']);
    expect((await fresh('POST', '/session', { ...wrong(halina), code: digits() })).data.kind, 'not before the password').toBeUndefined();
    const code = digits();
    expect((await fresh('POST', '/session', right(halina, code))).status).toBe(200);
    expect((await fresh('POST', '/session', right(halina, code))).status, 'not twice').toBe(401);
    later(1);
    const both = await Promise.all([digits(), digits()].map((c) => fresh('POST', '/session', right(halina, c))));
    expect(both.map((a) => a.status).sort()).toEqual([200, 401]);
    expect((await own('DELETE', '/session/factor', { password })).status).toBe(200);
    expect((await fresh('POST', '/session', right(halina))).status).toBe(200);
  });
});

describe('rights', () => {
  it('that were refused stand in the log, so often and no more', async () => {
    const own = from('192.0.2.50');
    await own('POST', '/session', right(ines));
    const company = world.master.company('MBG').id;
    for (let i = 0; i < 40; i++) expect((await own('POST', `/companies/${company}/periods/year`, { year: 2031 })).status).toBe(403);
    const rows = await world.rows(`select note from event where verb = 'refused' and company_id = $1`, company);
    expect(rows).toHaveLength(30);
    expect(rows[0].note).toBe('POST /periods/year');
  });
  it('to see sign-ins are an administrator’s', async () => {
    const company = world.master.company('MBG').id;
    const [admin, controller] = [from('192.0.2.51'), from('192.0.2.52')];
    await admin('POST', '/session', right(kit));
    await controller('POST', '/session', right(mailOf('Halina Voss')));
    expect((await controller('GET', `/companies/${company}/events?of=sign-ins`)).status).toBe(403);
    const { data } = await admin('GET', `/companies/${company}/events?of=sign-ins`);
    expect(data.events[0]).toMatchObject({ subject: 'sign-in', verb: 'signed in', person: 'Halina Voss', note: 'from 192.0.2.52' });
  });
});

it('somebody who lost password and second factor is let in again: by a new password alone, and nowhere else any more', async () => {
  const before = from('192.0.2.77');
  expect((await before('POST', '/session', right(kit))).status).toBe(200);
  await world.rows(`update person set totp_secret = 'JBSWY3DPEHPK3PXPJBSWY3DPEHPK3PXP' where email = $1`, kit);
  const { name, password: fresh } = await readmit(world.database.db, ` ${kit.toUpperCase()}`, clock);
  expect(name).toBe('Kit Arden');
  expect((await before('GET', '/session')).data).toMatchObject({ me: null });
  expect((await from('192.0.2.78')('POST', '/session', right(kit))).status, 'the lost password').toBe(401);
  expect((await from('192.0.2.79')('POST', '/session', { email: kit, password: fresh })).status).toBe(200);
  const [event] = await world.rows(`select verb, source, note from event where company_id is null and verb = 'let in again'`);
  expect(event).toEqual({ verb: 'let in again', source: 'operator', note: 'Kit Arden: new password, no second factor' });
  await expect(readmit(world.database.db, 'nobody@marrowby.example', clock)).rejects.toThrow(
    'Nobody here has the address nobody@marrowby.example.',
  );
});
