import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { permissions } from '@ledgerline/contract';
import { mailOf, password } from '../testing/master.ts';
import { makeWorld, type World } from '../testing/world.ts';

let world: World;
beforeAll(async () => {
  world = await makeWorld();
});
afterAll(() => world.close());

async function cookieOf(name: string): Promise<string> {
  const email = mailOf(name);
  const answer = await world.api.app.request('/api/session', {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ email, password }),
  });
  return answer.headers.getSetCookie()[0]!.split(';')[0]!;
}
const ask = async (method: string, path: string, cookie = '', body?: object, headers: Record<string, string> = {}) => {
  const answer = await world.api.app.request(`/api${path}`, {
    method,
    headers: { cookie, 'content-type': 'application/json', ...headers },
    ...(body ? { body: JSON.stringify(body) } : {}),
  });
  return { status: answer.status, data: (await answer.json().catch(() => null)) as Record<string, unknown> };
};
const at = (code: string, path: string) => `/companies/${world.master.company(code).id}${path}`;

describe('access', () => {
  it('every route names its access, and only these are open to strangers', () => {
    expect(world.api.routes.every((r) => r.access === 'public' || r.access === 'signed-in' || r.access in permissions)).toBe(true);
    expect(
      world.api.routes
        .filter((r) => r.access === 'public')
        .map((r) => `${r.method} ${r.path}`)
        .sort(),
    ).toEqual(['delete /session', 'get /openapi.json', 'get /session', 'post /session', 'post /session/demo', 'post /setup']);
    expect(world.api.app.routes.filter((r) => r.method !== 'ALL').length).toBe(world.api.routes.length);
  });
  it('no company route answers a stranger', async () => {
    for (const route of world.api.routes.filter((r) => r.access !== 'public')) {
      const path = (route.access === 'signed-in' ? route.path : at('MBG', route.path)).replace(':id', world.master.company('MBG').id);
      expect((await ask(route.method.toUpperCase(), path, '', route.method === 'get' ? undefined : {})).status, route.path).toBe(401);
    }
  });
  it('nobody sees a company of which they are no member', async () => {
    expect((await ask('GET', at('MNT', '/bills'), await cookieOf('tobias'))).status).toBe(404);
  });
  it('a bill of another company is not found, whatever its id', async () => {
    const id = await world.build.bill({ company: 'MNT' });
    expect((await ask('GET', at('MBG', `/bills/${id}`), await cookieOf('ines'))).status).toBe(404);
    expect((await ask('GET', at('MNT', `/bills/${id}`), await cookieOf('ines'))).status).toBe(200);
  });
  it('roles are kept apart: a clerk neither approves nor posts, an approver does not edit', async () => {
    const id = await world.build.bill();
    expect((await ask('POST', at('MBG', `/bills/${id}/approve`), await cookieOf('ines'), { rowVersion: 1 })).status).toBe(403);
    expect((await ask('POST', at('MBG', '/postings'), await cookieOf('ines'), { key: '12345678', billIds: [id] })).status).toBe(403);
    expect((await ask('PATCH', at('MBG', `/bills/${id}`), await cookieOf('marguerite'), { rowVersion: 1, operations: [] })).status).toBe(
      403,
    );
  });
  it('a request from another site is refused', async () => {
    expect((await ask('DELETE', '/session', await cookieOf('ines'), undefined, { 'sec-fetch-site': 'cross-site' })).status).toBe(403);
  });
  it('a wrong password says one thing, and many of them have to wait', async () => {
    const wrong = () => ask('POST', '/session', '', { email: 'kit@marrowby.example', password: 'no' });
    expect((await wrong()).data['title']).toBe('This address and password do not go together.');
    for (let i = 0; i < 9; i++) await wrong();
    expect((await wrong()).status).toBe(429);
  });
  it('a bad form is a 400 that names the field', async () => {
    const answer = await ask('POST', at('MBG', '/suppliers'), await cookieOf('ines'), { name: 'x' });
    expect(answer.status).toBe(400);
    expect(answer.data['errors']).toEqual(expect.arrayContaining([expect.objectContaining({ path: 'name' })]));
  });
  it('setting up is refused once there is an organisation', async () => {
    expect(
      (
        await ask('POST', '/setup', '', {
          organisation: 'Second',
          company: 'Second',
          country: 'GB',
          name: 'Nobody',
          email: 'n@second.example',
          password: '0123456789',
        })
      ).status,
    ).toBe(409);
  });
});
