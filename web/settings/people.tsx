import { Users } from 'lucide-react';
import { NewPerson, roles, SetRoles, type PersonRow, type Role } from '@ledgerline/contract';
import { usePlace } from '../app/company';
import type { Column } from '../ui/data-table';
import { FormField } from '../ui/form';
import { FormDialog } from '../ui/form-dialog';
import { money } from '../ui/format';
import { settingsApi } from './api';
import { ListArea } from './list-area';

const does: Record<Role, string> = {
  clerk: 'reviews and codes bills',
  approver: 'approves or returns them',
  controller: 'posts, closes periods, verifies bank details',
  administrator: 'people and settings',
};
const columnsOf = (base: string): Column<PersonRow>[] => [
  { id: 'name', head: 'Name', cell: (p) => <span className="font-medium">{p.name}</span> },
  { id: 'title', head: 'Title', width: 180, minor: true, cell: (p) => p.title },
  { id: 'email', head: 'Mail address', width: 220, minor: true, cell: (p) => p.email },
  { id: 'roles', head: 'Roles', width: 190, cell: (p) => p.roles.join(', ') },
  {
    id: 'limits',
    head: 'Codes and approves',
    width: 210,
    minor: true,
    cell: (p) => limitsOf(p, base) || <span className="quiet">all</span>,
  },
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
        saves="people"
        rows={{ rows: currentData?.people ?? [], loading: !currentData && !error, error }}
        columns={columnsOf(company.baseCurrency)}
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

/** A person's roles here, and what they code and approve. */
function RolesForm({ person, close }: { person: PersonRow; close(): void }) {
  const { company } = usePlace();
  const [set] = settingsApi.useSetRolesMutation();
  return (
    <FormDialog
      title={person.name}
      schema={SetRoles}
      values={{ roles: person.roles as Role[], range: person.range }}
      action="Save"
      send={(body) => set({ company: company.id, id: person.id, body }).unwrap().then(close)}
      close={close}
    >
      {(form) => (
        <>
          <RoleTicks chosen={form.watch('roles') as Role[]} change={(next) => form.setValue('roles', next)} />
          <p className="text-[13px] quiet">Without a role they are not part of {company.name} any more; what they did stays.</p>
          <div className="grid grid-cols-2 gap-x-3">
            <FormField
              form={form}
              name="range.accounts"
              label="Codes and approves accounts"
              empty="null"
              hint="6100 to 6199, 63*; empty: all"
            />
            <FormField form={form} name="range.costCentres" label="and cost centres" empty="null" hint="200 to 299; empty: all" />
          </div>
          <FormField
            form={form}
            name="range.most"
            label={`Approves bills up to, in ${company.baseCurrency}`}
            empty="null"
            hint="With tax; empty: any amount"
          />
        </>
      )}
    </FormDialog>
  );
}

/** "6100 to 6199 · up to 500.00": the limits of what a person codes and approves. */
const limitsOf = ({ range: { accounts, costCentres, most } }: PersonRow, base: string): string =>
  [accounts, costCentres && `cost centres ${costCentres}`, most && `up to ${money(most, base)}`].filter(Boolean).join(' · ');
