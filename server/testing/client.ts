import { mailOf, password } from './master.ts';
import type { World } from './world.ts';

export interface Answer {
  status: number;
  data: any; // eslint-disable-line @typescript-eslint/no-explicit-any -- whatever came back, judged by the test
}

/** Asks the world's API as a person would through the browser; everything over HTTP, with a session of their own. */
export function clientOf(world: World) {
  const cookies = new Map<string, string>();
  async function cookieOf(name: string): Promise<string> {
    const known = cookies.get(name);
    if (known) return known;
    const answer = await world.api.app.request('/api/session', {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ email: mailOf(name), password }),
    });
    const cookie = answer.headers.getSetCookie()[0]!.split(';')[0]!;
    cookies.set(name, cookie);
    return cookie;
  }
  /** `as`: a first name, or null for a stranger; `path` below a company's, or from the root where it begins with "//". */
  return async function ask(as: string | null, method: string, path: string, body?: unknown, company = 'MBG'): Promise<Answer> {
    const answer = await world.api.app.request(
      path.startsWith('//') ? `/api${path.slice(1)}` : `/api/companies/${world.master.company(company).id}${path}`,
      {
        method,
        headers: { cookie: as ? await cookieOf(as) : '', 'content-type': 'application/json' },
        ...(body === undefined ? {} : { body: JSON.stringify(body) }),
      },
    );
    return { status: answer.status, data: await answer.json().catch(() => null) };
  };
}

/** Somebody of each role in the gardens. */
export const byRole: Record<string, string> = { clerk: 'Ines', approver: 'Marguerite', controller: 'Halina', administrator: 'Kit' };
