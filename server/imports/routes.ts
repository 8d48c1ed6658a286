import { Type } from '@sinclair/typebox';
import {
  Changed,
  ExportQuery,
  FindingList,
  FindingsQuery,
  furtherLists,
  importLists,
  ImportRun,
  Nothing,
  SheetFormat,
  type ImportListName,
} from '@ledgerline/contract';
import { filesOf } from '../http/body.ts';
import type { Api } from '../http/define.ts';
import { notFound } from '../http/problems.ts';
import { tableOfList } from './export.ts';
import { furtherTables } from './further.ts';
import { savedAs } from './saved.ts';
import { bringIn, setMapping, takeFile } from './service.ts';
import { findingsOf, leftOut, showRun } from './store.ts';

const fileLimit = 30 * 1024 * 1024;
function listOf(name: string | undefined): ImportListName {
  const list = importLists.find((l) => l === name);
  if (!list) throw notFound('This list');
  return list;
}

export function importRoutes(api: Api): void {
  const { db } = api.services.database;
  api.raw(
    {
      method: 'post',
      path: '/imports/:list',
      access: 'settings:edit',
      summary: 'Look through a file with rows for a list (multipart, field "file"); nothing is changed',
      answer: Changed,
    },
    async ({ c, services, caller, params }) => {
      const list = listOf(params['list']);
      const [file] = await filesOf(c, 'file', fileLimit, 'This is more than 30 MB. Part the file.');
      return { id: await takeFile(services, caller, list, { name: file!.name, bytes: new Uint8Array(await file!.arrayBuffer()) }) };
    },
  );
  api.query({ path: '/imports/:id', access: 'settings:edit', summary: 'How an import stands', answer: ImportRun }, ({ caller, params }) =>
    showRun(db, caller.company.id, params['id']!),
  );
  api.query(
    {
      path: '/imports/:id/findings',
      access: 'settings:edit',
      summary: 'What is wrong in an import, by row and column',
      query: FindingsQuery,
      answer: FindingList,
    },
    async ({ caller, params, query }) => {
      const limit = query.limit ?? 100,
        after = /^\d{1,6}$/.test(query.cursor ?? '') ? Number(query.cursor) : 0;
      const findings = await findingsOf(db, caller.company.id, params['id']!, query, after);
      return { findings, next: findings.length < limit ? null : String(after + limit) };
    },
  );
  api.raw(
    {
      method: 'get',
      path: '/imports/:id/left-out',
      access: 'settings:edit',
      summary: 'The rows of an import that have errors, with what is wrong, as CSV or XLSX',
      query: Type.Object({ format: Type.Optional(SheetFormat) }),
    },
    async ({ services, caller, params, query }) =>
      savedAs(services, await leftOut(db, caller.company.id, params['id']!), query.format ?? 'csv', 'rows to put right'),
  );
  api.command({ method: 'put', path: '/imports/:id/mapping', summary: 'Say which field each column holds', answer: Nothing }, setMapping);
  api.command({ method: 'post', path: '/imports/:id/run', summary: 'Bring the rows in', answer: Nothing }, bringIn);
  api.raw(
    {
      method: 'get',
      path: '/lists/:list/file',
      access: 'settings:see',
      summary: 'People, distribution keys, rules, checks or the event log as CSV or XLSX',
      query: Type.Object({ format: SheetFormat }),
    },
    async ({ services, caller, params, query }) => {
      const list = furtherLists.find((l) => l === params['list']);
      if (!list) throw notFound('This list');
      return savedAs(services, await furtherTables[list](db, caller.company.id), query.format, list);
    },
  );
  api.raw(
    {
      method: 'get',
      path: '/exports/:list',
      access: 'settings:see',
      summary: 'A list as CSV or XLSX, as an import takes it',
      query: ExportQuery,
    },
    async ({ services, caller, params, query }) => {
      const list = listOf(params['list']);
      const table = await tableOfList(db, caller.company.id, list, query.q ?? '', query.empty === '1', query.dimension);
      return savedAs(services, table, query.format, list);
    },
  );
}
