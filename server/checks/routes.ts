import { CheckList, Nothing } from '@ledgerline/contract';
import type { Api } from '../http/define.ts';
import { listChecks, setCheck } from './service.ts';

export function checkRoutes(api: Api): void {
  api.query(
    { path: '/checks', access: 'settings:see', summary: 'The checks, and what the company made of them', answer: CheckList },
    ({ services, caller }) => listChecks(services.database.db, caller.company.id),
  );
  api.command(
    { method: 'put', path: '/checks/:code', summary: 'Have a check stop, ask or be off', answer: Nothing, tried: true },
    setCheck,
  );
}
