import { Changed, Guide, Nothing } from '@ledgerline/contract';
import type { Api } from '../http/define.ts';
import { newCompany } from './company.ts';
import { guideOf, setStep } from './guide.ts';

export function setupRoutes(api: Api): void {
  api.query(
    { path: '/guide', access: 'settings:see', summary: 'How far the company is from its first posted bill', answer: Guide },
    ({ services, caller }) => guideOf(services.database.db, caller.company.id),
  );
  api.command(
    { method: 'put', path: '/guide/:step', summary: 'Say that a step is fine, leave it out, or take it up again', answer: Nothing },
    setStep,
  );
  api.command({ method: 'post', path: '/companies', summary: 'One company more in the organisation', answer: Changed }, newCompany);
}
