import { Changed, Colleagues, Nothing, PersonList } from '@ledgerline/contract';
import type { Api } from '../http/define.ts';
import { newPerson, setRoles } from './service.ts';
import { colleaguesOf, listPeople } from './store.ts';

export function peopleRoutes(api: Api): void {
  api.query(
    { path: '/people', access: 'settings:see', summary: 'The company’s people and their roles', answer: PersonList },
    ({ services, caller }) => listPeople(services.database.db, caller.company.id),
  );
  api.query(
    { path: '/colleagues', access: 'bills:see', summary: 'The company’s people by name', answer: Colleagues },
    ({ services, caller }) => colleaguesOf(services.database.db, caller.company.id),
  );
  api.command({ method: 'post', path: '/people', summary: 'A new person, or somebody from another company', answer: Changed }, newPerson);
  api.command({ method: 'put', path: '/people/:id/roles', summary: 'Set a person’s roles in this company', answer: Nothing }, setRoles);
}
