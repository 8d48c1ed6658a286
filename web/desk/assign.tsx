import { usePlace } from '../app/company';
import { billsApi } from '../bills/api';
import { Dialog, DialogEnd } from '../ui/dialog';

/** Into whose hands a bill goes: the people who work on bills here, the letters of a name lead to one. */
export function AssignDialog({ now, close, done }: { now: string | null; close(): void; done(personId: string | null): void }) {
  const { company, me } = usePlace();
  const { data } = billsApi.useColleaguesQuery({ company: company.id });
  const people = (data?.people ?? []).filter((p) => p.codes);
  const choices: { id: string | null; name: string }[] = [{ id: null, name: 'Nobody: back to the queue' }, ...people];
  return (
    <Dialog title="Into whose hands" close={close}>
      <ul
        key={people.length}
        aria-label="People"
        onKeyDown={(e) => {
          const step = e.key === 'ArrowDown' ? 1 : e.key === 'ArrowUp' ? -1 : 0;
          if (!step) return;
          e.preventDefault();
          const all = [...e.currentTarget.querySelectorAll('button')];
          all[(all.indexOf(document.activeElement as HTMLButtonElement) + step + all.length) % all.length]?.focus();
        }}
      >
        {choices.map(({ id, name }, i) => (
          <li key={id}>
            <button
              data-first={i === Math.min(1, choices.length - 1) || undefined}
              ref={i === 1 ? (b) => b?.focus() : undefined}
              className="w-full rounded px-3 py-1.5 text-left hover:bg-primary/10 focus:bg-primary/10"
              aria-current={id === now}
              onClick={() => done(id)}
            >
              {name}
              {id === me.id && ' (you)'}
              {id === now && <span className="ml-2 text-[13px] quiet">now</span>}
            </button>
          </li>
        ))}
      </ul>
      <DialogEnd close={close} leave="Cancel" />
    </Dialog>
  );
}
