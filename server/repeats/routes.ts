import { Changed, Nothing, RepeatList } from '@ledgerline/contract';
import type { Api } from '../http/define.ts';
import { changeRepeat, newRepeat } from './service.ts';
import { listRepeats } from './store.ts';

export function repeatRoutes(api: Api): void {
  api.query(
    { path: '/repeats', access: 'bills:see', summary: 'Bills that repeat, what comes next first', answer: RepeatList },
    async ({ services, caller }) => ({ repeats: await listRepeats(services.database.db, caller.company.id) }),
  );
  api.command({ method: 'post', path: '/repeats', summary: 'Make a bill repeat', answer: Changed }, newRepeat);
  api.command({ method: 'put', path: '/repeats/:id', summary: 'Change or end a bill that repeats', answer: Nothing }, changeRepeat);
}
