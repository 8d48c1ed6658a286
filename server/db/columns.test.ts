import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { expect, it } from 'vitest';

const root = fileURLToPath(new URL('..', import.meta.url));
const sources = readdirSync(root, { recursive: true, encoding: 'utf8' })
  .filter((f) => f.endsWith('.ts') && !f.endsWith('.test.ts') && !f.startsWith('testing'))
  .map((f) => ({ name: f, text: readFileSync(join(root, f), 'utf8') }));

/** Pieces of hand-written SQL that are fields of a select: `sql<…>\`…\`` and what stands in them. */
function fieldsOf(text: string): string[] {
  return [...text.matchAll(/sql<[^`]*>\s*`((?:[^`\\]|\\.)*)`/gs)].map((m) => m[1]!);
}

it('hand-written SQL among the fields of a select names each column with its table', () => {
  const bare = sources.flatMap(({ name, text }) =>
    fieldsOf(text).flatMap((field) =>
      [...field.matchAll(/\$\{(\w+\.\w+)\}/g)]
        .filter(([, column]) => !/^(caller|query|input|step)\./.test(column!))
        .map(([, column]) => `${name}: ${column}`),
    ),
  );
  expect(sources.length).toBeGreaterThan(60);
  expect(bare).toEqual([]);
});
it('finds one that does not', () => {
  const wrong = 'sql<number>`(select count(*) from bill b where b.supplier_id = ${supplier.id})`';
  expect(fieldsOf(wrong)[0]).toContain('${supplier.id}');
});
it('no SQL stands in routes: they hold HTTP alone', () => {
  const routes = sources.filter((s) => s.name.endsWith('routes.ts'));
  const with_sql = routes.filter(({ text }) => /from 'drizzle-orm'|\bsql`|\.insert\(|\.update\(|\.delete\(/.test(text)).map((s) => s.name);
  expect(routes.length).toBeGreaterThan(10);
  expect(with_sql).toEqual([]);
});
it('every write of the services is part of a unit of work: no transaction is begun elsewhere', () => {
  const own = sources
    .filter(({ name, text }) => /\.transaction\(/.test(text) && !['events/record.ts', 'db/client.ts'].includes(name))
    .map((s) => s.name);
  expect(own).toEqual([]);
});
