import { Changed, Nothing, PersonView, ViewList } from '@ledgerline/contract';
import type { Api } from '../http/define.ts';
import { keepPersonViews, personViews } from './person.ts';
import { changeView, newView, removeView, viewsFor } from './service.ts';

export function viewRoutes(api: Api): void {
  api.query(
    { path: '/views', access: 'bills:see', summary: 'Saved views: one’s own and the team’s', answer: ViewList },
    async ({ services, caller }) => ({ views: await viewsFor(services.database.db, caller.company.id, caller.me.id) }),
  );
  api.command({ method: 'post', path: '/views', summary: 'Save a view', answer: Changed }, newView);
  api.command({ method: 'put', path: '/views/:id', summary: 'Change a view of one’s own', answer: Nothing }, changeView);
  api.command({ method: 'delete', path: '/views/:id', summary: 'Remove a view of one’s own', answer: Nothing }, removeView);
  api.query(
    { path: '/you/views', access: 'signed-in', summary: 'How you look at the desk and at lists', answer: PersonView },
    ({ services, caller }) => personViews(services.database.db, caller.me.id),
  );
  api.open(
    { method: 'put', path: '/you/views', access: 'signed-in', summary: 'Keep how you look at a place', body: PersonView, answer: Nothing },
    async ({ services, caller, body }) => {
      await keepPersonViews(services.database.db, caller.me.id, body);
      return {};
    },
  );
}
