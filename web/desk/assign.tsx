import { usePlace } from '../app/company';
import { billsApi } from '../bills/api';
import { Dialog } from '../ui/dialog';

/** Into whose hands a bill goes: the people who work on bills here, the letters of a name lead to one. */
export function AssignDialog({ now, close, done }: { now: string | null; close(): void; done(personId: string | null): void }) {
  const { company, me } = usePlace();
  const { data } = billsApi.useColleaguesQuery({ company: company.id });
  const people = (data?.people ?? []).filter((p) => p.codes);
  return (
    <Dialog title="Into whose hands" close={close}>
      <form
        onSubmit={(e) => {
          e.preventDefault();
          done(String(new FormData(e.currentTarget).get('person')) || null);
        }}
      >
        <select name="person" aria-label="Person" data-first className="select w-full" defaultValue={now ?? ''} key={people.length}>
          <option value="">Nobody: back to the queue</option>
          {people.map((p) => (
            <option key={p.id} value={p.id}>
              {p.name}
              {p.id === me.id ? ' (you)' : ''}
            </option>
          ))}
        </select>
        <div className="mt-4 flex justify-end gap-2">
          <button type="button" className="btn" onClick={close}>
            Cancel
          </button>
          <button className="btn btn-primary">Hand over</button>
        </div>
      </form>
    </Dialog>
  );
}
