import { Bill, CheckList, ExceptionCauses, ExceptionList, ExceptionsQuery, Nothing, SettledMany } from '@ledgerline/contract';
import type { Api } from '../http/define.ts';
import { decodeCursor, nextOf } from '../http/cursor.ts';
import { exceptionSorts, openExceptions } from './list.ts';
import { exceptionCauses } from './open.ts';
import { settleMany } from './settle-many.ts';
import { verifyBill } from './verify.ts';
import { listChecks, setCheck } from './service.ts';

export function checkRoutes(api: Api): void {
  api.query(
    { path: '/checks', access: 'settings:see', summary: 'The checks, and what the company made of them', answer: CheckList },
    ({ services, caller }) => listChecks(services.database.db, caller.company.id),
  );
  api.query(
    {
      path: '/exceptions/causes',
      access: 'bills:see',
      summary: 'What is open by cause, and how often each check was right',
      answer: ExceptionCauses,
    },
    ({ services, caller }) => exceptionCauses(services.database.db, caller.company),
  );
  api.query(
    {
      path: '/exceptions',
      access: 'bills:see',
      summary: 'What is in doubt on bills under review',
      query: ExceptionsQuery,
      answer: ExceptionList,
    },
    async ({ services, caller, query }) => {
      const limit = query.limit ?? 100;
      const rows = await openExceptions(
        services.database.db,
        caller.company,
        caller.me.id,
        query,
        decodeCursor(query.cursor, exceptionSorts[query.sort ?? 'age'].shape),
        limit,
      );
      return { exceptions: rows.map((r) => r.row), next: nextOf(rows, limit, (last) => [last.key, last.row.id]) };
    },
  );
  api.command(
    { method: 'post', path: '/exceptions/settle', summary: 'Settle the same doubt on many bills', answer: SettledMany },
    settleMany,
  );
  api.command(
    { method: 'post', path: '/bills/:id/verify', summary: 'Say whom one asked about what holds a bill’s payment', answer: Bill },
    verifyBill,
  );
  api.command(
    { method: 'put', path: '/checks/:code', summary: 'Have a check stop, ask or be off', answer: Nothing, tried: true },
    setCheck,
  );
}
