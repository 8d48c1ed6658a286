import type { Route } from './define.ts';

/** The API in OpenAPI 3.1, made from the routes themselves. */
export function openApi(routes: Route[]): object {
  const paths: Record<string, Record<string, object>> = {};
  for (const { method, path, access, summary, body, query, answer } of routes) {
    const whole = `/api${access === 'public' || access === 'signed-in' ? '' : '/companies/{companyId}'}${path.replace(/:(\w+)/g, '{$1}')}`;
    (paths[whole] ??= {})[method] = {
      summary,
      'x-permission': access,
      parameters: [...whole.matchAll(/\{(\w+)\}/g)]
        .map((m) => ({ name: m[1], in: 'path', required: true, schema: { type: 'string' } }))
        .concat(
          query
            ? Object.keys((query as unknown as { properties: object }).properties).map((name) => ({
                name,
                in: 'query',
                required: false,
                schema: { type: 'string' },
              }))
            : [],
        ),
      ...(body ? { requestBody: { content: { 'application/json': { schema: body } } } } : {}),
      responses: {
        200: { description: 'Done', ...(answer ? { content: { 'application/json': { schema: answer } } } : {}) },
        default: { description: 'A problem (RFC 9457)' },
      },
    };
  }
  return { openapi: '3.1.0', info: { title: 'Ledgerline', version: '1' }, paths };
}
