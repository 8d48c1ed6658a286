import type { Hono } from 'hono';
import type { Answer } from './client.ts';

/** A browser without a screen: asks an API from the root and keeps the cookies that it is given. */
export function browser(app: Hono, always: Record<string, string> = {}) {
  const cookies = new Map<string, string>();
  const ask = async (method: string, path: string, body?: unknown, headers: Record<string, string> = {}): Promise<Answer> => {
    const answer = await app.request(`/api${path}`, {
      method,
      headers: {
        ...always,
        ...headers,
        cookie: [...cookies].map(([name, value]) => `${name}=${value}`).join('; '),
        'content-type': 'application/json',
      },
      ...(body === undefined ? {} : { body: JSON.stringify(body) }),
    });
    for (const cookie of answer.headers.getSetCookie()) {
      const [, name, value] = /^([^=]+)=([^;]*)/.exec(cookie)!;
      if (value) cookies.set(name!, value);
      else cookies.delete(name!);
    }
    return { status: answer.status, data: await answer.json().catch(() => null) };
  };
  return Object.assign(ask, { cookies });
}
