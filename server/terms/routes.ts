import { Changed, TermsList } from '@ledgerline/contract';
import type { Api } from '../http/define.ts';
import { changeTerms, newTerms } from './service.ts';
import { listedTerms } from './store.ts';

export function termsRoutes(api: Api): void {
  api.query(
    { path: '/terms', access: 'bills:see', summary: 'The company’s own payment terms, by code', answer: TermsList },
    async ({ services, caller }) => ({ terms: await listedTerms(services.database.db, caller.company.id) }),
  );
  api.command({ method: 'post', path: '/terms', summary: 'New payment terms', answer: Changed }, newTerms);
  api.command({ method: 'put', path: '/terms/:id', summary: 'Change or close payment terms', answer: Changed }, changeTerms);
}
