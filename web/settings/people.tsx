import { Users } from 'lucide-react';
import { useState } from 'react';
import { toast } from 'sonner';
import { NewPerson, roles, type PersonRow, type Role } from '@ledgerline/contract';
import { sentenceOf } from '../app/api';
import { usePlace } from '../app/company';
import type { Column } from '../ui/data-table';
import { Dialog, DialogEnd } from '../ui/dialog';
import { FormField } from '../ui/form';
import { FormDialog } from '../ui/form-dialog';
import { settingsApi } from './api';
import { ListArea } from './list-area';

const does: Record<Role, string> = {
  clerk: 'reviews and codes bills',
  approver: 'approves or returns them',
  controller: 'posts, closes periods, verifies bank details',
  administrator: 'people and settings',
};
const columns: Column<PersonRow>[] = [
  { id: 'name', head: 'Name', cell: (p) => <span className="font-medium">{p.name}</span> },
  { id: 'title', head: 'Title', width: 210, minor: true, cell: (p) => p.title },
  { id: 'email', head: 'Mail address', width: 240, minor: true, cell: (p) => p.email },
  { id: 'roles', head: 'Roles', width: 230, cell: (p) => p.roles.join(', ') },
];

export function PeopleArea() {
  const { company, can } = usePlace();
  const { currentData, error } = settingsApi.usePeopleQuery({ company: company.id });
  return (
    <>
      <ListArea
        title="People"
        detail={`Who works in ${company.name}. Nobody approves a bill that they worked on`}
        what="person"
        rows={{ rows: currentData?.people ?? [], loading: !currentData && !error, error }}
        columns={columns}
        rowId={(p) => p.id}
        {...(can('people:edit')
          ? {
              form: (row: PersonRow | null, close: () => void) =>
                row ? <RolesForm person={row} close={close} /> : <PersonForm close={close} />,
            }
          : {})}
      />
      {currentData?.lonely && (
        <p role="status" className="flex shrink-0 items-center gap-2 border-t-2 border-warning bg-warning/10 px-6 py-2">
          <Users size={16} aria-hidden />
          Nobody here could approve what another has coded: a second person is needed. Add one, with the role clerk or approver.
        </p>
      )}
    </>
  );
}

function RoleTicks({ chosen, change }: { chosen: Role[]; change(next: Role[]): void }) {
  return (
    <fieldset>
      <legend className="text-[13px] quiet">Roles</legend>
      {roles.map((role) => (
        <label key={role} className="flex items-center gap-2 py-0.5 text-[14px]">
          <input
            type="checkbox"
            className="checkbox checkbox-sm"
            checked={chosen.includes(role)}
            onChange={(e) => change(e.target.checked ? [...chosen, role] : chosen.filter((r) => r !== role))}
          />
          {role} <span className="text-[13px] quiet">{does[role]}</span>
        </label>
      ))}
    </fieldset>
  );
}

function PersonForm({ close }: { close(): void }) {
  const { company } = usePlace();
  const [make] = settingsApi.useNewPersonMutation();
  return (
    <FormDialog
      title="New person"
      schema={NewPerson}
      values={{ name: '', email: '', title: null, password: '', roles: ['approver'] }}
      action="Add person"
      send={(body) => make({ company: company.id, body }).unwrap().then(close)}
      close={close}
    >
      {(form) => (
        <>
          <div className="grid grid-cols-2 gap-x-3 gap-y-2">
            <FormField form={form} name="name" label="Name" autoFocus />
            <FormField form={form} name="title" label="Title" empty="null" />
            <FormField form={form} name="email" label="Mail address" hint="They sign in with it" />
            <FormField
              form={form}
              name="password"
              label="First password"
              type="password"
              hint="Ten characters or more; tell them yourself"
            />
          </div>
          <RoleTicks chosen={form.watch('roles') as Role[]} change={(next) => form.setValue('roles', next)} />
        </>
      )}
    </FormDialog>
  );
}

function RolesForm({ person, close }: { person: PersonRow; close(): void }) {
  const { company } = usePlace();
  const [set, { isLoading }] = settingsApi.useSetRolesMutation();
  const [chosen, choose] = useState(person.roles as Role[]);
  return (
    <Dialog title={person.name} close={close}>
      <form
        className="space-y-2"
        onSubmit={(e) => {
          e.preventDefault();
          set({ company: company.id, id: person.id, roles: chosen })
            .unwrap()
            .then(close, (error) => toast.error(sentenceOf(error)));
        }}
      >
        <RoleTicks chosen={chosen} change={choose} />
        <p className="text-[13px] quiet">Without a role they are not part of {company.name} any more; what they did stays.</p>
        <DialogEnd close={close} action="Save" busy={isLoading} />
      </form>
    </Dialog>
  );
}
