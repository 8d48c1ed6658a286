import { Today } from '@ledgerline/contract';
import type { Api } from '../http/define.ts';
import { today } from '../services.ts';
import { todayFor } from './store.ts';

export function todayRoutes(api: Api): void {
  api.query(
    { path: '/today', access: 'bills:see', summary: 'What waits for me, what came in, what falls due', answer: Today },
    ({ services, caller }) => todayFor(services.database.db, caller, today(services)),
  );
}
